import { afterEach, expect, test, vi } from 'vitest';
import { refused, serve } from '$lib/test/server';
import { CarrierFileState } from './carrier.svelte';
import { saysOf } from '$lib/shared';
import { GoodsState } from './goods.svelte';
import { ShipmentState } from './shipment.svelte';

afterEach(() => vi.restoreAllMocks());

const row = (id: number, more: object = {}) => ({
  id,
  order: `S26-0000${id}`,
  buyer: 'Tressel',
  to: 'Skerrow',
  carrier: 'Skerry Post',
  lines: 2,
  here: 2,
  weightKg: 4.5,
  mayGo: true,
  could: true,
  why: '',
  rule: 'whole lines',
  leaves: '2026-11-27',
  promised: null,
  ...more,
});
const view = (waiting: object[], picking: object[] = []) => ({
  warehouses: ['Skerrow quay'],
  warehouse: 'Skerrow quay',
  today: '2026-11-28',
  day: '2026-11-28',
  now: '10:20',
  carriers: [{ code: 'Skerry Post', carries: 'parcels', cutOff: '15:00' }],
  waiting,
  picking,
  nextWave: '28 Nov 1',
  goneToday: 0,
  mayShip: true,
});
const round = { id: 7, kind: 'orders', words: '', total: 2, done: 2, notDone: 0, left: 0, stopped: false, over: true, refused: [] };

const opened = async (waiting: object[], more: object = {}) => {
  const asked = serve({ 'GET /api/goods': view(waiting), 'POST /api/lists/{kind}/deeds': round, ...more });
  const goods = new GoodsState();
  await goods.load();
  return { goods, asked };
};

test('what may go on the day is chosen, what is held or leaves later is not', async () => {
  const { goods } = await opened([row(1), row(2, { mayGo: false, why: 'held: they ring back' }), row(3, { leaves: '2026-12-04' })]);
  expect(goods.chosen.map((r) => r.id)).toEqual([1]);
  expect([goods.ahead, goods.rows.length]).toEqual([1, 2]);
  goods.choose(goods.rows[1]);
  expect(goods.chosen.map((r) => r.id)).toEqual([1]);
  goods.later = true;
  goods.choose(goods.rows.find((r) => r.id === 3));
  goods.choose(goods.rows.find((r) => r.id === 1));
  expect(goods.chosen.map((r) => r.id)).toEqual([3]);
});

test('what nobody carries stands at the end, and nothing is lost for it', async () => {
  const { goods } = await opened([row(1, { carrier: '' }), row(2)]);
  expect(goods.groups.map((g) => [g.carrier, g.rows.length])).toEqual([
    ['Skerry Post', 1],
    ['', 1],
  ]);
});

test('the chosen ones are released in one round, and what was not says why', async () => {
  const refusing = { ...round, done: 1, notDone: 1, refused: [{ number: 'S26-00002', words: 'held' }] };
  const { goods, asked } = await opened([row(1), row(2)], { 'POST /api/lists/{kind}/deeds': refusing });
  await goods.release();
  const sent = asked.find((a) => a.url === '/api/lists/{kind}/deeds');
  expect(sent?.body).toMatchObject({ deed: 'release', ids: [1, 2], given: '28 Nov 1' });
  expect(goods.done).toBe('1 released as wave 28 Nov 1; 1 not: S26-00002: held');
  expect(saysOf(round, 'went')).toBe('2 went');
});

test('several are a wave by its count or by name, one alone is none', async () => {
  const { goods, asked } = await opened([row(1), row(2)]);
  const given = () => (asked.filter((a) => a.url === '/api/lists/{kind}/deeds').at(-1)?.body as { given: string }).given;
  goods.wave = ' before lunch ';
  await goods.release();
  expect([given(), goods.wave]).toEqual(['before lunch', '']);
  goods.choose(goods.rows[1]);
  await goods.release();
  expect([given(), goods.done]).toEqual(['', '2 released to be picked']);
});

test('what is being picked stands wave by wave, and a wave goes by itself', async () => {
  const shipment = (id: number, wave: string) => ({ id, number: `S26-0000${id}/1`, wave, picks: 1, picked: 0 });
  const picking = [shipment(1, ''), shipment(2, '28 Nov 1'), shipment(3, ''), shipment(4, '28 Nov 1')];
  const { goods, asked } = await opened([], { 'GET /api/goods': view([], picking) });
  expect(goods.waves.map((w) => [w.name, w.shipments.map((s) => s.id)])).toEqual([
    ['', [1, 3]],
    ['28 Nov 1', [2, 4]],
  ]);
  await goods.sendAll(goods.waves[1]!.shipments);
  expect(asked.find((a) => a.url === '/api/lists/{kind}/deeds')?.body).toMatchObject({ deed: 'send', ids: [2, 4] });
});

const pick = (line: number, item: string, more: object = {}) => ({
  line,
  bin: 'A-01',
  item,
  words: item,
  quantity: 4,
  picked: null,
  unit: '',
  bySerial: false,
  serials: [],
  forWarehouse: '',
  ...more,
});
const shipment = (picks: object[], version = 1) => ({
  number: 'S26-00001/1',
  version,
  order: 'S26-00001',
  state: 'picking',
  picks,
  mayShip: true,
  services: [],
});

test('the way along the shelves goes on to the first that nobody looked at', async () => {
  const asked = serve({
    'GET /api/shipments/{order}/{no}': shipment([pick(1, 'A', { picked: 4 }), pick(2, 'B'), pick(3, 'C')]),
    'POST /api/shipments/{order}/{no}/pick': shipment([pick(1, 'A', { picked: 4 }), pick(2, 'B', { picked: 4 }), pick(3, 'C')], 2),
  });
  const ship = new ShipmentState();
  await ship.open('S26-00001/1');
  expect([ship.at, ship.left]).toEqual([1, 2]);
  await ship.whole(ship.current);
  expect(asked.at(-1)?.body).toMatchObject({ picked: [{ line: 2, item: 'B', picked: 4 }], seen: 1 });
  expect([ship.at, ship.left]).toEqual([2, 1]);
});

test('what goes by number is asked for its numbers, as many as there are', async () => {
  const asked = serve({
    'GET /api/shipments/{order}/{no}': shipment([pick(1, 'LJ', { quantity: 2, bySerial: true })]),
    'POST /api/shipments/{order}/{no}/pick': refused(409, 'LJ T-1 goes with S26-00002/1.', 'serial_gone'),
  });
  const ship = new ShipmentState();
  await ship.open('S26-00001/1');
  await ship.whole(ship.current);
  expect(ship.typing).toBe('serials');
  await ship.numbers(ship.current, 'T-1, T-2');
  expect(asked.at(-1)?.body).toMatchObject({ picked: [{ picked: 2, serials: ['T-1', 'T-2'] }] });
  expect([ship.problem, ship.typing]).toEqual(['LJ T-1 goes with S26-00002/1.', 'serials']);
});

test('what goes by lot is asked for it, once it is known how much is there', async () => {
  const lots = { byLot: true, lots: '', lotInFront: 'L2608A', quantity: 5 };
  const asked = serve({
    'GET /api/shipments/{order}/{no}': shipment([pick(1, 'CTG-AF-BK-5', lots)]),
    'POST /api/shipments/{order}/{no}/pick': shipment([pick(1, 'CTG-AF-BK-5', { ...lots, picked: 3, lots: 'L2608A 3' })]),
  });
  const ship = new ShipmentState();
  await ship.open('S26-00001/1');
  await ship.part(ship.current, '3');
  expect([ship.typing, asked.length]).toEqual(['lots', 1]);
  await ship.lots(ship.current, ' ');
  expect(ship.problem).toContain('goes by lot');
  await ship.lots(ship.current, 'L2608A');
  expect(asked.at(-1)?.body).toMatchObject({ picked: [{ picked: 3, lots: 'L2608A' }] });
  expect([ship.typing, ship.left]).toEqual([null, 0]);
  // All of it is asked for its lot too, where none is said yet.
  await ship.whole({ ...ship.current!, lots: '', picked: null });
  expect(ship.typing).toBe('lots');
});

test('how much may go beyond what was asked for is said, and more of it is picked', async () => {
  const asked = serve({
    'GET /api/shipments/{order}/{no}': shipment([pick(1, 'A', { quantity: 4, most: 5 }), pick(2, 'B', { quantity: 4, most: 4 })]),
    'POST /api/shipments/{order}/{no}/pick': shipment([pick(1, 'A', { quantity: 4, most: 5, picked: 5 }), pick(2, 'B', { quantity: 4, most: 4 })]),
  });
  const ship = new ShipmentState();
  expect(ship.hint).toBe('');
  await ship.open('S26-00001/1');
  expect(ship.hint).toBe('of 4; up to 5 may go');
  await ship.part(ship.current, '5');
  expect(asked.at(-1)?.body).toMatchObject({ picked: [{ picked: 5 }] });
  expect(ship.hint).toBe('of 4');
});

test('words in place of how much is there are said, and nothing is sent', async () => {
  const asked = serve({ 'GET /api/shipments/{order}/{no}': shipment([pick(1, 'A')]) });
  const ship = new ShipmentState();
  await ship.open('S26-00001/1');
  await ship.part(ship.current, 'some');
  expect([ship.problem, asked.length]).toEqual(['“some” is no number.', 1]);
});

test('a carrier’s file is looked at as each one’s, and is whose shipments it names', async () => {
  const answers: Record<string, object> = {
    Ferry: { taken: [], known: 0, left: [{ row: 2, why: 'went with Skerry Post' }] },
    'Skerry%20Post': { taken: ['S26-00001/1'], known: 1, left: [] },
  };
  const asked: string[] = [];
  vi.spyOn(globalThis, 'fetch').mockImplementation((url) => {
    asked.push(String(url));
    return Promise.resolve(Response.json(answers[String(url).split('/')[3]!]));
  });
  const said = new CarrierFileState();
  await said.look(new File(['x'], 'back.csv'), ['Ferry', 'Skerry Post']);
  expect([said.carrier, said.seen?.taken]).toEqual(['Skerry Post', ['S26-00001/1']]);
  expect(await said.take()).toBe(true);
  expect(asked.at(-1)).toBe('/api/carriers/Skerry%20Post/file?filename=back.csv');
  expect(said.file).toBeNull();
});
