import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { api } from '$lib/api';
import { isNumber, show, showFoot } from './cells';
import { ListState, type Kind } from './list.svelte';

const field = (name: string, type = 'text', inList = true) => ({ name, label: name, type, inList, canSort: true, mayChange: true });
const kind = (extra: Partial<Kind> = {}) =>
  ({
    name: 'orders',
    title: 'Orders',
    one: 'order',
    activeWord: 'open',
    mayChange: false,
    fields: [field('number', 'code'), field('buyer'), field('seller', 'text', false)],
    deeds: [{ name: 'confirm', words: 'Confirm them', withReason: false }],
    ...extra,
  }) as unknown as Kind;

interface Query {
  filter: string;
  sort?: string;
  down?: boolean;
  skip?: number;
  columns: string;
}
interface Call {
  url: string;
  query: Query;
  give: (body: unknown, status?: number) => void;
}

const page = (ids: number[], total = ids.length) => ({ total, rows: ids.map((id) => ({ id, active: true, calls: `S-${id}`, cells: [`S-${id}`, ''] })) });

/** What the list asks, answered by the test in whatever order it likes. */
let calls: Call[];
beforeEach(() => {
  calls = [];
  const get = (url: string, init: { params: { query: Query } }) =>
    new Promise((done) =>
      calls.push({
        url,
        query: init.params.query,
        give: (body, status = 200) => {
          const response = new Response(null, { status });
          done(response.ok ? { data: body, response } : { error: body, response });
        },
      }),
    );
  vi.spyOn(api, 'GET').mockImplementation(get as unknown as typeof api.GET);
});
afterEach(() => vi.restoreAllMocks());

const rows = () => calls.filter((c) => c.url === '/api/lists/{kind}');
const settle = () => new Promise((done) => setTimeout(done));

test('an answer that was overtaken is dropped, in whatever order they come', async () => {
  const list = new ListState(kind());
  void list.restart();
  list.filter = 'tressel';
  void list.restart();
  const [old, fresh] = rows();
  fresh!.give(page([7]));
  await settle();
  old!.give(page([1, 2, 3]));
  await settle();
  expect([list.total, list.row(0)?.id]).toEqual([1, 7]);
});

test('pages are asked for once, as they come into view', async () => {
  const list = new ListState(kind());
  void list.restart();
  rows()[0]!.give(
    page(
      Array.from({ length: 100 }, (_, i) => i + 1),
      250,
    ),
  );
  await settle();
  list.show(90, 130);
  list.show(95, 140);
  expect(rows().map((c) => c.query.skip)).toEqual([0, 100]);
  rows()[1]!.give(page([101], 250));
  await settle();
  expect(list.row(100)?.id).toBe(101);
});

test('a page that failed is said, and asked for again when it is looked at', async () => {
  const list = new ListState(kind());
  void list.restart();
  rows()[0]!.give({ title: 'There is no field “colour” to filter by.' }, 422);
  await settle();
  expect(list.problem).toContain('colour');
  list.show(0, 20);
  expect(rows()).toHaveLength(2);
});

test('whoever stands on a row stays on it when others change the list', async () => {
  const list = new ListState(kind());
  void list.restart();
  rows()[0]!.give(page([1, 2, 3]));
  await settle();
  list.go(1);
  void list.refresh();
  rows()[1]!.give(page([9, 8, 1, 2, 3]));
  calls.filter((c) => c.url.endsWith('/foot')).forEach((c) => c.give({ cells: [] }));
  await settle();
  expect([list.at, list.row(list.at)?.id]).toEqual([3, 2]);
  // And where the row is gone, it stays inside.
  void list.refresh();
  rows()[2]!.give(page([9]));
  calls.filter((c) => c.url.endsWith('/foot')).forEach((c) => c.give({ cells: [] }));
  await settle();
  expect(list.at).toBe(0);
});

test('what is done with is asked for by the word of the kind, also in an export', () => {
  const list = new ListState(kind(), 'quay');
  list.toggleEverything();
  expect(rows()[0]!.query.filter).toBe('quay open:any');
  expect(list.exportPath('csv')).toContain(encodeURIComponent('quay open:any'));
});

test('sorting by the same column turns it round, and by another begins anew', () => {
  const list = new ListState(kind());
  list.sortBy('buyer');
  list.sortBy('buyer');
  list.sortBy('number');
  expect(rows().map((c) => [c.query.sort, c.query.down])).toEqual([
    ['buyer', false],
    ['buyer', true],
    ['number', false],
  ]);
});

test('columns come and go, and a view that names one that is no more still opens', () => {
  const list = new ListState(kind());
  list.toggleColumn('seller');
  expect(list.columns).toEqual(['number', 'buyer', 'seller']);
  list.toggleColumn('buyer');
  list.use({ id: 1, name: 'v', mine: true, mayChange: true, filter: 'x', columns: ['gone', 'number'], sort: 'number', down: true });
  expect([list.columns, list.filter, list.down]).toEqual([['number'], 'x', true]);
});

test('rows are chosen one by one or all that fit, and only where something can be done', () => {
  const list = new ListState(kind());
  list.total = 900;
  list.pick(4);
  list.pick(5);
  list.pick(4);
  expect([list.picked, list.chosen]).toEqual([[5], 1]);
  list.chooseAll();
  expect([list.picked, list.chosen]).toEqual([[], 900]);
  list.pick(3);
  expect([list.all, list.chosen]).toEqual([false, 1]);
  const looks = new ListState(kind({ deeds: [] }));
  looks.pick(4);
  expect(looks.chosen).toBe(0);
});

test('a deed names the filter and how many were seen, and says what could not be done', async () => {
  const post = vi.spyOn(api, 'POST').mockResolvedValue({
    data: { id: 7, kind: 'orders', done: 2, notDone: 1, left: 0, total: 3, over: true, refused: [{ number: 'S-3', words: 'It is held.' }] },
    response: new Response(),
  } as never);
  const list = new ListState(kind(), 'quay');
  list.total = 3;
  list.chooseAll();
  const doing = list.doAll('confirm', '');
  await settle();
  calls.forEach((c) => c.give(c.url.endsWith('/foot') ? { cells: [] } : page([3])));
  expect(await doing).toBe(true);
  expect(post.mock.calls[0]![1]).toMatchObject({ body: { deed: 'confirm', filter: 'quay', count: 3 } });
  expect([list.done, list.chosen]).toEqual(['2 done, 1 not. S-3: It is held.', 0]);
  expect(list.round).toBeNull();
});

test('a round that takes long is followed until it is over, and says what was left when it was stopped', async () => {
  vi.useFakeTimers();
  const under = { id: 7, kind: 'orders', words: 'Confirm', done: 20, notDone: 1, left: 479, total: 500, stopped: false, over: false, refused: [] };
  vi.spyOn(api, 'POST').mockResolvedValue({ data: under, response: new Response() } as never);
  const over = { ...under, done: 40, left: 459, stopped: true, over: true };
  let looked = 0;
  vi.spyOn(api, 'GET').mockImplementation((async (path: string) => {
    if (path === '/api/rounds/{id}') return { data: ++looked > 1 ? over : under, response: new Response() };
    return { data: path.endsWith('foot') ? { cells: [] } : { total: 0, rows: [] }, response: new Response() };
  }) as never);
  const list = new ListState(kind());
  list.pick(3);
  await list.doAll('confirm', '');
  expect(list.round).toMatchObject({ done: 20, left: 479 });
  await vi.advanceTimersByTimeAsync(800);
  expect(list.round).not.toBeNull();
  await vi.advanceTimersByTimeAsync(800);
  expect([looked, list.round]).toEqual([2, null]);
  expect(list.done).toContain('40 done, 1 not, 459 left.');
  vi.useRealTimers();
});

test('the pile that a list is filtered by is known by its key', () => {
  expect(new ListState(kind(), 'pile:k3f9 open:any').pile).toBe('k3f9');
  expect(new ListState(kind(), 'compile:k3f9').pile).toBe('');
});

test('cells are said as people read them', () => {
  expect([show('1234.5', 'money'), show('1234.50', 'money'), show('90', 'money'), show('', 'money')]).toEqual(['1,234.5', '1,234.50', '90', '']);
  expect([show('2020-03-05', 'date'), show('0.2500', 'number'), show('as is', 'code')]).toEqual(['5 Mar 2020', '0.25', 'as is']);
  expect(showFoot('2020-03-05 to 2020-04-01', 'date')).toBe('5 Mar 2020 to 1 Apr 2020');
  expect([isNumber('money'), isNumber('text')]).toEqual([true, false]);
});
