import { api, ask, Refusal, type Schemas } from '$lib/api';
import { SvelteSet } from 'svelte/reactivity';
import { plain } from '$lib/shared';
import type { SheetState } from './sheet.svelte';

type Source = Schemas['SourceView'];
type Line = Schemas['SourceLineView'];

/** Where lines can be taken from, and which of them somebody wants. */
export class SourcesState {
  sources = $state.raw<Source[]>([]);
  source = $state.raw<Source | null>(null);
  lines = $state.raw<Line[]>([]);
  /** Places of the lines that are wanted. */
  wanted = new SvelteSet<number>();
  /** What is looked for in the catalogue. */
  words = $state('');
  /** Whether they come at the prices that they had then. */
  then = $state(false);
  problem = $state('');
  // By the text of the line: how many somebody typed.
  #counts = $state.raw<Readonly<Record<string, string>>>({});
  #sheet: SheetState;

  constructor(sheet: SheetState) {
    this.#sheet = sheet;
  }

  takeable = $derived(this.lines.flatMap((l, i) => (l.whyNot ? [] : [i])));
  hasThen = $derived(this.lines.some((l) => l.then !== null));
  /** Of what they usually take, and of the catalogue, one picks; a document or an assortment is taken whole, but for what is let go. */
  isPicked = $derived(this.source?.kind === 'usual' || this.source?.kind === 'catalogue');

  open = () =>
    this.#run(async () => {
      this.source = null;
      this.sources = await ask(api.GET('/api/sheets/{id}/sources', { params: { path: { id: this.#sheet.view.id } } }));
      if (this.sources[0]) await this.look(this.sources[0]);
    });

  look = async (of: Source) => {
    if (this.source === of) return;
    [this.source, this.lines, this.words, this.#counts, this.then] = [of, [], '', {}, false];
    this.wanted.clear();
    await this.fill();
    if (this.source === of && !this.isPicked) this.#want(this.takeable);
  };

  /** Fetches the lines. What is wanted already stays on top while somebody looks for more. */
  fill = () =>
    this.#run(async () => {
      const { source: of, words } = this;
      if (!of) return;
      const path = { id: this.#sheet.view.id, kind: of.kind, key: of.key };
      const found = await ask(api.GET('/api/sheets/{id}/sources/{kind}/{key}', { params: { path, query: { q: words || undefined } } }));
      if (this.source !== of || this.words !== words) return;
      const kept = this.lines.filter((_, i) => this.wanted.has(i));
      this.lines = [...kept, ...found.filter((l) => !this.isPicked || !kept.some((k) => k.text === l.text))];
      this.#want(kept.keys());
    });

  flip = (i: number) => (this.wanted.has(i) ? this.wanted.delete(i) : this.wanted.add(i));

  flipAll = () => this.#want(this.wanted.size === this.takeable.length ? [] : this.takeable);

  countOf = (line: Line) => this.#counts[line.text] ?? plain(line.quantity);

  /** Wants so many of a line. */
  count = (i: number, text: string) => {
    this.#counts = { ...this.#counts, [this.lines[i]!.text]: text };
    this.wanted.add(i);
  };

  /** Puts what is wanted on the sheet, as one step; false where it was not taken. */
  take = async (): Promise<boolean> => {
    const edits = [...this.wanted].toSorted((a, b) => a - b).map((i) => this.#edit(this.lines[i]!));
    if (edits.length === 0) return false;
    const taken = await this.#sheet.edit(edits);
    this.problem = taken ? '' : this.#sheet.problem;
    return taken;
  };

  /** Keeps the assortment that is looked at no more. */
  forget = () =>
    this.#run(async () => {
      await ask(api.DELETE('/api/sheets/assortments/{assortment}', { params: { path: { assortment: Number(this.source?.key) } } }));
      await this.open();
    });

  #want(places: Iterable<number>) {
    this.wanted.clear();
    for (const place of places) this.wanted.add(place);
  }

  #edit(l: Line): Schemas['SheetEdit'] {
    const text = this.then && l.then !== null ? l.then : l.text;
    if (l.kind === 'heading') return { kind: 'addHeading', value: text.replace(/^# /, '') };
    if (l.kind === 'comment') return { kind: 'addComment', value: text.replace(/^\/\/ /, '') };
    if (l.kind === 'charge') return { kind: 'addCharge', value: text.replace(/^\+ /, '') };
    const typed = this.#counts[l.text];
    return { kind: 'add', value: typed ? `${l.code} x ${typed}` : text, field: l.code };
  }

  async #run(act: () => Promise<void>) {
    this.problem = '';
    try {
      await act();
    } catch (reason) {
      this.problem = reason instanceof Refusal ? reason.message : 'That could not be looked up.';
    }
  }
}
