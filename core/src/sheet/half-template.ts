import type { Mm } from '../measure/units.js';
import { intersect, subtract, totalArea } from '../plane/boolean.js';
import { boxOf, rectangle, type Loop } from '../plane/outline.js';
import type { Point } from '../plane/point.js';
import { linesOf } from './cut-lines.js';
import type { CutSheet, Score } from './cut-sheet.js';
import type { Cut } from './piece.js';

/** Half of a symmetrical piece, to be laid on folded stock and cut through both leaves at once. */
export interface HalfTemplate {
  piece: string;
  name: string;
  /** the half outline, its straight edge at x = 0 on the fold */
  outline: Loop;
  /** scores on this half, and what is cut inside it */
  scores: Score[];
  cuts: Cut[];
}

const ALIKE_MM2 = 0.5;
const SAME: Mm = 1e-4;

/**
 * The half of a piece to the right of an upright crease about which its outline and the lines cut over it are symmetrical.
 * Undefined when there is no such crease, or the piece is a plain rectangle that nobody cuts from a fold.
 */
export function halfTemplate(sheet: CutSheet): HalfTemplate | undefined {
  const area = { outer: sheet.outline, holes: [] };
  for (const score of sheet.scores) {
    const axis = score.from[0];
    if (Math.abs(axis - score.to[0]) > SAME || !(sheet.outline.length > 4 || isCutOver(sheet, axis)) || !sameCuts(sheet, axis)) continue;
    const reflected = { outer: sheet.outline.map(([x, y]): Point => [2 * axis - x, y]).reverse(), holes: [] };
    if (totalArea(subtract([area], [reflected])) > ALIKE_MM2) continue;
    const box = boxOf(sheet.outline);
    const right = { outer: rectangle(axis, box.minY - 1, box.maxX - axis + 1, box.maxY - box.minY + 2), holes: [] };
    const outline = intersect([area], [right])[0];
    if (!outline) continue;
    const fromFold = ([x, y]: Point): Point => [x - axis, y];
    return {
      piece: sheet.piece.id,
      name: sheet.piece.name,
      outline: outline.map(fromFold),
      scores: sheet.scores
        .filter((s) => s !== score && Math.min(s.from[0], s.to[0]) >= axis - SAME)
        .map((s) => ({ ...s, from: fromFold(s.from), to: fromFold(s.to) })),
      cuts: sheet.cuts
        .filter(({ from, to }) => Math.min(from[0], to[0]) >= axis - SAME)
        .map((cut) => ({ ...cut, from: fromFold(cut.from), to: fromFold(cut.to) })),
    };
  }
  return undefined;
}

/** Whether a line is cut over the fold at x, from one half into the other. */
const isCutOver = ({ cuts }: CutSheet, x: Mm): boolean =>
  linesOf(cuts).some(({ points }) => points.some((p) => p[0] < x - SAME) && points.some((p) => p[0] > x + SAME));

/** Whether what is cut inside a piece is the same on both sides of x. */
function sameCuts({ cuts }: CutSheet, x: Mm): boolean {
  const near = (p: Point, q: Point): boolean => Math.abs(p[0] - q[0]) < SAME && Math.abs(p[1] - q[1]) < SAME;
  const reflected = ([px, py]: Point): Point => [2 * x - px, py];
  return cuts.every(({ from, to }) =>
    cuts.some(
      (cut) =>
        (near(cut.from, reflected(from)) && near(cut.to, reflected(to))) ||
        (near(cut.from, reflected(to)) && near(cut.to, reflected(from))),
    ),
  );
}
