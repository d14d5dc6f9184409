import { api, ask, type Schemas } from '$lib/api';
import { Latest } from '$lib/shared';

/** A buyer's change beside the order: which of it is taken. */
export class ChangeState {
  readonly latest = new Latest<Schemas['ChangeView']>();
  view = $derived.by(() => this.latest.value);
  /** Numbers of the lines of the message that are not taken. */
  left = $state.raw<readonly number[]>([]);
  day = $state(true);
  at = $state(0);
  problem = $state('');
  /** What they speak of, and want otherwise. */
  wishes = $derived.by(() => (this.view?.lines ?? []).filter((l) => l.no !== null && l.kind !== 'same'));
  taken = $derived.by(() => this.wishes.map((l) => l.no!).filter((no) => !this.left.includes(no)));
  focused = $derived.by(() => this.view?.lines[this.at]);
  nothing = $derived.by(() => !this.view?.whole && this.taken.length === 0 && !(this.day && this.view?.day));

  load = async (request: string, order?: string) => {
    const params = { path: { number: request }, query: order ? { order } : {} };
    await this.latest.ask(() => ask(api.GET('/api/requests/{number}/change', { params })), 'The change could not be looked at.');
    this.at = Math.max(0, this.view?.lines.findIndex((l) => l.kind !== 'same') ?? 0);
  };

  go = (step: number) => (this.at = Math.max(0, Math.min((this.view?.lines.length ?? 1) - 1, this.at + step)));

  is = (line: Schemas['ChangeLineView']) => line.no !== null && !this.left.includes(line.no);

  toggle = (line = this.focused) => {
    if (!line || line.no === null || line.kind === 'same') return;
    const { no } = line;
    this.left = this.left.includes(no) ? this.left.filter((l) => l !== no) : [...this.left, no];
  };

  all = () => ([this.left, this.day] = [[], true]);

  /** The order that has it since; null where it was refused. */
  take = () =>
    this.#do((v) =>
      ask(
        api.POST('/api/requests/{number}/take-change', {
          params: { path: { number: v.request } },
          body: { version: v.version, order: v.order, lines: this.taken, day: this.day && v.day !== null },
        }),
      ),
    );

  /** Throws where it cannot be refused, so that the reason stays typed. */
  refuse = async (reason: string) => {
    const v = this.view!;
    await ask(
      api.POST('/api/requests/{number}/refuse-change', {
        params: { path: { number: v.request } },
        body: { version: v.version, order: v.order, reason },
      }),
    );
  };

  async #do<T>(run: (view: Schemas['ChangeView']) => Promise<T>): Promise<T | null> {
    if (!this.view) return null;
    this.problem = '';
    try {
      return await run(this.view);
    } catch (reason) {
      this.problem = reason instanceof Error ? reason.message : 'Nothing was taken.';
      return null;
    }
  }
}
