import { api, ask, type Schemas } from '$lib/api';
import { Latest, plain } from '$lib/shared';

type Pick = Schemas['PickView'];
type View = Schemas['ShipmentView'];

const path = (number: string) => {
  const [order = '', no = '0'] = number.split('/');
  return { order, no: Number(no) };
};

/** A shipment that somebody picks and packs: where they are on their way along the shelves. */
export class ShipmentState {
  readonly latest = new Latest<View>();
  view = $derived.by(() => this.latest.value);
  problem = $state('');
  /** What is typed for the pick where the keys are: how much is there of it, or its numbers. */
  typing = $state<'part' | 'serials' | 'lots' | null>(null);
  /** What is there of what goes by lot, while its lots are asked for. */
  #there = 0;
  #number = $state('');
  #at = $state<number | null>(null);

  number = $derived.by(() => this.#number);
  picking = $derived.by(() => this.view?.state === 'picking' && this.view.mayShip);
  /** The first that nobody looked at, unless somebody went elsewhere. */
  at = $derived.by(
    () =>
      this.#at ??
      Math.max(
        0,
        (this.view?.picks ?? []).findIndex((p) => p.picked === null),
      ),
  );
  current = $derived.by(() => this.view?.picks[this.at]);
  /** Whether more than was asked for may go. */
  mayBeMore = $derived.by(() => !!this.current && this.current.most > this.current.quantity);
  /** What may be typed where it is asked how much is there. */
  hint = $derived.by(() => {
    const pick = this.current;
    return !pick ? '' : `of ${plain(pick.quantity)}${this.mayBeMore ? `; up to ${plain(pick.most)} may go` : ''}`;
  });
  left = $derived.by(() => (this.view?.picks ?? []).filter((p) => p.picked === null).length);

  open = (number: string) => {
    [this.#number, this.#at, this.problem, this.typing] = [number, null, '', null];
    if (!number) return Promise.resolve(this.latest.take(null));
    return this.latest.ask(() => ask(api.GET('/api/shipments/{order}/{no}', { params: { path: path(number) } })), 'The shipment could not be loaded.');
  };

  go = (step: number) => {
    this.typing = null;
    this.#at = Math.max(0, Math.min((this.view?.picks.length ?? 1) - 1, this.at + step));
  };

  /** All of it is there. What goes by number is asked for its numbers first. */
  whole = (pick: Pick | undefined) => {
    if (!pick) return;
    if (pick.bySerial && pick.serials.length < pick.quantity) {
      this.typing = 'serials';
      return;
    }
    if (pick.byLot && !pick.lots) return this.#askLots(pick.quantity);
    return this.#pick(pick, pick.quantity, pick.serials, pick.lots);
  };

  /** Only so much of it is there. */
  part = (pick: Pick | undefined, typed: string) => {
    const picked = Number(typed.replace(',', '.'));
    if (!pick) return;
    if (!typed.trim() || !Number.isFinite(picked)) {
      this.problem = `“${typed}” is no number.`;
      return;
    }
    if (pick.byLot && picked > 0) return this.#askLots(picked);
    return this.#pick(pick, picked, pick.serials.slice(0, picked));
  };

  /** Of these lots it is: one alone is all of it. */
  lots = (pick: Pick | undefined, typed: string) => {
    if (!pick) return;
    if (!typed.trim()) {
      this.problem = `${pick.item} goes by lot: say which it is of.`;
      return;
    }
    return this.#pick(pick, this.#there, pick.serials, typed);
  };

  /** By these numbers it goes, as many as were typed. */
  numbers = (pick: Pick | undefined, typed: string) => {
    const serials = typed.split(/[\s,;]+/).filter(Boolean);
    return pick && this.#pick(pick, serials.length, serials);
  };

  pack = (parcels: number, weightKg: number, carrier: string) =>
    this.#do((seen) => api.POST('/api/shipments/{order}/{no}/pack', { params: { path: path(this.#number) }, body: { parcels, weightKg, carrier, seen } }));

  /** It goes; true where it went. */
  send = () =>
    this.#do((seen) => api.POST('/api/shipments/{order}/{no}/send', { params: { path: path(this.#number) }, body: { asAsked: this.left === 0, seen } }));

  drop = (reason: string) => this.#do((seen) => api.POST('/api/shipments/{order}/{no}/drop', { params: { path: path(this.#number) }, body: { reason, seen } }));

  #askLots(there: number) {
    [this.#there, this.typing] = [there, 'lots'];
  }

  #pick = async (pick: Pick, picked: number, serials: readonly string[], lots = '') => {
    const body = (seen: number) => ({ picked: [{ line: pick.line, item: pick.item, picked, serials: [...serials], lots }], seen });
    const done = await this.#do((seen) => api.POST('/api/shipments/{order}/{no}/pick', { params: { path: path(this.#number) }, body: body(seen) }));
    if (done) [this.#at, this.typing] = [null, null];
    return done;
  };

  async #do(call: (seen: number) => Promise<{ data?: View; error?: unknown; response: Response }>) {
    this.problem = '';
    try {
      this.latest.take(await ask(call(this.view?.version ?? 0)));
      return true;
    } catch (reason) {
      this.problem = reason instanceof Error ? reason.message : 'Nothing was changed.';
      return false;
    }
  }
}
