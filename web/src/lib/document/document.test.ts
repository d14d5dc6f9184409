import { afterEach, expect, test, vi } from 'vitest';
import { api, type Schemas } from '$lib/api';
import { DocumentState } from './document.svelte';
import { trackOf, tracks } from './tracks';

type View = Schemas['DocumentView'];

const cure = (key: string, words: string) => ({ key, words, action: 'set' });
const finding = (line: number | null, extra: object = {}) => ({
  line,
  cures: [],
  mayWaive: false,
  outcome: 'stop',
  check: 'po',
  field: '',
  words: '',
  ...extra,
});
const sheet = (version: number, findings: object[] = []) => ({
  id: 1,
  version,
  editable: true,
  lines: [{ key: 1, kind: 'item' }],
  findings,
  terms: [],
});
const view = (version: number, findings: object[] = [], kind = 'order') =>
  ({ kind, number: 'S1', next: { code: 'confirm', possible: true }, sheet: sheet(version, findings) }) as unknown as View;

afterEach(() => vi.restoreAllMocks());

test('what cannot be undone names the version that was looked at', async () => {
  const post = vi.spyOn(api, 'POST').mockResolvedValue({ data: view(8), response: new Response() } as never);
  const document = new DocumentState(view(7), async () => view(7), true);
  await document.confirm();
  await document.ask('they wait');
  expect(post.mock.calls.map((c) => (c[1] as { params: { header: object } }).params.header)).toEqual([{ 'If-Match': '"7"' }, { 'If-Match': '"8"' }]);
});

test('a refusal is said and changes nothing', async () => {
  vi.spyOn(api, 'POST').mockResolvedValue({ error: { title: 'No PO number yet.' }, response: new Response(null, { status: 409 }) } as never);
  const document = new DocumentState(view(7), async () => view(7), true);
  await document.goOn();
  expect([document.problem, document.sheet.view.version]).toEqual(['No PO number yet.', 7]);
  expect(await document.turn()).toBeNull();
  // A dialog hears it itself, and keeps what was typed.
  await expect(document.confirm()).rejects.toThrow('No PO number yet.');
  await expect(document.withdraw('too dear')).rejects.toThrow('No PO number yet.');
});

test('what others did is followed, but nothing older than what is shown', async () => {
  let there = view(9);
  vi.spyOn(api, 'GET').mockImplementation((async () => ({ data: { sheet: 1, version: 10, event: 0 }, response: new Response() })) as never);
  const document = new DocumentState(view(7), async () => there, true);
  await document.follow();
  expect(document.sheet.view.version).toBe(9);
  there = view(8);
  await document.follow();
  expect(document.sheet.view.version).toBe(9);
});

test('what one did oneself is not fetched again; what else was done to the document is', async () => {
  const newest = { sheet: 1, version: 7, event: 40 };
  vi.spyOn(api, 'GET').mockImplementation((async () => ({ data: newest, response: new Response() })) as never);
  const load = vi.fn(async () => view(7));
  const document = new DocumentState({ ...view(7), lastEvent: 40 }, load, true);
  await document.follow();
  expect(load).not.toHaveBeenCalled();
  newest.event = 41;
  await document.follow();
  expect(load).toHaveBeenCalledOnce();
});

test('keys cure what is wrong where they are and with the whole; the same way out has one key', () => {
  const findings = [
    finding(1, { cures: [cure('S', 'the second warehouse')] }),
    finding(null, { cures: [cure('s', 'ship later'), cure('D', 'another day')] }),
    finding(2, { cures: [cure('X', 'of another line')] }),
  ];
  const document = new DocumentState(view(1, findings), async () => view(1), true);
  expect(document.cures.map((c) => [c.key, c.cure.words])).toEqual([
    ['s', 'the second warehouse'],
    ['d', 'another day'],
  ]);
});

test('only an order’s stops are let pass, and only those that this person may', () => {
  const findings = [finding(null), finding(1, { mayWaive: true, check: 'credit' })];
  expect(new DocumentState(view(1, findings), async () => view(1), true).waivable?.check).toBe('credit');
  expect(new DocumentState(view(1, findings, 'quote'), async () => view(1), true).waivable).toBeUndefined();
  expect(new DocumentState(view(1, [finding(null)]), async () => view(1), true).waivable).toBeUndefined();
});

test('a stop that is let pass is named with its line, its field and the reason', async () => {
  const post = vi.spyOn(api, 'POST').mockResolvedValue({ data: view(2), response: new Response() } as never);
  const document = new DocumentState(view(1), async () => view(1), true);
  document.waived = finding(1, { check: 'credit', field: 'limit' }) as never;
  await document.waive('paid by phone');
  expect(post.mock.calls[0]![1]).toMatchObject({ body: { check: 'credit', line: 1, field: 'limit', reason: 'paid by phone' } });
});

test('each state of the three tracks has words and a bar', () => {
  expect(tracks({ terms: 'held', goods: 'partShipped', money: 'paid' }).map((t) => [t.words, t.share])).toEqual([
    ['held', 40],
    ['part shipped', 55],
    ['paid', 100],
  ]);
  expect(trackOf('goods', 'picking')).toMatchObject({ name: 'Goods', words: 'picking' });
});
