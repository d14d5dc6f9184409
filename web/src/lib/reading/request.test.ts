import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { api, type Schemas } from '$lib/api';
import { RequestState } from './request.svelte';

type View = Schemas['RequestView'];

const line = (no: number, needsYou = false, part = 0) => ({ no, needsYou, evidence: [{ part }], itemCode: `I${no}`, quantity: 1, unit: 'C62' });
const request = (number: string, version = 1, lines = [line(1), line(2, true)], extra: object = {}) =>
  ({ number, version, state: 'needsYou', parts: [{}, {}], reading: { kind: 'order', lines }, ...extra }) as unknown as View;

interface Call {
  url: string;
  init: { params: { path: { number: string } }; body?: { version: number; [name: string]: unknown } };
  give: (body: unknown, status?: number) => void;
}
let calls: Call[];
const wait = (url: string, init: Call['init']) =>
  new Promise((done) =>
    calls.push({
      url,
      init,
      give: (body, status = 200) => {
        const response = new Response(null, { status });
        done(response.ok ? { data: body, response } : { error: body, response });
      },
    }),
  );
beforeEach(() => {
  calls = [];
  vi.spyOn(api, 'GET').mockImplementation(wait as unknown as typeof api.GET);
  vi.spyOn(api, 'POST').mockImplementation(wait as unknown as typeof api.POST);
});
afterEach(() => vi.restoreAllMocks());
const settle = () => new Promise((done) => setTimeout(done));

async function opened(view = request('R1')) {
  const state = new RequestState(() => true);
  void state.load(view.number);
  calls.shift()!.give(view);
  await settle();
  return state;
}

test('pressing J twice shows the one that was asked for last, whatever comes first', async () => {
  const state = new RequestState(() => true);
  void state.load('R1');
  void state.load('R2');
  const [one, two] = calls;
  two!.give(request('R2'));
  await settle();
  one!.give(request('R1'));
  await settle();
  expect(state.view?.number).toBe('R2');
});

test('what was fetched before a change and comes after it is dropped', async () => {
  const state = await opened(request('R1', 1));
  void state.refresh();
  await settle();
  const early = calls.shift()!;
  const under = state.belongs('S26-00001');
  await settle();
  calls.shift()!.give(request('R1', 2, [line(1)], { dossier: 'D26-00001' }));
  await under;
  early.give(request('R1', 1));
  await settle();
  expect(state.view?.dossier).toBe('D26-00001');
});

test('the keys begin on the first line that is in doubt, and the part that most was read from is shown', async () => {
  const state = await opened(request('R1', 1, [line(1, false, 1), line(2, true, 1), line(3, false, 0)]));
  expect([state.line, state.part]).toEqual([2, 1]);
  state.move(1);
  state.move(1);
  expect(state.line).toBe(3);
  state.move(-9);
  expect(state.line).toBe(1);
});

test('keys go one after the other, each on the version that came back', async () => {
  const state = await opened();
  void state.correct('poNumber', 'A');
  void state.correct('poNumber', 'B');
  await settle();
  expect(calls).toHaveLength(1);
  calls[0]!.give(request('R1', 2));
  await settle();
  expect(calls.map((c) => c.init.body?.version)).toEqual([1, 2]);
});

test('a key that was pressed on a request that was left touches no other one', async () => {
  const state = await opened();
  void state.correct('poNumber', 'A');
  void state.correct('poNumber', 'B');
  await settle();
  void state.load('R2');
  calls[0]!.give(request('R1', 2));
  calls[1]!.give(request('R2', 7));
  await settle();
  expect([state.view?.number, state.view?.version, calls.length]).toEqual(['R2', 7, 2]);
});

test('a refusal is said in its own words, and what was there stays', async () => {
  const state = await opened();
  void state.correct('wanted', 'soon');
  await settle();
  calls[0]!.give({ title: '“soon” is no day.', code: 'date' }, 422);
  await settle();
  expect([state.problem, state.view?.version]).toEqual(['“soon” is no day.', 1]);
});

test('what was chosen becomes words for a line or a value of the head, once', async () => {
  const state = await opened();
  state.chosen = { part: 0, start: 4, length: 7, text: ' PO 881 ' };
  void state.use('poNumber');
  void state.use('poNumber');
  await settle();
  expect(calls.map((c) => c.init.body)).toMatchObject([{ field: 'poNumber', value: 'PO 881', where: { part: 0, start: 4, length: 7 } }]);
});

test('a change of an order is turned into nothing new, and nothing is turned by who may only look', async () => {
  const change = await opened(request('R1', 1, [line(1)], { reading: { kind: 'change', lines: [line(1)] } }));
  expect([change.turns, await change.turn(true)]).toEqual([false, null]);
  const looks = new RequestState(() => false);
  void looks.load('R1');
  calls.shift()!.give(request('R1'));
  await settle();
  expect([looks.open, await looks.turn(true)]).toEqual([false, null]);
});

test('a refresh keeps the keys where they are', async () => {
  const state = await opened();
  state.move(-1);
  void state.refresh();
  await settle();
  calls[0]!.give(request('R1', 3));
  await settle();
  expect([state.line, state.view?.version]).toEqual([1, 3]);
});

test('once no line is in doubt the keys are at what is left over, which is taken up or said to mean nothing', async () => {
  const over = (start: number) => ({ words: `12 swivels ${start}`, where: { part: 0, start, length: 10 } });
  const left = (version: number, overs: object[], lines = [line(1)]) => request('R1', version, lines, { reading: { kind: 'order', lines, leftOvers: overs } });
  const state = await opened(left(1, [over(40), over(80)]));
  expect(state.over?.where.start).toBe(40);
  void state.takeUp(state.over!);
  await settle();
  expect(calls[0]).toMatchObject({ url: '/api/requests/{number}/choose', init: { body: { version: 1, line: 0, part: 0, start: 40, length: 10 } } });
  // A line that it became and that is in doubt comes first.
  calls.shift()!.give(left(2, [over(80)], [line(1), line(2, true)]));
  await settle();
  expect([state.over, state.line]).toEqual([null, 2]);
  state.line = null;
  void state.dismiss(state.over!);
  await settle();
  expect(calls[0]).toMatchObject({ url: '/api/requests/{number}/dismiss', init: { body: { version: 2, part: 0, start: 80 } } });
  calls.shift()!.give(left(3, []));
  await settle();
  expect([state.over, state.overs]).toEqual([null, []]);
});

test('what is left over in another part brings that part to the front', async () => {
  const left = (version: number, needsYou: boolean) => {
    const lines = [line(1, needsYou, 1)];
    return request('R1', version, lines, {
      reading: { kind: 'order', lines, leftOvers: [{ words: '7777', why: '', where: { part: 0, start: 5, length: 4 } }] },
    });
  };
  const state = await opened(left(1, true));
  expect([state.line, state.part]).toEqual([1, 1]);
  void state.correct('poNumber', 'A');
  await settle();
  calls[0]!.give(left(2, false));
  await settle();
  expect([state.line, state.part, state.over?.words]).toEqual([null, 0, '7777']);
});
