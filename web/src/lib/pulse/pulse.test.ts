import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { api } from '$lib/api';
import { atMostEvery, Pulse, type Moved } from './pulse.svelte';

const get = vi.fn();
beforeEach(() => {
  vi.spyOn(api, 'GET').mockImplementation(get as unknown as typeof api.GET);
  vi.stubGlobal('document', { hidden: false });
  get.mockReset();
});
afterEach(() => {
  vi.restoreAllMocks();
  vi.unstubAllGlobals();
});

const says = (moved: Partial<Moved>) => get.mockResolvedValueOnce({ data: { at: 1, subjects: [], everything: false, ...moved }, response: new Response() });

test('the first answer only says from where to count, the next ones what moved', async () => {
  says({ at: 40, everything: true });
  says({ at: 42, subjects: ['Q26-00001'] });
  says({ at: 42 });
  const pulse = new Pulse();
  const heard: string[][] = [];
  pulse.listen((moved) => heard.push(moved.subjects));
  await pulse.beat();
  await pulse.beat();
  await pulse.beat();
  expect(heard).toEqual([['Q26-00001']]);
  expect(get.mock.calls.map((c) => (c[1] as { params: { query: { after: number } } }).params.query.after)).toEqual([0, 40, 42]);
});

test('nobody is asked for a page that nobody looks at, nor twice at once', async () => {
  vi.stubGlobal('document', { hidden: true });
  const pulse = new Pulse();
  await pulse.beat();
  expect(get).not.toHaveBeenCalled();
  vi.stubGlobal('document', { hidden: false });
  says({});
  await Promise.all([pulse.beat(), pulse.beat()]);
  expect(get).toHaveBeenCalledTimes(1);
});

test('a server that is away is asked again at the next beat, and who stopped listening hears nothing', async () => {
  says({ at: 5 });
  get.mockRejectedValueOnce(new Error('away'));
  says({ at: 9, everything: true });
  const pulse = new Pulse();
  const heard = vi.fn();
  const silent = vi.fn();
  pulse.listen(heard);
  pulse.listen(silent)();
  for (let i = 0; i < 3; i++) await pulse.beat();
  expect(heard).toHaveBeenCalledTimes(1);
  expect(silent).not.toHaveBeenCalled();
});

test('a bell that is rung often calls at once, then once in a while, and never loses the last ring', () => {
  vi.useFakeTimers();
  const call = vi.fn();
  const bell = atMostEvery(5_000, call);
  bell.ring();
  expect(call).toHaveBeenCalledTimes(1);
  for (let i = 0; i < 9; i++) bell.ring();
  expect(call).toHaveBeenCalledTimes(1);
  vi.advanceTimersByTime(5_000);
  expect(call).toHaveBeenCalledTimes(2);
  vi.advanceTimersByTime(20_000);
  expect(call).toHaveBeenCalledTimes(2);
  bell.ring();
  expect(call).toHaveBeenCalledTimes(3);
  bell.ring();
  bell.stop();
  vi.advanceTimersByTime(20_000);
  expect(call).toHaveBeenCalledTimes(3);
  vi.useRealTimers();
});
