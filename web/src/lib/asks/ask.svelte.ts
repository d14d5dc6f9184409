import { api, ask, Refusal, type Schemas } from '$lib/api';
import { fixed, Latest, readNumber } from '$lib/shared';

type View = Schemas['AskView'];

/** One ask on the page where it is decided. */
export class AskState {
  readonly latest = new Latest<View>();
  problem = $state('');
  busy = $state(false);
  /** How far a grant goes where it goes less far than asked; as typed. */
  upTo = $state('');
  /** Until when a grant of credit holds; empty: a fortnight. */
  until = $state('');
  #id = 0;
  #onwards: (next: number | null) => void;

  /** @param onwards where one goes when this one is decided: the next, or the desk. */
  constructor(onwards: (next: number | null) => void) {
    this.#onwards = onwards;
  }

  view = $derived.by(() => this.latest.value);
  mine = $derived.by(() => this.view?.may.decide ?? false);
  /** The figure that a grant can go up to: the first that was asked about and can be less. */
  figure = $derived.by(() => this.view?.rulers.find((r) => r.asked && r.upTo !== null && r.upTo !== undefined));
  /** Where one thing is given, the button says how much of it. */
  only = $derived.by(() => {
    const given = this.view?.rulers.filter((r) => r.asked && r.moreIsWorse) ?? [];
    return given.length === 1 ? given[0] : undefined;
  });

  open = async (id: number) => {
    this.#id = id;
    [this.problem, this.upTo, this.until] = ['', '', ''];
    this.latest.take(null);
    await this.#load('It could not be opened.');
    this.upTo = this.figure?.upTo === null || this.figure?.upTo === undefined ? '' : fixed(this.figure.upTo, 1).replace(/\.0$/, '');
  };

  follow = () => this.#load();

  grant = () =>
    this.#decide(() => ask(api.POST('/api/asks/{id}/grant', { ...this.#path, body: { note: null, figure: null, upTo: null, until: this.until || null } })));

  grantUpTo = async () => {
    const most = readNumber(this.upTo.replace('%', ''));
    if (!this.figure || most === null) {
      this.problem = `“${this.upTo}” is not a number; nothing was decided.`;
      return;
    }
    const figure = this.figure.figure;
    await this.#decide(() => ask(api.POST('/api/asks/{id}/grant', { ...this.#path, body: { note: null, figure, upTo: most, until: this.until || null } })));
  };

  /** Throws the refusal: the dialog that the words were typed in says it. */
  sendBack = async (note: string, marks: number[]) => {
    const next = this.view?.place.next ?? null;
    await ask(api.POST('/api/asks/{id}/send-back', { ...this.#path, body: { note, marks } }));
    this.#onwards(next);
  };

  talk = async (words: string) => {
    const next = this.view?.place.next ?? null;
    const asking = this.mine;
    await ask(api.POST('/api/asks/{id}/talk', { ...this.#path, body: { words } }));
    if (asking) this.#onwards(next);
    else await this.#load();
  };

  passOn = (to: number) => this.#decide(() => ask(api.POST('/api/asks/{id}/pass-on', { ...this.#path, body: { to, note: null } })));

  withdraw = () =>
    this.#decide(
      () => ask(api.POST('/api/asks/{id}/withdraw', this.#path)),
      () => this.#load(),
    );

  /** Several at once; throws the refusal. */
  grantAll = async (asks: number[], note: string) => {
    await ask(api.POST('/api/asks/grant', { body: { asks, note } }));
    const left = this.view?.beside.find((b) => !asks.includes(b.id));
    this.#onwards(left?.id ?? null);
  };

  get #path() {
    return { params: { path: { id: this.#id } } };
  }

  #load = (otherwise?: string) => this.latest.ask(() => ask(api.GET('/api/asks/{id}', this.#path)), otherwise);

  // Decided twice by one press is decided once.
  #decide = async (run: () => Promise<unknown>, then?: () => Promise<unknown>) => {
    if (this.busy) return;
    this.busy = true;
    const next = this.view?.place.next ?? null;
    try {
      await run();
      this.problem = '';
      if (then) await then();
      else this.#onwards(next);
    } catch (reason) {
      this.problem = reason instanceof Refusal ? reason.message : 'It was not decided; try again.';
    } finally {
      this.busy = false;
    }
  };
}
