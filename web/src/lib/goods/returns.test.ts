import { afterEach, expect, test, vi } from 'vitest';
import { refused, serve } from '$lib/test/server';
import { ReturnsState, type ReturnView } from './returns.svelte';

afterEach(() => vi.restoreAllMocks());

const line = (key: number, left: number) => ({ key, words: `line ${key}`, unit: '', left });
const one = (more: object = {}) =>
  ({
    number: 'S1/R1',
    order: 'S1',
    no: 1,
    state: 'allowed',
    for: 'credit',
    version: 3,
    lines: [{ key: 7, words: 'x', unit: '', quantity: 2, toStock: 0 }],
    settledBy: [],
    ...more,
  }) as unknown as ReturnView;
const view = (...returns: ReturnView[]) => ({ returns, lines: [line(7, 5), line(8, 3)], mayAsk: true, mayTake: true, maySettle: true });
const made = () => {
  const moved = vi.fn();
  return { moved, state: new ReturnsState(() => 'S1', moved) };
};

test('only what was typed comes back, and the page is told', async () => {
  const asked = serve({ 'GET /api/orders/{number}/returns': view(), 'POST /api/orders/{number}/returns': view(one({ state: 'asked' })) });
  const { moved, state } = made();
  await state.load();
  state.asked = { 7: '1,5', 8: '' };
  await state.ask('replacement', 'cracked');
  expect(asked.at(-1)?.body).toEqual({ lines: [{ key: 7, quantity: 1.5 }], for: 'replacement', reason: 'cracked' });
  expect([state.open.length, moved.mock.calls.length, state.asked]).toEqual([1, 1, {}]);
});

test('what came goes to the shelf or not, on the version that was seen', async () => {
  const asked = serve({
    'GET /api/orders/{number}/returns': view(one()),
    'POST /api/orders/{number}/returns/{no}/take': view(one({ state: 'back' })),
  });
  const { state } = made();
  await state.load();
  await state.take(state.open[0]!, false);
  expect(asked.at(-1)?.body).toEqual({ lines: [{ key: 7, quantity: 2, toStock: 0 }], seen: 3 });
});

test('what somebody else was quicker with is said, and it is looked at anew', async () => {
  const asked = serve({
    'GET /api/orders/{number}/returns': view(one()),
    'POST /api/orders/{number}/returns/{no}/settle': refused(409, 'S1/R1 is settled already.', 'return_state'),
  });
  const { moved, state } = made();
  await state.load();
  await state.settle(state.open[0]!);
  expect([state.problem, moved.mock.calls.length]).toEqual(['S1/R1 is settled already.', 0]);
  expect(asked.filter((a) => a.method === 'GET')).toHaveLength(2);
});
