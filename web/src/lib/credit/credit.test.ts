import { afterEach, expect, test, vi } from 'vitest';
import { serve } from '$lib/test/server';
import { CreditState, type CreditRow } from './credit.svelte';

afterEach(() => vi.restoreAllMocks());

const row = (name: string, more: Partial<CreditRow> = {}) =>
  ({ name, code: `B-${name}`, limit: 1000, exposure: 0, over: 0, willBeOver: false, beyondGrace: false, held: [], ...more }) as unknown as CreditRow;

async function loaded() {
  const rows = [
    row('Over', { over: 5, held: ['S26-1'] }),
    row('Late', { beyondGrace: true }),
    row('Soon', { willBeOver: true }),
    row('None', { limit: null }),
    row('Fine'),
  ];
  serve({ 'GET /api/credit': { rows, over: 1, willBeOver: 1, overdue: 1, held: 1, noLimit: 1 } });
  const credit = new CreditState();
  await credit.load();
  return credit;
}
const names = (credit: CreditState) => credit.rows.map((r) => r.name);

test('each way of looking shows those that it says, and pressed again all', async () => {
  const credit = await loaded();
  for (const [shown, who] of [
    ['over', ['Over']],
    ['willBeOver', ['Soon']],
    ['overdue', ['Late']],
    ['held', ['Over']],
    ['noLimit', ['None']],
  ] as const) {
    credit.show(shown);
    expect(names(credit)).toEqual(who);
  }
  credit.show('noLimit');
  expect(names(credit).length).toBe(5);
});

test('the keys stay within what is shown, also when it becomes less', async () => {
  const credit = await loaded();
  credit.go(9);
  expect(credit.chosen?.name).toBe('Fine');
  credit.find = 'over';
  expect([credit.at, credit.chosen?.name]).toEqual([0, 'Over']);
  credit.go(-3);
  expect(credit.at).toBe(0);
  credit.find = 'nobody';
  expect(credit.chosen).toBeUndefined();
});

test('the limit stands at two thirds, and nothing goes past the end', () => {
  expect(CreditState.share(1000, row('x'))).toBeCloseTo(66.67, 1);
  expect(CreditState.share(9000, row('x'))).toBe(100);
  expect(CreditState.share(-5, row('x'))).toBe(0);
  expect(CreditState.share(5, row('x', { limit: null }))).toBe(0);
});
