/** Where marks stand on a strip, in percent of its width. */

export interface Placed {
  /** Percent from the left. */
  at: number;
  above: boolean;
  /** What its label may take so that it covers no other, in percent. */
  wide: number;
}

/** The strip's "now" stands here. */
export const NOW = 58;

const LEAST_GAP = 6.5;

/**
 * Past times go evenly onto 1..NOW-3, times ahead onto NOW+4..96, each side in true proportion; marks that would cover each other
 * are pushed apart, in order. Labels stand above and below in turn.
 */
export function place(times: readonly number[], now: number): Placed[] {
  const past = times.filter((t) => t <= now);
  const ahead = times.filter((t) => t > now);
  const left = spread(past, past[0] ?? now, now, 2, NOW - 3);
  const right = spread(ahead, now, Math.max(now + 1, ahead.at(-1) ?? 0), NOW + 4, 96);
  const all = [...left, ...right];
  return all.map((at, i) => ({ at, above: i % 2 === 0, wide: widest(all, i) }));
}

// Labels of one side meet in the middle between their marks; one at an end has what is beyond its mark as well.
function widest(all: readonly number[], i: number): number {
  const [at, before, after] = [all[i]!, all[i - 2], all[i + 2]];
  const room = Math.min(before === undefined ? 100 : at - before, after === undefined ? 100 : after - at);
  const beyond = at < 7 ? at : at <= NOW && at > NOW - 6 ? NOW - at : at > 92 ? 100 - at : null;
  return (beyond === null ? room : room / 2 + beyond) - 0.6;
}

function spread(times: readonly number[], from: number, to: number, low: number, high: number): number[] {
  const gap = times.length > 1 ? Math.min(LEAST_GAP, (high - low) / (times.length - 1)) : 0;
  const at = times.map((t) => low + (to === from ? 1 : (t - from) / (to - from)) * (high - low));
  for (let i = 1; i < at.length; i++) at[i] = Math.max(at[i]!, at[i - 1]! + gap);
  // What was pushed over the end is pushed back, from the end on.
  for (let i = at.length - 1, most = high; i >= 0; i--, most -= gap) at[i] = Math.min(at[i]!, most);
  return at;
}
