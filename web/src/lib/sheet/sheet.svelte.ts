import { api, ask, Refusal, type Schemas } from '$lib/api';
import { SvelteSet } from 'svelte/reactivity';
import { moreByField, moreColumns, type MoreField } from './columns';

type SheetView = Schemas['SheetView'];
type LineView = Schemas['LineView'];
type TermView = Schemas['TermView'];
type SheetEdit = Schemas['SheetEdit'];
type SheetAnswer = Schemas['SheetAnswer'];

/** The columns of a line that every sheet has and that can be typed in, in their order. */
export const COLUMNS = ['item', 'quantity', 'price', 'discount', 'margin'] as const;
export type ColumnId = (typeof COLUMNS)[number] | MoreField;

/** What was typed and not taken, because somebody else changed the sheet meanwhile: it waits to be sent again, or let go. */
export interface Refused {
  edits: SheetEdit[];
  /** Who changed what, in words. */
  theirs: string[];
}

interface FieldChange {
  line: number | null;
  field: string;
  before: string | null;
  after: string | null;
}

/** What the server says about a change that came too late. */
interface ChangedMeanwhile {
  who: string;
  changes: FieldChange[];
}

/**
 * What somebody does with one sheet. The server's figures are the truth: each edit goes there and the whole sheet comes back priced,
 * with where its document stands and what comes next. Edits go one after the other, each naming the version that it saw.
 */
export class SheetState {
  view = $state.raw<SheetView>()!;
  /** The line and column where the keys go; null line: the row where lines are added. */
  line = $state<number | null>(null);
  column = $state<ColumnId>('item');
  editing = $state(false);
  /** Whether what else the focused line says of itself is open to be typed. */
  saying = $state(false);
  /** Whether "what would it take?" is open. */
  reaching = $state(false);
  /** Names of the columns that this person chose beside those that every sheet has. */
  chosen = $state.raw<readonly string[]>([]);
  /** Those that this person may choose. */
  moreColumns = $state.raw<readonly string[]>([]);
  /** Keys of lines that were picked, to be changed together. */
  picked = new SvelteSet<number>();
  problem = $state('');
  /** What came of rows that were pasted, in words. */
  said = $state('');
  /** A refused edit, kept. */
  refused = $state.raw<Refused | null>(null);
  #queue: Promise<void> = Promise.resolve();
  // What the server called the sheet that it answered with last. It says nothing of one that was fetched anew.
  #shown: { view: SheetView | null; tag: string } = { view: null, tag: '' };
  #reload: () => Promise<void>;
  #answered: (answer: SheetAnswer) => void;

  /**
   * @param reload fetches the document anew, after somebody else changed it.
   * @param answered hears every answer: what comes next is in it.
   */
  constructor(view: SheetView, reload: () => Promise<void>, mayWrite = true, answered: (answer: SheetAnswer) => void = () => undefined) {
    this.mayWrite = mayWrite;
    this.view = view;
    this.line = view.lines.find((l) => l.kind === 'item')?.key ?? null;
    this.#reload = reload;
    this.#answered = answered;
  }

  mayWrite = $state(true);
  /** Whether this person may change it, and it may be changed. */
  editable = $derived(this.view.editable && this.mayWrite);
  focused = $derived(this.view.lines.find((l) => l.key === this.line) ?? null);
  stops = $derived(this.view.findings.filter((f) => f.outcome === 'stop'));
  notices = $derived(this.view.findings.filter((f) => f.outcome === 'notice'));
  /** The terms of the head by their names. */
  terms = $derived(Object.fromEntries(this.view.terms.map((t) => [t.name, t])) as Record<string, TermView | undefined>);

  /** The columns that the keys go over. */
  columns = $derived<readonly ColumnId[]>([...COLUMNS, ...moreColumns(this.chosen).flatMap((c) => (c.field ? [c.field] : []))]);
  /** What is picked and still there, in the order of the sheet. */
  picks = $derived(this.view.lines.filter((l) => this.picked.has(l.key)));

  // Looked up for each row that is drawn.
  #byLine = $derived(Object.groupBy(this.view.findings, (f) => f.line ?? 0) as Record<number, SheetView['findings'] | undefined>);

  findingsOf = (key: number): SheetView['findings'] => this.#byLine[key] ?? [];

  /** Sends edits. Resolves to whether the server took them; what it did not take is kept in {@link refused} where the sheet had moved on. */
  edit = (edits: SheetEdit[]): Promise<boolean> =>
    this.#inTurn(
      (shown) =>
        api.POST('/api/sheets/{id}/edits', {
          params: { path: { id: this.view.id }, header: { 'If-Match': `"${this.view.version}"`, ...shown } },
          body: edits,
        }),
      edits,
    );

  /** Puts rows of a spreadsheet at the end. What was not plain is said in {@link said}. */
  paste = (text: string): Promise<boolean> =>
    this.#inTurn(async (shown) => {
      const { data, ...rest } = await api.POST('/api/sheets/{id}/paste', {
        params: { path: { id: this.view.id }, header: { 'If-Match': `"${this.view.version}"`, ...shown } },
        body: { text, after: null },
      });
      if (data) this.said = `${data.lines === 1 ? 'One line' : `${data.lines} lines`} from the rows you pasted. ${data.words}`.trim();
      return { ...rest, data: data?.answer };
    });

  /** Resolves when nothing that was typed is still on its way. */
  settled = (): Promise<void> => this.#queue;

  set = (line: number | null, field: string, value: string) => this.edit([{ kind: 'set', line, field, value }]);

  /** Makes it come to so much in all, or earn so much margin, by what that takes. */
  endAt = async (wish: string): Promise<void> => {
    try {
      const { wish: of } = await ask(api.GET('/api/sheets/{id}/reach', { params: { path: { id: this.view.id }, query: { wish } } }));
      if (of?.whyNot) this.problem = of.whyNot;
      else if (of) await this.edit(of.edits);
    } catch (reason) {
      this.problem = reason instanceof Refusal ? reason.message : 'It could not be worked out; nothing was changed.';
    }
  };

  /** Takes one's own last change back; what others typed since stays. */
  undo = (): Promise<boolean> => this.#inTurn((header) => api.POST('/api/sheets/{id}/undo', { params: { path: { id: this.view.id }, header } }));

  /** Puts in again what one took back last, until one types something else. */
  redo = (): Promise<boolean> => this.#inTurn((header) => api.POST('/api/sheets/{id}/redo', { params: { path: { id: this.view.id }, header } }));

  /** Sends what was refused once more, on the sheet as it is now. */
  again = () => {
    const { refused } = this;
    this.refused = null;
    this.problem = '';
    if (refused) void this.edit(refused.edits);
  };

  /** Lets what was refused go. */
  letGo = () => {
    this.refused = null;
    this.problem = '';
  };

  /** Moves the focus over lines and the adding row below them. */
  move = (step: number) => {
    const keys: (number | null)[] = [...this.view.lines.map((l) => l.key), null];
    const at = keys.indexOf(this.line);
    this.line = keys[Math.min(Math.max(0, at + step), keys.length - 1)] ?? null;
  };

  moveColumn = (step: number) => {
    const at = this.columns.indexOf(this.column) + step;
    if (at >= this.columns.length) {
      this.column = 'item';
      this.move(1);
    } else if (at < 0) {
      this.column = this.columns.at(-1)!;
      this.move(-1);
    } else {
      this.column = this.columns[at]!;
    }
  };

  /** Moves the focused line itself, one place up or down. */
  shift = (step: number) => {
    const lines = this.view.lines;
    const at = lines.findIndex((l) => l.key === this.line);
    const behind = step < 0 ? at - 2 : at + 1;
    if (at < 0 || at + step < 0 || at + step >= lines.length) return;
    void this.edit([{ kind: 'move', line: this.line, after: lines[behind]?.key ?? null }]);
  };

  /** Puts a line behind another; null: first. */
  drop = (line: number, after: number | null) => {
    if (line !== after) void this.edit([{ kind: 'move', line, after }]);
  };

  remove = () => {
    if (this.picks.length) {
      void this.editPicks((l) => ({ kind: 'remove', line: l.key }));
      this.picked.clear();
      return;
    }
    const gone = this.line;
    if (gone === null) return;
    this.move(1);
    void this.edit([{ kind: 'remove', line: gone }]);
  };

  /** Picks the focused line, or lets it go. */
  pick = () => {
    if (this.line === null) return;
    if (this.picked.has(this.line)) this.picked.delete(this.line);
    else this.picked.add(this.line);
  };

  /** Moves on and picks what is passed. */
  pickOn = (step: number) => {
    if (this.line !== null) this.picked.add(this.line);
    this.move(step);
    if (this.line !== null) this.picked.add(this.line);
  };

  pickAll = () => this.view.lines.forEach((l) => this.picked.add(l.key));

  /** One change to every line that is picked, as one step. */
  editPicks = (edit: (line: LineView) => SheetEdit): Promise<boolean> => this.edit(this.picks.map(edit));

  /** Sets one field of every line that is picked and has figures. */
  setPicks = (field: string, value: string): Promise<boolean> =>
    this.edit(this.picks.filter((l) => l.number).map((l) => ({ kind: 'set', line: l.key, field, value })));

  /** Puts what is picked under a heading of its own. */
  gather = (words: string): Promise<boolean> => this.edit([{ kind: 'gather', value: words, field: this.picks.map((l) => l.key).join(',') }]);

  /** Makes the focused line one of those above that the buyer takes one of; or a line of its own again. */
  toggleAlternative = () => {
    if (this.focused?.number) void this.edit([{ kind: 'alternative', line: this.focused.key }]);
  };

  /** Goes to the next line, in either direction, whose code or words have these in them. */
  find = (words: string, step: 1 | -1 = 1): boolean => {
    const { lines } = this.view;
    const sought = words.trim().toLowerCase();
    const from = lines.findIndex((l) => l.key === this.line);
    for (let i = 1; sought && i <= lines.length; i++) {
      const line = lines[(from + step * i + lines.length * 2) % lines.length]!;
      if (`${line.number} ${line.code ?? ''} ${line.words} ${line.note} ${line.says.inner}`.toLowerCase().includes(sought)) {
        this.line = line.key;
        return true;
      }
    }
    return false;
  };

  /** Keeps the picked lines, or all, as an assortment: one's own, or the house's. */
  keep = async (name: string, forAll: boolean) => {
    const keys = this.picks.map((l) => l.key);
    await ask(api.POST('/api/sheets/{id}/assortments', { params: { path: { id: this.view.id } }, body: { name, forAll, keys } }));
    this.said = `Kept as “${name.trim()}”; G puts it on other sheets.`;
  };

  /** Chooses columns; kept for this person. */
  choose = async (columns: readonly string[]) => {
    this.chosen = columns;
    try {
      await ask(api.POST('/api/sheets/columns', { body: [...columns] }));
    } catch (reason) {
      this.problem = reason instanceof Refusal ? reason.message : 'Your columns could not be kept.';
    }
  };

  /** Whether the focused line is an option, which counts for nothing until it is wanted. */
  toggleOptional = () => {
    const line = this.focused;
    if (line?.number) void this.set(line.key, 'optional', String(!line.optional));
  };

  #inTurn(call: Call, edits: SheetEdit[] = []): Promise<boolean> {
    const done = this.#queue.then(() => this.#send(call, edits));
    this.#queue = done.then(() => undefined);
    return done;
  }

  async #send(call: Call, edits: SheetEdit[]): Promise<boolean> {
    this.said = '';
    const { view } = this;
    try {
      const answer = await ask(call(view === this.#shown.view ? { 'Solvenda-Shown': this.#shown.tag } : {}));
      this.view = withLines(view, answer);
      this.#shown = { view: this.view, tag: answer.shown };
      this.#answered(answer);
      this.problem = '';
      return true;
    } catch (reason) {
      if (!(reason instanceof Refusal)) throw reason;
      this.problem = reason.message;
      if (reason.code === 'stale' && edits.length > 0) this.refused = { edits, theirs: meanwhile(reason.facts) };
      if (reason.status === 409) await this.#reload();
    }
    return false;
  }
}

type Call = (shown: { 'Solvenda-Shown'?: string }) => Promise<Answer>;

interface Answer {
  data?: SheetAnswer;
  error?: unknown;
  response: Response;
}

/** Who changed what since, one line for each. */
export function meanwhile(facts: unknown): string[] {
  return Array.isArray(facts) ? (facts as ChangedMeanwhile[]).flatMap((c) => c.changes.map((x) => `${c.who}: ${changed(x)}`)) : [];
}

function changed({ line, field, before, after }: FieldChange) {
  const where = line === null ? '' : `line ${line} `;
  if (field === 'line') return `${where}${before === null ? 'added' : 'taken off'}`;
  if (field === 'place') return `${where}moved`;
  return `${where}${field} ${before ?? 'nothing'} → ${after ?? 'nothing'}`;
}

/** What an edit says, for somebody who typed it. */
export function typed(edit: SheetEdit): string {
  return edit.kind === 'set' ? `${edit.field} ${edit.value || 'nothing'}` : (edit.value ?? edit.kind);
}

/**
 * The sheet of an answer. Where it carries only lines that are otherwise than before, the others are the same objects: an edit mostly
 * changes one line, and only what is another object is drawn anew.
 */
export function withLines(before: SheetView, { sheet, keys }: Pick<SheetAnswer, 'sheet' | 'keys'>): SheetView {
  if (!keys) return sheet;
  const lines: Record<number, LineView | undefined> = Object.fromEntries([...before.lines, ...sheet.lines].map((l) => [l.key, l]));
  return { ...sheet, lines: keys.flatMap((key) => lines[key] ?? []) };
}

/** What stands in a cell when somebody begins to type in it. */
export function textOf(l: LineView, column: ColumnId): string {
  switch (column) {
    case 'item':
      return l.kind === 'item' ? (l.code ?? l.words) : l.words;
    case 'quantity':
      return `${l.quantity} ${l.unitWord}`.trim();
    case 'price':
      return l.netPrice === null ? '' : l.netPrice.toFixed(4);
    case 'discount':
      return l.discountPercent === 0 ? '' : String(Number(l.discountPercent.toFixed(2)));
    case 'margin':
      if (l.isFree) return l.cost === null ? '' : String(l.cost);
      return l.marginPercent === null ? '' : l.marginPercent.toFixed(1);
    default:
      return moreByField(column)?.typed(l) ?? (column satisfies MoreField);
  }
}

/** Which field of the line a column writes. */
export function fieldOf(l: LineView, column: ColumnId): string {
  if (column === 'item') return l.kind === 'item' ? 'item' : 'words';
  if (column === 'marginPercent') return 'margin';
  // What is not in the catalogue has a cost that somebody types.
  if (column === 'margin' && l.isFree) return 'cost';
  return column === 'price' ? 'net' : column;
}
