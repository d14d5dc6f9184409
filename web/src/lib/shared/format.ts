const minus = '\u2212';

/** A number with exactly so many decimals, thousands apart, and a true minus. */
export function fixed(value: number, decimals: number): string {
  return value.toLocaleString('en-IE', { minimumFractionDigits: decimals, maximumFractionDigits: decimals }).replace('-', minus);
}

/** A number with as many decimals as it has, at most six. */
export function plain(value: number): string {
  return value.toLocaleString('en-IE', { maximumFractionDigits: 6 }).replace('-', minus);
}

/** "24 Nov"; with the year where it is not this one. */
export function day(iso: string, now = new Date()): string {
  const at = new Date(iso.length === 10 ? `${iso}T12:00:00` : iso);
  const sameYear = at.getFullYear() === now.getFullYear();
  return at.toLocaleDateString('en-GB', { day: 'numeric', month: 'short', ...(sameYear ? {} : { year: 'numeric' }) });
}

/** How long ago, in words: "12 min", "3 h", "2 days". */
export function since(iso: string, now = new Date()): string {
  const minutes = Math.max(0, Math.round((now.getTime() - new Date(iso).getTime()) / 60_000));
  if (minutes < 1) return 'just now';
  if (minutes < 60) return `${minutes} min`;
  if (minutes < 48 * 60) return `${Math.round(minutes / 60)} h`;
  return `${Math.round(minutes / 1440)} days`;
}
