import type { Mm } from '../measure/units.js';
import type { Blank } from './guillotine.js';

/**
 * No layout of any kind has fewer sheets than this. By area; and by what lies beside what: with shares of a side rounded by a
 * function f for which any sides that fit into one add up to at most 1 (a dual feasible function), the sum of f(width) · f(height) of all blanks is at most
 * the number of sheets. Taken are f(x) = 1 for x > 1 − e, 0 for x < e, else x, over all e that matter, both ways round.
 * A blank that may be turned counts by whichever way is less. (Fekete and Schepers, bounds for orthogonal packing.)
 */
export function leastSheets(blanks: readonly Blank[], sheet: { width: Mm; height: Mm }): number {
  if (blanks.length === 0) return 0;
  const shares = blanks.map(({ width, height, lies }) => {
    const upright = [width / sheet.width, height / sheet.height] as const;
    const turned = [height / sheet.width, width / sheet.height] as const;
    return (lies === 'upright' ? [upright] : lies === 'turned' ? [turned] : [upright, turned]).filter(
      ([w, h]) => w <= 1 + SAME && h <= 1 + SAME,
    );
  });
  const sides = shares.flat().flat();
  const marks = [...new Set([0, 0.5, ...sides.map((side) => Math.round(Math.min(side, 1 - side) * 1e9) / 1e9)])].filter(
    (e) => e >= 0 && e <= 0.5,
  );
  const chosen = marks.length <= MOST_MARKS ? marks : marks.filter((_, i) => i % Math.ceil(marks.length / MOST_MARKS) === 0);
  const byMarks = (e: number, k: number): number =>
    shares.reduce((sum, ways) => sum + Math.min(...ways.map(([w, h]) => stretched(w, e) * stretched(h, k))), 0);
  const most = chosen.reduce((top, e) => Math.max(top, ...chosen.map((k) => byMarks(e, k))), 0);
  return Math.max(1, Math.ceil(most - 1e-6));
}

const SAME = 1e-9;
/** So many marks a side are tried. */
const MOST_MARKS = 24;

/** Sides that fit beside each other add up to at most 1 so rounded: of those longer than 1 − e there is one, and none shorter than e beside it counts. */
function stretched(side: number, e: number): number {
  if (side > 1 - e + SAME) return 1;
  return side < e - SAME ? 0 : Math.min(1, side);
}
