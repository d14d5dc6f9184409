// @vitest-environment jsdom
import { render, screen } from '@testing-library/svelte';
import { expect, test, vi } from 'vitest';
import Beside from './Beside.svelte';
import LeftOvers from './LeftOvers.svelte';
import type { RequestState } from './request.svelte';

const over = (words: string, why = '') => ({ words, why, where: { part: 0, start: words.length, length: words.length } });

function desk(overs: object[], open = true) {
  return { overs, over: overs[0] ?? null, open, lit: null, takeUp: vi.fn(), dismiss: vi.fn() } as unknown as RequestState;
}

test('words that nothing explains can be a line; a figure that others contradict can only be seen', async () => {
  const state = desk([over('12 swivels'), over('4,684.00', 'They count 4,684.00; these lines make 4,073.80.')]);
  render(LeftOvers, { state });
  expect(screen.getAllByRole('button', { name: /a line of its own/ })).toHaveLength(1);
  expect(screen.getByText('They count 4,684.00; these lines make 4,073.80.')).toBeTruthy();
  screen.getByRole('button', { name: /seen; go on/ }).click();
  expect(state.dismiss).toHaveBeenCalledWith(state.overs[1]);
});

test('who may only look is shown them and offered nothing', () => {
  render(LeftOvers, { state: desk([over('12 swivels')], false) });
  expect(screen.getByText('“12 swivels”')).toBeTruthy();
  expect(screen.queryByRole('button')).toBeNull();
});

test('what goes along stands by its kind, and what was not used says why', () => {
  const reading = {
    remarks: [{ kind: 'certificate', words: 'With a 3.1, please.', where: { start: 0, length: 3 } }],
    unused: [{ words: 'REF*IA*4711', why: 'nothing here uses it (REF, reference)', where: { start: 0, length: 3 } }],
  };
  render(Beside, { state: desk([]), reading: reading as never });
  expect(screen.getByText('papers with it')).toBeTruthy();
  expect(screen.getByText('one thing was not used')).toBeTruthy();
  expect(screen.getByText('nothing here uses it (REF, reference)')).toBeTruthy();
});
