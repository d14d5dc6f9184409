import { afterEach, expect, test, vi } from 'vitest';
import { refused, serve } from '$lib/test/server';
import { BankState } from './bank.svelte';
import { BillingState } from './billing.svelte';

afterEach(() => vi.restoreAllMocks());

const order = (id: number, more: object = {}) => ({
  id,
  order: `S26-0000${id}`,
  buyer: 'Tressel',
  poNumber: '',
  shipments: '/1',
  went: '2026-11-27',
  inPart: false,
  currency: 'EUR',
  value: 10.1,
  goesTo: 'a@tressel.example',
  isReady: true,
  collected: null,
  ...more,
});
const round = { id: 7, kind: 'orders', words: '', total: 2, done: 2, notDone: 0, left: 0, stopped: false, over: true, refused: [] };

test('all that went is chosen, sums stay apart by currency, and what is left out is not invoiced', async () => {
  const asked = serve({
    'GET /api/invoices/due': { orders: [order(1), order(2, { value: 20.2 }), order(3, { currency: 'GBP' })], all: 5, more: [8, 9], issued: 0, mayBill: true },
    'POST /api/lists/{kind}/deeds': round,
  });
  const bills = new BillingState();
  await bills.load();
  expect(bills.sums).toEqual([
    { currency: 'EUR', value: 30.3 },
    { currency: 'GBP', value: 10.1 },
  ]);
  bills.go(1);
  bills.choose(bills.current);
  await bills.issue();
  expect(asked.find((a) => a.method === 'POST')?.body).toEqual({ deed: 'invoice', given: '', ids: [1, 3, 8, 9], count: 4 });
  expect(bills.done).toBe('2 invoiced');
});

test('what a buyer gets in a month is one row, chosen when the month is over, and one invoice', async () => {
  const month = (until: string, isOver: boolean) => order(7, { order: '', isReady: isOver, collected: { buyer: 7, orders: 3, until } });
  const asked = serve({
    'GET /api/invoices/due': { orders: [month('2026-10-31', true), month('2026-11-30', false)], all: 6, more: [], issued: 0, mayBill: true },
    'POST /api/invoices/collected': [{ number: 'F26-00009' }],
  });
  const bills = new BillingState();
  await bills.load();
  expect(bills.chosen.map((r) => r.collected?.until)).toEqual(['2026-10-31']);
  await bills.issue();
  expect(asked.filter((a) => a.method === 'POST').map((a) => a.body)).toEqual([{ buyer: 7, currency: 'EUR', until: '2026-10-31' }]);
  expect(bills.done).toBe('F26-00009 for 3 orders of Tressel');
  bills.choose(bills.rows[1]);
  expect(bills.chosen).toHaveLength(2);
});

test('services wait until somebody says that they are done', async () => {
  const asked = serve({
    'GET /api/invoices/due': { orders: [order(1), order(2, { shipments: 'services', isReady: false })], all: 2, more: [], issued: 0, mayBill: true },
    'POST /api/lists/{kind}/deeds': round,
  });
  const bills = new BillingState();
  await bills.load();
  expect(bills.chosen.map((r) => r.id)).toEqual([1]);
  bills.choose(bills.rows[1]);
  await bills.issue();
  expect(asked.find((a) => a.method === 'POST')?.body).toMatchObject({ ids: [1, 2] });
});

test('what was refused is said, and nothing is under way any more', async () => {
  serve({
    'GET /api/invoices/due': { orders: [order(1)], all: 1, more: [], issued: 0, mayBill: true },
    'POST /api/lists/{kind}/deeds': refused(403, 'That is not yours to do.'),
  });
  const bills = new BillingState();
  await bills.load();
  await bills.issue();
  expect([bills.problem, bills.busy]).toEqual(['That is not yours to do.', '']);
});

const line = (id: number, left = 90) => ({
  id,
  version: 1,
  day: '2026-11-27',
  reference: `B${id}`,
  payer: 'T',
  words: '',
  currency: 'EUR',
  amount: 90,
  left,
  state: 'open',
  why: 'x',
  buyer: null,
});
const view = (open: object[]) => ({ statement: 's', day: null, currency: 'EUR', sum: 0, came: 1, went: 0, open, done: [], mayApply: true, waiting: [] });
const receipt = (id: number) => ({
  line: line(id),
  payerAccount: '',
  buyerId: 4,
  buyer: 'Tressel',
  knownBy: 'by name',
  owes: 150,
  invoices: [
    { number: 'F1', due: '2026-11-01', for: '', open: 40.1, taken: 40.1 },
    { number: 'F2', due: '2026-11-02', for: '', open: 60, taken: 49.9 },
    { number: 'F3', due: '2026-11-03', for: '', open: 49.9, taken: 0 },
  ],
  paid: [],
});
const bankOf = async (more: object = {}) => {
  const asked = serve({
    'GET /api/bank': view([line(1), line(2)]),
    'GET /api/bank/{id}': (a: { params: { path?: Record<string, unknown> } }) => receipt(Number(a.params.path?.id)),
    'POST /api/bank/{id}/apply': receipt(1),
    ...more,
  });
  const bank = new BankState();
  await bank.load();
  return { bank, asked };
};

test('the oldest are paid first, and what is ticked otherwise is paid as far as the money goes', async () => {
  const { bank, asked } = await bankOf();
  expect([bank.takes, bank.left]).toEqual([
    [
      { number: 'F1', amount: 40.1 },
      { number: 'F2', amount: 49.9 },
    ],
    0,
  ]);
  bank.tick('F2');
  expect(bank.left).toBe(49.9);
  bank.tick('F3');
  expect([bank.takenOf('F3'), bank.takenOf('F2'), bank.left]).toEqual([49.9, 0, 0]);
  bank.none();
  expect([bank.takes, bank.left]).toEqual([[], 90]);
  bank.oldest();
  await bank.take();
  expect(asked.find((a) => a.method === 'POST')?.body).toEqual({
    buyer: 4,
    takes: [
      { number: 'F1', amount: 40.1 },
      { number: 'F2', amount: 49.9 },
    ],
    seen: 1,
  });
});

test('another one that is looked at begins with its own proposal', async () => {
  const { bank } = await bankOf();
  bank.none();
  bank.go(1);
  await vi.waitFor(() => expect(bank.one.value?.line.id).toBe(2));
  expect([bank.open, bank.takes.length]).toEqual([2, 2]);
});

test('what somebody else was quicker with is said, and it is looked at anew', async () => {
  const { bank } = await bankOf({ 'POST /api/bank/{id}/apply': refused(409, 'Somebody said meanwhile what it is for.', 'stale') });
  await bank.take();
  expect([bank.problem, bank.busy]).toEqual(['Somebody said meanwhile what it is for.', false]);
});

test('a statement that is taken in says how much went by itself', async () => {
  const { bank } = await bankOf({
    'POST /api/bank/waiting': {
      applied: [
        { entry: 'A', invoice: 'F1', amount: 1 },
        { entry: 'A', invoice: 'F2', amount: 1 },
        { entry: 'B', invoice: 'F3', amount: 1 },
      ],
      open: [{ entry: 'B', amount: 2, why: 'more' }],
      known: 3,
      out: 0,
    },
  });
  await bank.fetch();
  expect(bank.done).toBe('1 went by themselves, 1 needs you, 3 were there already');
});
