import { vi } from 'vitest';
import { api } from '$lib/api';

export interface Asked {
  method: 'GET' | 'POST';
  url: string;
  params: { path?: Record<string, unknown>; query?: Record<string, unknown>; header?: Record<string, unknown> };
  body: unknown;
}

type Answers = Record<string, unknown | ((asked: Asked) => unknown)>;

/** An answer that is a refusal. */
export const refused = (status: number, title: string, code = 'stopped') => ({ refusedWith: status, title, code });

/** The server, as answers by "GET /api/…"; what it was asked is kept in the order in which it was. */
export function serve(answers: Answers): Asked[] {
  const asked: Asked[] = [];
  const call =
    (method: Asked['method']) =>
    async (url: string, init: { params?: Asked['params']; body?: unknown } = {}) => {
      const one: Asked = { method, url, params: init.params ?? {}, body: init.body ?? null };
      asked.push(one);
      const given = answers[`${method} ${url}`];
      if (given === undefined) throw new Error(`Nobody asked for ${method} ${url} in this test.`);
      const body = await (typeof given === 'function' ? given(one) : given);
      const no = body as { refusedWith?: number } | null;
      const response = new Response(null, { status: no?.refusedWith ?? 200 });
      return response.ok ? { data: body, response } : { error: body, response };
    };
  vi.spyOn(api, 'GET').mockImplementation(call('GET') as unknown as typeof api.GET);
  vi.spyOn(api, 'POST').mockImplementation(call('POST') as unknown as typeof api.POST);
  return asked;
}
