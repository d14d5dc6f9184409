import type { Schemas } from '$lib/api';
import { day, fixed, plain } from '$lib/shared';

type Line = Schemas['LineView'];

/** A column that a person may add to their sheets. */
export interface MoreColumn {
  /** As the server calls it. */
  name: string;
  /** The field of the line that is typed in it; null where it is only shown. */
  field: MoreField | null;
  text: (line: Line, decimals: number) => string;
  /** What stands in the cell when somebody begins to type. */
  typed: (line: Line) => string;
}

export type MoreField = 'wanted' | 'marginPercent' | 'cost' | 'shipFrom' | 'job';

const MORE: readonly MoreColumn[] = [
  { name: 'wanted', field: 'wanted', text: (l) => (l.wanted ? day(l.wanted) : ''), typed: (l) => l.wanted ?? '' },
  {
    name: 'margin',
    field: 'marginPercent',
    text: (l) => (l.marginPercent === null ? '' : `${fixed(l.marginPercent, 1)} %`),
    typed: (l) => (l.marginPercent === null ? '' : l.marginPercent.toFixed(1)),
  },
  {
    name: 'cost',
    field: 'cost',
    text: (l) => (l.says.cost !== null ? `${fixed(l.says.cost, 4)} typed` : l.cost === null ? '' : fixed(l.cost, 4)),
    typed: (l) => (l.says.cost === null ? '' : `${l.says.cost}${l.says.costWhy ? ` // ${l.says.costWhy}` : ''}`),
  },
  { name: 'ships from', field: 'shipFrom', text: (l) => l.says.shipFrom ?? '', typed: (l) => l.says.shipFrom ?? '' },
  { name: 'job', field: 'job', text: (l) => l.says.job, typed: (l) => l.says.job },
  { name: 'tax', field: null, text: (l) => (l.taxPercent === null ? '' : `${l.taxCategory} ${plain(l.taxPercent)} %`), typed: () => '' },
];

/** The columns that somebody chose, in the order in which they stand. */
export const moreColumns = (chosen: readonly string[]): MoreColumn[] => MORE.filter((c) => chosen.includes(c.name));

/** A column by the field that is typed in it. */
export const moreByField = (field: string): MoreColumn | undefined => MORE.find((c) => c.field === field);
