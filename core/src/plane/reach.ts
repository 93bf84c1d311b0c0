import type { Mm } from '../measure/units.js';
import { totalArea } from './boolean.js';
import { boxOf, type Loop } from './outline.js';

/** The narrower side of the widest of what overlaps: so far one of the two must be moved. */
export function reach(loops: readonly Loop[]): Mm {
  return loops.reduce((most, loop) => {
    if (totalArea([loop]) < 0.01) return most;
    const { minX, maxX, minY, maxY } = boxOf(loop);
    return Math.max(most, Math.min(maxX - minX, maxY - minY));
  }, 0);
}
