import { api, ask, type Schemas } from '$lib/api';
import type { SheetState } from './sheet.svelte';

type Notes = Schemas['MarginNotes'];

/** What is known of the line where the keys are: fetched a moment after they came to rest on it. */
export class LineNotes {
  #found = $state.raw<{ line: string; notes: Notes } | null>(null);
  #sheet: SheetState;

  constructor(sheet: SheetState) {
    this.#sheet = sheet;
    // Meets the server. What came for another line stands under none.
    $effect(() => {
      const { about, key } = this;
      if (key === null) return;
      const line = this.#here;
      let overtaken = false;
      const timer = setTimeout(() => {
        ask(api.GET('/api/sheets/{id}/lines/{key}/notes', { params: { path: { id: this.#sheet.view.id, key } } })).then(
          (notes) => !overtaken && (this.#found = { line, notes }),
          () => !overtaken && (this.#found = null),
        );
      }, 200);
      return () => {
        overtaken = true;
        clearTimeout(timer);
        void about;
      };
    });
  }

  key = $derived.by(() => (this.#sheet.focused?.kind === 'item' ? this.#sheet.focused.key : null));
  #here = $derived.by(() => `${this.#sheet.view.id}/${this.key}/${this.#sheet.focused?.code}`);
  /** Changes with whatever the notes hang on. */
  about = $derived.by(() => `${this.#here}/${this.#sheet.focused?.quantity}/${this.#sheet.focused?.unit}/${this.#sheet.focused?.net}`);
  now = $derived.by(() => (this.#found?.line === this.#here ? this.#found.notes : null));
}
