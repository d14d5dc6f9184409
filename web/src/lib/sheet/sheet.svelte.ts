import { api, Refusal, type Schemas } from '$lib/api';

type SheetView = Schemas['SheetView'];
type LineView = Schemas['LineView'];
type SheetEdit = Schemas['SheetEdit'];
export type LineState = Schemas['LineState'];

/** The columns of a line that can be typed in, in their order. */
export const COLUMNS = ['item', 'quantity', 'price', 'discount', 'margin'] as const;
export type ColumnId = (typeof COLUMNS)[number];

const UNDO_STEPS = 100;

/**
 * What somebody does with one sheet. The server's figures are the truth: each edit goes there and the whole sheet comes back priced.
 * Edits go one after the other, each naming the version that it saw.
 */
export class SheetState {
  view = $state.raw<SheetView>()!;
  /** The line and column where the keys go; null line: the row where lines are added. */
  line = $state<number | null>(null);
  column = $state<ColumnId>('item');
  editing = $state(false);
  problem = $state('');
  busy = $state(0);
  #undo: LineState[][] = [];
  #queue: Promise<void> = Promise.resolve();
  #reload: () => Promise<void>;

  /** @param reload fetches the document anew, after somebody else changed it. */
  constructor(view: SheetView, reload: () => Promise<void>, mayWrite = true) {
    this.mayWrite = mayWrite;
    this.view = view;
    this.line = view.lines.find((l) => l.kind === 'item')?.key ?? null;
    this.#reload = reload;
  }

  mayWrite = $state(true);
  /** Whether this person may change it, and it may be changed. */
  editable = $derived(this.view.editable && this.mayWrite);
  focused = $derived(this.view.lines.find((l) => l.key === this.line) ?? null);
  stops = $derived(this.view.findings.filter((f) => f.outcome === 'stop'));
  notices = $derived(this.view.findings.filter((f) => f.outcome === 'notice'));
  canUndo = $derived(this.view.version > 0 && this.#undo.length > 0);

  findingsOf = (key: number) => this.view.findings.filter((f) => f.line === key);

  /** Sends edits; keeps the lines as they were for undo. Resolves to whether the server took them. */
  edit = (edits: SheetEdit[], undoable = true): Promise<boolean> => {
    const done = this.#queue.then(() => this.#send(edits, undoable));
    this.#queue = done.then(() => undefined);
    return done;
  };

  set = (line: number | null, field: string, value: string) => this.edit([{ kind: 'set', line, field, value }], line !== null);

  undo = () => {
    const lines = this.#undo.pop();
    if (lines) void this.edit([{ kind: 'restore', lines }], false);
  };

  /** Moves the focus over lines and the adding row below them. */
  move = (step: number) => {
    const keys: (number | null)[] = [...this.view.lines.map((l) => l.key), null];
    const at = keys.indexOf(this.line);
    this.line = keys[Math.min(Math.max(0, at + step), keys.length - 1)] ?? null;
  };

  moveColumn = (step: number) => {
    const at = COLUMNS.indexOf(this.column) + step;
    if (at >= COLUMNS.length) {
      this.column = COLUMNS[0];
      this.move(1);
    } else if (at < 0) {
      this.column = COLUMNS[COLUMNS.length - 1]!;
      this.move(-1);
    } else {
      this.column = COLUMNS[at]!;
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
    const gone = this.line;
    if (gone === null) return;
    this.move(1);
    void this.edit([{ kind: 'remove', line: gone }]);
  };

  /** Whether the focused line is an option, which counts for nothing until it is wanted. */
  toggleOptional = () => {
    const line = this.focused;
    if (line?.kind === 'item') void this.set(line.key, 'optional', String(!line.optional));
  };

  async #send(edits: SheetEdit[], undoable: boolean): Promise<boolean> {
    const before = this.view.lines.map(stateOf);
    this.busy++;
    try {
      const { data, error, response } = await api.POST('/api/sheets/{id}/edits', {
        params: { path: { id: this.view.id }, header: { 'If-Match': `"${this.view.version}"` } },
        body: edits,
      });
      if (data) {
        if (undoable) this.#undo = [...this.#undo.slice(1 - UNDO_STEPS), before];
        this.view = keepSame(this.view, data);
        this.problem = '';
        return true;
      }
      const problem = (error ?? {}) as { title?: string; code?: string };
      this.problem = problem.title ?? 'The change was not taken.';
      if (response.status === 409) await this.#reload();
    } catch (reason) {
      this.problem = reason instanceof Refusal ? reason.message : 'The server does not answer; your last change is not kept yet.';
    } finally {
      this.busy--;
    }
    return false;
  }
}

/**
 * The fresh sheet, with the old objects for lines and findings that are the same as before: an edit mostly changes one line,
 * and only what is another object is drawn anew.
 */
export function keepSame(old: SheetView, fresh: SheetView): SheetView {
  const lines: Record<number, LineView | undefined> = Object.fromEntries(old.lines.map((l) => [l.key, l]));
  const same = <T>(a: T | undefined, b: T): T => (a !== undefined && JSON.stringify(a) === JSON.stringify(b) ? a : b);
  return { ...fresh, lines: fresh.lines.map((l) => same(lines[l.key], l)) };
}

/** A line as it was typed, without its figures. */
export function stateOf(l: LineView): LineState {
  return {
    key: l.key,
    kind: l.kind,
    code: l.code,
    words: l.words,
    quantity: l.quantity,
    unit: l.unit,
    handKind: l.handKind,
    handValue: l.handValue,
    optional: l.optional,
    note: l.note,
  };
}

/** What stands in a cell when somebody begins to type in it. */
export function textOf(l: LineView, column: ColumnId): string {
  switch (column) {
    case 'item':
      return l.kind === 'heading' ? l.words : (l.code ?? l.words);
    case 'quantity':
      return `${l.quantity} ${l.unitWord}`.trim();
    case 'price':
      return l.netPrice === null ? '' : l.netPrice.toFixed(4);
    case 'discount':
      return l.discountPercent === 0 ? '' : String(Number(l.discountPercent.toFixed(2)));
    case 'margin':
      return l.marginPercent === null ? '' : l.marginPercent.toFixed(1);
    default:
      return column satisfies never;
  }
}

/** Which field of the line a column writes. */
export function fieldOf(l: LineView, column: ColumnId): string {
  if (column === 'item') return l.kind === 'heading' ? 'words' : 'item';
  return column === 'price' ? 'net' : column;
}
