import type { Schemas } from '$lib/api';
import type { Span } from './pieces';

export type Shown = Schemas['PartShown'];

/** A piece of a part's text that somebody chose. */
export interface Chosen {
  part: number;
  start: number;
  length: number;
  text: string;
}

/** Under this a person decides; the server says so by needsYou, this says for which part of a line. */
export const SURE = 0.7;

/** What is evidence of what, in one part: fields by their names, lines by their numbers. */
export function spansOf(reading: Schemas['ReadingView'] | null, part: number): Span[] {
  if (!reading) return [];
  const fields = {
    buyer: reading.buyer,
    contact: reading.contact,
    poNumber: reading.poNumber,
    reference: reading.reference,
    quoteNumber: reading.quoteNumber,
    wanted: reading.wanted,
    deliverTo: reading.deliverTo,
    incoterm: reading.incoterm,
    currency: reading.currency,
    paymentDays: reading.paymentDays,
    goods: reading.goods,
  };
  return [
    ...Object.entries(fields).flatMap(([of, f]) => (f?.evidence ?? []).map((e) => ({ ...e, of, needsYou: false }))),
    ...reading.lines.flatMap((l) => l.evidence.map((e) => ({ ...e, of: String(l.no), needsYou: false }))),
    ...reading.lines
      .filter((l) => l.needsYou)
      .flatMap((l) =>
        (l.quantityEvidence.length && l.itemCode && l.itemSure >= SURE ? l.quantityEvidence : l.evidence).map((e) => ({
          ...e,
          of: String(l.no),
          needsYou: true,
        })),
      ),
    ...(reading.leftOvers ?? []).map((l) => ({ ...l.where, of: 'over', needsYou: true })),
    ...(reading.remarks ?? []).map((r, i) => ({ ...r.where, of: `remark${i}`, needsYou: false })),
  ].filter((s) => (s.part ?? 0) === part && s.length > 0);
}

/** The cells of a table: each row with what stands in it and where. */
export function rowsOf(part: Shown['part']): { start: number; length: number; text: string }[][] {
  return part.rows.map((row) =>
    Array.from({ length: row.length / 2 }, (_, i) => {
      const [start, length] = [row[2 * i]!, row[2 * i + 1]!];
      return { start, length, text: part.text.slice(start, start + length) };
    }),
  );
}

export interface Box {
  page: number;
  left: number;
  top: number;
  width: number;
  height: number;
}

/** The words of a page with their boxes. */
export function wordsOf(part: Shown['part']): (Box & { start: number; length: number })[] {
  return Array.from({ length: part.words.length / 7 }, (_, i) => {
    const [start, length, page, left, top, width, height] = part.words.slice(7 * i, 7 * i + 7) as [number, number, number, number, number, number, number];
    return { start, length, page, left, top, width, height };
  });
}

/** Boxes around the words of a span: one for each line that they stand in. */
export function boxesOf(words: readonly (Box & { start: number; length: number })[], span: { start: number; length: number }): Box[] {
  const boxes: Box[] = [];
  for (const w of words.filter((x) => x.start < span.start + span.length && x.start + x.length > span.start)) {
    const last = boxes.at(-1);
    if (last && last.page === w.page && Math.abs(last.top - w.top) < Math.max(last.height, w.height) * 0.7 && w.left >= last.left) {
      const right = Math.max(last.left + last.width, w.left + w.width);
      const bottom = Math.max(last.top + last.height, w.top + w.height);
      last.top = Math.min(last.top, w.top);
      last.width = right - last.left;
      last.height = bottom - last.top;
    } else boxes.push({ page: w.page, left: w.left, top: w.top, width: w.width, height: w.height });
  }
  return boxes;
}

/** What the selection of the page holds of a part's text; null where it is empty or elsewhere. Elements say by data-start where their text begins. */
export function chosenIn(root: HTMLElement, part: number, text: string): Chosen | null {
  const selection = document.getSelection();
  if (!selection || selection.isCollapsed || !selection.anchorNode || !selection.focusNode || !root.contains(selection.anchorNode)) return null;
  const at = (node: Node, offset: number) => {
    const element = (node instanceof Element ? node : node.parentElement)?.closest<HTMLElement>('[data-start]');
    return element ? Number(element.dataset.start) + (node instanceof Element ? 0 : offset) : null;
  };
  const [a, b] = [at(selection.anchorNode, selection.anchorOffset), at(selection.focusNode, selection.focusOffset)];
  if (a === null || b === null || a === b) return null;
  const [start, end] = [Math.min(a, b), Math.min(Math.max(a, b), text.length)];
  return { part, start, length: end - start, text: text.slice(start, end) };
}
