import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { refused, serve, type Asked } from '$lib/test/server';
import { moreColumns } from './columns';
import { SheetState } from './sheet.svelte';
import { SourcesState } from './sources.svelte';

type View = ConstructorParameters<typeof SheetState>[0];

const says = { oneOf: '', inner: '', job: '', orderedBy: '', deliverTo: null, shipFrom: null, cost: null, costWhy: '' };
const line = (key: number, words: string, more: object = {}) => ({ key, number: String(key), kind: 'item', code: null, words, note: '', says, ...more });
const lines = [line(1, 'Bow shackle'), line(2, 'Tackle', { kind: 'heading', number: '' }), line(3, 'Eye splice'), line(4, 'Bow thruster', { note: 'big' })];
const view = (version = 1) => ({ id: 7, version, editable: true, lines, findings: [], terms: [] }) as unknown as View;
const taken = { sheet: view(2), next: { code: 'send' }, state: 'drafting', stateWords: 'drafting', tracks: null };

let asked: Asked[];
const sheet = (answers: Record<string, unknown> = {}) => {
  asked = serve({ 'POST /api/sheets/{id}/edits': taken, ...answers });
  return new SheetState(view(), async () => undefined);
};
const edits = () => asked.filter((a) => a.url.endsWith('/edits')).map((a) => a.body);

beforeEach(() => (asked = []));
afterEach(() => vi.restoreAllMocks());

test('what is picked is changed together, headings only where they can be', async () => {
  const s = sheet();
  s.line = 1;
  s.pickOn(1);
  s.pickOn(1);
  expect(s.picks.map((l) => l.key)).toEqual([1, 2, 3]);
  await s.setPicks('discount', '5');
  await s.gather('Deck');
  expect(edits()).toEqual([
    [
      { kind: 'set', line: 1, field: 'discount', value: '5' },
      { kind: 'set', line: 3, field: 'discount', value: '5' },
    ],
    [{ kind: 'gather', value: 'Deck', field: '1,2,3' }],
  ]);
  s.line = 3;
  s.pick();
  expect(s.picks.map((l) => l.key)).toEqual([1, 2]);
  s.remove();
  expect(s.picks).toEqual([]);
});

test('words are found from where the keys are, round and in both directions', () => {
  const s = sheet();
  s.line = 1;
  expect(s.find('bow')).toBe(true);
  expect(s.line).toBe(4);
  expect(s.find('BOW')).toBe(true);
  expect(s.line).toBe(1);
  expect(s.find('big', -1)).toBe(true);
  expect(s.line).toBe(4);
  expect(s.find('anchor')).toBe(false);
  expect(s.line).toBe(4);
});

test('the keys go over the columns that were chosen too', () => {
  const s = sheet();
  s.chosen = ['job', 'wanted', 'tax'];
  expect(moreColumns(s.chosen).map((c) => c.name)).toEqual(['wanted', 'job', 'tax']);
  [s.line, s.column] = [1, 'margin'];
  s.moveColumn(1);
  expect(s.column).toBe('wanted');
  s.moveColumn(1);
  s.moveColumn(1);
  expect([s.line, s.column]).toEqual([2, 'item']);
  s.moveColumn(-1);
  expect([s.line, s.column]).toEqual([1, 'job']);
});

test('what a wish takes is done as one step, and what it cannot is said', async () => {
  const wish = (more: object) => ({ wish: { edits: [{ kind: 'set', field: 'sheetDiscount', value: '12 EUR' }], whyNot: '', ...more } });
  await sheet({ 'GET /api/sheets/{id}/reach': wish({}) }).endAt(' 2000');
  expect(edits()).toEqual([[{ kind: 'set', field: 'sheetDiscount', value: '12 EUR' }]]);
  const s = sheet({ 'GET /api/sheets/{id}/reach': wish({ edits: [], whyNot: 'It comes to less already.' }) });
  await s.endAt('99999');
  expect([edits(), s.problem]).toEqual([[], 'It comes to less already.']);
});

test('columns that could not be kept are said, and shown all the same', async () => {
  const s = sheet({ 'POST /api/sheets/columns': refused(422, 'A sheet has no such column.') });
  await s.choose(['weather']);
  expect([s.problem, s.chosen]).toEqual(['A sheet has no such column.', ['weather']]);
});

const source = (kind: string, key: string) => ({ kind, key, words: key, rest: '', day: null, lines: 2 });
const from = (text: string, more: object = {}) => ({
  kind: 'item',
  text,
  then: null,
  code: text.split(' ')[0],
  words: text,
  quantity: 1,
  unitWord: '',
  price: 1,
  priceThen: null,
  whyNot: '',
  ...more,
});

test('an earlier order is taken whole, at the prices of then if somebody wants that, without what is sold no more', async () => {
  const of = [from('# Deck', { kind: 'heading' }), from('A x 2', { then: 'A x 2 @4' }), from('OLD x 1', { whyNot: 'sold no more' })];
  const s = new SourcesState(sheet({ 'GET /api/sheets/{id}/sources': [source('order', 'S1')], 'GET /api/sheets/{id}/sources/{kind}/{key}': of }));
  await s.open();
  expect([...s.wanted]).toEqual([0, 1]);
  s.then = true;
  expect(await s.take()).toBe(true);
  expect(edits()).toEqual([
    [
      { kind: 'addHeading', value: 'Deck' },
      { kind: 'add', value: 'A x 2 @4', field: 'A' },
    ],
  ]);
});

test('what is wanted of the catalogue stays while somebody looks for more', async () => {
  const found = (a: Asked) => (a.params.query?.['q'] ? [from('B x 1'), from('A x 1')] : [from('A x 1'), from('C x 1')]);
  const s = new SourcesState(sheet({ 'GET /api/sheets/{id}/sources': [source('catalogue', 'all')], 'GET /api/sheets/{id}/sources/{kind}/{key}': found }));
  await s.open();
  expect(s.wanted.size).toBe(0);
  s.count(0, '12');
  s.words = 'b';
  await s.fill();
  expect(s.lines.map((l) => l.code)).toEqual(['A', 'B']);
  s.flip(1);
  expect(await s.take()).toBe(true);
  expect(edits()).toEqual([
    [
      { kind: 'add', value: 'A x 12', field: 'A' },
      { kind: 'add', value: 'B x 1', field: 'B' },
    ],
  ]);
});
