import { afterEach, expect, test, vi } from 'vitest';
import type { Schemas } from '$lib/api';
import { refused, serve } from '$lib/test/server';
import { OutlookState, PlanningState } from './planning.svelte';
import { draw, round } from './stepped';

afterEach(() => vi.restoreAllMocks());

const step = (day: string, quantity: number, level: number, kind = 'promised') => ({ day, quantity, level, kind, words: kind, order: null });
const wait = (commitment: number, quantity: number, kept: number, reliefs: object[] = []) => ({ commitment, quantity, kept, reliefs });
const relief = { sign: 'Split//0/70/12', words: 'the rest, 70 m', effect: '', hurts: true };
const outlook = {
  item: 1,
  code: 'NET',
  unit: 'm',
  warehouse: 'Quay',
  warehouses: ['Quay', 'Depot'],
  today: '2026-11-27',
  row: { onHand: 640, days: [] },
  past: [step('2026-11-10', 400, 700, 'arrived'), step('2026-11-20', -60, 640, 'shipped')],
  ahead: [step('2026-11-30', -700, -60), step('2026-12-09', 900, 840, 'comes')],
  free: [
    { day: '2026-11-27', free: 0 },
    { day: '2026-12-09', free: 840 },
  ],
  waits: [wait(1, 170, 170), wait(2, 400, 330, [relief])],
} as unknown as Schemas['OutlookView'];

test('the line goes down and up where it should, and what is short lies under nothing', () => {
  const drawn = draw(outlook, 1000, 200);
  const ys = drawn.marks.map((m) => m.y);
  expect(ys[0]).toBeLessThan(ys[1]!);
  expect(drawn.marks[2]!.y).toBeGreaterThan(drawn.zero);
  expect(drawn.short).toHaveLength(1);
  expect(drawn.short[0]!.y).toBe(drawn.zero);
  expect(drawn.short[0]!.x + drawn.short[0]!.width).toBeCloseTo(drawn.marks[3]!.x, 1);
  expect(drawn.marks.filter((m) => m.ahead).every((m) => m.x >= drawn.now)).toBe(true);
  expect(drawn.levels.map((l) => l.value)).toContain(0);
  expect(drawn.levels.map((l) => Object.is(l.value, -0))).not.toContain(true);
});

test.each([
  [1000, 4, 500],
  [7, 4, 2],
  [0, 4, 0.5],
])('a span of %s in %s lines has one every %s', (span, lines, gap) => expect(round(span, lines)).toBe(gap));

test('the first that cannot be kept has the keys; what is gone is said, and what stands now is shown', async () => {
  const asked = serve({
    'GET /api/planning/{item}': outlook,
    'POST /api/planning/reliefs': refused(409, 'The stock is not what it was.'),
  });
  const state = new OutlookState();
  await state.begin(1, 'Quay');
  expect(state.chosen?.commitment).toBe(2);
  await state.take(2, relief);
  expect(state.problem).toBe('The stock is not what it was.');
  expect(asked.filter((a) => a.method === 'GET')).toHaveLength(2);
  expect(asked[1]!.body).toEqual({ commitment: 2, sign: relief.sign });
});

test('the list shows what falls short, and says what promising anew did', async () => {
  const row = (code: string, shortFrom: string | null, late: number, slipped: number) => ({ code, words: '', warehouse: 'Quay', shortFrom, late, slipped });
  serve({
    'GET /api/planning': { rows: [row('A', '2026-12-04', 1, 0), row('B', null, 0, 3), row('C', null, 0, 0)], anew: [], positions: 9, mayPlan: true },
    'POST /api/planning/anew': { lines: 2, orders: 2, told: 1 },
  });
  const state = new PlanningState();
  await state.load();
  expect(state.rows.map((r) => r.code)).toEqual(['A']);
  state.show('slipped');
  expect(state.rows.map((r) => r.code)).toEqual(['B']);
  expect(state.count('all')).toBe(3);
  state.find = 'c';
  state.show('all');
  expect(state.rows.map((r) => r.code)).toEqual(['C']);
  state.go(5);
  expect(state.at).toBe(0);
  await state.anew();
  expect(state.done).toBe('2 promises of 2 orders moved; 1 buyer was told.');
});
