// @vitest-environment jsdom
import { fireEvent, render, screen } from '@testing-library/svelte';
import userEvent from '@testing-library/user-event';
import { afterEach, expect, test, vi } from 'vitest';
import { serve } from '$lib/test/server';
import Reference from './Reference.svelte';

const rows = (...codes: string[]) => ({ total: codes.length, rows: codes.map((c, id) => ({ id, active: true, calls: c, cells: [c, `words of ${c}`] })) });

function show(of: string, answers: Record<string, unknown>, value = '') {
  const asked = serve(answers);
  const set = vi.fn<(code: string) => void>();
  render(Reference, { id: 'ref', of, value, set });
  return { user: userEvent.setup(), field: screen.getByRole<HTMLInputElement>('combobox'), set, asked };
}

afterEach(() => vi.restoreAllMocks());

test('it is found by code or words in its own list, and taken by Enter', async () => {
  const { user, field, set, asked } = show('items', { 'GET /api/lists/{kind}': rows('SHK-BOW-10', 'SHK-BOW-12') });
  await user.type(field, 'bow');
  expect(await screen.findAllByRole('option')).toHaveLength(2);
  expect(asked.at(-1)!.params).toMatchObject({ path: { kind: 'items' }, query: { filter: 'bow' } });
  await user.keyboard('{ArrowDown}{Enter}');
  expect(set).toHaveBeenCalledWith('SHK-BOW-12');
  expect(screen.queryAllByRole('option')).toHaveLength(0);
});

test('one letter asks nothing yet', async () => {
  const { user, field, asked } = show('items', {});
  await user.type(field, 'b');
  expect(asked).toHaveLength(0);
});

test('an answer that was overtaken is dropped', async () => {
  const given: ((body: unknown) => void)[] = [];
  const { user, field } = show('items', { 'GET /api/lists/{kind}': () => new Promise((done) => given.push(done)) });
  await user.type(field, 'bow');
  expect(given).toHaveLength(2);
  given[1]!(rows('NEWER'));
  expect(await screen.findByText('NEWER')).toBeTruthy();
  given[0]!(rows('OLDER'));
  await new Promise((done) => setTimeout(done));
  expect(screen.queryByText('OLDER')).toBeNull();
});

test('people and warehouses are found by any part of their name', async () => {
  const people = [
    { id: 1, name: 'Sorcha Quill', does: 'sells' },
    { id: 2, name: 'Leandro Paz', does: 'leads' },
  ];
  const { user, field, set } = show('people', { 'GET /api/people': people });
  await user.type(field, 'quill');
  expect(await screen.findAllByRole('option')).toHaveLength(1);
  await user.keyboard('{Enter}');
  expect(set).toHaveBeenCalledWith('Sorcha Quill');
});

test('Escape leaves what stood there, leaving the field takes what was typed', async () => {
  const { user, field, set } = show('items', { 'GET /api/lists/{kind}': rows('SHK-BOW-10') }, 'OLD-1');
  await user.clear(field);
  await user.type(field, 'bow');
  await screen.findAllByRole('option');
  await user.keyboard('{Escape}');
  expect([field.value, set.mock.calls.length]).toEqual(['OLD-1', 0]);
  await user.clear(field);
  await user.type(field, 'SVC');
  await fireEvent.blur(field);
  expect(set).toHaveBeenCalledWith('SVC');
});

test('a server that does not answer takes nothing away', async () => {
  const { user, field } = show('items', { 'GET /api/lists/{kind}': () => Promise.reject(new Error('gone')) });
  await user.type(field, 'bow');
  expect([field.value, screen.queryAllByRole('option').length]).toEqual(['bow', 0]);
});
