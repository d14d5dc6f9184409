import { api, ask, type Schemas } from '$lib/api';
import { Latest, overMany, saysOf } from '$lib/shared';

export type GoodsRow = Schemas['GoodsRow'];
type Shipment = Schemas['ShipmentBrief'];

/** What was released together, to be picked in one round; without a name what was released alone. */
export interface Wave {
  readonly name: string;
  readonly shipments: readonly Shipment[];
}

/** What goes with one carrier. */
export interface CarrierGroup {
  readonly carrier: string;
  readonly carries: string;
  readonly cutOff: string;
  readonly rows: readonly GoodsRow[];
}

/** What may go from a warehouse: chosen, released and sent, one or many. */
export class GoodsState {
  readonly latest = new Latest<Schemas['GoodsView']>();
  view = $derived.by(() => this.latest.value);
  at = $state(0);
  problem = $state('');
  done = $state('');
  busy = $state('');
  /** Also what is to be taken from the shelves on later days. */
  later = $state(false);
  #off = $state<readonly number[]>([]);
  #on = $state<readonly number[]>([]);
  #warehouse: string | undefined;

  /** By carrier, the one who comes first in front; what nobody carries at the end. */
  groups = $derived.by((): CarrierGroup[] => {
    if (!this.view) return [];
    const { carriers, day, waiting } = this.view;
    const rows = waiting.filter((r) => this.later || r.leaves <= day);
    const named = carriers.map((c) => ({ carrier: c.code, carries: c.carries, cutOff: c.cutOff, rows: rows.filter((r) => r.carrier === c.code) }));
    const rest = rows.filter((r) => !carriers.some((c) => c.code === r.carrier));
    return [...named, { carrier: '', carries: 'nobody carries it yet', cutOff: '', rows: rest }].filter((g) => g.rows.length);
  });
  rows = $derived.by(() => this.groups.flatMap((g) => g.rows));
  ahead = $derived.by(() => (this.view ? this.view.waiting.filter((r) => r.leaves > this.view!.day).length : 0));
  /** What is being picked, wave by wave as they began. */
  waves = $derived.by((): Wave[] => {
    const all = this.view?.picking ?? [];
    const names = all.map((s) => s.wave).filter((name, at, names) => names.indexOf(name) === at);
    return names.map((name) => ({ name, shipments: all.filter((s) => s.wave === name) }));
  });
  /** What is released next is called so; empty: as it is counted. */
  wave = $state('');
  current = $derived.by(() => this.rows[Math.min(this.at, this.rows.length - 1)]);
  chosen = $derived.by(() => this.rows.filter((r) => this.isChosen(r)));
  weight = $derived.by(() => this.chosen.reduce((sum, r) => sum + (r.weightKg ?? 0), 0));

  /** What may go on the day is chosen until somebody says otherwise. */
  isChosen = (row: GoodsRow) => row.mayGo && (this.#on.includes(row.id) || (!this.#off.includes(row.id) && row.leaves <= (this.view?.day ?? '')));

  choose = (row: GoodsRow | undefined) => {
    if (!row?.mayGo) return;
    const is = this.isChosen(row);
    this.#on = is ? this.#on.filter((id) => id !== row.id) : [...this.#on, row.id];
    this.#off = is ? [...this.#off, row.id] : this.#off.filter((id) => id !== row.id);
  };

  load = (warehouse = this.#warehouse) => {
    this.#warehouse = warehouse;
    return this.latest.ask(() => ask(api.GET('/api/goods', { params: { query: warehouse ? { warehouse } : {} } })), 'The goods could not be loaded.');
  };

  go = (step: number) => (this.at = Math.max(0, Math.min(this.rows.length - 1, this.at + step)));

  /** Releases all that are chosen, to be picked in one round: one is alone, several are a wave. */
  release = async () => {
    const ids = this.chosen.map((r) => r.id);
    const wave = this.wave.trim() || (ids.length > 1 ? (this.view?.nextWave ?? '') : '');
    await this.#round('orders', 'release', ids, wave ? `released as wave ${wave}` : 'released to be picked', wave);
    // What was typed stays where nothing came of it.
    if (!this.problem) this.wave = '';
  };

  /** Sends all that are being picked, or those of a wave, as asked where nobody said otherwise. */
  sendAll = (shipments: readonly Shipment[] = this.view?.picking ?? []) =>
    this.#round(
      'shipments',
      'send',
      shipments.map((s) => s.id),
      'went',
    );

  /** Releases what lies there of one, though its buyer wants it otherwise: somebody says so. */
  releasePart = async (row: GoodsRow | undefined) => {
    if (!row?.could) return;
    await this.#do(async () => {
      const order = await ask(api.GET('/api/goods/{order}', { params: { path: { order: row.order } } }));
      const lines = order.lines.filter((l) => l.here > 0).map((l) => ({ key: l.key, quantity: l.here }));
      const made = await ask(api.POST('/api/goods/release', { body: { order: row.order, lines } }));
      this.done = `${made.join(', ')} is released with what lies there; the rest follows.`;
    });
  };

  async #round(kind: string, deed: string, ids: number[], what: string, given = '') {
    if (!ids.length || this.busy) return;
    await this.#do(async () => {
      const round = await overMany(kind, deed, ids, (words) => (this.busy = words), given);
      this.done = saysOf(round, what);
    });
    this.busy = '';
  }

  async #do(run: () => Promise<unknown>) {
    [this.problem, this.done] = ['', ''];
    try {
      await run();
    } catch (reason) {
      this.problem = reason instanceof Error ? reason.message : 'Nothing was changed.';
    }
    await this.load();
  }
}
