import { afterEach, expect, test, vi } from 'vitest';
import { refused, serve } from '$lib/test/server';
import { AskState } from './ask.svelte';

const ruler = (figure: string, extra: object = {}) => ({ figure, value: 12, said: '12.0 %', asked: true, upTo: 10, moreIsWorse: true, ...extra });
const view = (extra: object = {}) => ({
  id: 7,
  may: { decide: true, handsOn: false, answer: false, withdraw: false },
  rulers: [ruler('discount'), ruler('margin', { moreIsWorse: false, upTo: 19 }), ruler('sheet-margin', { asked: false, upTo: null })],
  beside: [{ id: 7 }, { id: 8 }, { id: 9 }],
  place: { position: 1, waiting: 3, next: 8 },
  ...extra,
});

afterEach(() => vi.restoreAllMocks());

async function opened(answers: Record<string, unknown>, onwards: (next: number | null) => void = () => {}) {
  const asked = serve({ 'GET /api/asks/{id}': view(), ...answers });
  const state = new AskState(onwards);
  await state.open(7);
  return { asked, state };
}

test('a grant says yes to what was asked and goes on to the next', async () => {
  const next = vi.fn();
  const { asked, state } = await opened({ 'POST /api/asks/{id}/grant': {} }, next);
  expect(state.only?.figure).toBe('discount');
  await state.grant();
  expect(asked.at(-1)?.body).toEqual({ note: null, figure: null, upTo: null, until: null });
  expect(next).toHaveBeenCalledExactlyOnceWith(8);
});

test('up to a figure goes with the figure, however it is typed', async () => {
  const { asked, state } = await opened({ 'POST /api/asks/{id}/grant': {} });
  expect(state.upTo).toBe('10');
  state.upTo = '9,5 %';
  await state.grantUpTo();
  expect(asked.at(-1)?.body).toEqual({ note: null, figure: 'discount', upTo: 9.5, until: null });
});

test('an amount in thousands that is proposed goes back as it stands', async () => {
  const value = ruler('value', { upTo: 41_250 });
  const { asked, state } = await opened({ 'GET /api/asks/{id}': view({ rulers: [value] }), 'POST /api/asks/{id}/grant': {} });
  expect(state.upTo).toBe('41,250');
  await state.grantUpTo();
  expect(asked.at(-1)?.body).toEqual({ note: null, figure: 'value', upTo: 41_250, until: null });
});

test('what is no number is not sent, and a refusal stays on the page', async () => {
  const next = vi.fn();
  const { asked, state } = await opened({ 'POST /api/asks/{id}/grant': refused(409, 'It was decided already.', 'ask_decided') }, next);
  state.upTo = 'ten';
  await state.grantUpTo();
  expect(state.problem).toContain('ten');
  expect(asked.filter((a) => a.method === 'POST')).toHaveLength(0);
  await state.grant();
  expect(state.problem).toBe('It was decided already.');
  expect(next).not.toHaveBeenCalled();
  expect(state.busy).toBe(false);
});

test('two presses at once decide once', async () => {
  let release = () => {};
  const { asked, state } = await opened({ 'POST /api/asks/{id}/grant': () => new Promise((done) => (release = () => done({}))) });
  const first = state.grant();
  await state.grant();
  release();
  await first;
  expect(asked.filter((a) => a.method === 'POST')).toHaveLength(1);
});

test('several granted together leave the first that was not among them', async () => {
  const next = vi.fn();
  const { asked, state } = await opened({ 'POST /api/asks/grant': 2 }, next);
  await state.grantAll([7, 8], '');
  expect(asked.at(-1)?.body).toEqual({ asks: [7, 8], note: '' });
  expect(next).toHaveBeenCalledExactlyOnceWith(9);
});

test('an answer stays on the page, a question goes on', async () => {
  const next = vi.fn();
  const { state } = await opened({ 'POST /api/asks/{id}/talk': {} }, next);
  await state.talk('Who offers less?');
  expect(next).toHaveBeenCalledOnce();
  const own = await opened({ 'GET /api/asks/{id}': view({ may: { decide: false, answer: true } }), 'POST /api/asks/{id}/talk': {} }, next);
  await own.state.talk('A yard next door.');
  expect(next).toHaveBeenCalledOnce();
});
