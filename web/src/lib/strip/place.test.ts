import { describe, expect, it } from 'vitest';
import { NOW, place } from './place';

describe('the strip', () => {
  it('keeps order, past left of now, ahead right of it', () => {
    const placed = place([0, 10, 11, 12, 50, 130, 131, 400], 100);
    const at = placed.map((p) => p.at);
    expect([...at].sort((a, b) => a - b)).toEqual(at);
    expect(at.slice(0, 5).every((a) => a < NOW)).toBe(true);
    expect(at.slice(5).every((a) => a > NOW && a <= 96)).toBe(true);
  });

  it('never lets two marks cover each other while there is room', () => {
    const at = place([1, 1, 1, 1, 1], 100).map((p) => p.at);
    for (let i = 1; i < at.length; i++) expect(at[i]! - at[i - 1]!).toBeGreaterThan(6);
  });

  it('gives no label more than is free up to the next one on its side', () => {
    const placed = place([1, 1, 1, 1, 1, 1, 1, 1, 200, 201, 202], 100);
    const edges = placed.map((p) => {
      if (p.at < 7) return [0, p.wide];
      if (p.at <= NOW && p.at > NOW - 6) return [NOW - p.wide, NOW];
      if (p.at > 92) return [100 - p.wide, 100];
      return [p.at - p.wide / 2, p.at + p.wide / 2];
    });
    for (let i = 2; i < placed.length; i++) {
      expect(placed[i]!.wide).toBeGreaterThan(4);
      expect(edges[i]![0]!).toBeGreaterThanOrEqual(edges[i - 2]![1]!);
    }
  });
});
