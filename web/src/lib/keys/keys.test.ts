// @vitest-environment jsdom
import userEvent from '@testing-library/user-event';
import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { formKeys } from './form';
import { isField, Keys } from './keys.svelte';

let keys: Keys;
beforeEach(() => {
  keys = new Keys();
  window.addEventListener('keydown', keys.handle);
});
afterEach(() => {
  window.removeEventListener('keydown', keys.handle);
  document.body.innerHTML = '';
});

const put = (html: string) => {
  document.body.innerHTML = html;
  return userEvent.setup();
};

test('a letter does what the screen says, and nothing inside a field', async () => {
  const user = put('<input id="i" /><p id="p" tabindex="0">x</p>');
  const run = vi.fn();
  keys.add(() => [{ key: 's', words: 'send', run }]);
  document.getElementById('i')!.focus();
  await user.keyboard('s');
  expect(run).not.toHaveBeenCalled();
  document.getElementById('p')!.focus();
  await user.keyboard('s');
  expect(run).toHaveBeenCalledOnce();
});

test('with Control it holds in fields too, and a capital is the same letter', async () => {
  const user = put('<textarea id="i"></textarea>');
  const [undo, redo, help] = [vi.fn(), vi.fn(), vi.fn()];
  keys.add(() => [
    { key: 'Ctrl+z', words: 'undo', run: undo },
    { key: 'Ctrl+Shift+z', words: 'redo', run: redo },
    { key: 'h', words: 'help', run: help },
  ]);
  document.getElementById('i')!.focus();
  await user.keyboard('{Control>}z{/Control}');
  expect(undo).toHaveBeenCalledOnce();
  await user.keyboard('{Control>}{Shift>}z{/Shift}{/Control}');
  expect([undo.mock.calls.length, redo.mock.calls.length]).toEqual([1, 1]);
  document.getElementById('i')!.blur();
  await user.keyboard('H');
  expect(help).toHaveBeenCalledOnce();
});

test('the innermost screen that has the key gets it, until it is gone', async () => {
  const user = put('');
  const [outer, inner] = [vi.fn(), vi.fn()];
  keys.add(() => [{ key: 'e', words: 'outer', run: outer }]);
  const away = keys.add(() => [{ key: 'e', words: 'inner', run: inner }]);
  await user.keyboard('e');
  away();
  await user.keyboard('e');
  expect([outer.mock.calls.length, inner.mock.calls.length]).toEqual([1, 1]);
});

test('an open dialog keeps all keys to itself', async () => {
  const user = put('<dialog open><p>sure?</p></dialog>');
  const run = vi.fn();
  keys.add(() => [
    { key: 's', words: 'send', run },
    { key: 'Ctrl+z', words: 'undo', run },
  ]);
  await user.keyboard('s{Control>}z{/Control}');
  expect(run).not.toHaveBeenCalled();
});

test('Enter on a button or a link is theirs', async () => {
  const user = put('<button id="b">go</button><div id="d" tabindex="0">row</div>');
  const run = vi.fn();
  keys.add(() => [{ key: 'Enter', words: 'open', run }]);
  document.getElementById('b')!.focus();
  await user.keyboard('{Enter}');
  expect(run).not.toHaveBeenCalled();
  document.getElementById('d')!.focus();
  await user.keyboard('{Enter}');
  expect(run).toHaveBeenCalledOnce();
});

test('what is a field', () => {
  put('<input /><textarea></textarea><select></select><p></p>');
  expect([...document.body.children].map((c) => isField(c))).toEqual([true, true, true, false]);
  expect(isField(null)).toBe(false);
});

test('Enter in a field of a form sends nothing, it goes on to the next; Control and Enter send from anywhere', async () => {
  const user = put('<form><input id="to" /><input id="subject" /><textarea id="text"></textarea><button>Send</button></form>');
  const form = document.querySelector('form')!;
  const sent = vi.fn((e: Event) => e.preventDefault());
  form.addEventListener('submit', sent);
  const away = formKeys(form);
  document.getElementById('to')!.focus();
  await user.keyboard('a{Enter}');
  expect([sent.mock.calls.length, document.activeElement?.id]).toEqual([0, 'subject']);
  await user.keyboard('{Enter}');
  expect([sent.mock.calls.length, document.activeElement?.id]).toEqual([0, 'text']);
  // In the letter itself it is a new line.
  await user.keyboard('one{Enter}two');
  expect(document.querySelector('textarea')!.value).toBe('one\ntwo');
  await user.keyboard('{Control>}{Enter}{/Control}');
  expect(sent).toHaveBeenCalledOnce();
  away();
});
