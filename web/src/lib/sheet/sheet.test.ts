import { afterEach, expect, test, vi } from 'vitest';
import { api } from '$lib/api';
import { withLines, meanwhile, SheetState } from './sheet.svelte';

type View = ConstructorParameters<typeof SheetState>[0];

const line = (key: number, quantity = 1) => ({ key, kind: 'item', quantity, words: `line ${key}` });
const view = (version: number, lines: object[] = [line(1), line(2)], extra: object = {}) =>
  ({ id: 7, version, editable: true, lines, findings: [], terms: [], ...extra }) as unknown as View;
const answer = (sheet: View) => ({ sheet, next: { code: 'send' }, state: 'drafting', stateWords: 'drafting', tracks: null });

/** The server, as a row of answers; what it was asked is kept. */
function server(...answers: { status?: number; body: unknown }[]) {
  const asked: { url: string; version: string | null; shown?: string; body: unknown }[] = [];
  const post = async (url: string, init: { params: { header?: { 'If-Match'?: string; 'Solvenda-Shown'?: string } }; body?: unknown }) => {
    const { header } = init.params;
    asked.push({ url, version: header?.['If-Match'] ?? null, shown: header?.['Solvenda-Shown'], body: init.body ?? null });
    const { status = 200, body } = answers.shift()!;
    const response = new Response(null, { status });
    return response.ok ? { data: body, response } : { error: body, response };
  };
  vi.spyOn(api, 'POST').mockImplementation(post as unknown as typeof api.POST);
  return asked;
}

afterEach(() => vi.restoreAllMocks());

test('edits go one after the other, each on the version that came back', async () => {
  const asked = server({ body: answer(view(2)) }, { body: answer(view(3)) });
  const heard: string[] = [];
  const sheet = new SheetState(
    view(1),
    async () => undefined,
    true,
    (a) => heard.push(a.next.code),
  );
  await Promise.all([sheet.set(1, 'quantity', '5'), sheet.set(2, 'quantity', '6')]);
  expect(asked.map((a) => a.version)).toEqual(['"1"', '"2"']);
  expect(sheet.view.version).toBe(3);
  expect(heard).toEqual(['send', 'send']);
});

test('what was typed on a stale sheet waits, says what the other changed, and goes in once more', async () => {
  const changes = [{ line: 2, field: 'quantity', before: '1', after: '9' }];
  const stale = {
    status: 409,
    body: { title: 'Aino changed this in the meantime; yours was not saved over it.', code: 'stale', facts: [{ who: 'Aino', at: '', changes }] },
  };
  const asked = server(stale, { body: answer(view(6)) });
  const sheet: SheetState = new SheetState(view(1), async () => void (sheet.view = view(5)));
  expect(await sheet.set(1, 'price', '4.20')).toBe(false);
  expect(sheet.refused).toEqual({ edits: [{ kind: 'set', line: 1, field: 'price', value: '4.20' }], theirs: ['Aino: line 2 quantity 1 → 9'] });
  expect(sheet.problem).toContain('Aino');
  sheet.again();
  await vi.waitFor(() => expect(sheet.view.version).toBe(6));
  expect(asked[1]).toMatchObject({ version: '"5"', body: [{ field: 'price', value: '4.20' }] });
  expect(sheet.refused).toBeNull();
});

test('a refusal for what was typed itself keeps the sheet and says why', async () => {
  server({ status: 422, body: { title: 'A surcharge is at most 900 %; the price was left as it is.', code: 'number' } });
  const sheet = new SheetState(view(1), async () => expect.fail('nothing to fetch'));
  expect(await sheet.set(1, 'discount', '-99999')).toBe(false);
  expect([sheet.view.version, sheet.refused, sheet.problem]).toEqual([1, null, 'A surcharge is at most 900 %; the price was left as it is.']);
});

test('undo asks the server, which knows whose change was the last', async () => {
  const asked = server({ body: answer(view(4)) });
  const sheet = new SheetState(view(3), async () => undefined);
  expect(await sheet.undo()).toBe(true);
  expect(asked[0]).toMatchObject({ url: '/api/sheets/{id}/undo', version: null });
});

test('the keys go over the lines to the adding row and back, and over the columns from line to line', () => {
  const sheet = new SheetState(view(1), async () => undefined);
  sheet.move(1);
  expect(sheet.line).toBe(2);
  sheet.move(5);
  expect(sheet.line).toBeNull();
  sheet.move(-9);
  sheet.moveColumn(-1);
  expect([sheet.line, sheet.column]).toEqual([1, 'margin']);
  sheet.moveColumn(1);
  expect([sheet.line, sheet.column]).toEqual([2, 'item']);
});

test('nobody who may only look can change it', () => {
  expect(new SheetState(view(1), async () => undefined, false).editable).toBe(false);
  expect(new SheetState(view(1, [], { editable: false }), async () => undefined).editable).toBe(false);
});

test('an answer with the lines that changed leaves the others as they were, in the order that it says', () => {
  const old = view(1);
  const fresh = withLines(old, { sheet: view(2, [line(2, 8), line(9)]), keys: [2, 1, 9] });
  expect(fresh.lines.map((l) => [l.key, l.quantity])).toEqual([
    [2, 8],
    [1, line(1).quantity],
    [9, line(9).quantity],
  ]);
  expect(fresh.lines[1]).toBe(old.lines[0]);
  expect(withLines(old, { sheet: view(2, [line(9)]), keys: null }).lines.map((l) => l.key)).toEqual([9]);
});

test('it says what it was shown last, and not of a sheet that was fetched since', async () => {
  const part = { ...answer(view(3, [line(2, 6)])), keys: [1, 2], shown: 'b' };
  const asked = server({ body: { ...answer(view(2)), shown: 'a' } }, { body: part }, { body: answer(view(9)) });
  const sheet = new SheetState(view(1), async () => undefined);
  await sheet.set(1, 'quantity', '5');
  await sheet.undo();
  expect(sheet.view.lines.map((l) => l.quantity)).toEqual([1, 6]);
  sheet.view = view(8);
  await sheet.set(1, 'quantity', '7');
  expect(asked.map((a) => a.shown)).toEqual([undefined, 'a', undefined]);
});

test('what somebody else did is said in a line each', () => {
  const changes = [
    { line: 4, field: 'line', before: null, after: '{}' },
    { line: 4, field: 'place', before: '1', after: '0' },
    { line: null, field: 'incoterm', before: 'FCA', after: null },
  ];
  expect(meanwhile([{ who: 'Aino', changes }])).toEqual(['Aino: line 4 added', 'Aino: line 4 moved', 'Aino: incoterm FCA → nothing']);
  expect(meanwhile(undefined)).toEqual([]);
});
