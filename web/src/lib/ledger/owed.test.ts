import { afterEach, expect, test, vi } from 'vitest';
import { refused, serve } from '$lib/test/server';
import { AccountState, OwedState } from './owed.svelte';

afterEach(() => vi.restoreAllMocks());

const buyer = (id: number, more: object = {}) => ({
  id,
  code: `B-${id}`,
  name: `Buyer ${id}`,
  open: 10,
  bands: [0, 10, 0, 0, 0],
  disputed: 0,
  onAccount: 0,
  step: 1,
  remindedOn: null,
  hasAddress: true,
  ...more,
});
const owed = (...buyers: object[]) => ({ currency: 'EUR', bands: ['not due', 'a', 'b', 'c', 'd'], sums: [0, 20, 0, 0, 0], buyers, mayBook: true });

test('whom a letter is due is chosen, and one that cannot go stops no other', async () => {
  let asked = 0;
  const calls = serve({
    'GET /api/owed': owed(buyer(1), buyer(2), buyer(3, { step: 0 }), buyer(4, { hasAddress: false }), buyer(5)),
    'POST /api/owed/{buyer}/remind': () => (++asked === 1 ? refused(409, 'A letter went within the week.') : {}),
  });
  const state = new OwedState();
  await state.load();
  expect(state.chosen.map((b) => b.id)).toEqual([1, 2, 5]);
  state.go(1);
  state.choose(state.current);
  state.choose(state.rows[2]);
  expect(state.chosen.map((b) => b.id)).toEqual([1, 5]);
  await state.remind();
  expect(calls.filter((c) => c.method === 'POST')).toHaveLength(2);
  expect([state.done, state.problem, state.busy]).toEqual(['1 reminded', 'Buyer 1: A letter went within the week.', '']);
});

const item = (number: string, open: number, more: object = {}) => ({
  number,
  invoice: number,
  order: '',
  due: '2026-11-01',
  late: 0,
  currency: 'EUR',
  open,
  early: 0,
  earlyUntil: null,
  disputed: '',
  disputedBy: '',
  step: 0,
  remindedOn: null,
  isSmall: false,
  ...more,
});
const account = (...items: object[]) => ({
  id: 4,
  code: 'B-4',
  name: 'Tressel',
  mail: 'a@tressel.example',
  currency: 'EUR',
  home: 'EUR',
  items,
  money: [],
  next: 0,
  hows: ['cash'],
  today: '2026-11-28',
  mayBook: true,
  mayBill: true,
});

test('money that is noted pays what is due first in its currency, and the rest stays on account', async () => {
  const calls = serve({
    'GET /api/owed/{buyer}': account(item('F1', 40.1), item('F2', 7, { currency: 'GBP' }), item('F3', 60), item('C1', -5)),
    'POST /api/owed/{buyer}/receipts': account(),
  });
  const state = new AccountState(() => 4);
  await state.load();
  expect(state.sums).toEqual([
    { currency: 'EUR', open: 95.1 },
    { currency: 'GBP', open: 7 },
  ]);
  expect(state.takes(50, 'EUR')).toEqual([
    { number: 'F1', amount: 40.1 },
    { number: 'F3', amount: 9.9 },
  ]);
  expect(state.takes(50, 'USD')).toEqual([]);
  await state.receive(50, 'EUR', '2026-11-28', 'cash', '', true);
  expect(calls.at(-1)?.body).toEqual({ amount: 50, currency: 'EUR', day: '2026-11-28', how: 'cash', words: '', takes: [] });
  expect([state.items.length, state.done]).toEqual([0, 'noted']);
});

test('what a note left over goes to what is due first in its currency, or it is said that there is none', async () => {
  const note = item('C1', -5);
  const calls = serve({
    'GET /api/owed/{buyer}': account(item('F1', 8, { currency: 'GBP' }), note, item('F2', 60)),
    'POST /api/owed/{buyer}/set-off': account(item('F2', 55)),
  });
  const state = new AccountState(() => 4);
  await state.load();
  await state.setOff(note);
  expect(calls.at(-1)?.body).toEqual({ note: 'C1', invoice: 'F2' });
  await state.setOff(item('C2', -5, { currency: 'GBP' }));
  expect([calls.length, state.problem]).toEqual([2, 'Nothing is open in GBP that it could be taken for.']);
});
