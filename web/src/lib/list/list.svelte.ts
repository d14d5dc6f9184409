import { api, ask, type Schemas } from '$lib/api';

export type Kind = Schemas['KindView'];
export type Field = Schemas['RecordField'];
export type Row = Schemas['ListRow'];
type View = Schemas['SavedView'];
type Round = Schemas['RoundView'];

/** What came of a round, in words. */
export function saysOf(round: Round): string {
  const left = round.left > 0 ? `, ${round.left} ${round.over ? 'left' : 'to come'}` : '';
  if (round.notDone === 0) return `${round.done} done${left}.`;
  const not = round.refused.map((r) => `${r.number}: ${r.words}`).join(' ');
  return `${round.done} done, ${round.notDone} not${left}. ${not}`;
}

const PAGE = 100;

let kinds: Promise<Kind[]> | null = null;

/** The lists that there are with their fields, as this person may see and change them; asked once, until somebody else signs in. */
export function loadKinds(anew = false): Promise<Kind[]> {
  if (anew || !kinds) kinds = ask(api.GET('/api/lists'));
  return kinds;
}

/** A list as long as it may be: pages are fetched as they come into view, and the server filters, sorts and adds up. */
export class ListState {
  readonly kind: Kind;
  filter = $state('');
  /** Documents that are done with, too; for records the filter says it. */
  everything = $state(false);
  sort = $state<string | null>(null);
  down = $state(false);
  columns = $state.raw<string[]>([]);
  total = $state<number | null>(null);
  problem = $state('');
  /** What was done to many, in words. */
  done = $state('');
  /** What stands at the foot of each column, over all that fits. */
  foot = $state.raw<readonly string[]>([]);
  /** Whether everything that fits the filter is chosen, not only what was picked. */
  all = $state(false);
  at = $state(0);
  picked = $state.raw<readonly number[]>([]);
  views = $state.raw<readonly View[]>([]);
  #rows = $state.raw<Record<number, Row>>({});
  #asked: Record<number, boolean> = {};
  #generation = 0;
  #timer = 0;
  #watch: ReturnType<typeof setTimeout> | undefined;

  constructor(kind: Kind, filter = '') {
    this.kind = kind;
    this.filter = filter;
    this.columns = kind.fields.filter((f) => f.inList).map((f) => f.name);
  }

  fields = $derived.by(() => this.columns.map((c) => this.kind.fields.find((f) => f.name === c)!));

  /** The filter as the server is asked. */
  asked = $derived.by(() => (this.everything ? `${this.filter} ${this.kind.activeWord}:any`.trim() : this.filter));

  row = (index: number): Row | undefined => this.#rows[index];

  /** Begins anew, after another filter, order or set of columns. */
  restart = async () => {
    this.#generation++;
    this.#asked = {};
    this.at = 0;
    this.chooseNone();
    await Promise.all([this.#fetch(0, true), this.#feet()]);
  };

  /** Fetches anew what is there, because somebody changed something; whoever stood on a row stays on it, wherever it is now. */
  refresh = async () => {
    const generation = ++this.#generation;
    const pages = Object.keys(this.#asked).map(Number);
    const stood = this.#rows[this.at]?.id;
    this.#asked = {};
    await Promise.all([...pages.map((page) => this.#fetch(page, false)), this.#feet()]);
    if (generation !== this.#generation || stood === undefined) return;
    const now = Object.entries(this.#rows).find(([, row]) => row.id === stood);
    if (now) this.at = Number(now[0]);
    else this.at = Math.min(this.at, Math.max(0, (this.total ?? 1) - 1));
  };

  /** Takes what is typed into the filter; the server is asked when somebody paused. */
  type = (filter: string) => {
    this.filter = filter;
    clearTimeout(this.#timer);
    this.#timer = window.setTimeout(() => void this.restart(), 200);
  };

  toggleEverything = () => {
    this.everything = !this.everything;
    void this.restart();
  };

  /** Fetches what is not there yet of the rows from one to another. */
  show = (from: number, to: number) => {
    for (let page = Math.floor(from / PAGE); page <= Math.floor(to / PAGE); page++) void this.#fetch(page, false);
  };

  /** Goes some rows on or back; stays inside. */
  go = (step: number) => {
    this.at = Math.min(Math.max(0, this.at + step), Math.max(0, (this.total ?? 1) - 1));
  };

  sortBy = (name: string) => {
    if (this.sort === name) this.down = !this.down;
    else [this.sort, this.down] = [name, false];
    void this.restart();
  };

  toggleColumn = (name: string) => {
    this.columns = this.columns.includes(name) ? this.columns.filter((c) => c !== name) : [...this.columns, name];
    void this.restart();
  };

  /** How many are chosen. */
  chosen = $derived(this.all ? (this.total ?? 0) : this.picked.length);

  /** Whether rows can be chosen at all: there is something to do with them. */
  mayChoose = $derived.by(() => this.kind.mayChange || this.kind.deeds.length > 0);

  chooseAll = () => {
    this.picked = [];
    this.all = true;
  };

  chooseNone = () => {
    this.picked = [];
    this.all = false;
  };

  pick = (id: number) => {
    if (!this.mayChoose) return;
    this.all = false;
    this.picked = this.picked.includes(id) ? this.picked.filter((p) => p !== id) : [...this.picked, id];
  };

  /** The address of an export of what the list shows. */
  exportPath = (format: 'csv' | 'xlsx') => `/api/lists/${this.kind.name}/export?format=${format}&filter=${encodeURIComponent(this.asked)}`;

  /** The address of the chosen ones as one file to print; empty where they are no papers. */
  printPath = $derived.by(() =>
    ['quotes', 'orders'].includes(this.kind.name)
      ? `/api/lists/${this.kind.name}/print?${this.all ? `filter=${encodeURIComponent(this.asked)}` : `ids=${this.picked.join(',')}`}`
      : '',
  );

  /** What the chosen ones are to the server: the filter, with how many were seen to fit it, or their keys. */
  #which = () => (this.all ? { filter: this.asked, count: this.total ?? 0 } : { ids: [...this.picked], count: this.picked.length });

  /** Gives all chosen records the same value. */
  setAll = (field: string, value: string) =>
    this.#many('Nothing was changed.', async () => {
      const body = { ...this.#which(), values: { [field]: value } };
      const { changed } = await ask(api.POST('/api/records/{kind}/bulk', { params: { path: { kind: this.kind.name } }, body }));
      return `${changed} changed.`;
    });

  /** A round over many that goes on by itself. */
  round = $state.raw<Round | null>(null);

  /** Does something to all chosen documents; what cannot be done says why, and stays chosen. What takes long goes on by itself. */
  doAll = (deed: string, given: string) =>
    this.#many('Nothing was done.', async () => {
      const body = { ...this.#which(), deed, given };
      const round = await ask(api.POST('/api/lists/{kind}/deeds', { params: { path: { kind: this.kind.name } }, body }));
      if (!round.over) this.#follow(round);
      return saysOf(round);
    });

  /** Goes on watching a round that was under way before this page was opened. */
  findRound = async () => {
    try {
      const mine = await ask(api.GET('/api/rounds'));
      const here = mine.find((r) => r.kind === this.kind.name);
      if (here) this.#follow(here);
    } catch {
      // The list is as useful without it.
    }
  };

  stopRound = async () => {
    if (!this.round) return;
    try {
      this.round = await ask(api.POST('/api/rounds/{id}/stop', { params: { path: { id: this.round.id } } }));
    } catch (reason) {
      this.problem = reason instanceof Error ? reason.message : 'It goes on.';
    }
  };

  #follow = (round: Round) => {
    this.round = round;
    const look = async () => {
      try {
        const now = await ask(api.GET('/api/rounds/{id}', { params: { path: { id: round.id } } }));
        this.round = now.over ? null : now;
        if (now.over) {
          await this.restart();
          this.done = saysOf(now);
        } else this.#watch = setTimeout(() => void look(), 700);
      } catch (reason) {
        [this.round, this.problem] = [null, reason instanceof Error ? reason.message : 'How far it is could not be asked; it goes on.'];
      }
    };
    clearTimeout(this.#watch);
    this.#watch = setTimeout(() => void look(), 700);
  };

  /** Puts all chosen documents on a pile: one that is there, or a new one. */
  putOnPile = (pile: string | null, name: string, shared: boolean) =>
    this.#many('Nothing was put there.', async () => {
      const { ids, filter } = this.#which() as { ids?: number[]; filter?: string };
      const piles = await ask(api.POST('/api/piles/put', { body: { kind: this.kind.name, pile, name, shared, ids: ids ?? null, filter: filter ?? null } }));
      const on = piles.find((p) => (pile ? p.key === pile : p.name === name && p.mine));
      return `They lie on “${on?.name ?? name}”.`;
    });

  /** Takes the chosen ones off the pile that is looked at. */
  takeOffPile = () =>
    this.#many('They stay on the pile.', async () => {
      const { ids, filter } = this.#which() as { ids?: number[]; filter?: string };
      await ask(api.POST('/api/piles/take', { body: { kind: this.kind.name, pile: this.pile, shared: false, ids: ids ?? null, filter: filter ?? null } }));
      return 'They are off the pile.';
    });

  /** Key of the pile that the list is filtered by; empty for none. */
  pile = $derived.by(() => /(?:^|\s)pile:(\S+)/.exec(this.filter)?.[1] ?? '');

  #many = async (otherwise: string, run: () => Promise<string>) => {
    try {
      const done = await run();
      await this.restart();
      [this.done, this.problem] = [done, ''];
      return true;
    } catch (reason) {
      this.problem = reason instanceof Error ? reason.message : otherwise;
      return false;
    }
  };

  loadViews = async () => {
    try {
      this.views = await ask(api.GET('/api/views/{kind}', { params: { path: { kind: this.kind.name } } }));
    } catch (reason) {
      this.problem = reason instanceof Error ? reason.message : 'The saved views could not be loaded.';
    }
  };

  use = (view: View) => {
    [this.filter, this.sort, this.down] = [view.filter, view.sort, view.down];
    if (view.columns.length) this.columns = view.columns.filter((c) => this.kind.fields.some((f) => f.name === c));
    this.everything = false;
    void this.restart();
  };

  saveView = async (name: string, forAll: boolean) => {
    try {
      const body = { name, forAll, filter: this.asked, columns: this.columns, sort: this.sort, down: this.down };
      this.views = await ask(api.POST('/api/views/{kind}', { params: { path: { kind: this.kind.name } }, body }));
      this.problem = '';
      return true;
    } catch (reason) {
      this.problem = reason instanceof Error ? reason.message : 'The view was not kept.';
      return false;
    }
  };

  dropView = async (id: number) => {
    try {
      await ask(api.DELETE('/api/views/{kind}/{id}', { params: { path: { kind: this.kind.name, id } } }));
      this.views = this.views.filter((v) => v.id !== id);
    } catch (reason) {
      this.problem = reason instanceof Error ? reason.message : 'The view is still there.';
    }
  };

  // After the rows, so that nobody waits for it.
  async #feet() {
    const generation = this.#generation;
    try {
      const query = { filter: this.asked, columns: this.columns.join(',') };
      const { cells } = await ask(api.GET('/api/lists/{kind}/foot', { params: { path: { kind: this.kind.name }, query } }));
      if (generation === this.#generation) this.foot = cells;
    } catch (reason) {
      if (generation !== this.#generation) return;
      this.foot = [];
      this.problem = reason instanceof Error ? reason.message : 'The foot could not be worked out.';
    }
  }

  async #fetch(page: number, first: boolean) {
    if (this.#asked[page]) return;
    this.#asked[page] = true;
    const generation = this.#generation;
    try {
      const query = { filter: this.asked, sort: this.sort ?? undefined, down: this.down, skip: page * PAGE, take: PAGE, columns: this.columns.join(',') };
      const found = await ask(api.GET('/api/lists/{kind}', { params: { path: { kind: this.kind.name }, query } }));
      if (generation !== this.#generation) return;
      const fresh = Object.fromEntries(found.rows.map((r, i) => [page * PAGE + i, r]));
      const kept = first ? [] : Object.entries(this.#rows).filter(([index]) => Number(index) < found.total);
      this.#rows = { ...Object.fromEntries(kept), ...fresh };
      this.total = found.total;
      this.problem = '';
    } catch (reason) {
      if (generation !== this.#generation) return;
      this.#asked[page] = false;
      this.problem = reason instanceof Error ? reason.message : 'The list could not be loaded.';
    }
  }
}
