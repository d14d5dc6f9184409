import { api, ask, type Schemas } from '$lib/api';

type Kind = Schemas['KindView'];
type Row = Schemas['RecordListRow'];

const PAGE = 100;

let kinds: Promise<Kind[]> | null = null;

/** The kinds of record with their fields, as this person may see and change them; asked once, until somebody else signs in. */
export function loadKinds(anew = false): Promise<Kind[]> {
  if (anew || !kinds) kinds = ask(api.GET('/api/records'));
  return kinds;
}

/** A list of records as long as it may be: pages are fetched as they come into view, and the server filters and sorts. */
export class RecordListState {
  readonly kind: Kind;
  filter = $state('');
  sort = $state<string | null>(null);
  down = $state(false);
  columns = $state.raw<string[]>([]);
  total = $state<number | null>(null);
  problem = $state('');
  /** What stands at the foot of each column, over all that fits. */
  foot = $state.raw<readonly string[]>([]);
  /** Whether everything that fits the filter is chosen, not only what was picked. */
  all = $state(false);
  at = $state(0);
  picked = $state.raw<readonly number[]>([]);
  #rows = $state.raw<Record<number, Row>>({});
  #asked: Record<number, boolean> = {};
  #generation = 0;

  constructor(kind: Kind, filter = '') {
    this.kind = kind;
    this.filter = filter;
    this.columns = kind.fields.filter((f) => f.inList).map((f) => f.name);
  }

  fields = $derived.by(() => this.columns.map((c) => this.kind.fields.find((f) => f.name === c)!));

  row = (index: number): Row | undefined => this.#rows[index];

  /** Begins anew, after another filter, order or set of columns. */
  restart = async () => {
    this.#generation++;
    this.#asked = {};
    this.at = 0;
    this.picked = [];
    this.all = false;
    await Promise.all([this.#fetch(0, true), this.#feet()]);
  };

  /** Fetches what is not there yet of the rows from one to another. */
  show = (from: number, to: number) => {
    for (let page = Math.floor(from / PAGE); page <= Math.floor(to / PAGE); page++) void this.#fetch(page, false);
  };

  sortBy = (name: string) => {
    if (this.sort === name) this.down = !this.down;
    else [this.sort, this.down] = [name, false];
    void this.restart();
  };

  /** How many are chosen. */
  chosen = $derived(this.all ? (this.total ?? 0) : this.picked.length);

  chooseAll = () => {
    this.picked = [];
    this.all = true;
  };

  chooseNone = () => {
    this.picked = [];
    this.all = false;
  };

  pick = (id: number) => {
    this.all = false;
    this.picked = this.picked.includes(id) ? this.picked.filter((p) => p !== id) : [...this.picked, id];
  };

  /** The address of an export of what the list shows. */
  exportPath = (format: 'csv' | 'xlsx') => `/api/records/${this.kind.name}/export?format=${format}&filter=${encodeURIComponent(this.filter)}`;

  // After the rows, so that nobody waits for it.
  async #feet() {
    const generation = this.#generation;
    try {
      const { cells } = await ask(
        api.GET('/api/records/{kind}/foot', { params: { path: { kind: this.kind.name }, query: { filter: this.filter, columns: this.columns.join(',') } } }),
      );
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
      const found = await ask(
        api.GET('/api/records/{kind}', {
          params: {
            path: { kind: this.kind.name },
            query: { filter: this.filter, sort: this.sort ?? undefined, down: this.down, skip: page * PAGE, take: PAGE, columns: this.columns.join(',') },
          },
        }),
      );
      if (generation !== this.#generation) return;
      const fresh = Object.fromEntries(found.rows.map((r, i) => [page * PAGE + i, r]));
      this.#rows = first ? fresh : { ...this.#rows, ...fresh };
      this.total = found.total;
      this.problem = '';
    } catch (reason) {
      if (generation !== this.#generation) return;
      this.#asked[page] = false;
      this.problem = reason instanceof Error ? reason.message : 'The list could not be loaded.';
    }
  }
}
