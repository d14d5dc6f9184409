import { api, ask, type Schemas } from '$lib/api';
import { Latest, readNumber } from '$lib/shared';

type View = Schemas['AuthorityView'];
type Column = Schemas['AuthorityColumn'];
export type Row = Schemas['AuthorityLine'];

/** A limit as it is typed: "8 %", "any", "–". Null: not at all; undefined: it is none. */
export function limitOf(text: string, column: Column): number | null | undefined {
  const plain = text.trim().toLowerCase();
  if (['', '-', '–', 'none', 'no'].includes(plain)) return null;
  if (plain === 'any') return column.any;
  return readNumber(plain.replace(/%|days?|eur/g, '')) ?? undefined;
}

/** A row with how deep it stands under whom it reports to. */
export interface Placed {
  row: Row;
  depth: number;
}

/** Who may decide what alone, who reports to whom, who is away. */
export class AuthorityState {
  readonly latest = new Latest<View>();
  problem = $state('');
  /** The cell that is typed in. */
  at = $state.raw<{ row: Row; column: Column } | null>(null);
  typed = $state('');
  from = $state('');
  readonly tried = new Latest<Schemas['LimitTried']>();
  /** Who is about to be moved under another. */
  moving = $state.raw<Row | null>(null);

  view = $derived.by(() => this.latest.value);
  people = $derived.by(() => this.view?.lines.filter((l) => l.person !== null) ?? []);
  tree = $derived.by((): Placed[] => {
    const placed: Placed[] = [];
    const below = (boss: number | null, depth: number) => {
      for (const row of this.people.filter((p) => p.reportsTo === boss)) {
        placed.push({ row, depth });
        below(row.person!, depth + 1);
      }
    };
    below(null, 0);
    // Whoever reports to somebody who left, or in a ring, is not lost.
    for (const row of this.people.filter((p) => !placed.some((o) => o.row.person === p.person))) placed.push({ row, depth: 0 });
    return placed;
  });
  limit = $derived.by(() => (this.at ? limitOf(this.typed, this.at.column) : undefined));
  cell = $derived.by(() => (this.at ? this.at.row.cells.find((c) => c.kind === this.at!.column.kind) : undefined));

  load = () => this.latest.ask(() => ask(api.GET('/api/setup/authority')), 'Authority could not be loaded.');

  pick = (row: Row, column: Column) => {
    this.at = { row, column };
    this.typed = row.cells.find((c) => c.kind === column.kind)?.said.replace('none', '') ?? '';
    [this.from, this.problem] = ['', ''];
    this.tried.take(null);
  };

  leave = () => ((this.at = null), (this.problem = ''));

  /** What the limit that is typed would have made of the asks of ninety days. */
  tryIt = async () => {
    const at = this.at;
    if (!at?.row.person || this.limit === undefined) return;
    const query = { person: at.row.person, kind: at.column.kind, limit: this.limit ?? undefined };
    await this.tried.ask(() => ask(api.GET('/api/setup/authority/try', { params: { query } })));
  };

  set = () => {
    const at = this.at;
    if (!at) return Promise.resolve();
    if (this.limit === undefined) {
      this.problem = `“${this.typed}” is no limit; type 8 %, any, or nothing.`;
      return Promise.resolve();
    }
    const body = { person: at.row.person, key: at.row.key, kind: at.column.kind, limit: this.limit, from: this.from || null };
    return this.#do(async () => {
      await ask(api.POST('/api/setup/authority', { body }));
      this.at = null;
    });
  };

  agree = (proposal: number, yes: boolean) =>
    this.#do(() => ask(api.POST('/api/setup/authority/{proposal}', { params: { path: { proposal } }, body: { yes } })));

  move = (person: number, to: number | null) =>
    this.#do(async () => {
      this.moving = null;
      await ask(api.POST('/api/setup/reports-to', { body: { person, to } }));
    });

  /** Throws the refusal: the form that it was typed in says it. */
  away = async (body: Schemas['AwayBody']) => {
    await ask(api.POST('/api/setup/away', { body }));
    await this.load();
  };

  back = (id: number) => this.#do(() => ask(api.DELETE('/api/setup/away/{id}', { params: { path: { id } } })));

  #do = async (run: () => Promise<unknown>) => {
    try {
      await run();
      this.problem = '';
      await this.load();
    } catch (reason) {
      this.problem = reason instanceof Error ? reason.message : 'It was not changed.';
    }
  };
}
