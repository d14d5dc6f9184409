import { api, ask, Refusal, type Schemas } from '$lib/api';
import { SheetState } from '$lib/sheet';

type View = Schemas['DocumentView'];
type Finding = Schemas['FindingView'];

/** A quote or an order with its sheet: where it stands, what comes next, and what can be done to the whole of it. */
export class DocumentState {
  doc = $state.raw<View>()!;
  readonly sheet: SheetState;
  problem = $state('');
  /** The stop that somebody is about to let pass. */
  waived = $state.raw<Finding | null>(null);
  /** Other accepted quotes that go into the same order. */
  turnWith = $state.raw<readonly string[]>([]);
  /** Whether the order is a frame, of which parts are called off. */
  onCall = $state(false);
  #load: () => Promise<View>;

  /** @param load fetches the document anew. */
  constructor(view: View, load: () => Promise<View>, mayWrite: boolean) {
    this.doc = view;
    this.#load = load;
    this.sheet = new SheetState(view.sheet, this.reload, mayWrite, ({ next, state, stateWords, tracks }) => {
      this.doc = { ...this.doc, next, state, stateWords, tracks };
    });
    [this.sheet.chosen, this.sheet.moreColumns] = [view.columns, view.moreColumns];
  }

  isOrder = $derived.by(() => this.doc.kind === 'order');
  number = $derived.by(() => this.doc.number);
  next = $derived.by(() => this.doc.next);
  /** What is wrong where the keys are, and with the whole. */
  findings = $derived.by(() => this.sheet.view.findings.filter((f) => f.line === this.sheet.line || f.line === null));
  /** The first of them that this person may let pass. */
  waivable = $derived.by(() => (this.isOrder && this.sheet.view.editable ? this.findings.find((f) => f.mayWaive) : undefined));
  /** The ways out of them. Two findings may have the same one; its key is the first one's until that is cured. */
  cures = $derived.by(() =>
    this.findings
      .flatMap((finding) => finding.cures.map((cure) => ({ key: cure.key.toLowerCase(), cure, finding })))
      .filter((c, i, all) => all.findIndex((o) => o.key === c.key) === i),
  );

  take = (fresh: View) => {
    this.doc = fresh;
    this.sheet.view = fresh.sheet;
  };

  reload = async () => this.take(await this.#load());

  /** Takes what others did, where there is anything: unless what is shown came later, or is what one did oneself. */
  follow = async () => {
    try {
      await this.sheet.settled();
      const newest = await ask(api.GET('/api/newest/{number}', this.#path()));
      const { id, version } = this.sheet.view;
      if (newest.sheet === id && newest.version <= version && newest.event <= this.doc.lastEvent) return;
      const fresh = await this.#load();
      if (fresh.sheet.version >= this.sheet.view.version) this.take(fresh);
    } catch {
      // The next change, or whatever is done here, says what is wrong.
    }
  };

  // What will happen is said first, on the version that is looked at.
  confirming = () => ask(api.GET('/api/orders/{number}/confirming', this.#path()));
  confirm = async () => this.take(await ask(api.POST('/api/orders/{number}/confirm', this.#seen())));
  goOn = () => this.#run(async () => this.take(await ask(api.POST('/api/orders/{number}/go-on', this.#path()))));
  change = () => this.#run(async () => this.take(await ask(api.POST('/api/orders/{number}/change', this.#path()))));
  /** An order of its own with the same lines, at the prices of today; null where it was refused. */
  copyOrder = async () => {
    let made: Schemas['DocumentRef'] | null = null;
    await this.#run(async () => void (made = await ask(api.POST('/api/orders/{number}/copy', this.#path()))));
    return made as Schemas['DocumentRef'] | null;
  };
  openAgain = () => this.#run(async () => this.take(await ask(api.POST('/api/orders/{number}/open-again', this.#path()))));
  leaveAsConfirmed = () => this.#run(async () => this.take(await ask(api.POST('/api/orders/{number}/leave-as-confirmed', this.#path()))));
  openLines = () => this.#run(async () => this.take(await ask(api.POST('/api/orders/{number}/open-lines', this.#path()))));
  closeLines = async (lines: number[], reason: string) =>
    this.take(await ask(api.POST('/api/orders/{number}/close-lines', { ...this.#seen(), body: { lines, reason } })));
  hold = async (reason: string) => this.take(await ask(api.POST('/api/orders/{number}/hold', { ...this.#path(), body: { reason } })));
  cancel = async (reason: string) => this.take(await ask(api.POST('/api/orders/{number}/cancel', { ...this.#seen(), body: { reason } })));
  revise = () => this.#run(async () => this.take(await ask(api.POST('/api/quotes/{number}/revise', this.#path()))));

  /** As it is put beside others: a quote with its revision. */
  name = $derived.by(() => (this.doc.revision ? `${this.doc.number}·${this.doc.revision}` : this.doc.number));

  /** A quote of its own with the same lines, at the prices of today; null where it was refused. */
  copy = async (toChoose: boolean) => {
    let made: Schemas['DocumentRef'] | null = null;
    await this.#run(async () => void (made = await ask(api.POST('/api/quotes/{number}/copy', { ...this.#path(), body: { revision: null, toChoose } }))));
    return made as Schemas['DocumentRef'] | null;
  };

  /** Makes an order of an accepted quote, with those chosen beside it; null where it was refused. */
  turn = async () => {
    let made: Schemas['DocumentRef'] | null = null;
    const body = { with: [...this.turnWith], onCall: this.onCall };
    await this.#run(async () => void (made = await ask(api.POST('/api/quotes/{number}/order', { ...this.#path(), body }))));
    return made as Schemas['DocumentRef'] | null;
  };

  // What dialogs do throws, so that the dialog says it and keeps what was typed.
  ask = async (why: string, urgent = false) => {
    const seen = { ...this.#seen(), body: { why, urgent } };
    this.take(await (this.isOrder ? ask(api.POST('/api/orders/{number}/ask', seen)) : ask(api.POST('/api/quotes/{number}/ask', seen))));
  };

  send = async (letter: Schemas['LetterView']) => this.take(await ask(api.POST('/api/quotes/{number}/send', { ...this.#seen(), body: letter })));

  withdraw = async (reason: string) => this.take(await ask(api.POST('/api/quotes/{number}/withdraw', { ...this.#path(), body: { reason } })));

  waive = async (reason: string, ...more: [ticked?: boolean, until?: string]) => {
    const { waived } = this;
    if (!waived) return;
    const body = { check: waived.check, line: waived.line, field: waived.field, reason, until: more[1] || null };
    this.take(await ask(api.POST('/api/orders/{number}/waive', { ...this.#path(), body })));
  };

  #path = () => ({ params: { path: { number: this.number } } });

  // What cannot be undone names the version that was looked at.
  #seen = () => ({ params: { path: { number: this.number }, header: { 'If-Match': `"${this.sheet.view.version}"` } } });

  async #run(act: () => Promise<void>) {
    this.problem = '';
    try {
      await act();
    } catch (reason) {
      this.problem = reason instanceof Refusal ? reason.message : 'Something went wrong here; nothing was changed.';
    }
  }
}
