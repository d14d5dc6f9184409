const weekdays = ['sun', 'mon', 'tue', 'wed', 'thu', 'fri', 'sat'];
const months = ['jan', 'feb', 'mar', 'apr', 'may', 'jun', 'jul', 'aug', 'sep', 'oct', 'nov', 'dec'];

const iso = (date: Date) => `${date.getFullYear()}-${String(date.getMonth() + 1).padStart(2, '0')}-${String(date.getDate()).padStart(2, '0')}`;

// The day, where the calendar has it: 31 June is none.
const at = (year: number, month: number, date: number) => {
  const made = new Date(year, month, date);
  return made.getMonth() === month && made.getDate() === date ? iso(made) : null;
};

/** A day as people type it, "fri", "12 dec", "+2w", "2026-12-01", as the API takes it; null where it is none. */
export function readDay(text: string, now = new Date()): string | null {
  const plain = text.trim().toLowerCase();
  const [year, month, date] = [now.getFullYear(), now.getMonth(), now.getDate()];
  if (plain === 'today') return iso(now);
  if (plain === 'tomorrow') return iso(new Date(year, month, date + 1));
  const ahead = /^\+(\d{1,3})\s*([dwm])$/.exec(plain);
  if (ahead) {
    const by = Number(ahead[1]);
    return iso(ahead[2] === 'm' ? new Date(year, month + by, date) : new Date(year, month, date + by * (ahead[2] === 'w' ? 7 : 1)));
  }
  const weekday = weekdays.indexOf(plain.slice(0, 3));
  if (weekday >= 0 && /^[a-z]+$/.test(plain)) return iso(new Date(year, month, date + ((weekday - now.getDay() + 6) % 7) + 1));
  const whole = /^(\d{4})-(\d{2})-(\d{2})$/.exec(plain);
  if (whole) return at(Number(whole[1]), Number(whole[2]) - 1, Number(whole[3]));
  const named = /^(\d{1,2})\.?\s+([a-z]{3})[a-z]*\.?(?:\s+(\d{4}))?$/.exec(plain) ?? /^(\d{1,2})[./](\d{1,2})[./]?(?:(\d{4}))?$/.exec(plain);
  if (!named) return null;
  const of = /^\d/.test(named[2]!) ? Number(named[2]) - 1 : months.indexOf(named[2]!);
  if (of < 0 || of > 11) return null;
  if (named[3]) return at(Number(named[3]), of, Number(named[1]));
  // Without a year the next one that comes.
  const found = at(year, of, Number(named[1]));
  return found !== null && found >= iso(now) ? found : at(year + 1, of, Number(named[1]));
}
