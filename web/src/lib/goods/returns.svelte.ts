import { api, ask, type Schemas } from '$lib/api';
import { Latest } from '$lib/shared';

export type ReturnView = Schemas['ReturnView'];

/** What comes back of an order. */
export class ReturnsState {
  readonly latest = new Latest<Schemas['OrderReturnsView']>();
  view = $derived.by(() => this.latest.value);
  problem = $state('');
  /** What is said of each line that is to come back, by its key. */
  asked = $state<Record<number, string>>({});

  constructor(
    readonly order: () => string,
    readonly moved: () => void,
  ) {}

  lines = $derived.by(() => this.view?.lines ?? []);
  /** Those that somebody has something to do with; the others are told in a word. */
  open = $derived.by(() => (this.view?.returns ?? []).filter((r) => !['settled', 'refused'].includes(r.state)));

  load = () =>
    this.latest.ask(() => ask(api.GET('/api/orders/{number}/returns', { params: { path: { number: this.order() } } })), 'What comes back could not be loaded.');

  ask = async (what: 'credit' | 'replacement', reason: string) => {
    const lines = this.lines.map((l) => ({ key: l.key, quantity: Number((this.asked[l.key] ?? '').replace(',', '.')) })).filter((l) => l.quantity > 0);
    const body = { lines, for: what, reason };
    this.#now(await ask(api.POST('/api/orders/{number}/returns', { params: { path: { number: this.order() } }, body })));
    this.asked = {};
  };

  decide = async (one: ReturnView, allow: boolean, words: string) =>
    this.#now(await ask(api.POST('/api/orders/{number}/returns/{no}/decide', { ...this.#path(one), body: { allow, words, seen: one.version } })));

  /** All that was to come is here: back to the shelf, or not. */
  take = (one: ReturnView, toStock: boolean) =>
    this.#do(async () => {
      const lines = one.lines.map((l) => ({ key: l.key, quantity: l.quantity, toStock: toStock ? l.quantity : 0 }));
      return ask(api.POST('/api/orders/{number}/returns/{no}/take', { ...this.#path(one), body: { lines, seen: one.version } }));
    });

  settle = (one: ReturnView) => this.#do(() => ask(api.POST('/api/orders/{number}/returns/{no}/settle', { ...this.#path(one), body: { seen: one.version } })));

  #path(one: ReturnView) {
    return { params: { path: { number: one.order, no: one.no } } };
  }

  #now(view: Schemas['OrderReturnsView']) {
    this.latest.take(view);
    this.moved();
  }

  async #do(run: () => Promise<Schemas['OrderReturnsView']>) {
    this.problem = '';
    try {
      this.#now(await run());
    } catch (reason) {
      this.problem = reason instanceof Error ? reason.message : 'Nothing was changed.';
      await this.load();
    }
  }
}
