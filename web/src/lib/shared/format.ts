const minus = '\u2212';

// A formatter takes longer to make than a hundred numbers to write.
const made = new Map<string, Intl.NumberFormat>();

function writer(language: string, least: number, most: number): Intl.NumberFormat {
  const key = `${language} ${least} ${most}`;
  const found = made.get(key) ?? new Intl.NumberFormat(language, { minimumFractionDigits: least, maximumFractionDigits: most, useGrouping: 'always' });
  made.set(key, found);
  return found;
}

/** A number with exactly so many decimals, thousands apart, and a true minus, as a language writes it. */
export function fixedIn(language: string, value: number, decimals: number): string {
  return writer(language, decimals, decimals).format(value).replace('-', minus);
}

/** A number with as many decimals as it has, at most six, as a language writes it. */
export function plainIn(language: string, value: number): string {
  return writer(language, 0, 6).format(value).replace('-', minus);
}

/** As the house writes it. */
export const fixed = (value: number, decimals: number) => fixedIn('en-IE', value, decimals);

/** As the house writes it. */
export const plain = (value: number) => plainIn('en-IE', value);

/** A number as people type it here, "1,250", "7,5", "60 000", "−5"; null where it is none. */
export function readNumber(text: string): number | null {
  const plain = text
    .replace(/\s/g, '')
    .replace(minus, '-')
    .replace(/,(?=\d{3}(\D|$))/g, '')
    .replace(',', '.');
  return /^[-+]?\d*\.?\d+$/.test(plain) ? Number(plain) : null;
}

/** A text with its places {0}, {1} filled. */
export function fill(text: string | undefined, ...values: (string | number | null)[]): string {
  return (text ?? '').replace(/\{(\d)\}/g, (place, at: string) => String(values[Number(at)] ?? place));
}

const dayOfYear = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short' });
const dayWithYear = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short', year: 'numeric' });

/** "24 Nov"; with the year where it is not this one. */
export function day(iso: string, now = new Date()): string {
  const at = new Date(iso.length === 10 ? `${iso}T12:00:00` : iso);
  return (at.getFullYear() === now.getFullYear() ? dayOfYear : dayWithYear).format(at);
}

/** How long ago, in words: "12 min", "3 h", "2 days". */
export function since(iso: string, now = new Date()): string {
  const minutes = Math.max(0, Math.round((now.getTime() - new Date(iso).getTime()) / 60_000));
  if (minutes < 1) return 'just now';
  if (minutes < 60) return `${minutes} min`;
  if (minutes < 48 * 60) return `${Math.round(minutes / 60)} h`;
  return `${Math.round(minutes / 1440)} days`;
}

/** "12 min ago", "just now". */
export function ago(iso: string, now = new Date()): string {
  const words = since(iso, now);
  return words === 'just now' ? words : `${words} ago`;
}

/** Where a document is looked at. */
export const documentPath = (document: { kind: string; number: string }) => `/${document.kind}s/${document.number}`;
