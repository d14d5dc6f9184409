import { api, ask, type Schemas } from '$lib/api';
import { Latest } from '$lib/shared';

export type OwedBuyer = Schemas['OwedBuyer'];
export type OwedItem = Schemas['OwedItem'];

/** What buyers owe, by age: whom to remind, one or many. */
export class OwedState {
  readonly latest = new Latest<Schemas['OwedView']>();
  view = $derived.by(() => this.latest.value);
  at = $state(0);
  problem = $state('');
  done = $state('');
  busy = $state('');
  #off = $state<readonly number[]>([]);

  rows = $derived.by(() => this.view?.buyers ?? []);
  current = $derived.by(() => this.rows[Math.min(this.at, this.rows.length - 1)]);
  /** Those of whom a letter is due, and can go. */
  due = $derived.by(() => this.rows.filter((r) => r.step > 0 && r.hasAddress));
  chosen = $derived.by(() => this.due.filter(this.isChosen));

  /** Whom a letter is due is chosen until somebody says otherwise. */
  isChosen = (row: OwedBuyer) => !this.#off.includes(row.id);

  choose = (row: OwedBuyer | undefined) => {
    if (!row || !this.due.includes(row)) return;
    this.#off = this.isChosen(row) ? [...this.#off, row.id] : this.#off.filter((id) => id !== row.id);
  };

  load = () => this.latest.ask(() => ask(api.GET('/api/owed')), 'What is owed could not be loaded.');

  go = (step: number) => (this.at = Math.max(0, Math.min(this.rows.length - 1, this.at + step)));

  /** Writes to each that is chosen, one after the other; what cannot go is said, and the others go. */
  remind = async () => {
    if (this.busy || !this.chosen.length) return;
    const rows = this.chosen;
    const not: string[] = [];
    [this.problem, this.done] = ['', ''];
    for (const [i, row] of rows.entries()) {
      this.busy = `${i} of ${rows.length}`;
      try {
        await ask(api.POST('/api/owed/{buyer}/remind', { params: { path: { buyer: row.id } } }));
      } catch (reason) {
        not.push(`${row.name}: ${reason instanceof Error ? reason.message : 'not reminded'}`);
      }
    }
    this.busy = '';
    this.done = `${rows.length - not.length} reminded`;
    this.problem = not.join(' ');
    await this.load();
  };
}

/** The account of a buyer: what is open, money of theirs, and what is done about both. */
export class AccountState {
  readonly latest = new Latest<Schemas['AccountView']>();
  view = $derived.by(() => this.latest.value);
  at = $state(0);
  problem = $state('');
  done = $state('');

  constructor(readonly id: () => number) {}

  items = $derived.by(() => this.view?.items ?? []);
  current = $derived.by(() => this.items[Math.min(this.at, this.items.length - 1)]);
  /** By currency, what is open in all. */
  sums = $derived.by(() => {
    const currencies = this.items.map((i) => i.currency);
    return currencies
      .filter((c, i) => currencies.indexOf(c) === i)
      .map((currency) => ({
        currency,
        open: this.items.filter((i) => i.currency === currency).reduce((sum, i) => sum + Math.round(i.open * 1000), 0) / 1000,
      }));
  });

  go = (step: number) => (this.at = Math.max(0, Math.min(this.items.length - 1, this.at + step)));

  load = () => this.latest.ask(() => ask(api.GET('/api/owed/{buyer}', this.#path)), 'The account could not be loaded.');

  remind = () => this.#take(`a reminder went to ${this.view?.mail}`, () => ask(api.POST('/api/owed/{buyer}/remind', this.#path)));

  statement = () => this.#take(`a statement went to ${this.view?.mail}`, () => ask(api.POST('/api/owed/{buyer}/statement', this.#path)));

  /** Notes money; what of it is taken is what is open, the first due first. */
  receive = (amount: number, currency: string, day: string, how: string, words: string, account: boolean) =>
    ask(
      api.POST('/api/owed/{buyer}/receipts', {
        ...this.#path,
        body: { amount, currency, day, how, words, takes: account ? [] : this.takes(amount, currency) },
      }),
    ).then((view) => this.#now(view, 'noted'));

  takes(amount: number, currency: string): { number: string; amount: number }[] {
    let left = Math.round(amount * 1000);
    return this.items
      .filter((i) => i.currency === currency && i.open > 0)
      .map((i) => {
        const now = Math.min(left, Math.round(i.open * 1000));
        left -= now;
        return { number: i.number, amount: now / 1000 };
      })
      .filter((t) => t.amount > 0);
  }

  payBack = (document: string, amount: number, reason: string) =>
    ask(api.POST('/api/owed/{buyer}/pay-back', { ...this.#path, body: { document, amount, reason } })).then((view) => this.#now(view, 'paid back'));

  /** Takes what a note left over for the invoice that is due first in its currency. */
  setOff = (note: OwedItem) => {
    const invoice = this.items.find((i) => i.open > 0 && i.currency === note.currency);
    return this.#take(invoice ? `taken for ${invoice.number}` : '', () => {
      if (!invoice) throw new Error(`Nothing is open in ${note.currency} that it could be taken for.`);
      return ask(api.POST('/api/owed/{buyer}/set-off', { ...this.#path, body: { note: note.number, invoice: invoice.number } }));
    });
  };

  /** Says something of an item: that it is disputed, that this is settled, that its rest is written off. */
  say = async (what: 'dispute' | 'settle' | 'write-off', number: string, reason: string) => {
    await ask(api.POST(`/api/owed/${what}`, { body: { number, reason } }));
    await this.load();
  };

  get #path() {
    return { params: { path: { buyer: this.id() } } };
  }

  #now(view: Schemas['AccountView'], words: string) {
    this.latest.take(view);
    this.done = words;
  }

  async #take(words: string, run: () => Promise<Schemas['AccountView']>) {
    [this.problem, this.done] = ['', ''];
    try {
      this.#now(await run(), words);
    } catch (reason) {
      this.problem = reason instanceof Error ? reason.message : 'Nothing was changed.';
    }
  }
}
