import { api, ask, type Schemas } from '$lib/api';

type Round = Schemas['RoundView'];

const LOOK_AGAIN = 500;

/** Does one thing to many documents, one after the other on the server, and tells how far it is. */
export async function overMany(kind: string, deed: string, ids: readonly number[], far: (words: string) => void, given = ''): Promise<Round> {
  far(`${ids.length} ${ids.length === 1 ? 'is' : 'are'} under way`);
  const body = { deed, given, ids: [...ids], count: ids.length };
  let round = await ask(api.POST('/api/lists/{kind}/deeds', { params: { path: { kind } }, body }));
  while (!round.over) {
    far(`${round.done + round.notDone} of ${round.total}`);
    await new Promise((go) => setTimeout(go, LOOK_AGAIN));
    round = await ask(api.GET('/api/rounds/{id}', { params: { path: { id: round.id } } }));
  }
  return round;
}

/** What came of a round, in words. */
export const saysOf = (round: Round, what: string) =>
  `${round.done} ${what}${round.notDone ? `; ${round.notDone} not: ${round.refused.map((r) => `${r.number}: ${r.words}`).join('; ')}` : ''}`;
