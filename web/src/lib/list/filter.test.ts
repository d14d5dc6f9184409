// @vitest-environment jsdom
import { render, screen, waitFor } from '@testing-library/svelte';
import userEvent from '@testing-library/user-event';
import type { Component } from 'svelte';
import { afterEach, expect, test, vi } from 'vitest';
import Screen from '$lib/test/Screen.svelte';
import { serve } from '$lib/test/server';
import FilterBar from './FilterBar.svelte';
import { ListState, type Kind } from './list.svelte';

const field = (name: string, inList = true) => ({ name, label: name, type: 'text', inList, canSort: true, mayChange: true });
const view = { id: 5, name: 'held', filter: 'terms:held', columns: ['number'], sort: null, down: false, mine: true, mayChange: true };

function show(kind: object = {}) {
  const asked = serve({
    'GET /api/lists/{kind}': { total: 0, rows: [] },
    'GET /api/lists/{kind}/foot': [],
    'GET /api/views/{kind}': [view],
    'POST /api/views/{kind}': { ...view, id: 6, name: 'mine' },
  });
  const list = new ListState({
    name: 'orders',
    title: 'Orders',
    one: 'order',
    activeWord: 'open',
    mayChange: false,
    mayShare: false,
    fields: [field('number'), field('buyer'), field('seller', false)],
    deeds: [],
    ...kind,
  } as unknown as Kind);
  list.views = [view as never];
  render(Screen, { props: { of: FilterBar as unknown as Component<Record<string, unknown>>, props: { list, example: 'buyer:Tressel', open: 'that wait' } } });
  return { user: userEvent.setup(), list, asked, box: screen.getByRole<HTMLInputElement>('textbox', { name: 'filter' }) };
}

afterEach(() => vi.restoreAllMocks());

test('F goes to the filter, where letters are letters, and Escape goes out again', async () => {
  const { user, list, box } = show();
  await user.keyboard('f');
  expect(document.activeElement).toBe(box);
  await user.keyboard('facet c');
  expect([box.value, list.filter]).toEqual(['facet c', 'facet c']);
  expect(screen.queryByRole('group', { name: 'columns' })).toBeNull();
  await user.keyboard('{Escape}');
  expect(document.activeElement).not.toBe(box);
});

test('C shows the columns, and one that is ticked stands in the list', async () => {
  const { user, list } = show();
  await user.keyboard('c');
  await user.click(screen.getByRole('checkbox', { name: 'seller' }));
  expect(list.columns).toContain('seller');
  await user.click(screen.getByRole('checkbox', { name: 'buyer' }));
  expect(list.columns).not.toContain('buyer');
});

test('A chooses all that fit only where something can be done with them', async () => {
  const { user, list } = show();
  await user.keyboard('a');
  expect(list.all).toBe(false);
  document.body.innerHTML = '';
  const other = show({ deeds: [{ name: 'confirm', words: 'Confirm them', withReason: false }] });
  await other.user.keyboard('a');
  expect(other.list.all).toBe(true);
});

test('done ones are shown by a press, and the filter says so to the server', async () => {
  const { user, list } = show();
  await user.click(screen.getByRole('button', { name: 'that wait' }));
  expect(list.asked).toBe('open:any');
});

test('a view is used by a press and kept under a name', async () => {
  const { user, list, asked } = show();
  await user.click(screen.getByRole('button', { name: 'held' }));
  expect(list.filter).toBe('terms:held');
  await user.click(screen.getByRole('button', { name: /keep this view/ }));
  await user.type(screen.getByRole('textbox', { name: /as/ }), 'mine');
  expect(screen.queryByRole('checkbox', { name: 'for all' })).toBeNull();
  await user.click(screen.getByRole('button', { name: 'Keep it' }));
  await waitFor(() => expect(asked.some((a) => a.method === 'POST' && (a.body as { name: string }).name === 'mine')).toBe(true));
});

test('a view for all is offered to who may', async () => {
  const { user } = show({ mayShare: true });
  await user.click(screen.getByRole('button', { name: /keep this view/ }));
  expect(screen.getByRole('checkbox', { name: 'for all' })).toBeTruthy();
});
