import { describe, expect, it } from 'vitest';
import { boxesOf, rowsOf, wordsOf } from './parts';

const part = {
  name: 'x',
  kind: 'pages' as const,
  text: 'Qty Item\n12 Bow shackle\n',
  fresh: 0,
  rows: [
    [0, 3, 4, 4],
    [9, 2, 12, 11],
  ],
  words: [
    0, 3, 0, 0.1, 0.1, 0.05, 0.02, 4, 4, 0, 0.3, 0.1, 0.05, 0.02, 9, 2, 0, 0.1, 0.2, 0.03, 0.02, 12, 3, 0, 0.3, 0.2, 0.04, 0.02, 16, 7, 0, 0.35, 0.2, 0.1, 0.02,
  ],
  pages: 1,
  sure: 1,
  html: '',
  attachment: -1,
};

describe('parts of an original', () => {
  it('gives the cells of a table as they stand in the text', () => {
    expect(rowsOf(part).map((r) => r.map((c) => c.text))).toEqual([
      ['Qty', 'Item'],
      ['12', 'Bow shackle'],
    ]);
  });

  it('draws one box around the words of a line, and another for another line', () => {
    const words = wordsOf(part);
    const [box, ...more] = boxesOf(words, { start: 12, length: 11 });
    expect(more).toEqual([]);
    expect(box!.left).toBeCloseTo(0.3);
    expect(box!.width).toBeCloseTo(0.15);
    expect(boxesOf(words, { start: 0, length: 23 })).toHaveLength(2);
    expect(boxesOf(words, { start: 8, length: 1 })).toEqual([]);
  });
});
