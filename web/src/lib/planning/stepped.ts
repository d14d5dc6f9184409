import type { Schemas } from '$lib/api';

type Outlook = Schemas['OutlookView'];
type Step = Schemas['OutlookStep'];

/** Where the picture's parts lie, in its own units. */
export interface Drawn {
  /** The stepped line of what went, and of what comes. */
  past: string;
  ahead: string;
  free: string;
  /** Where the stock is below nothing. */
  short: { x: number; width: number; y: number; height: number }[];
  zero: number;
  now: number;
  marks: { x: number; y: number; step: Step; ahead: boolean }[];
  /** Levels and days that can be read off. */
  levels: { y: number; value: number }[];
  months: { x: number; day: string }[];
}

const DAY = 86_400_000;
/** Days that are drawn before now, and at least after it. */
const [BACK, AHEAD] = [30, 45];
const at = (iso: string) => new Date(`${iso}T12:00:00Z`).getTime();

/** A scale whose lines stand on round numbers: 1, 2 or 5 times a power of ten. */
export function round(span: number, lines: number): number {
  const raw = Math.max(span, 1) / lines;
  const power = 10 ** Math.floor(Math.log10(raw));
  return [1, 2, 5, 10].map((m) => m * power).find((m) => m >= raw) ?? raw;
}

/** An item's stock over time as lines in a picture of a width and a height. */
export function draw(outlook: Outlook, width: number, height: number): Drawn {
  const today = at(outlook.today);
  const first = today - BACK * DAY;
  const last = Math.max(today + AHEAD * DAY, ...outlook.ahead.map((s) => at(s.day) + 5 * DAY));
  const past = outlook.past.filter((s) => at(s.day) >= first);
  const levels = [0, outlook.row.onHand, ...past.flatMap((s) => [s.level, s.level - s.quantity]), ...outlook.ahead.map((s) => s.level)];
  const span = Math.max(...levels) - Math.min(...levels) || 1;
  const [top, bottom] = [Math.max(...levels) + span * 0.12, Math.min(...levels) - span * 0.12];
  const x = (time: number) => Math.round(((time - first) / (last - first)) * width * 10) / 10;
  const y = (level: number) => Math.round(((top - level) / (top - bottom)) * height * 10) / 10;

  const stepped = (from: number, level: number, steps: readonly { day: string; level: number }[], to: number) =>
    steps.reduce((path, s) => `${path}H${x(at(s.day))}V${y(s.level)}`, `M${x(from)} ${y(level)}`) + `H${x(to)}`;

  const before = past[0] ? past[0].level - past[0].quantity : outlook.row.onHand;
  const short: Drawn['short'] = [];
  let level = outlook.row.onHand;
  outlook.ahead.forEach((s, i) => {
    level = s.level;
    const next = outlook.ahead[i + 1];
    const [from, to] = [x(at(s.day)), x(next ? at(next.day) : last)];
    if (level < 0 && to > from) short.push({ x: from, width: to - from, y: y(0), height: y(level) - y(0) });
  });
  const gap = round(top - bottom, 4);
  const lines: Drawn['levels'] = [];
  for (let value = Math.ceil(bottom / gap) * gap; value <= top; value += gap) lines.push({ y: y(value), value: Math.round(value * 1000) / 1000 + 0 });
  const months: Drawn['months'] = [];
  for (const d = new Date(first); d.getTime() < last; d.setUTCMonth(d.getUTCMonth() + 1, 1))
    months.push({ x: x(Math.max(first, d.getTime())), day: d.toISOString().slice(0, 10) });
  return {
    past: stepped(first, before, past, today),
    ahead: stepped(today, outlook.row.onHand, outlook.ahead, last),
    free: outlook.free.length
      ? stepped(
          today,
          outlook.free[0]!.free,
          outlook.free.map((f) => ({ day: f.day, level: f.free })),
          last,
        )
      : '',
    short,
    zero: y(0),
    now: x(today),
    marks: [
      ...past.map((step) => ({ x: x(at(step.day)), y: y(step.level), step, ahead: false })),
      ...outlook.ahead.map((step) => ({ x: x(at(step.day)), y: y(step.level), step, ahead: true })),
    ],
    levels: lines,
    months,
  };
}
