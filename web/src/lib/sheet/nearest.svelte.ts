import { api, ask, type Schemas } from '$lib/api';

type Choice = Schemas['EntryChoiceView'];

/** Items that may be meant by what stands in the cell of a line, the nearest first. */
export class Nearest {
  choices = $state.raw<readonly Choice[]>([]);
  /** Place of the one that Enter takes; −1: what was typed. */
  pick = $state(-1);
  #asked = 0;
  #sheet: number;

  constructor(sheet: number) {
    this.#sheet = sheet;
  }

  look = async (text: string) => {
    const mine = ++this.#asked;
    this.pick = -1;
    if (text.trim().length < 2) {
      this.choices = [];
      return;
    }
    // Where nobody answers, a code can still be typed.
    const found = await ask(api.GET('/api/sheets/{id}/entry', { params: { path: { id: this.#sheet }, query: { q: text } } })).catch(() => null);
    if (mine === this.#asked) this.choices = (found?.choices ?? []).filter((c) => c.code !== null);
  };

  move = (step: number) => {
    if (this.choices.length) this.pick = Math.min(Math.max(-1, this.pick + step), this.choices.length - 1);
  };

  /** The code of what is picked; null where nothing is. */
  chosen = $derived(this.choices[this.pick]?.code ?? null);
}
