import { getContext, setContext } from 'svelte';
import { api, ask, type Schemas } from '$lib/api';

export type Moved = Schemas['Moved'];
type Hear = (moved: Moved) => void;

const EVERY = 2000;
const context = Symbol('pulse');

/** Asks the server every few seconds what others changed, while the page is looked at, and tells whoever listens. */
export class Pulse {
  #at = 0;
  #hearers: readonly Hear[] = [];
  #asking = false;

  listen = (hear: Hear): (() => void) => {
    this.#hearers = [...this.#hearers, hear];
    return () => (this.#hearers = this.#hearers.filter((h) => h !== hear));
  };

  /** Begins; the answer ends it. */
  start = (): (() => void) => {
    const timer = setInterval(() => void this.beat(), EVERY);
    void this.beat();
    return () => clearInterval(timer);
  };

  beat = async () => {
    if (this.#asking || document.hidden) return;
    this.#asking = true;
    const first = this.#at === 0;
    try {
      const moved = await ask(api.GET('/api/pulse', { params: { query: { after: this.#at } } }));
      this.#at = moved.at;
      // What the page shows was fetched a moment ago: the first answer only says from where to count.
      if (!first && (moved.everything || moved.subjects.length)) this.#hearers.forEach((hear) => hear(moved));
    } catch {
      // The server is away for a moment; whoever does something meanwhile is told so, and the next beat asks again.
    } finally {
      this.#asking = false;
    }
  };
}

export const providePulse = (): Pulse => setContext(context, new Pulse());

/** Calls at once, and then again only after a while, however often it is rung: the last ring is never lost. */
export function atMostEvery(milliseconds: number, call: () => void) {
  let timer: ReturnType<typeof setTimeout> | null = null;
  let rung = false;
  const ring = () => {
    if (timer !== null) {
      rung = true;
      return;
    }
    call();
    timer = setTimeout(() => {
      timer = null;
      if (rung) {
        rung = false;
        ring();
      }
    }, milliseconds);
  };
  return { ring, stop: () => timer !== null && clearTimeout(timer) };
}

/**
 * Tells a screen, for as long as it is open, that something it shows was changed.
 * @param every so many milliseconds at most: for what costs the server something, in a house where much happens.
 */
export function usePulse(concerns: (subject: string) => boolean, hear: () => void, every = 0) {
  const pulse = getContext<Pulse | undefined>(context);
  if (!pulse) throw new Error('usePulse needs a layout that provided Pulse.');
  // Meets the server through the layout's pulse.
  $effect(() => {
    const bell = atMostEvery(every, hear);
    const deaf = pulse.listen(({ everything, subjects }) => (everything || subjects.some(concerns)) && bell.ring());
    return () => {
      deaf();
      bell.stop();
    };
  });
}
