import { api, ask, send, type Schemas } from '$lib/api';
import { Latest } from '$lib/shared';

type Said = Schemas['WaySaid'];

const _tried: Partial<Record<Schemas['TriedKind']['kind'], { one: string; many: string; went: string; takes: (said: Said) => boolean; let: string }>> = {
  order: { one: 'order', many: 'orders', went: 'would have gone through', takes: (s) => s.through, let: 'orders' },
  requestForQuotation: {
    one: 'that asks for prices',
    many: 'that ask for prices',
    went: 'would have become quotes',
    takes: (s) => s.quotes === true,
    let: 'quotes',
  },
  change: { one: 'change', many: 'changes', went: 'would have been put onto their orders', takes: (s) => s.changes === true, let: 'changes' },
};

/** What is said of messages of one kind that rules were tried on, after how many of them went on. */
export const triedWords = (tried: Schemas['TriedKind'], said: Said | null) => {
  const words = _tried[tried.kind];
  if (!words) return `of ${tried.came}`;
  const unless = said && !words.takes(said) ? `, if ${words.let} were let` : '';
  return `of ${tried.came} ${tried.came === 1 ? words.one : words.many} ${words.went}${unless}`;
};

/** The ways in, the one that is open, its rules as they are written, and what they would have let through. */
export class WaysState {
  readonly list = new Latest<readonly Schemas['WayLine'][]>();
  readonly latest = new Latest<Schemas['WayView']>();
  readonly trial = new Latest<Schemas['WayTrial']>();
  readonly tested = new Latest<readonly Schemas['TestedMessage'][]>();
  problem = $state('');
  draft = $state<Said | null>(null);
  #channel = 'mail';
  /** Whose rule is written: null for all others'. */
  #buyer = $state<number | null>(null);

  view = $derived.by(() => this.latest.value);
  kept = $derived.by(() => (this.#buyer === null ? this.view?.rule : this.view?.buyers.find((b) => b.said.buyer === this.#buyer)) ?? null);
  changed = $derived.by(() => this.draft !== null && JSON.stringify(this.draft) !== JSON.stringify(this.kept?.said ?? null));
  whose = $derived.by(() => this.#buyer);

  load = async () => {
    await this.list.ask(() => ask(api.GET('/api/setup/ways')), 'The ways in could not be loaded.');
    if (this.list.value) await this.open(this.#channel);
  };

  open = async (channel: string) => {
    [this.#channel, this.problem] = [channel, ''];
    await this.latest.ask(() => ask(api.GET('/api/setup/ways/{channel}', { params: { path: { channel } } })), 'It could not be loaded.');
    this.pick(null);
  };

  /** Fetches it anew, with what is written kept. */
  refresh = async () => {
    await this.latest.ask(() => ask(api.GET('/api/setup/ways/{channel}', { params: { path: { channel: this.#channel } } })));
    if (!this.changed) this.pick(this.#buyer);
  };

  pick = (buyer: number | null) => {
    this.#buyer = buyer;
    this.draft = this.kept ? structuredClone($state.snapshot(this.kept.said) as Said) : null;
    void this.tryIt();
  };

  /** Begins a rule for one buyer, from what holds for all others. */
  begin = async (code: string) => {
    const usual = this.view?.rule.said;
    if (!usual || !code) return;
    const found = await ask(api.GET('/api/lists/{kind}', { params: { path: { kind: 'buyers' }, query: { filter: `code:${code}`, take: 1 } } }));
    const buyer = found.rows[0]?.id;
    if (buyer === undefined) return;
    if (this.view?.buyers.some((b) => b.said.buyer === buyer)) return this.pick(buyer);
    this.#buyer = buyer;
    this.draft = { ...structuredClone($state.snapshot(usual) as Said), buyer };
    void this.tryIt();
  };

  tryIt = async () => {
    if (!this.draft) return;
    const body = $state.snapshot(this.draft) as Said;
    await this.trial.ask(() => ask(api.POST('/api/setup/ways/{channel}/try', { params: { path: { channel: body.channel } }, body })));
  };

  save = () =>
    this.#do(async () => {
      const said = $state.snapshot(this.draft!) as Said;
      await ask(api.POST('/api/setup/ways', { body: { said, seen: this.kept?.version ?? 0 } }));
      await this.#anew(said.buyer);
    });

  drop = () =>
    this.#do(async () => {
      await ask(api.DELETE('/api/setup/ways/{channel}/{buyer}', { params: { path: { channel: this.#channel, buyer: this.#buyer! } } }));
      await this.#anew(null);
    });

  /** Writes what the way asks to be told. */
  tell = (name: string, text: string) => {
    if (this.draft) this.draft = { ...this.draft, settings: { ...this.draft.settings, [name]: text } };
  };

  /** What would come of a file; nothing of it is kept. */
  tryFile = async (file: File) => {
    const path = `/api/setup/ways/${encodeURIComponent(this.#channel)}/test?name=${encodeURIComponent(file.name)}`;
    await this.tested.ask(() => send<Schemas['TestedMessage'][]>(path, file), 'It could not be tried.');
  };

  runNow = () =>
    this.#do(async () => {
      await ask(api.POST('/api/setup/ways/{channel}/run', { params: { path: { channel: this.#channel } } }));
    });

  async #anew(buyer: number | null) {
    await this.latest.ask(() => ask(api.GET('/api/setup/ways/{channel}', { params: { path: { channel: this.#channel } } })));
    this.pick(buyer);
    await this.list.ask(() => ask(api.GET('/api/setup/ways')));
  }

  async #do(what: () => Promise<void>) {
    try {
      await what();
      this.problem = '';
    } catch (reason) {
      this.problem = reason instanceof Error ? reason.message : 'It was not done; what you wrote is still here.';
    }
  }
}
