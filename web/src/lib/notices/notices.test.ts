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

test('what is new is heard of while the page is looked at, and no connection is held behind others', () => {
  class Stream {
    static all: Stream[] = [];
    onmessage: (() => void) | null = null;
    closed = false;
    constructor(readonly path: string) {
      Stream.all.push(this);
    }
    close = () => (this.closed = true);
  }
  vi.stubGlobal('EventSource', Stream);
  const asked = serve({ 'GET /api/notices': view });
  const page = Object.assign(new EventTarget(), { hidden: false });
  vi.stubGlobal('document', page);
  const deaf = new Notices().hear();
  Stream.all[0]?.onmessage?.();
  expect(asked.length).toBe(1);
  page.hidden = true;
  page.dispatchEvent(new Event('visibilitychange'));
  expect(Stream.all.map((s) => s.closed)).toEqual([true]);
  page.hidden = false;
  page.dispatchEvent(new Event('visibilitychange'));
  expect(Stream.all.length).toBe(2);
  deaf();
  page.dispatchEvent(new Event('visibilitychange'));
  expect(Stream.all.map((s) => s.closed)).toEqual([true, true]);
  vi.unstubAllGlobals();
});
