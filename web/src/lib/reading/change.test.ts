import { afterEach, expect, test, vi } from 'vitest';
import { refused, serve } from '$lib/test/server';
import { ChangeState } from './change.svelte';

afterEach(() => vi.restoreAllMocks());

const line = (no: number | null, kind: string) => ({ no, kind, words: `line ${no}`, outcome: 'clear' });
const view = {
  request: 'R1',
  version: 7,
  order: 'S1',
  orders: ['S1'],
  whole: false,
  day: '2026-12-10',
  lines: [line(null, 'same'), line(1, 'changed'), line(2, 'same'), line(3, 'gone'), line(4, 'new')],
};

test('all of what they want otherwise is taken at first; a line is left by a key, and taken again', async () => {
  const asked = serve({
    'GET /api/requests/{number}/change': view,
    'POST /api/requests/{number}/take-change': { kind: 'order', number: 'S1' },
  });
  const change = new ChangeState();
  await change.load('R1');
  expect(change.focused?.no).toBe(1);
  expect(change.taken).toEqual([1, 3, 4]);
  change.go(2);
  change.toggle();
  // What is the same, or not spoken of, cannot be left.
  change.toggle(change.view?.lines[0]);
  change.toggle(change.view?.lines[2]);
  expect(change.taken).toEqual([1, 4]);
  change.day = false;
  expect(await change.take()).toEqual({ kind: 'order', number: 'S1' });
  expect(asked.at(-1)!.body).toEqual({ version: 7, order: 'S1', lines: [1, 4], day: false });
  change.all();
  expect(change.taken).toEqual([1, 3, 4]);
});

test('with everything left there is nothing to take; what is refused is said, and stays as it was chosen', async () => {
  serve({ 'GET /api/requests/{number}/change': { ...view, day: null }, 'POST /api/requests/{number}/take-change': refused(409, 'It is being picked.') });
  const change = new ChangeState();
  await change.load('R1');
  for (const l of change.wishes) change.toggle(l);
  expect(change.nothing).toBe(true);
  change.toggle(change.wishes[0]);
  expect(change.nothing).toBe(false);
  expect(await change.take()).toBe(null);
  expect([change.problem, change.taken]).toEqual(['It is being picked.', [1]]);
});
