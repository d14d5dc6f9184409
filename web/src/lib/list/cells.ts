import { day, fixed, plain, since } from '$lib/shared';

/** What a cell says: the server's text, as people read it. */
export function show(text: string, type: string): string {
  if (text === '') return '';
  switch (type) {
    case 'date':
      return day(text);
    case 'moment':
      return since(text);
    case 'number':
    case 'whole':
      return plain(Number(text));
    case 'money':
      return fixed(Number(text), text.split('.')[1]?.length ?? 0);
    default:
      return text;
  }
}

/** The foot of a column in the same words as its cells. */
export function showFoot(text: string, type: string): string {
  if (type !== 'date') return text;
  return text
    .split(' to ')
    .map((d) => (d ? day(d) : ''))
    .join(' to ');
}

/** Whether it stands right. */
export const isNumber = (type: string) => type === 'number' || type === 'whole' || type === 'money' || type === 'moment';
