// @vitest-environment jsdom
import { render, screen, waitFor } from '@testing-library/svelte';
import userEvent from '@testing-library/user-event';
import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { refused, serve, type Asked } from '$lib/test/server';
import { EntryState } from './entry.svelte';
import EntryRow from './EntryRow.svelte';
import { SheetState } from './sheet.svelte';

type View = ConstructorParameters<typeof SheetState>[0];

const view = (version: number) => ({ id: 7, version, editable: true, lines: [], findings: [], terms: [] }) as unknown as View;
const choice = (code: string | null, words: string, more: object = {}) => ({
  code,
  words,
  text: `${code ?? words} x 12`,
  quantity: 12,
  unitWord: '',
  price: 4.15,
  priceBase: 1,
  net: null,
  discountPercent: null,
  wanted: null,
  note: '',
  freeHere: 120,
  last: null,
  how: 'words',
  unsaid: [],
  pieces: [],
  ...more,
});
const means = (...choices: object[]) => ({ currency: 'EUR', choices });
const taken = { sheet: view(2), next: { code: 'send' }, state: 'drafting', stateWords: 'drafting', tracks: null };

let asked: Asked[];
let answers: Record<string, unknown>;
const edits = () => asked.filter((a) => a.method === 'POST').map((a) => a.body);

function show() {
  asked = serve(answers);
  const sheet = new SheetState(view(1), async () => undefined);
  render(EntryRow, { sheet, number: 1, columns: 8 });
  return { sheet, user: userEvent.setup(), field: screen.getByRole<HTMLInputElement>('combobox', { name: 'add a line' }) };
}

beforeEach(() => {
  answers = {
    'GET /api/sheets/{id}/entry': means(choice('SHK-BOW-10', 'Bow shackle 10 mm'), choice('SHK-BOW-12', 'Bow shackle 12 mm')),
    'POST /api/sheets/{id}/edits': taken,
  };
});
afterEach(() => vi.restoreAllMocks());

test('Enter takes the item that is chosen, and the field is free for the next', async () => {
  const { user, field } = show();
  await user.type(field, 'bow 10 x 12');
  await screen.findAllByRole('option');
  await user.keyboard('{ArrowDown}{Enter}');
  await waitFor(() => expect(edits()).toEqual([[{ kind: 'add', value: 'SHK-BOW-12 x 12', field: 'SHK-BOW-12' }]]));
  expect(field.value).toBe('');
  expect(screen.queryAllByRole('option')).toHaveLength(0);
});

test('the list goes round at its ends', async () => {
  const { user, field } = show();
  await user.type(field, 'bow');
  const chosen = () => screen.getAllByRole('option').findIndex((o) => o.getAttribute('aria-selected') === 'true');
  await screen.findAllByRole('option');
  expect(chosen()).toBe(0);
  await user.keyboard('{ArrowUp}');
  expect(chosen()).toBe(1);
  await user.keyboard('{ArrowDown}');
  expect(chosen()).toBe(0);
});

test('Enter before the answer is there waits for it, and what was found for other words is never taken', async () => {
  const give: Record<string, (view: unknown) => void> = {};
  answers['GET /api/sheets/{id}/entry'] = ({ params }: Asked) => new Promise((done) => (give[String(params.query?.q)] = done));
  const { user, field } = show();
  await user.type(field, 'bow');
  await user.type(field, 's');
  await user.keyboard('{Enter}');
  expect(field.value).toBe('');
  give['bow']!(means(choice('SHK-BOW-10', 'Bow shackle 10 mm')));
  expect(edits()).toEqual([]);
  give['bows']!(means(choice('SHK-BOW-12', 'Bow shackle 12 mm')));
  await waitFor(() => expect(edits()).toEqual([[{ kind: 'add', value: 'SHK-BOW-12 x 12', field: 'SHK-BOW-12' }]]));
});

test('lines that are typed fast come in the order in which they were typed', async () => {
  let slow: (view: unknown) => void = () => undefined;
  answers['GET /api/sheets/{id}/entry'] = ({ params }: Asked) => (params.query?.q === 'one' ? new Promise((done) => (slow = done)) : means(choice('B', 'two')));
  const { user, field } = show();
  await user.type(field, 'one{Enter}two{Enter}');
  slow(means(choice('A', 'one')));
  await waitFor(() => expect(edits().map((e) => (e as { field: string }[])[0]!.field)).toEqual(['A', 'B']));
});

test('it says how the line is understood, and what does not fit', async () => {
  answers['GET /api/sheets/{id}/entry'] = means(
    choice('FLR-HH-4', 'Hand flares, pack of 4', {
      quantity: 4,
      net: 66.5,
      discountPercent: 5,
      wanted: '2026-02-02',
      last: { day: '2025-06-12', quantity: 2, unitWord: '', price: 71.2, currency: 'EUR' },
    }),
    choice(null, 'teak ladder', { price: null, freeHere: null, net: 240 }),
    choice('PS3-12-OR', 'Rope, orange', { unsaid: ['teak', 'ladder'] }),
  );
  const { user, field } = show();
  await user.type(field, 'hand flares 4 @70 -5% by 2 feb');
  const said = await screen.findByLabelText('understood as');
  expect(said.textContent).toMatch(/FLR-HH-4\s+Hand flares, pack of 4\s*4 pieces\s*at 70.00\s*less 5 % = 66.50\s*by 2 Feb/);
  expect(screen.getByRole('status').textContent).toContain('all of it is understood');
  expect(screen.getByRole('status').textContent).toContain('they paid 71.2000');
  await user.keyboard('{ArrowDown}');
  expect(screen.getByRole('status').textContent).toContain('not in the catalogue');
  await user.keyboard('{ArrowDown}');
  expect(screen.getByRole('status').textContent).toContain('not in its name: teak, ladder');
});

test('what the server does not take is still there', async () => {
  answers['POST /api/sheets/{id}/edits'] = refused(422, 'A quantity is between 0 and 10 million; what stood there was kept.');
  const { user, field } = show();
  await user.type(field, 'bow x 99999999999');
  await user.keyboard('{Enter}');
  await waitFor(() => expect(field.value).toBe('bow x 99999999999'));
});

test('what is not taken while the next line is typed waits beside it', async () => {
  let answer: (a: unknown) => void = () => undefined;
  answers['POST /api/sheets/{id}/edits'] = () => new Promise((done) => (answer = done));
  const { user, field } = show();
  await user.type(field, 'bow x 99999999999{Enter}');
  await user.type(field, 'next');
  await waitFor(() => expect(edits()).toHaveLength(1));
  answer(refused(422, 'A quantity is between 0 and 10 million; what stood there was kept.'));
  await user.click(await screen.findByRole('button', { name: 'put it back' }));
  expect(field.value).toBe('bow x 99999999999');
  expect(screen.getByText(/“next”/)).toBeTruthy();
});

test('a server that does not answer stops nothing that is typed later, and loses nothing', async () => {
  answers['GET /api/sheets/{id}/entry'] = () => Promise.reject(new Error('no network'));
  let works = false;
  answers['POST /api/sheets/{id}/edits'] = () => (works ? taken : Promise.reject(new Error('no network')));
  const { field, sheet } = show();
  const entry = new EntryState(sheet);
  entry.text = 'SHK-BOW-10 x 2';
  await entry.look();
  expect(await entry.add()).toBe(false);
  expect(entry.text).toBe('SHK-BOW-10 x 2');
  works = true;
  expect(await entry.add()).toBe(true);
  expect(edits().at(-1)).toEqual([{ kind: 'add', value: 'SHK-BOW-10 x 2', field: '' }]);
  expect([entry.text, entry.kept, field.value]).toEqual(['', '', '']);
});

test('a hash begins a heading, for which no items are looked up', async () => {
  const { user, field } = show();
  await user.type(field, '# For the yard{Enter}');
  await waitFor(() => expect(edits()).toEqual([[{ kind: 'addHeading', value: 'For the yard' }]]));
  expect(asked.filter((a) => a.method === 'GET')).toHaveLength(0);
});

test('nothing is sent for nothing', async () => {
  const { user, field } = show();
  await user.type(field, '   {Enter}');
  expect(edits()).toEqual([]);
});

test('rows of a spreadsheet go to the server as they are, and one word is only typed', async () => {
  answers['POST /api/sheets/{id}/paste'] = { answer: taken, lines: 3, toFix: 1, words: '1 of 3 lines are to be put right.' };
  const { user, field, sheet } = show();
  await user.click(field);
  await user.paste('SHK-BOW-10\t12\tbox\r\n\r\nPS3-12-WH\t100\r\nSVC-EYE\r\n');
  await waitFor(() => expect(edits()).toEqual([{ text: 'SHK-BOW-10\t12\tbox\r\n\r\nPS3-12-WH\t100\r\nSVC-EYE\r\n', after: null }]));
  await waitFor(() => expect(sheet.said).toBe('3 lines from the rows you pasted. 1 of 3 lines are to be put right.'));
  await user.paste('thimble');
  expect(field.value).toBe('thimble');
  expect(edits()).toHaveLength(1);
});

test('Escape closes the list first, and leaves what was typed', async () => {
  const { user, field } = show();
  await user.type(field, 'bow');
  await screen.findAllByRole('option');
  await user.keyboard('{Escape}');
  expect(screen.queryAllByRole('option')).toHaveLength(0);
  expect(field.value).toBe('bow');
  expect(document.activeElement).toBe(field);
});

test('an item is taken by the mouse without the field losing the cursor', async () => {
  const { user, field } = show();
  await user.type(field, 'bow x 3');
  await user.click((await screen.findAllByRole('option'))[1]!.querySelector('button')!);
  await waitFor(() => expect(edits()).toEqual([[{ kind: 'add', value: 'SHK-BOW-12 x 12', field: 'SHK-BOW-12' }]]));
  expect(document.activeElement).toBe(field);
});
