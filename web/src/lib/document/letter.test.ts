// @vitest-environment jsdom
import { render, screen, waitFor } from '@testing-library/svelte';
import userEvent from '@testing-library/user-event';
import { afterEach, expect, test, vi } from 'vitest';
import { serve } from '$lib/test/server';
import Letter from './Letter.svelte';

const proposal = { letter: { by: 'mail', to: 'fionn@tresselvane.example', subject: 'Quote Q26-1', text: 'here: {link}' }, otherTo: 'The Yard, Skerrow quay' };

async function show(take: (letter: unknown) => Promise<void> = async () => undefined) {
  serve({ 'GET /api/quotes/{number}/letter': structuredClone(proposal), 'GET /api/quotes/{number}/preview': null });
  const sent = vi.fn(take);
  const { component } = render(Letter, { take: sent });
  await component.open('Q26-1');
  const field = (name: RegExp) => screen.getByLabelText<HTMLInputElement>(name);
  return { user: userEvent.setup(), sent, field, dialog: screen.getByRole('dialog', { hidden: true }) };
}

afterEach(() => vi.restoreAllMocks());

test('it is proposed whole, and sent as it stands', async () => {
  const { user, sent, dialog } = await show();
  await user.click(screen.getByRole('button', { name: /^Send/ }));
  await waitFor(() => expect(sent).toHaveBeenCalledWith(proposal.letter));
  expect(dialog.hasAttribute('open')).toBe(false);
});

test('Enter in the subject sends nothing', async () => {
  const { user, sent, field } = await show();
  await user.click(field(/subject/));
  await user.keyboard('{Enter}');
  expect(sent).not.toHaveBeenCalled();
  expect(document.activeElement?.tagName).toBe('TEXTAREA');
});

test('each way has its own address, and what was typed is there again on the way back', async () => {
  const { user, field } = await show();
  await user.clear(field(/^to/));
  await user.type(field(/^to/), 'office@tresselvane.example');
  await user.click(screen.getByRole('radio', { name: /paper/ }));
  expect(field(/^to/).value).toBe('The Yard, Skerrow quay');
  await user.click(screen.getByRole('radio', { name: /mail/ }));
  expect(field(/^to/).value).toBe('office@tresselvane.example');
});

test('a refusal is said, and the letter is still there to be mended', async () => {
  const { user, field, dialog } = await show(async () => {
    throw new Error('The letter has lost its {link}.');
  });
  await user.click(screen.getByRole('button', { name: /^Send/ }));
  expect((await screen.findByRole('alert')).textContent).toContain('lost its {link}');
  expect([dialog.hasAttribute('open'), field(/letter/).value]).toEqual([true, 'here: {link}']);
});

test('it is sent once, however fast somebody presses', async () => {
  let done: () => void = () => undefined;
  const { user, sent } = await show(() => new Promise((go) => (done = go)));
  const send = screen.getByRole<HTMLButtonElement>('button', { name: /^Send/ });
  await user.click(send);
  await user.click(send);
  expect([sent.mock.calls.length, send.disabled]).toEqual([1, true]);
  done();
});
