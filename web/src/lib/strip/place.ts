/** Where marks stand on a strip, in percent of its width. */

export interface Placed {
  /** Percent from the left. */
  at: number;
  above: boolean;
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
  return [...left, ...right].map((at, i) => ({ at, above: i % 2 === 0 }));
}

function spread(times: readonly number[], from: number, to: number, low: number, high: number): number[] {
  const gap = times.length > 1 ? Math.min(LEAST_GAP, (high - low) / (times.length - 1)) : 0;
  const at = times.map((t) => low + (to === from ? 1 : (t - from) / (to - from)) * (high - low));
  for (let i = 1; i < at.length; i++) at[i] = Math.max(at[i]!, at[i - 1]! + gap);
  // What was pushed over the end is pushed back, from the end on.
  for (let i = at.length - 1, most = high; i >= 0; i--, most -= gap) at[i] = Math.min(at[i]!, most);
  return at;
}
