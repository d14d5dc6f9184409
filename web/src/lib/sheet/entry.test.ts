// @vitest-environment jsdom
import { render, screen, waitFor } from '@testing-library/svelte';
import userEvent from '@testing-library/user-event';
import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { refused, serve, type Asked } from '$lib/test/server';
import EntryRow from './EntryRow.svelte';
import { SheetState } from './sheet.svelte';

type View = ConstructorParameters<typeof SheetState>[0];

const view = (version: number) => ({ id: 7, version, editable: true, lines: [], findings: [], terms: [] }) as unknown as View;
const item = (code: string, words: string) => ({ code, words, list: 4.15, freeHere: 120, unitWord: 'pc' });
const taken = { sheet: view(2), next: { code: 'send' }, state: 'drafting', stateWords: 'drafting', tracks: null };

let asked: Asked[];
let answers: Record<string, unknown>;
const edits = () => asked.filter((a) => a.method === 'POST').map((a) => a.body);

function show() {
  asked = serve(answers);
  render(EntryRow, { sheet: new SheetState(view(1), async () => undefined), number: 1 });
  return { user: userEvent.setup(), field: screen.getByRole<HTMLInputElement>('combobox', { name: 'add a line' }) };
}

beforeEach(() => {
  answers = {
    'GET /api/items': { items: [item('SHK-BOW-10', 'Bow shackle 10 mm'), item('SHK-BOW-12', 'Bow shackle 12 mm')] },
    'POST /api/sheets/{id}/edits': taken,
  };
});
afterEach(() => vi.restoreAllMocks());

test('Enter takes the item that is chosen, and the field is free for the next', async () => {
  const { user, field } = show();
  await user.type(field, 'bow 10 x 12');
  await screen.findAllByRole('option');
  await user.keyboard('{ArrowDown}{Enter}');
  await waitFor(() => expect(edits()).toEqual([[{ kind: 'add', value: 'bow 10 x 12', field: 'SHK-BOW-12' }]]));
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

test('an item that was found for other words is never taken', async () => {
  let give: (hits: unknown) => void = () => undefined;
  answers['GET /api/items'] = ({ params }: Asked) => (params.query?.q === 'bow' ? new Promise((done) => (give = done)) : { items: [] });
  const { user, field } = show();
  await user.type(field, 'bow');
  await user.type(field, 's');
  give({ items: [item('SHK-BOW-10', 'Bow shackle 10 mm')] });
  await user.keyboard('{Enter}');
  await waitFor(() => expect(edits()).toEqual([[{ kind: 'add', value: 'bows', field: '' }]]));
});

test('what the server does not take is still there', async () => {
  answers['POST /api/sheets/{id}/edits'] = refused(422, 'A quantity is between 0 and 10 million; what stood there was kept.');
  const { user, field } = show();
  await user.type(field, 'bow x 99999999999');
  await user.keyboard('{Enter}');
  await waitFor(() => expect(field.value).toBe('bow x 99999999999'));
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

test('rows of a spreadsheet are a line each, and one word is only typed', async () => {
  const { user, field } = show();
  await user.click(field);
  await user.paste('SHK-BOW-10\t12\tbox\r\n\r\nPS3-12-WH\t100\r\nSVC-EYE\r\n');
  await waitFor(() =>
    expect(edits()).toEqual([
      [
        { kind: 'add', value: 'SHK-BOW-10 x 12 box' },
        { kind: 'add', value: 'PS3-12-WH x 100' },
        { kind: 'add', value: 'SVC-EYE' },
      ],
    ]),
  );
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
  await waitFor(() => expect(edits()).toEqual([[{ kind: 'add', value: 'bow x 3', field: 'SHK-BOW-12' }]]));
  expect(document.activeElement).toBe(field);
});
