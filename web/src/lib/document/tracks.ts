import type { Schemas } from '$lib/api';

export interface Track {
  name: string;
  words: string;
  /** Percent of the bar. */
  share: number;
  tone: string;
}

/** One track by the name of its state. */
export function trackOf(name: string, state: string): Track {
  const states = { terms: 'open', goods: 'waiting', money: 'notDue', [name]: state } as Schemas['Tracks'];
  return tracks(states).find((t) => t.name.toLowerCase() === name)!;
}

/** The three tracks of an order in words and as bars: how far terms, goods and money are, each on its own. */
export function tracks(t: Schemas['Tracks']): Track[] {
  const terms = {
    open: { words: 'to confirm', share: 40, tone: 'bg-ink' },
    held: { words: 'held', share: 40, tone: 'bg-stop' },
    confirmed: { words: 'confirmed', share: 100, tone: 'bg-clear' },
    cancelled: { words: 'cancelled', share: 100, tone: 'bg-third' },
  }[t.terms];
  const goods = {
    waiting: { words: 'waits', share: 0 },
    picking: { words: 'picking', share: 15 },
    partShipped: { words: 'part shipped', share: 55 },
    shipped: { words: 'shipped', share: 100 },
  }[t.goods];
  const money = {
    notDue: { words: 'not due', share: 0 },
    toInvoice: { words: 'to invoice', share: 20 },
    partInvoiced: { words: 'part invoiced', share: 40 },
    invoiced: { words: 'invoiced', share: 60 },
    partPaid: { words: 'part paid', share: 80 },
    paid: { words: 'paid', share: 100 },
  }[t.money];
  return [
    { name: 'Terms', ...terms },
    { name: 'Goods', ...goods, tone: 'bg-ink' },
    { name: 'Money', ...money, tone: 'bg-ink' },
  ];
}
