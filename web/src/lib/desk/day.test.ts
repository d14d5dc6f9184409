import { expect, test } from 'vitest';
import { hourOf, HOURS, isDay, placed, top } from './day';

const at = (hour: number, minute = 0) => new Date(2026, 10, 26, hour, minute).toISOString();

test('hours stand over the height from morning to evening', () => {
  expect([top(8), top(18.5)]).toEqual([0, 100]);
  expect(HOURS.map(top)).toEqual([...HOURS.map(top)].sort((a, b) => a - b));
  expect([top(3), top(23)]).toEqual([0, 100]);
});

test('an hour is the one of the clock on the wall', () => {
  expect(hourOf(at(15, 30))).toBe(15.5);
});

test('the line of now is drawn in the day only', () => {
  expect([7.9, 8, 12, 18.5, 18.6].map(isDay)).toEqual([false, true, true, true, false]);
});

test('marks of the same hour stand below one another and none leaves the page', () => {
  const marks = placed(Array.from({ length: 20 }, () => ({ at: at(9) })));
  const tops = marks.map((m) => m.top);
  expect(tops.slice(0, 5).every((t, i) => i === 0 || t >= tops[i - 1]! + 8)).toBe(true);
  expect(Math.max(...tops)).toBeLessThanOrEqual(97);
  expect(placed([])).toEqual([]);
});
