import { api, ask, Refusal, type Schemas } from '$lib/api';
import type { SheetState } from './sheet.svelte';

type Reaches = Schemas['ReachesView'];

/** "What would it take?": tried on the server, which changes nothing by it. */
export class Reach {
  wish = $state('');
  problem = $state('');
  #found = $state.raw<Reaches | null>(null);
  #asked = 0;
  #sheet: SheetState;

  constructor(sheet: SheetState) {
    this.#sheet = sheet;
    // Meets the server: asked anew when the sheet or the wish is another, a moment after the last key.
    $effect(() => {
      void this.#sheet.view.version;
      const wish = this.wish;
      const timer = setTimeout(() => void this.ask(wish), 200);
      return () => clearTimeout(timer);
    });
  }

  now = $derived(this.#found);

  ask = async (wish: string) => {
    const mine = ++this.#asked;
    try {
      const found = await ask(api.GET('/api/sheets/{id}/reach', { params: { path: { id: this.#sheet.view.id }, query: { wish: wish || undefined } } }));
      if (mine === this.#asked) [this.#found, this.problem] = [found, ''];
    } catch (reason) {
      if (mine === this.#asked) this.problem = reason instanceof Refusal ? reason.message : 'It could not be worked out.';
    }
  };

  /** Does what the wish takes: one step, which undo takes back. */
  take = async () => {
    const edits = this.#found?.wish?.edits ?? [];
    if (edits.length && (await this.#sheet.edit(edits))) this.wish = '';
  };
}
