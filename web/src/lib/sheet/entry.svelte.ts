import { api, ask, type Schemas } from '$lib/api';
import type { SheetState } from './sheet.svelte';

type Choice = Schemas['EntryChoiceView'];
type Edit = Schemas['SheetEdit'];

/**
 * The line that is being typed: what the server understands of it, and which of the ways to understand it is chosen.
 * Only an answer for what stands there now is ever taken.
 */
export class EntryState {
  text = $state('');
  pick = $state(0);
  open = $state(false);
  /** What was typed and not taken, while something else stands in the field by now. */
  kept = $state('');
  #found = $state.raw<{ text: string; choices: Choice[]; currency: string } | null>(null);
  #asking: { text: string; answer: Promise<Choice[]> } | null = null;
  #adding: Promise<boolean> = Promise.resolve(true);
  #sheet: SheetState;

  constructor(sheet: SheetState) {
    this.#sheet = sheet;
  }

  /** A heading, a comment, a charge: nothing that is looked up. */
  isPlain = $derived(/^(#|\/\/|\+)/.test(this.text));
  choices = $derived(this.open && this.#found && !this.isPlain ? this.#found.choices : []);
  chosen = $derived<Choice | null>(this.choices[this.pick] ?? null);
  currency = $derived(this.#found?.currency ?? '');

  /** Asks what is meant by what stands there now. */
  look = async () => {
    const text = this.text;
    if (text.trim().length < 2 || this.isPlain) {
      this.#asking = this.#found = null;
      this.open = false;
      return;
    }
    this.open = true;
    const asking = { text, answer: this.#ask(text) };
    this.#asking = asking;
    const choices = await asking.answer;
    if (this.#asking !== asking) return;
    this.pick = 0;
    if (choices.length === 0) this.open = false;
  };

  move = (step: number) => {
    const many = this.choices.length;
    if (many > 0) this.pick = (this.pick + many + step) % many;
  };

  /** Puts what was not taken into the field again; what stands there waits in its place. */
  putBack = () => {
    [this.text, this.kept] = [this.kept, this.text.trim()];
    void this.look();
  };

  /** Leaves the list; what was typed stays. */
  close = () => {
    this.open = false;
  };

  /** Adds the line as it is understood, or as it is chosen; what the server does not take stands there again. */
  add = (): Promise<boolean> => {
    const typed = this.text.trim();
    if (!typed) return this.#adding;
    const known = this.#found?.text === this.text && this.open ? this.chosen : null;
    const asking = this.#asking?.text === this.text ? this.#asking.answer : null;
    [this.text, this.#asking, this.#found, this.open, this.pick] = ['', null, null, false, 0];
    // One after the other, in the order in which they were typed.
    const added = this.#adding.then(async () => {
      const choice = known ?? (await asking)?.[0] ?? null;
      if (await this.#sheet.edit([edit(typed, choice)])) return true;
      if (this.text) this.kept = typed;
      else this.text = typed;
      return false;
    });
    // What fails stops nothing that is typed behind it.
    this.#adding = added.catch(() => false);
    return added;
  };

  async #ask(text: string): Promise<Choice[]> {
    // Where nobody answers the line can still be added, as it was typed.
    const found = await ask(api.GET('/api/sheets/{id}/entry', { params: { path: { id: this.#sheet.view.id }, query: { q: text } } })).catch(() => null);
    if (found && this.#asking?.text === text) this.#found = { text, ...found };
    return found?.choices ?? [];
  }
}

function edit(typed: string, choice: Choice | null): Edit {
  if (typed.startsWith('#')) return { kind: 'addHeading', value: typed.slice(1).trim() };
  if (typed.startsWith('//')) return { kind: 'addComment', value: typed.slice(2).trim() };
  if (typed.startsWith('+')) return { kind: 'addCharge', value: typed.slice(1).trim() };
  return { kind: 'add', value: choice?.text ?? typed, field: choice?.code ?? '' };
}
