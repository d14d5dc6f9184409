import { afterEach, expect, test, vi } from 'vitest';
import { refused, serve } from '$lib/test/server';
import { triedWords, WaysState } from './ways.svelte';

afterEach(() => vi.restoreAllMocks());

const said = {
  channel: 'mail',
  buyer: null,
  open: true,
  through: false,
  leastSurePercent: 90,
  passes: [],
  newAddresses: false,
  keeper: null,
};
const line = { channel: 'mail', words: '', open: true, runs: true, came: 4, through: 1, waits: 2 };
const view = { line, rule: { said, version: 3, buyerName: '', keeperName: '' }, buyers: [], runs: [], checks: [], keepers: [], lately: [], mayChange: true };
const trial = { kinds: [{ kind: 'order', came: 4, through: 1 }], corrected: [], held: [] };

const opened = async (more: object = {}) => {
  const asked = serve({
    'GET /api/setup/ways': [line],
    'GET /api/setup/ways/{channel}': view,
    'POST /api/setup/ways/{channel}/try': trial,
    ...more,
  });
  const state = new WaysState();
  await state.load();
  return { state, asked };
};

test('a way in opens with its rules, tried on the past at once', async () => {
  const { state } = await opened();
  expect([state.draft?.leastSurePercent, state.changed, state.trial.value?.kinds[0]?.through]).toEqual([90, false, 1]);
});

test('what is written is kept on the version that was seen, and shown as changed until then', async () => {
  const { state, asked } = await opened({ 'POST /api/setup/ways': 4 });
  state.draft!.leastSurePercent = 80;
  expect(state.changed).toBe(true);
  await state.save();
  const sent = asked.find((a) => a.url === '/api/setup/ways' && a.method === 'POST');
  expect(sent?.body).toMatchObject({ seen: 3, said: { leastSurePercent: 80 } });
  expect(state.problem).toBe('');
});

test('a refusal is said, and what was written stays', async () => {
  const { state } = await opened({ 'POST /api/setup/ways': refused(422, 'Say who answers for what goes through.', 'keeper_missing') });
  state.draft!.through = true;
  await state.save();
  expect(state.problem).toBe('Say who answers for what goes through.');
  expect([state.draft?.through, state.changed]).toEqual([true, true]);
});

test('a buyer begins with what holds for all others, and is a new rule', async () => {
  const { state, asked } = await opened({ 'GET /api/lists/{kind}': { rows: [{ id: 7 }] }, 'POST /api/setup/ways': 1 });
  await state.begin('B-0007');
  expect([state.whose, state.draft?.buyer, state.draft?.leastSurePercent, state.changed]).toEqual([7, 7, 90, true]);
  await state.save();
  expect(asked.find((a) => a.url === '/api/setup/ways' && a.method === 'POST')?.body).toMatchObject({ seen: 0, said: { buyer: 7 } });
});

test('what others change comes in, but not over what is being written', async () => {
  const { state } = await opened();
  state.draft!.leastSurePercent = 70;
  await state.refresh();
  expect(state.draft?.leastSurePercent).toBe(70);
});

test('what was tried says whether the rules take such messages at all', () => {
  const rules = { ...said, quotes: true, changes: false, freeLines: false, everyMinutes: 0, settings: {} } as Parameters<typeof triedWords>[1];
  expect(triedWords({ kind: 'requestForQuotation', came: 6, through: 4 }, rules)).toBe('of 6 that ask for prices would have become quotes');
  expect(triedWords({ kind: 'order', came: 1, through: 1 }, rules)).toBe('of 1 order would have gone through, if orders were let');
  expect(triedWords({ kind: 'change', came: 2, through: 0 }, rules)).toBe('of 2 changes would have been put onto their orders, if changes were let');
});
