import type { Mm } from '../measure/units.js';
import { boxOf, type Loop } from '../plane/outline.js';
import type { Point } from '../plane/point.js';
import type { CutSheet } from './cut-sheet.js';

/**
 * How far right of where it is drawn what lies in a panel comes to lie on the sheet that is cut: as far as the last score
 * before it, or the second line of its spine. For showing what is drawn on a panel on its sheet, in the sheet's coordinates.
 */
export function shiftOnSheet({ piece, scores }: CutSheet, panel: Loop): Point {
  const corner = boxOf(piece.outline);
  const { minX, maxX } = boxOf(panel);
  const middle = (minX + maxX) / 2;
  const before = piece.creases.filter(({ from, to }) => Math.abs(from[0] - to[0]) < 1e-9 && from[0] < middle);
  const last = before.reduce<(typeof before)[number] | undefined>(
    (far, crease) => (far && far.from[0] >= crease.from[0] ? far : crease),
    undefined,
  );
  const score = last && (scores.find(({ id }) => id === `${last.id}-2`) ?? scores.find(({ id }) => id === last.id));
  const moved: Mm = last && score ? score.from[0] - (last.from[0] - corner.minX) : 0;
  return [moved - corner.minX, -corner.minY];
}
