import { api, ask, type Schemas } from '$lib/api';
import { fixed, Latest } from '$lib/shared';

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
  count = $derived.by(
    () =>
      (this.items.length < 2 ? NAMES[this.items.length] : `${NAMES[this.items.length] ?? this.items.length} things need you.`) +
      (this.ready.length ? ` ${this.ready.length} ${this.ready.length === 1 ? 'is' : 'are'} ready.` : ''),
  );
  ready = $derived.by(() => this.view?.ready ?? []);
  /** What the ready ones are worth, each currency apart: "14,210.00 EUR and 980.00 SEK". */
  readyWorth = $derived.by(() => {
    const sums: Record<string, number> = {};
    for (const one of this.ready) if (one.value !== null) sums[one.currency] = (sums[one.currency] ?? 0) + one.value;
    return Object.entries(sums)
      .map(([currency, value]) => `${fixed(value, 2)} ${currency}`)
      .join(' and ');
  });
  /** "6 orders and 2 quotes" */
  readyCount = $derived.by(() => {
    const orders = this.ready.filter((r) => r.isOrder).length;
    const many = (n: number, one: string) => (n ? [`${n} ${one}${n === 1 ? '' : 's'}`] : []);
    return [...many(orders, 'order'), ...many(this.ready.length - orders, 'quote')].join(' and ');
  });
  /** What became of those that were taken together; empty while nothing was. */
  took = $state('');
  taking = $state(false);
  today = $derived.by(() => (this.view ? longDay(this.view.today) : ''));

  static keyOf = (item: DeskItem) => item.kind + item.number + item.path;

  load = () => this.#latest.ask(() => ask(api.GET('/api/desk')), 'The desk could not be loaded.');

  /** Takes all that are ready, each on its own: what came between is left with its reason. */
  takeAll = async () => {
    if (this.taking || !this.ready.length) return;
    [this.taking, this.took] = [true, ''];
    try {
      let round = await ask(
        api.POST('/api/lists/{kind}/deeds', {
          params: { path: { kind: 'requests' } },
          body: { deed: 'take', given: '', ids: this.ready.map((r) => r.id), count: this.ready.length },
        }),
      );
      while (!round.over) {
        await new Promise((later) => setTimeout(later, 200));
        round = await ask(api.GET('/api/rounds/{id}', { params: { path: { id: round.id } } }));
      }
      const first = round.refused[0];
      this.took = `${round.done} taken${first ? `, ${round.notDone} not: ${first.number} ${first.words}` : ''}.`;
    } catch (reason) {
      this.took = reason instanceof Error ? reason.message : 'They were not taken.';
    } finally {
      this.taking = false;
      await this.load();
    }
  };

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
