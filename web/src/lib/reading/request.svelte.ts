import { api, ask, Refusal, type Schemas } from '$lib/api';
import type { Chosen } from './parts';

type RequestView = Schemas['RequestView'];
type Line = Schemas['ReadLineView'];
type LeftOver = Schemas['LeftOverView'];

const say = (reason: unknown) => (reason instanceof Refusal ? reason.message : 'Something went wrong here; nothing was changed.');

/** The kinds of message that nothing new is made of. */
const NOTHING_NEW = ['change', 'cancellation', 'answerToQuote', 'return', 'reminder', 'complaint', 'notForUs'];

/**
 * One request on the reading desk: what was read, where the keys are, and what was chosen in the original. What somebody does goes to the
 * server one after the other, each on the version that came back; an answer for a request that was left is dropped.
 */
export class RequestState {
  view = $state.raw<RequestView | null>(null);
  problem = $state('');
  /** What the pointer is on: a field, or the number of a line. */
  lit = $state<string | null>(null);
  /** The line where the keys go. */
  line = $state<number | null>(null);
  /** The part of the message that is shown. */
  part = $state(0);
  chosen = $state.raw<Chosen | null>(null);
  /** Whether what is settled is remembered for everybody, not for this buyer alone. */
  forAll = $state(false);
  #mayWrite: () => boolean;
  #number = '';
  #under: Promise<void> = Promise.resolve();

  constructor(mayWrite: () => boolean) {
    this.#mayWrite = mayWrite;
  }

  reading = $derived.by(() => this.view?.reading ?? null);
  open = $derived.by(() => !!this.view && (this.view.state === 'new' || this.view.state === 'needsYou') && this.#mayWrite());
  isOrder = $derived.by(() => this.reading?.kind === 'order');
  /** Whether something new can be made of it: a change or a cancellation is of an order that there is. */
  turns = $derived.by(() => !!this.reading?.lines.length && !NOTHING_NEW.includes(this.reading.kind));
  /** Whether it is about an order that there is. */
  changes = $derived.by(() => this.reading?.kind === 'change' || this.reading?.kind === 'cancellation');
  /** Words that nothing explains. */
  overs = $derived.by(() => this.reading?.leftOvers ?? []);
  /** The first words that nothing explains, once no line is in doubt: where the keys go then. */
  over = $derived.by(() => (this.line === null ? (this.overs[0] ?? null) : null));
  focused = $derived.by(() => this.reading?.lines.find((l) => l.no === this.line) ?? null);

  /** Opens another request. */
  load = async (number: string) => {
    this.#number = number;
    [this.view, this.chosen, this.forAll, this.problem, this.lit] = [null, null, false, '', null];
    await this.#fetch(number, (found) => {
      // The part that most was read from stands in front.
      const counts = found.parts.map((_, i) => (found.reading?.lines ?? []).filter((l) => l.evidence.some((e) => (e.part ?? 0) === i)).length);
      this.part = Math.max(0, counts.indexOf(Math.max(...counts, 0)));
      this.#focusDoubt(found);
    });
  };

  /** Fetches it anew after others changed it; where the keys are stays. */
  refresh = async () => {
    const number = this.#number;
    await this.#under;
    await this.#fetch(number, (found) => {
      if (!found.reading?.lines.some((l) => l.no === this.line)) this.#focusDoubt(found);
    });
  };

  async #fetch(number: string, then: (found: RequestView) => void) {
    try {
      const found = await ask(api.GET('/api/requests/{number}', { params: { path: { number } } }));
      // What was fetched before a change may come after it.
      if (number !== this.#number || found.version < (this.view?.version ?? 0)) return;
      this.view = found;
      then(found);
    } catch (reason) {
      if (number === this.#number) this.problem = say(reason);
    }
  }

  // What is in doubt stands in the part that is shown.
  #focusDoubt(view: RequestView) {
    const doubt = view.reading?.lines.find((l) => l.needsYou);
    this.line = doubt?.no ?? null;
    const places = doubt ? doubt.evidence : (view.reading?.leftOvers ?? []).slice(0, 1).map((o) => o.where);
    if (places.length && !places.some((e) => (e.part ?? 0) === this.part)) this.part = places[0]?.part ?? 0;
  }

  move = (step: number) => {
    const all = this.reading?.lines ?? [];
    const at = all.findIndex((l) => l.no === this.line);
    this.line = all[Math.min(Math.max(0, at + step), all.length - 1)]?.no ?? null;
  };

  settle = (l: Line, itemCode: string, quantity: number | null, unit: string | null) =>
    this.#run((number, version) =>
      ask(
        api.POST('/api/requests/{number}/settle', {
          params: { path: { number } },
          body: { version, line: l.no, itemCode, quantity, unit, remember: true, forAll: this.forAll },
        }),
      ),
    );

  leaveOut = (l: Line) =>
    this.#run((number, version) => ask(api.POST('/api/requests/{number}/leave-out/{line}', { params: { path: { number, line: l.no }, query: { version } } })));

  correct = (field: string, value: string) =>
    this.#run((number, version) => ask(api.POST('/api/requests/{number}/correct', { params: { path: { number } }, body: { version, field, value } })));

  split = (l: Line, first: number) =>
    this.#run((number, version) => ask(api.POST('/api/requests/{number}/split', { params: { path: { number } }, body: { version, line: l.no, first } })));

  join = (l: Line) =>
    this.#run((number, version) => ask(api.POST('/api/requests/{number}/join', { params: { path: { number } }, body: { version, line: l.no } })));

  columns = (part: number, row: number, columns: Record<number, string>) =>
    this.#run((number, version) => ask(api.POST('/api/requests/{number}/columns', { params: { path: { number } }, body: { version, part, row, columns } })));

  /** What nothing explained becomes a line of its own. */
  takeUp = (over: LeftOver) =>
    this.#run((number, version) =>
      ask(
        api.POST('/api/requests/{number}/choose', {
          params: { path: { number } },
          body: { version, line: 0, part: over.where.part ?? 0, start: over.where.start, length: over.where.length },
        }),
      ),
    );

  /** It means nothing here. */
  dismiss = (over: LeftOver) =>
    this.#run((number, version) =>
      ask(
        api.POST('/api/requests/{number}/dismiss', {
          params: { path: { number } },
          body: { version, part: over.where.part ?? 0, start: over.where.start },
        }),
      ),
    );

  /** What was chosen in the original becomes words for a line, a new line (0), or a value of the head. */
  use = (of: number | string) => {
    const words = this.chosen;
    if (!words) return Promise.resolve();
    this.chosen = null;
    const where = { part: words.part, start: words.start, length: words.length };
    return this.#run((number, version) =>
      typeof of === 'number'
        ? ask(api.POST('/api/requests/{number}/choose', { params: { path: { number } }, body: { version, line: of, ...where } }))
        : ask(
            api.POST('/api/requests/{number}/correct', {
              params: { path: { number } },
              body: { version, field: of, value: words.text.trim(), where },
            }),
          ),
    );
  };

  /** Makes a quote or an order of it, after all that is still under way; null where it was refused. */
  turn = async (intoOrder: boolean): Promise<Schemas['DocumentRef'] | null> => {
    await this.#under;
    if (!this.view || !this.open || !this.turns) return null;
    this.problem = '';
    const [number, version] = [this.#number, this.view.version];
    try {
      return await ask(api.POST('/api/requests/{number}/turn', { params: { path: { number } }, body: { version, intoOrder } }));
    } catch (reason) {
      this.problem = say(reason);
      return null;
    }
  };

  /** Some of its lines become a request of their own; its number. */
  divide = async (lines: readonly number[]) => {
    const number = this.#number;
    const body = { version: this.view?.version ?? 0, lines: [...lines] };
    const made = await ask(api.POST('/api/requests/{number}/divide', { params: { path: { number } }, body }));
    return made.number;
  };

  /** Puts it into the dossier of a matter that is there. */
  belongs = async (into: string) => {
    const number = this.#number;
    const body = { version: this.view?.version ?? 0, into, done: !this.turns };
    const after = await ask(api.POST('/api/requests/{number}/dossier', { params: { path: { number } }, body }));
    if (number === this.#number) this.view = after;
  };

  setAside = async (reason: string) => {
    const number = this.#number;
    const body = { version: this.view?.version ?? 0, reason };
    const after = await ask(api.POST('/api/requests/{number}/set-aside', { params: { path: { number } }, body }));
    if (number === this.#number) this.view = after;
  };

  // A key pressed while the last one is still under way waits for it, and goes to the request that it was pressed on.
  #run(call: (number: string, version: number) => Promise<RequestView>): Promise<void> {
    const number = this.#number;
    this.#under = this.#under.then(async () => {
      if (number !== this.#number || !this.view) return;
      this.problem = '';
      try {
        const after = await call(number, this.view.version);
        if (number !== this.#number) return;
        this.view = after;
        this.#focusDoubt(after);
      } catch (reason) {
        if (number === this.#number) this.problem = say(reason);
      }
    });
    return this.#under;
  }
}
