/** A row that is drawn, and the height of the rows left out before it. */
export interface Drawn {
  at: number;
  /** In pixels. */
  gap: number;
}

/**
 * Which rows of a long sheet are drawn: those in sight, a few around them, and those where the keys are, wherever they stand.
 * @param count rows in all.
 * @param top how far the sheet is scrolled, in pixels.
 * @param height of what is seen of it, in pixels.
 * @param row height of a row, in pixels.
 * @param always rows that are drawn in any case, by their place.
 */
export function drawn(count: number, top: number, height: number, row: number, always: readonly number[] = []): { rows: Drawn[]; rest: number } {
  const AROUND = 8;
  const first = Math.max(0, Math.floor(top / row) - AROUND);
  const last = Math.min(count - 1, Math.ceil((top + height) / row) + AROUND);
  const places = [...new Set([...range(first, last), ...always.filter((a) => a >= 0 && a < count)])].sort((a, b) => a - b);
  const rows = places.map((at, i) => ({ at, gap: (at - (places[i - 1] ?? -1) - 1) * row }));
  return { rows, rest: (count - 1 - (places.at(-1) ?? -1)) * row };
}

function range(first: number, last: number): number[] {
  return Array.from({ length: Math.max(0, last - first + 1) }, (_, i) => first + i);
}
