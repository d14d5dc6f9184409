// @vitest-environment jsdom
import { createRawSnippet } from 'svelte';
import { fireEvent, render, screen, waitFor } from '@testing-library/svelte';
import userEvent from '@testing-library/user-event';
import { afterEach, expect, test, vi } from 'vitest';
import { serve } from '$lib/test/server';
import Cell from './Cell.svelte';
import { SheetState, type ColumnId } from './sheet.svelte';

type View = ConstructorParameters<typeof SheetState>[0];

const line = (key: number) => ({
  key,
  kind: 'item',
  code: 'SHK-BOW-10',
  words: 'Bow shackle',
  quantity: 12,
  unit: 'C62',
  unitWord: 'pc',
  netPrice: 4.15,
  discountPercent: 5,
  marginPercent: 30,
  byHand: 'none',
});
const view = (editable = true) => ({ id: 7, version: 1, editable, lines: [line(1), line(2)], findings: [], terms: [] }) as unknown as View;
const children = createRawSnippet(() => ({ render: () => '<span>12</span>' }));

function show(column: ColumnId, editable = true) {
  const asked = serve({ 'POST /api/sheets/{id}/edits': { sheet: view(), next: { code: 'send' }, state: 'drafting', stateWords: '', tracks: null } });
  const sheet = new SheetState(view(editable), async () => undefined);
  [sheet.line, sheet.column] = [1, column];
  render(Cell, { sheet, line: sheet.view.lines[0]!, column, children });
  const cell = screen.getByRole('cell');
  cell.focus();
  return { user: userEvent.setup(), sheet, cell, asked, input: () => screen.queryByRole<HTMLInputElement>('textbox') };
}

afterEach(() => vi.restoreAllMocks());

test('a digit begins a figure with itself, a letter is a key of the screen', async () => {
  const { user, input } = show('quantity');
  await user.keyboard('q');
  expect(input()).toBeNull();
  await user.keyboard('7');
  expect(input()!.value).toBe('7');
});

test('words are not begun by a digit', async () => {
  const { user, input } = show('item');
  await user.keyboard('7');
  expect(input()).toBeNull();
});

test('Enter takes what was typed and goes to the next line', async () => {
  const { user, sheet, asked } = show('quantity');
  await user.keyboard('20{Enter}');
  await waitFor(() => expect(asked.map((a) => a.body)).toEqual([[{ kind: 'set', line: 1, field: 'quantity', value: '20' }]]));
  expect([sheet.editing, sheet.line]).toEqual([false, 2]);
});

test('Tab takes it and goes to the next column', async () => {
  const { user, sheet, asked } = show('quantity');
  await user.keyboard('20{Tab}');
  await waitFor(() => expect(asked).toHaveLength(1));
  expect([sheet.line, sheet.column]).toEqual([1, 'price']);
});

test('Escape leaves what stood there', async () => {
  const { user, sheet, asked, input } = show('quantity');
  await user.keyboard('20{Escape}');
  expect([input(), sheet.editing, asked.length]).toEqual([null, false, 0]);
});

test('what was not changed is not sent', async () => {
  const { user, asked, input } = show('quantity');
  await user.keyboard('{Enter}');
  expect(input()).not.toBeNull();
  await user.keyboard('{Enter}');
  expect(asked).toHaveLength(0);
});

test('leaving the field takes what was typed', async () => {
  const { user, asked, input } = show('quantity');
  await user.keyboard('20');
  await fireEvent.blur(input()!);
  await waitFor(() => expect(asked.map((a) => a.body)).toEqual([[{ kind: 'set', line: 1, field: 'quantity', value: '20' }]]));
});

test('arrows go over the sheet', async () => {
  const { user, sheet } = show('quantity');
  await user.keyboard('{ArrowRight}');
  expect(sheet.column).toBe('price');
  await user.keyboard('{ArrowDown}');
  expect(sheet.line).toBe(2);
});

test('who may only look begins nothing', async () => {
  const { user, input, asked, sheet } = show('quantity', false);
  await user.keyboard('7');
  await user.keyboard('{Enter}');
  await user.keyboard('{Delete}');
  expect([input(), asked.length, sheet.editing]).toEqual([null, 0, false]);
});

test('the first click goes there, the second types', async () => {
  const { user, sheet, cell, input } = show('quantity');
  sheet.line = 2;
  await user.click(cell);
  expect([sheet.line, input()]).toEqual([1, null]);
  await user.click(cell);
  expect(input()!.value).toBe('12 pc');
});
