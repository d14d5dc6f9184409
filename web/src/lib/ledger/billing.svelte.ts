import { api, ask, type Schemas } from '$lib/api';
import { Latest, overMany, saysOf } from '$lib/shared';

export type ToInvoice = Schemas['ToInvoiceRow'];

/** What is to be invoiced: chosen, and issued, one or many. */
export class BillingState {
  readonly latest = new Latest<Schemas['ToInvoiceView']>();
  view = $derived.by(() => this.latest.value);
  at = $state(0);
  problem = $state('');
  done = $state('');
  busy = $state('');
  #off = $state<readonly string[]>([]);

  rows = $derived.by(() => this.view?.orders ?? []);
  current = $derived.by(() => this.rows[Math.min(this.at, this.rows.length - 1)]);
  chosen = $derived.by(() => this.rows.filter(this.isChosen));
  /** What the chosen ones come to, by currency. */
  sums = $derived.by(() => {
    const currencies = this.chosen.map((r) => r.currency);
    return currencies
      .filter((c, i) => currencies.indexOf(c) === i)
      .map((currency) => ({
        currency,
        value: this.chosen.filter((r) => r.currency === currency).reduce((sum, r) => sum + Math.round(r.value * 1000), 0) / 1000,
      }));
  });

  /** All that went is chosen until somebody says otherwise. */
  isChosen = (row: ToInvoice) => !this.#off.includes(row.order);

  choose = (row: ToInvoice | undefined) => {
    if (!row) return;
    this.#off = this.isChosen(row) ? [...this.#off, row.order] : this.#off.filter((o) => o !== row.order);
  };

  load = () => this.latest.ask(() => ask(api.GET('/api/invoices/due')), 'What is to be invoiced could not be loaded.');

  go = (step: number) => (this.at = Math.max(0, Math.min(this.rows.length - 1, this.at + step)));

  /** Issues an invoice for each that is chosen, one after the other on the server. */
  issue = async () => {
    if (!this.chosen.length || this.busy) return;
    const ids = this.chosen.map((r) => r.id);
    [this.problem, this.done] = ['', ''];
    try {
      const round = await overMany('orders', 'invoice', ids, (words) => (this.busy = words));
      this.done = saysOf(round, 'invoiced');
    } catch (reason) {
      this.problem = reason instanceof Error ? reason.message : 'Nothing was invoiced.';
    }
    this.busy = '';
    await this.load();
  };
}
