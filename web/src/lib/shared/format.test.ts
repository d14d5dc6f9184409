import { describe, expect, it } from 'vitest';
import { ago, day, fixed, plain, since, fill, fixedIn, plainIn, readNumber } from './format';

describe('numbers and dates', () => {
  it('have a true minus and their decimals', () => {
    expect(fixed(-1234.5, 2)).toBe('\u22121,234.50');
    expect(plain(1219.2)).toBe('1,219.2');
  });

  it('name the year only where it is another', () => {
    const now = new Date('2026-11-24T12:00:00');
    expect(day('2026-11-24', now)).toBe('24 Nov');
    expect(day('2027-01-02', now)).toBe('2 Jan 2027');
  });

  it('say how long ago in one unit', () => {
    const now = new Date('2026-11-24T12:00:00Z');
    expect(since('2026-11-24T11:48:00Z', now)).toBe('12 min');
    expect(since('2026-11-20T12:00:00Z', now)).toBe('4 days');
    expect(ago('2026-11-24T11:48:00Z', now)).toBe('12 min ago');
    expect(ago('2026-11-24T11:59:50Z', now)).toBe('just now');
  });
});

describe('what buyers read', () => {
  it('has numbers as their language writes them, always parted by thousands', () => {
    expect(fixedIn('de', 1250.5, 2)).toBe('1.250,50');
    expect(fixedIn('es', 1250.5, 2)).toBe('1.250,50');
    expect(fixedIn('sv', -1250.5, 2).replaceAll(/\s/g, ' ')).toBe('−1 250,50');
    expect(plainIn('nl', 1250.125)).toBe('1.250,125');
  });

  it('has its places filled, and one without a value stays', () => {
    expect(fill('tax, {0}, on {1}', '23 %', '10.00')).toBe('tax, 23 %, on 10.00');
    expect(fill('{0} and {1}', 'a')).toBe('a and {1}');
    expect(fill(undefined, 1)).toBe('');
  });
});

it.each([
  ['1,250', 1250],
  ['1,250.5', 1250.5],
  ['7,5', 7.5],
  ['60 000', 60_000],
  ['\u22125.0', -5],
  ['1,000,000', 1_000_000],
  ['ten', null],
  ['', null],
  ['1.2.3', null],
])('“%s” typed is %s', (text, expected) => expect(readNumber(text)).toBe(expected));
