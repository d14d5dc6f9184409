import { describe, expect, it } from 'vitest';
import { pieces } from './pieces';

describe('evidence in a text', () => {
  it('never loses or doubles a character, whatever the spans', () => {
    const text = 'can you do us 2 coils of the 12mm white';
    const spans = [
      { start: 14, length: 7, of: '1', needsYou: false },
      { start: 14, length: 25, of: '1', needsYou: false },
      { start: 29, length: 400, of: '2', needsYou: true },
      { start: -3, length: 5, of: '3', needsYou: false },
    ];
    const cut = pieces(text, spans);
    expect(cut.map((p) => p.text).join('')).toBe(text);
    expect(cut.find((p) => p.text === '2 coils')?.of).toEqual(['1']);
    expect(cut.at(-1)).toMatchObject({ of: ['1', '2'], needsYou: true });
  });
});
