import { deviation, mean } from '../measure/spread.js';
import type { Mm } from '../measure/units.js';
import type { Build, Measure } from './build.js';

/** What measurements are told apart by. */
export const ACCURACY_BY = ['tool', 'stock', 'mechanism'] as const;
export type AccuracyBy = (typeof ACCURACY_BY)[number];

/** How exactly things came out that have a tool, a stock or a mechanism in common. */
export interface Accuracy {
  id: string;
  count: number;
  /** measured less planned, on average */
  mean: Mm;
  /** how far single ones lie about that; nothing for a single one */
  spread?: Mm;
  /** the one that was farthest off */
  worst: Mm;
}

/** Measurements in groups, those with most first. Ones without a tool are left out where tools are asked for. */
export function accuracyBy(builds: readonly Pick<Build, 'measures'>[], by: AccuracyBy): Accuracy[] {
  const groups = new Map<string, Measure[]>();
  for (const measure of builds.flatMap(({ measures }) => measures)) {
    if (measure[by] === '') continue;
    groups.set(measure[by], [...(groups.get(measure[by]) ?? []), measure]);
  }
  return [...groups]
    .map(([id, measures]): Accuracy => {
      const off = measures.map(({ planned, measured }) => measured - planned);
      const worst = off.reduce((a, b) => (Math.abs(b) > Math.abs(a) ? b : a));
      return { id, count: off.length, mean: mean(off), worst, ...(off.length > 1 && { spread: deviation(off) }) };
    })
    .sort((a, b) => b.count - a.count || (a.id < b.id ? -1 : 1));
}
