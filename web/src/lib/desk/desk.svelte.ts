import { api, ask, type Schemas } from '$lib/api';
import { Latest } from '$lib/shared';

export type DeskItem = Schemas['DeskItem'];

const URGENCIES = [
  ['atOnce', 'at once'],
  ['today', 'today'],
  ['whenThereIsTime', 'when there is time'],
] as const;

const NAMES = ['Nothing needs you.', 'One thing needs you.', 'Two', 'Three', 'Four', 'Five', 'Six', 'Seven', 'Eight', 'Nine', 'Ten', 'Eleven', 'Twelve'];

/** "Thursday, 5 March" */
const longDay = (iso: string) => new Date(`${iso}T12:00:00`).toLocaleDateString('en-GB', { weekday: 'long', day: 'numeric', month: 'long' }).replace(' ', ', ');

/** What needs somebody, most urgent first, and which of it the keys are on. */
export class DeskState {
  readonly #latest = new Latest<Schemas['DeskView']>();
  // Which one is chosen is remembered by what it is: the list moves by itself.
  #focused = $state<string | null>(null);
  #pointer: { x: number; y: number } | null = null;

  view = $derived(this.#latest.value);
  problem = $derived(this.#latest.problem);

  groups = $derived.by(() =>
    URGENCIES.map(([urgency, name]) => ({ urgency, name, items: (this.view?.items ?? []).filter((i) => i.urgency === urgency) })).filter(
      (g) => g.items.length > 0,
    ),
  );
  items = $derived.by(() => this.groups.flatMap((g) => g.items));
  at = $derived.by(() =>
    Math.max(
      0,
      this.items.findIndex((i) => DeskState.keyOf(i) === this.#focused),
    ),
  );
  chosen = $derived.by(() => this.items[this.at]);
  /** "Three things need you." */
  count = $derived.by(() => (this.items.length < 2 ? NAMES[this.items.length] : `${NAMES[this.items.length] ?? this.items.length} things need you.`));
  today = $derived.by(() => (this.view ? longDay(this.view.today) : ''));

  static keyOf = (item: DeskItem) => item.kind + item.number + item.path;

  load = () => this.#latest.ask(() => ask(api.GET('/api/desk')), 'The desk could not be loaded.');

  go = (step: number) => {
    const item = this.items[Math.min(Math.max(0, this.at + step), this.items.length - 1)];
    if (item) this.focus(item);
  };

  focus = (item: DeskItem) => (this.#focused = DeskState.keyOf(item));

  /** A pointer that rests chooses nothing, though the list comes or moves under it. */
  point = (item: DeskItem, x: number, y: number) => {
    if (this.#pointer && (this.#pointer.x !== x || this.#pointer.y !== y)) this.focus(item);
    this.#pointer = { x, y };
  };
}
