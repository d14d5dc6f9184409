import { expect, test } from 'vitest';
import { ask, Refusal } from '.';

const answer = (status: number, body: unknown) =>
  Promise.resolve(status < 400 ? { data: body, response: new Response(null, { status }) } : { error: body, response: new Response(null, { status }) });

test('what is answered is given', async () => {
  expect(await ask(answer(200, { number: 'Q1' }))).toEqual({ number: 'Q1' });
});

test('a no is thrown in the words of the server, with its code, field and facts', async () => {
  const no = await ask(answer(409, { title: 'Somebody was faster.', code: 'stale', field: 'net', facts: [1] })).catch((e: unknown) => e);
  expect(no).toBeInstanceOf(Refusal);
  expect(no).toMatchObject({ message: 'Somebody was faster.', status: 409, code: 'stale', field: 'net', facts: [1] });
});

test('a no without words still says that nothing was changed', async () => {
  await expect(ask(answer(502, undefined))).rejects.toMatchObject({ code: 'unexpected', message: expect.stringContaining('nothing was changed') as string });
});

test('a server that does not answer is said, and that what was typed is still there', async () => {
  await expect(ask(Promise.reject(new TypeError('network')))).rejects.toMatchObject({
    status: 0,
    code: 'no_answer',
    message: expect.stringContaining('still here') as string,
  });
});
