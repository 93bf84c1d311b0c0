import { intersect, subtract, totalArea } from '../plane/boolean.js';
import { boxOf, rectangle, type Loop } from '../plane/outline.js';
import type { Point } from '../plane/point.js';
import type { CutSheet, Score } from './cut-sheet.js';

/** Half of a symmetrical piece, to be laid on folded stock and cut through both leaves at once. */
export interface HalfTemplate {
  piece: string;
  name: string;
  /** the half outline, its straight edge at x = 0 on the fold */
  outline: Loop;
  /** scores on this half */
  scores: Score[];
}

const ALIKE_MM2 = 0.5;

/**
 * The half of a piece to the right of an upright crease about which its outline is symmetrical.
 * Undefined when there is no such crease, or the piece is a plain rectangle that nobody cuts from a fold.
 */
export function halfTemplate(sheet: CutSheet): HalfTemplate | undefined {
  const area = { outer: sheet.outline, holes: [] };
  for (const score of sheet.scores) {
    const axis = score.from[0];
    if (Math.abs(axis - score.to[0]) > 1e-6 || sheet.outline.length <= 4) continue;
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
        .filter((s) => s !== score && Math.min(s.from[0], s.to[0]) >= axis - 1e-6)
        .map((s) => ({ ...s, from: fromFold(s.from), to: fromFold(s.to) })),
    };
  }
  return undefined;
}
