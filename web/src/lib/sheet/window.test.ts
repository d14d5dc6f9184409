import { expect, test } from 'vitest';
import { drawn } from './window';

const places = (d: ReturnType<typeof drawn>) => d.rows.map((r) => r.at);

test('all rows together are as high as the sheet, wherever it is scrolled to', () => {
  for (const top of [0, 31, 4000, 15_000, 99_999]) {
    const d = drawn(500, top, 620, 31, [3, 499]);
    expect(d.rows.length * 31 + d.rows.reduce((sum, r) => sum + r.gap, 0) + d.rest).toBe(500 * 31);
  }
});

test('what is in sight is drawn, and so is where the keys are', () => {
  const d = drawn(500, 3100, 620, 31, [3]);
  expect(places(d)).toContain(3);
  expect(places(d)).toEqual(expect.arrayContaining([100, 110, 120]));
  expect(d.rows.length).toBeLessThan(45);
  expect(d.rows[0]).toEqual({ at: 3, gap: 93 });
});

test('a short sheet is drawn whole, and an empty one is nothing', () => {
  expect(places(drawn(3, 0, 600, 31))).toEqual([0, 1, 2]);
  expect(drawn(0, 0, 600, 31, [0, -1])).toEqual({ rows: [], rest: 0 });
});
