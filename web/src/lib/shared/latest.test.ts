import { expect, test } from 'vitest';
import { Latest } from './latest.svelte';

/** An answer that comes when the test says so. */
function later<T>() {
  let give!: (value: T) => void;
  let fail!: (reason: unknown) => void;
  const promise = new Promise<T>((yes, no) => ([give, fail] = [yes, no]));
  return { promise, give, fail };
}

test('the answer to the newest question counts, in whatever order they come', async () => {
  const [one, two] = [later<string>(), later<string>()];
  const latest = new Latest<string>();
  const first = latest.ask(() => one.promise);
  const second = latest.ask(() => two.promise);
  two.give('new');
  expect(await second).toBe('new');
  one.give('old');
  expect(await first).toBeNull();
  expect(latest.value).toBe('new');
});

test('a failure that was overtaken is not said', async () => {
  const [one, two] = [later<string>(), later<string>()];
  const latest = new Latest<string>();
  const first = latest.ask(() => one.promise);
  const second = latest.ask(() => two.promise);
  one.fail(new Error('gone'));
  two.give('there');
  await Promise.all([first, second]);
  expect([latest.value, latest.problem]).toEqual(['there', '']);
});

test('what was there stays while it is asked for anew, and where that fails', async () => {
  const latest = new Latest<string>();
  latest.take('kept');
  await latest.ask(() => Promise.reject(new Error('The server does not answer.')));
  expect([latest.value, latest.problem]).toEqual(['kept', 'The server does not answer.']);
});

test('what an act answered is newer than what is still under way', async () => {
  const one = later<string>();
  const latest = new Latest<string>();
  const asked = latest.ask(() => one.promise);
  latest.take('from the act');
  one.give('from before');
  await asked;
  expect(latest.value).toBe('from the act');
});
