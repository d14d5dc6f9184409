import { api, ask, type Schemas } from '$lib/api';
import { Latest } from '$lib/shared';

export type PlanRow = Schemas['PlanRow'];

/** Where demand is, and what moves if everything is promised anew. */
export class PlanningState {
  readonly latest = new Latest<Schemas['PlanningView']>();
  view = $derived.by(() => this.latest.value);
  find = $state('');
  shown = $state<'short' | 'late' | 'slipped' | 'all'>('short');
  at = $state(0);
  problem = $state('');
  done = $state('');
  rows = $derived.by(() => {
    const words = this.find.trim().toLowerCase();
    return (this.view?.rows ?? []).filter(
      (r) => PlanningState.is(r, this.shown) && (!words || `${r.code} ${r.words} ${r.warehouse}`.toLowerCase().includes(words)),
    );
  });
  chosen = $derived.by(() => this.rows[Math.min(this.at, this.rows.length - 1)]);

  static is = (row: PlanRow, what: PlanningState['shown']) =>
    what === 'all' || (what === 'short' ? row.shortFrom !== null : what === 'late' ? row.late > 0 : row.slipped > 0);

  count = (what: PlanningState['shown']) => (this.view?.rows ?? []).filter((r) => PlanningState.is(r, what)).length;

  load = () => this.latest.ask(() => ask(api.GET('/api/planning')), 'The planning could not be loaded.');

  go = (step: number) => (this.at = Math.max(0, Math.min(this.rows.length - 1, this.at + step)));

  show = (what: PlanningState['shown']) => ([this.shown, this.at] = [what, 0]);

  /** Promises everything anew; says what came of it. */
  anew = () =>
    this.#do(async () => {
      const done = await ask(api.POST('/api/planning/anew'));
      await this.load();
      this.done =
        done.lines === 0
          ? 'Nothing moved: everything can be kept.'
          : `${done.lines} promises of ${done.orders} orders moved; ${done.told} ${done.told === 1 ? 'buyer was' : 'buyers were'} told.`;
    });

  async #do(run: () => Promise<unknown>) {
    [this.problem, this.done] = ['', ''];
    try {
      await run();
    } catch (reason) {
      this.problem = reason instanceof Error ? reason.message : 'Nothing was changed.';
    }
  }
}

/** An item's outlook in one warehouse, and the planner's moves. */
export class OutlookState {
  readonly latest = new Latest<Schemas['OutlookView']>();
  view = $derived.by(() => this.latest.value);
  at = $state(0);
  problem = $state('');
  done = $state('');
  chosen = $derived.by(() => this.view?.waits[Math.min(this.at, this.view.waits.length - 1)]);
  #item = 0;
  #warehouse: string | undefined;

  load = (item = this.#item, warehouse = this.#warehouse) => {
    [this.#item, this.#warehouse] = [item, warehouse];
    const params = { path: { item }, query: warehouse ? { warehouse } : {} };
    return this.latest.ask(() => ask(api.GET('/api/planning/{item}', { params })), 'The outlook could not be loaded.');
  };

  /** The first that cannot be kept has the keys. */
  begin = async (item: number, warehouse?: string) => {
    await this.load(item, warehouse);
    this.at = Math.max(0, this.view?.waits.findIndex((w) => w.reliefs.length > 0) ?? 0);
  };

  go = (step: number) => (this.at = Math.max(0, Math.min((this.view?.waits.length ?? 1) - 1, this.at + step)));

  take = (commitment: number, relief: Schemas['ReliefView']) =>
    this.#do(async () => {
      const { told } = await ask(api.POST('/api/planning/reliefs', { body: { commitment, sign: relief.sign } }));
      this.done = `${relief.words}: done${told ? `, ${told} ${told === 1 ? 'buyer was' : 'buyers were'} told` : ''}.`;
    });

  askFor = (quantity: number, wanted: string) =>
    this.#do(async () => {
      const { code, warehouse } = this.view!;
      const { number } = await ask(api.POST('/api/planning/asked', { body: { item: code, warehouse, quantity, wanted } }));
      this.done = `${number} was written for purchasing and production.`;
    });

  count = (quantity: number, reason: string) =>
    this.#do(async () => {
      const { code, warehouse, row } = this.view!;
      await ask(api.POST('/api/planning/counted', { body: { item: code, warehouse, quantity, seen: row.onHand, reason } }));
      this.done = 'Counted.';
    });

  async #do(run: () => Promise<unknown>): Promise<boolean> {
    [this.problem, this.done] = ['', ''];
    try {
      await run();
      await this.load();
      return true;
    } catch (reason) {
      this.problem = reason instanceof Error ? reason.message : 'Nothing was changed.';
      // What was offered may be gone: what stands now is shown.
      await this.load();
      return false;
    }
  }
}
