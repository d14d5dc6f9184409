const [FROM, TO] = [8, 18.5];

/** The hours that stand on the day. */
export const HOURS = [8, 10, 12, 14, 16, 18];

/** Where an hour stands, in percent of the height; what is before or after the day stands at its ends. */
export const top = (hour: number) => ((Math.min(Math.max(hour, FROM), TO) - FROM) / (TO - FROM)) * 100;

export const hourOf = (iso: string) => new Date(iso).getHours() + new Date(iso).getMinutes() / 60;

/** Whether the line of now is on the day at all. */
export const isDay = (hour: number) => hour >= FROM && hour <= TO;

/** Marks with their places; those of the same hour stand below one another. */
export function placed<Mark extends { at: string }>(marks: readonly Mark[]): (Mark & { top: number })[] {
  let last = -10;
  return marks.map((mark) => {
    last = Math.max(top(hourOf(mark.at)), last + 8);
    return { ...mark, top: Math.min(last, 97) };
  });
}
