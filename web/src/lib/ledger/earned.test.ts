import { expect, test } from 'vitest';
import { earnedWords } from './earned';

test('by what somebody earns is said in words', () => {
  expect(earnedWords({ on: 'paid', percent: 2, share: 100, basis: 1200 }, 'EUR')).toBe('2 % of what is paid of EUR 1,200.00');
  expect(earnedWords({ on: 'margin', percent: 8, share: 70, basis: 90.5 }, 'SEK')).toBe('8 % of the margin of SEK 90.50, 70 % of it');
  expect(earnedWords({ on: 'net', percent: 2.5, share: 33.34, basis: -10 }, 'EUR')).toBe('2.5 % of the net of EUR −10.00, 33.34 % of it');
  // What things cost is not everybody's to see.
  expect(earnedWords({ on: 'margin', percent: null, share: 70, basis: null }, 'EUR')).toBe('by the margin, 70 % of it');
});
