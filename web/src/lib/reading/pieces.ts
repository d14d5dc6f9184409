/** Cuts a text at the edges of its evidence, so that each piece belongs to the same lines throughout. */

export interface Span {
  start: number;
  length: number;
  /** What it is evidence of: a line's number, or a field's name. */
  of: string;
  needsYou: boolean;
}

export interface Piece {
  text: string;
  of: string[];
  needsYou: boolean;
}

export function pieces(text: string, spans: readonly Span[]): Piece[] {
  const inside = spans.filter((s) => s.length > 0 && s.start >= 0 && s.start < text.length);
  const edges = [...new Set([0, text.length, ...inside.flatMap((s) => [s.start, Math.min(s.start + s.length, text.length)])])].sort((a, b) => a - b);
  return edges.slice(0, -1).map((from, i) => {
    const to = edges[i + 1]!;
    const here = inside.filter((s) => s.start <= from && s.start + s.length >= to);
    return { text: text.slice(from, to), of: [...new Set(here.map((s) => s.of))], needsYou: here.some((s) => s.needsYou) };
  });
}
