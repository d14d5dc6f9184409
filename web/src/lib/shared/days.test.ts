import { expect, test } from 'vitest';
import { readDay } from './days';

// A Friday.
const now = new Date(2026, 10, 27, 10);

test.each([
  ['today', '2026-11-27'],
  ['tomorrow', '2026-11-28'],
  ['fri', '2026-12-04'],
  ['Monday', '2026-11-30'],
  ['+2w', '2026-12-11'],
  ['+10d', '2026-12-07'],
  ['+1m', '2026-12-27'],
  ['12 dec', '2026-12-12'],
  ['12 Dec 2027', '2027-12-12'],
  ['3. March', '2027-03-03'],
  ['24.12.', '2026-12-24'],
  ['24/12/2026', '2026-12-24'],
  ['2026-12-01', '2026-12-01'],
  ['31 june', null],
  ['2026-02-30', null],
  ['13/13', null],
  ['soon', null],
  ['', null],
])('“%s” is %s', (text, expected) => expect(readDay(text, now)).toBe(expected));
