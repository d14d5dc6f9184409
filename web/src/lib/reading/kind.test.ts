// @vitest-environment jsdom
import { render, screen } from '@testing-library/svelte';
import { expect, test, vi } from 'vitest';
import ReadHead from './ReadHead.svelte';
import type { RequestState } from './request.svelte';

const field = { value: null, sure: 0, how: '', evidence: [], settledBy: null };

function head(kindSure: number) {
  const reading = {
    kind: 'order',
    kindSure,
    buyer: field,
    contact: field,
    poNumber: field,
    reference: field,
    quoteNumber: field,
    wanted: field,
    deliverTo: field,
    incoterm: field,
    incotermPlace: field,
    currency: field,
    paymentDays: field,
    buyerCandidates: [],
    charges: [],
  };
  const request = { open: true, lit: null, correct: vi.fn() } as unknown as RequestState;
  render(ReadHead, { state: request, reading } as never);
  return request;
}

test('a kind that is not sure is confirmed as it is, without choosing another first', () => {
  const request = head(0.6);
  screen.getByRole('button', { name: 'yes, it is' }).click();
  expect(request.correct).toHaveBeenCalledWith('kind', 'order');
});

test('a kind that is sure is not asked about', () => {
  head(0.9);
  expect(screen.queryByRole('button', { name: 'yes, it is' })).toBeNull();
});
