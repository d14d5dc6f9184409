import type { Schemas } from '$lib/api';
import { fixed, plain } from '$lib/shared';

const ON = { paid: 'what is paid of', margin: 'the margin of', net: 'the net of' } as const;

/** By what somebody earns so much: "2 % of what is paid of EUR 1,200.00, 70 % of it"; of a margin that is not theirs to see not how much. */
export const earnedWords = (c: Pick<Schemas['CommissionView'], 'on' | 'percent' | 'share' | 'basis'>, currency: string) =>
  [
    c.percent === null || c.basis === null ? 'by the margin' : `${plain(c.percent)} % of ${ON[c.on]} ${currency} ${fixed(c.basis, 2)}`,
    ...(c.share === 100 ? [] : [`${plain(c.share)} % of it`]),
  ].join(', ');
