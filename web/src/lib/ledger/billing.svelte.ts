import { api, ask, type Schemas } from '$lib/api';
import { Latest, overMany, plain, saysOf } from '$lib/shared';

export type ToInvoice = Schemas['ToInvoiceRow'];

/** What is to be invoiced: chosen, and issued, one or many. */
export class BillingState {
  readonly latest = new Latest<Schemas['ToInvoiceView']>();
  view = $derived.by(() => this.latest.value);
  at = $state(0);
  problem = $state('');
  done = $state('');
  busy = $state('');
  #turned = $state<readonly string[]>([]);

  rows = $derived.by(() => this.view?.orders ?? []);
  current = $derived.by(() => this.rows[Math.min(this.at, this.rows.length - 1)]);
  chosen = $derived.by(() => this.rows.filter(this.isChosen));
  /** What waits beyond the rows that are shown goes along with them. */
  more = $derived.by(() => this.view?.more ?? []);
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

  /** What is one row: an order, or all of a buyer in a month. */
  keyOf = (row: ToInvoice) => (row.collected ? `${row.collected.buyer} ${row.currency} ${row.collected.until}` : row.order);

  /** What is ready is chosen until somebody says otherwise: what went, and months that are over; services are done when somebody says so. */
  isChosen = (row: ToInvoice) => this.#turned.includes(this.keyOf(row)) !== row.isReady;

  choose = (row: ToInvoice | undefined) => {
    if (!row) return;
    const key = this.keyOf(row);
    this.#turned = this.#turned.includes(key) ? this.#turned.filter((k) => k !== key) : [...this.#turned, key];
  };

  async #collect(row: ToInvoice) {
    this.busy = `${row.buyer}…`;
    const { buyer, until, orders } = row.collected!;
    const made = await ask(api.POST('/api/invoices/collected', { body: { buyer, currency: row.currency, until } }));
    this.done = [this.done, `${made.map((m) => m.number).join(' ')} for ${plain(orders)} ${orders === 1 ? 'order' : 'orders'} of ${row.buyer}`]
      .filter(Boolean)
      .join(' · ');
  }

  load = () => this.latest.ask(() => ask(api.GET('/api/invoices/due')), 'What is to be invoiced could not be loaded.');

  go = (step: number) => (this.at = Math.max(0, Math.min(this.rows.length - 1, this.at + step)));

  /** Issues an invoice for each that is chosen, one after the other on the server. */
  issue = async () => {
    if (!this.chosen.length || this.busy) return;
    const ids = [...this.chosen.filter((r) => !r.collected).map((r) => r.id), ...this.more];
    const months = this.chosen.filter((r) => r.collected);
    [this.problem, this.done] = ['', ''];
    try {
      if (ids.length) this.done = saysOf(await overMany('orders', 'invoice', ids, (words) => (this.busy = words)), 'invoiced');
      for (const row of months) await this.#collect(row);
    } catch (reason) {
      this.problem = reason instanceof Error ? reason.message : 'Nothing was invoiced.';
    }
    this.busy = '';
    await this.load();
  };
}
