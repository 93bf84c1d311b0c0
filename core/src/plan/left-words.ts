import { sayLength } from '../measure/print.js';
import { rulerStep, type Mm, type Notation } from '../measure/units.js';
import type { Leftover } from './cutting-plan.js';

/** What is left of sheets, down to a mark of the ruler so that it is there, each size once with what it is good for. */
export function leftWords(leftovers: readonly Leftover[], notation: Notation): string[] {
  const step = rulerStep(notation);
  const down = (mm: Mm): string => sayLength(Math.floor(mm / step + 1e-6) * step, notation);
  const all = leftovers.map(({ width, height, goodFor }) => {
    const good = goodFor.length > 0 ? `, good for ${goodFor.join(', ')}` : '';
    return `${down(width)} × ${down(height)}${good}`;
  });
  return [...new Set(all)].map((words) => {
    const count = all.filter((one) => one === words).length;
    return count === 1 ? words : `${count} of ${words}`;
  });
}
