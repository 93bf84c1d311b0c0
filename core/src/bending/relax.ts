import type { SheetEnergy } from './sheet-energy.js';
import type { Hold } from './sheet.js';

/** A shape is at rest when no force is greater than this share of what bends it. */
const AT_REST = 1e-5;
const MOST_STEPS = 150;
/** No node goes farther in one step, in widths: farther, the slopes there tell nothing. */
const LONGEST_STEP = 0.25;

/**
 * Lets a sheet go to rest: Newton’s steps down its energy, with the diagonal raised where that is not convex, each
 * shortened until it leads down. Nodes are moved in place; those on held edges stay.
 * @returns whether it came to rest
 */
export function relax(energy: SheetEnergy, nodes: Float64Array, hold: Hold): boolean {
  const { unknowns, hessian, gradient, sheet } = energy;
  const step = new Float64Array(unknowns);
  const from = new Float64Array(nodes.length);
  for (let pass = 0; pass < MOST_STEPS; pass++) {
    const value = energy.at(nodes, hold, true);
    if (largest(gradient) < (AT_REST * Math.max(energy.bending, 0.1)) / sheet.width) return true;
    let shift = 0;
    while (!hessian.factorise(shift)) shift = shift === 0 ? 1e-6 * hessian.entries[0]! : 4 * shift;
    for (let i = 0; i < unknowns; i++) gradient[i] = -gradient[i]!;
    hessian.solve(step, gradient);
    let slope = 0;
    for (let i = 0; i < unknowns; i++) slope -= gradient[i]! * step[i]!;
    from.set(nodes);
    let share = Math.min(1, (LONGEST_STEP * sheet.width) / largest(step));
    const first = 3 * (sheet.cells.across + 1);
    const moveTo = (t: number): number => {
      for (let i = 0; i < unknowns; i++) nodes[first + i] = from[first + i]! + t * step[i]!;
      return energy.at(nodes, hold, false);
    };
    while (moveTo(share) > value + 1e-4 * share * slope) {
      share /= 2;
      if (share < 1e-9) {
        nodes.set(from);
        return false;
      }
    }
  }
  return false;
}

function largest(values: Float64Array): number {
  let most = 0;
  for (const value of values) most = Math.max(most, Math.abs(value));
  return most;
}
