// @vitest-environment jsdom
import { render, screen, waitFor } from '@testing-library/svelte';
import userEvent from '@testing-library/user-event';
import { afterEach, expect, test, vi } from 'vitest';
import { serve } from '$lib/test/server';
import HeadTerms from './HeadTerms.svelte';
import { SheetState } from './sheet.svelte';

type View = ConstructorParameters<typeof SheetState>[0];

const term = (name: string, label: string, extra: object = {}) => ({
  name,
  label,
  kind: 'text',
  value: '',
  shown: '',
  source: 'none',
  why: '',
  choices: [],
  seldom: false,
  elsewhere: false,
  stands: false,
  ...extra,
});
const terms = [
  term('paymentDays', 'days to pay', { value: '30', shown: '30 days', source: 'buyer', kind: 'days' }),
  term('wanted', 'wanted', { value: '2026-12-03', kind: 'date', source: 'hand' }),
  term('poNumber', 'their PO'),
  term('insurance', 'insurance', { seldom: true }),
  term('note', 'note', { elsewhere: true }),
];
const stop = (field: string, extra: object = {}) => ({
  line: null,
  check: 'po-number',
  outcome: 'stop',
  field,
  words: 'No PO number yet.',
  documents: [],
  cures: [{ key: 'P', words: 'type it', action: 'set' }],
  mayWaive: false,
  waivedBy: null,
  ...extra,
});

function show(findings: object[] = [], editable = true) {
  const view = (version: number) => ({ id: 7, version, editable, lines: [], findings, terms }) as unknown as View;
  const asked = serve({ 'POST /api/sheets/{id}/edits': { sheet: view(2), next: { code: 'send' }, state: 'drafting', stateWords: '', tracks: null } });
  const [oncure, onwaive] = [vi.fn(), vi.fn()];
  const { component } = render(HeadTerms, { sheet: new SheetState(view(1), async () => undefined), oncure, onwaive });
  return { user: userEvent.setup(), asked, oncure, onwaive, component };
}

afterEach(() => vi.restoreAllMocks());

test('a term is typed where it stands', async () => {
  const { user, asked } = show();
  await user.click(screen.getByRole('button', { name: /30 days/ }));
  const field = screen.getByLabelText<HTMLInputElement>('days to pay');
  expect(document.activeElement).toBe(field);
  await user.clear(field);
  await user.type(field, '45{Enter}');
  await waitFor(() => expect(asked.map((a) => a.body)).toEqual([[{ kind: 'set', line: null, field: 'paymentDays', value: '45' }]]));
});

test('Escape leaves it, and leaving it as it was sends nothing', async () => {
  const { user, asked } = show();
  await user.click(screen.getByRole('button', { name: /30 days/ }));
  await user.keyboard('9{Escape}');
  await user.click(screen.getByRole('button', { name: /30 days/ }));
  await user.tab();
  expect(asked).toHaveLength(0);
});

test('what is missing says so, and its cure is offered', async () => {
  const { user, oncure } = show([stop('poNumber')]);
  expect(screen.getByText('missing').className).toContain('needs');
  await user.click(screen.getByRole('button', { name: /type it/ }));
  expect(oncure).toHaveBeenCalledOnce();
});

test('letting it pass is offered only to who may', async () => {
  const { user, onwaive } = show([stop('poNumber', { mayWaive: true })]);
  await user.click(screen.getByRole('button', { name: /let it pass/ }));
  expect(onwaive).toHaveBeenCalledOnce();
  document.body.innerHTML = '';
  show([stop('poNumber')]);
  expect(screen.queryByRole('button', { name: /let it pass/ })).toBeNull();
});

test('who may only look is offered nothing to press', () => {
  show([stop('poNumber', { mayWaive: true })], false);
  expect(screen.queryByRole('button', { name: /type it|let it pass/ })).toBeNull();
  expect(screen.getByRole<HTMLButtonElement>('button', { name: /30 days/ }).disabled).toBe(true);
});

test('what is seldom said is folded until it is asked for, and what stands elsewhere is not here', async () => {
  const { user, component } = show();
  expect(screen.queryByText('insurance', { selector: 'dt' })).toBeNull();
  expect(screen.queryByText('note', { selector: 'dt' })).toBeNull();
  component.focus('insurance');
  expect(await screen.findByLabelText('insurance')).toBeTruthy();
  await user.keyboard('{Escape}');
  await user.click(screen.getByRole('button', { name: 'fewer' }));
  expect(screen.queryByText('insurance', { selector: 'dt' })).toBeNull();
});

test('a day is shown as people write it, and who let something pass is named', () => {
  show([stop('poNumber', { outcome: 'notice', waivedBy: 'Leandro Paz', waivedWhy: 'they will send it' })]);
  expect(screen.getByText(/3 Dec/)).toBeTruthy();
  expect(screen.getByText(/Leandro Paz let it pass: “they will send it”/)).toBeTruthy();
});
