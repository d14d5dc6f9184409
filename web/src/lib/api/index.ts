import createClient from 'openapi-fetch';
import type { components, paths } from './generated/schema';

export type Schemas = components['schemas'];

/** A "no" of the server: stable code, one sentence, and the field that it is about. */
export class Refusal extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    words: string,
    readonly field?: string,
    readonly facts?: unknown,
  ) {
    super(words);
  }
}

export const api = createClient<paths>({ baseUrl: '' });

interface Answer<T> {
  data?: T;
  error?: unknown;
  response: Response;
}

/** Gives the data, or throws the server's refusal in its own words. */
export async function ask<T>(call: Promise<Answer<T>>): Promise<T> {
  let answer: Answer<T>;
  try {
    answer = await call;
  } catch {
    throw new Refusal(0, 'no_answer', 'The server does not answer. What you typed is still here; try again.');
  }
  if (answer.response.ok) return answer.data as T;
  const problem = (answer.error ?? {}) as { title?: string; code?: string; field?: string; facts?: unknown };
  const words = problem.title ?? 'Something went wrong here; nothing was changed.';
  throw new Refusal(answer.response.status, problem.code ?? 'unexpected', words, problem.field, problem.facts);
}

/** Sends a file or a form as it is, which the generated client cannot: it knows JSON alone. */
export const send = <T>(path: string, body: BodyInit): Promise<T> =>
  ask<T>(
    fetch(path, { method: 'POST', body }).then(async (response) => {
      const told: unknown = await response.json().catch(() => undefined);
      return response.ok ? { response, data: told as T } : { response, error: told };
    }),
  );
