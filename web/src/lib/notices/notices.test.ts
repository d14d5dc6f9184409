import { afterEach, expect, test, vi } from 'vitest';
import { refused, serve } from '$lib/test/server';
import { Notices } from './notices.svelte';

afterEach(() => vi.restoreAllMocks());

const view = { unseen: 2, notices: [{ id: 9 }, { id: 8 }] };

test('what was looked at is seen once, up to the newest that stood there', async () => {
  const asked = serve({ 'GET /api/notices': view, 'POST /api/notices/seen': 2 });
  const notices = new Notices();
  await notices.load();
  await notices.see();
  await notices.see();
  expect(asked.filter((a) => a.method === 'POST').map((a) => a.body)).toEqual([{ upTo: 9 }]);
  expect([notices.unseen, notices.list.length]).toEqual([0, 2]);
});

test('where it could not be kept they are unseen again', async () => {
  serve({ 'GET /api/notices': view, 'POST /api/notices/seen': refused(500, 'no') });
  const notices = new Notices();
  await notices.load();
  await notices.see();
  expect(notices.unseen).toBe(2);
});
