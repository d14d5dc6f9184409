import { api, ask, type Schemas } from '$lib/api';
import { Latest } from '$lib/shared';

export type CreditRow = Schemas['CreditRow'];

const SHOWN = {
  all: () => true,
  over: (r: CreditRow) => r.over > 0,
  willBeOver: (r: CreditRow) => r.willBeOver && r.over === 0,
  overdue: (r: CreditRow) => r.beyondGrace,
  held: (r: CreditRow) => r.held.length > 0,
  noLimit: (r: CreditRow) => r.limit === null,
} as const;

export type Shown = keyof typeof SHOWN;

/** The controller's list: which of it is shown, and where the keys are. */
export class CreditState {
  readonly #latest = new Latest<Schemas['CreditList']>();
  shown = $state<Shown>('all');
  find = $state('');
  #at = $state(0);

  list = $derived.by(() => this.#latest.value);
  problem = $derived.by(() => this.#latest.problem);
  rows = $derived.by(() => {
    const words = this.find.trim().toLowerCase();
    return (this.list?.rows ?? []).filter((r) => SHOWN[this.shown](r) && (!words || `${r.name} ${r.code}`.toLowerCase().includes(words)));
  });
  at = $derived.by(() => Math.min(this.#at, Math.max(0, this.rows.length - 1)));
  chosen = $derived.by(() => this.rows[this.at]);

  load = () => this.#latest.ask(() => ask(api.GET('/api/credit')), 'What buyers owe could not be loaded.');

  show = (shown: Shown) => ([this.shown, this.#at] = [this.shown === shown ? 'all' : shown, 0]);

  go = (step: number) => (this.#at = Math.min(this.rows.length - 1, Math.max(0, this.at + step)));

  /** How much of the limit a figure takes, in percent of the widest there is: 150 % of the limit. */
  static share = (value: number, row: CreditRow) => (row.limit ? Math.min(100, Math.max(0, (value / row.limit / 1.5) * 100)) : 0);
}
