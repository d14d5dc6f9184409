import { afterEach, expect, test, vi } from 'vitest';
import { api } from '$lib/api';
import { serve } from '$lib/test/server';
import { placed, top } from './day';
import { DeskState } from './desk.svelte';

const item = (number: string, urgency = 'atOnce') => ({ kind: 'order', number, path: `/orders/${number}`, urgency });
const desk = async (...items: object[]) => {
  const get = vi.spyOn(api, 'GET').mockResolvedValue({ data: { today: '2026-03-05', items, day: [] }, response: new Response() } as never);
  const state = new DeskState();
  await state.load();
  return { state, get };
};
afterEach(() => vi.restoreAllMocks());

test('what is urgent stands first, whatever order it comes in, and the count is said', async () => {
  const { state } = await desk(item('S3', 'whenThereIsTime'), item('S1'), item('S2', 'today'));
  expect(state.items.map((i) => i.number)).toEqual(['S1', 'S2', 'S3']);
  expect([state.count, state.today]).toEqual(['Three things need you.', 'Thursday, 5 March']);
  expect((await desk()).state.count).toBe('Nothing needs you.');
  expect((await desk(item('S1'))).state.count).toBe('One thing needs you.');
});

test('the keys stay on what they were on when something comes in above it', async () => {
  const { state, get } = await desk(item('S1'), item('S2'));
  state.go(1);
  get.mockResolvedValue({ data: { today: '2026-03-05', items: [item('S0'), item('S1'), item('S2')], day: [] }, response: new Response() } as never);
  await state.load();
  expect([state.chosen?.number, state.at]).toEqual(['S2', 2]);
  state.go(9);
  expect(state.chosen?.number).toBe('S2');
  get.mockResolvedValue({ data: { today: '2026-03-05', items: [item('S0')], day: [] }, response: new Response() } as never);
  await state.load();
  expect(state.chosen?.number).toBe('S0');
});

test('a pointer that rests chooses nothing; one that moves does', async () => {
  const { state } = await desk(item('S1'), item('S2'));
  state.point(state.items[1]!, 5, 5);
  expect(state.at).toBe(0);
  state.point(state.items[1]!, 5, 5);
  expect(state.at).toBe(0);
  state.point(state.items[1]!, 5, 6);
  expect(state.at).toBe(1);
});

test('marks of the same hour stand below one another, and none falls off the day', () => {
  const at = (hour: number) => new Date(2026, 2, 5, hour).toISOString();
  const tops = placed([{ at: at(9) }, { at: at(9) }, { at: at(22) }, { at: at(23) }]).map((m) => m.top);
  expect(tops[1]! - tops[0]!).toBeCloseTo(8);
  expect(tops.slice(2)).toEqual([97, 97]);
  expect([top(3), top(8), top(18.5), top(24)]).toEqual([0, 0, 100, 100]);
});

const ready = (number: string, isOrder: boolean, currency: string, value: number | null) => ({ id: Number(number.slice(1)), number, isOrder, currency, value });
const withReady = async (...ones: object[]) => {
  serve({
    'GET /api/desk': () => ({ today: '2026-03-05', items: [], day: [], ready: ones }),
    'POST /api/lists/{kind}/deeds': { id: 1, over: false, done: 0, notDone: 0, refused: [] },
    'GET /api/rounds/{id}': { id: 1, over: true, done: 2, notDone: 1, refused: [{ number: 'R3', words: 'its PO was used before' }] },
  });
  const state = new DeskState();
  await state.load();
  return state;
};

test('what is ready is counted by what becomes of it, and its worth stays apart by currency', async () => {
  const state = await withReady(ready('R1', true, 'EUR', 10.5), ready('R2', true, 'EUR', 20), ready('R3', false, 'SEK', 5), ready('R4', false, '', null));
  expect(state.readyCount).toBe('2 orders and 2 quotes');
  expect(state.readyWorth).toBe('30.50 EUR and 5.00 SEK');
  expect(state.count).toBe('Nothing needs you. 4 are ready.');
});

test('all that is ready is taken in one go, and what was not says why', async () => {
  const state = await withReady(ready('R1', true, 'EUR', 10), ready('R2', true, 'EUR', 10), ready('R3', true, 'EUR', 10));
  await state.takeAll();
  expect(state.took).toBe('2 taken, 1 not: R3 its PO was used before.');
  expect(state.taking).toBe(false);
});
