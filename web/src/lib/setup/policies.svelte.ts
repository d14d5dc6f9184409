import { api, ask, type Schemas } from '$lib/api';
import { Latest } from '$lib/shared';

type View = Schemas['PoliciesView'];
export type Policy = Schemas['PolicyView'];
export type Draft = Schemas['PolicyDraft'];

const fresh = (): Draft => ({
  code: '',
  figure: 'discount',
  route: 'firstAble',
  when: [],
  named: [],
  buyers: [],
  groups: [],
  families: [],
  channels: [],
  hands: [],
  patienceHours: 8,
  from: '2000-01-01',
  to: null,
});

/** The policies, the one that is written, and what it would have asked. */
export class PoliciesState {
  readonly latest = new Latest<View>();
  readonly trial = new Latest<Schemas['TrialView']>();
  problem = $state('');
  #at = $state<number | null>(null);
  draft = $state<Draft | null>(null);
  view = $derived.by(() => this.latest.value);
  /** The policy whose sentence is open, as it is kept now; null: a new one, or none. */
  open = $derived.by(() => this.view?.policies.find((p) => p.id === this.#at) ?? null);
  /** Whether what is written differs from what is kept. */
  changed = $derived.by(() => this.draft !== null && JSON.stringify(this.draft) !== JSON.stringify(this.open?.draft ?? null));

  load = () => this.latest.ask(() => ask(api.GET('/api/setup/policies')), 'The policies could not be loaded.');

  pick = (policy: Policy) => {
    [this.#at, this.problem] = [policy.id, ''];
    this.draft = structuredClone(policy.draft);
    void this.tryIt();
  };

  begin = () => {
    [this.#at, this.problem, this.draft] = [null, '', fresh()];
    this.trial.take(null);
  };

  leave = () => {
    [this.#at, this.draft, this.problem] = [null, null, ''];
    this.trial.take(null);
  };

  /** Tries what is written on the past; changes nothing. A new one needs no name for that. */
  tryIt = async () => {
    // A rule that asks nobody says when; until then there is nothing to try.
    if (!this.draft || (/^(stop|notice)$/.test(this.draft.route) && !this.draft.when.length)) return;
    const body = { ...$state.snapshot(this.draft), code: this.draft.code || 'tried' };
    await this.trial.ask(() => ask(api.POST('/api/setup/policies/try', { body })));
  };

  save = () =>
    this.#do(async () => {
      const body = $state.snapshot(this.draft!);
      const id = this.open
        ? await ask(api.PUT('/api/setup/policies/{id}', { ...this.#seen(this.open), body }))
        : await ask(api.POST('/api/setup/policies', { body }));
      await this.load();
      const saved = this.view?.policies.find((p) => p.id === id);
      if (saved) this.pick(saved);
    });

  hold = (policy: Policy, holds: boolean) =>
    this.#do(async () => {
      await ask(api.POST('/api/setup/policies/{id}/hold', { ...this.#seen(policy), body: { holds } }));
      // Loaded first: left before that, the list would show the rule as it was, to be picked.
      await this.load();
      if (this.#at === policy.id) this.leave();
    });

  drop = (policy: Policy) =>
    this.#do(async () => {
      await ask(api.DELETE('/api/setup/policies/{id}', this.#seen(policy)));
      // Loaded first: left before that, the list would show the rule as it was, to be picked.
      await this.load();
      if (this.#at === policy.id) this.leave();
    });

  and = () => this.draft?.when.push({ figure: 'value', over: true, value: 10_000 });
  without = (at: number) => this.draft?.when.splice(at, 1);

  #seen = (policy: Policy) => ({ params: { path: { id: policy.id }, header: { 'If-Match': `"${policy.version}"` } } });

  #do = async (run: () => Promise<unknown>) => {
    try {
      this.problem = '';
      await run();
    } catch (reason) {
      this.problem = reason instanceof Error ? reason.message : 'It was not changed.';
    }
  };
}
