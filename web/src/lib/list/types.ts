/** One column of a list. */
export interface Column<Row> {
  id: string;
  /** Says what is in it. */
  head: string;
  /** Numbers stand right. @default false */
  right?: boolean;
  /** What it is sorted by; without it, it is not. */
  sort?: (row: Row) => string | number;
  /** A class that hides it on narrow screens. */
  hide?: string;
}
