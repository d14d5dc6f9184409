import { api, ask, send, type Schemas } from '$lib/api';
import { Latest } from '$lib/shared';

type View = Schemas['BankView'];
export type MayPay = Schemas['MayPay'];

const cents = (value: number) => Math.round(value * 1000);

/** Money that came: what needs somebody, what each of it may be for, and saying so. */
export class BankState {
  readonly latest = new Latest<View>();
  readonly one = new Latest<Schemas['ReceiptView']>();
  view = $derived.by(() => this.latest.value);
  problem = $state('');
  done = $state('');
  busy = $state(false);
  open = $state<number | null>(null);
  /** Of the invoices those that were ticked otherwise than proposed: their numbers; null: as proposed. */
  #ticked = $state<readonly string[] | null>(null);

  rows = $derived.by(() => this.view?.open ?? []);
  current = $derived.by(() => this.rows.find((r) => r.id === this.open) ?? this.rows[0]);
  /** What it pays, the oldest of the ticked ones first. */
  takes = $derived.by((): { number: string; amount: number }[] => {
    const seen = this.one.value;
    if (!seen) return [];
    if (this.#ticked === null) return seen.invoices.filter((i) => i.taken > 0).map((i) => ({ number: i.number, amount: i.taken }));
    let left = cents(seen.line.left);
    return seen.invoices
      .filter((i) => this.#ticked?.includes(i.number))
      .map((i) => {
        const amount = Math.min(left, cents(i.open));
        left -= amount;
        return { number: i.number, amount: amount / 1000 };
      })
      .filter((t) => t.amount > 0);
  });
  left = $derived.by(() => (cents(this.one.value?.line.left ?? 0) - this.takes.reduce((sum, t) => sum + cents(t.amount), 0)) / 1000);

  takenOf = (number: string) => this.takes.find((t) => t.number === number)?.amount ?? 0;

  tick = (number: string) => {
    const now = this.takes.map((t) => t.number);
    this.#ticked = now.includes(number) ? now.filter((n) => n !== number) : [...now, number];
  };

  /** Nothing is taken of it: it stays on account. */
  none = () => (this.#ticked = []);
  /** As proposed: the oldest first. */
  oldest = () => (this.#ticked = null);

  load = async () => {
    await this.latest.ask(() => ask(api.GET('/api/bank')), 'The money that came could not be loaded.');
    await this.look(this.current?.id ?? null);
  };

  look = async (id: number | null, buyer?: string) => {
    [this.open, this.#ticked] = [id, null];
    if (id !== null)
      await this.one.ask(
        () => ask(api.GET('/api/bank/{id}', { params: { path: { id }, query: buyer === undefined ? {} : { buyer } } })),
        'What it may be for could not be loaded.',
      );
  };

  go = (step: number) => {
    const at = this.rows.findIndex((r) => r.id === this.current?.id);
    const next = this.rows[Math.max(0, Math.min(this.rows.length - 1, at + step))];
    if (next && next.id !== this.open) void this.look(next.id);
  };

  /** Takes it as it is shown; the next one is open then. */
  take = () =>
    this.#do(async () => {
      const seen = this.one.value;
      if (!seen?.buyerId) throw new Error('Say first whose it is.');
      const body = { buyer: seen.buyerId, takes: this.takes, seen: seen.line.version };
      await ask(api.POST('/api/bank/{id}/apply', { params: { path: { id: seen.line.id } }, body }));
      this.done = this.takes.length ? `booked for ${this.takes.map((t) => t.number).join(', ')}` : 'it stays on account';
      this.open = null;
    });

  /** It is what a channel pays out of what it held for us; what it kept back are its fees. */
  payout = (fees: number) =>
    this.#do(async () => {
      const line = this.one.value?.line;
      if (!line) return;
      await ask(api.POST('/api/bank/{id}/payout', { params: { path: { id: line.id } }, body: { fees, seen: line.version } }));
      this.done = `booked as a payout of ${line.payer}`;
      this.open = null;
    });

  /** Takes in the first statement that lies there. */
  fetch = () => this.#do(async () => this.#say(await ask(api.POST('/api/bank/waiting'))));

  /** Takes in a statement that somebody has as a file. */
  file = (file: File) => this.#do(async () => this.#say(await send<Schemas['BankAnswer']>(`/api/bank/file?filename=${encodeURIComponent(file.name)}`, file)));

  #say(answer: Schemas['BankAnswer']) {
    const entries = answer.applied.map((a) => a.entry);
    const applied = entries.filter((entry, i) => entries.indexOf(entry) === i && !answer.open.some((o) => o.entry === entry)).length;
    this.done = `${applied} went by themselves, ${answer.open.length} ${answer.open.length === 1 ? 'needs' : 'need'} you${answer.known ? `, ${answer.known} were there already` : ''}`;
    this.open = null;
  }

  async #do(run: () => Promise<void>) {
    if (this.busy) return;
    [this.problem, this.done, this.busy] = ['', '', true];
    try {
      await run();
    } catch (reason) {
      this.problem = reason instanceof Error ? reason.message : 'Nothing was booked.';
    }
    this.busy = false;
    await this.load();
  }
}
