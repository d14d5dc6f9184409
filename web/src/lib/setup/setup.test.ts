import { afterEach, expect, test, vi } from 'vitest';
import { refused, serve } from '$lib/test/server';
import { AuthorityState, limitOf } from './authority.svelte';
import { PoliciesState } from './policies.svelte';

afterEach(() => vi.restoreAllMocks());

const discount = { kind: 'discount', label: 'discount', unit: 'percent', any: 100 } as const;
const person = (id: number, reportsTo: number | null) => ({
  person: id,
  key: null,
  name: `p${id}`,
  does: '',
  reportsTo,
  seesCost: true,
  cells: [{ kind: 'discount', limit: 8, said: '8 %', later: '', proposal: null, proposed: '', mayAgree: false }],
});

test.each([
  ['10 %', 10],
  ['7,5', 7.5],
  ['60,000', 60_000],
  ['any', 100],
  ['', null],
  ['–', null],
  ['30 days', 30],
  ['lots', undefined],
])('a limit typed as “%s” is %s', (text, expected) => expect(limitOf(text, discount)).toBe(expected));

test('the line stands as a tree, and nobody is lost in a ring', async () => {
  serve({ 'GET /api/setup/authority': { lines: [person(3, 2), person(1, null), person(2, 1), person(8, 9), person(9, 8)], columns: [discount] } });
  const state = new AuthorityState();
  await state.load();
  expect(state.tree.map((t) => [t.row.person, t.depth])).toEqual([
    [1, 0],
    [2, 1],
    [3, 2],
    [8, 0],
    [9, 0],
  ]);
});

test('what is no limit is not sent; a refusal is said and the cell stays open', async () => {
  const asked = serve({
    'GET /api/setup/authority': { lines: [person(1, null)], columns: [discount] },
    'POST /api/setup/authority': refused(403, 'Nobody gives more than they have.', 'not_allowed'),
  });
  const state = new AuthorityState();
  await state.load();
  state.pick(state.people[0]!, discount);
  expect(state.typed).toBe('8 %');
  state.typed = 'lots';
  await state.set();
  expect(asked.filter((a) => a.method === 'POST')).toHaveLength(0);
  state.typed = '30';
  await state.set();
  expect([state.problem, state.at?.row.person]).toEqual(['Nobody gives more than they have.', 1]);
});

test('a new policy is tried without a name, and saved as it is written', async () => {
  const asked = serve({
    'POST /api/setup/policies/try': { asked: 3 },
    'POST /api/setup/policies': 4,
    'GET /api/setup/policies': { policies: [] },
  });
  const state = new PoliciesState();
  state.begin();
  state.and();
  await state.tryIt();
  expect((asked[0]?.body as { code: string; when: object[] }).code).toBe('tried');
  expect((asked[0]?.body as { when: object[] }).when).toHaveLength(1);
  state.without(0);
  state.draft!.code = 'deep';
  await state.save();
  expect(asked.find((a) => a.url === '/api/setup/policies' && a.method === 'POST')?.body).toMatchObject({ code: 'deep', when: [] });
});

test('a rule that was let hold shows as it is kept now, though it was picked while it was still a draft', async () => {
  const rule = (holds: boolean) => ({ policies: [{ id: 4, version: holds ? 2 : 1, holds, draft: { code: 'deep', when: [] } }] });
  let holds = false;
  serve({
    'POST /api/setup/policies/try': { asked: 3 },
    'POST /api/setup/policies/{id}/hold': () => (holds = true),
    'GET /api/setup/policies': () => rule(holds),
  });
  const state = new PoliciesState();
  await state.load();
  state.pick(state.view!.policies[0]!);
  const underWay = state.hold(state.open!, true);
  expect(state.open?.holds).toBe(false);
  await underWay;
  expect(state.open).toBe(null);
  // Somebody who had the draft before their eyes picks it: what is open is the rule that holds.
  state.pick({ ...state.view!.policies[0]!, holds: false, version: 1 });
  expect(state.open?.holds).toBe(true);
});
