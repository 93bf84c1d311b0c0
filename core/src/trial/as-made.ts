import type { Drawing } from '../card/draw.js';
import type { Mm } from '../measure/units.js';
import { boxOf } from '../plane/outline.js';
import type { Point } from '../plane/point.js';
import type { Crease, Piece } from '../sheet/piece.js';

/** A line that was made otherwise than it was meant: by how much it lies farther from the left end, or a blank is wider or higher. */
export interface MadeOff {
  piece: string;
  /** a score by its name, or `width` or `height` of the blank */
  line: string;
  by: Mm;
}

/** A drawing with its pieces as they were made: nothing else in it is changed. */
export function asMade(drawing: Drawing, made: readonly MadeOff[]): Drawing {
  return {
    ...drawing,
    pieces: drawing.pieces.map((piece) =>
      made.filter((off) => off.piece === piece.id).reduce((changed, off) => withLineOff(changed, off), piece),
    ),
  };
}

function withLineOff(piece: Piece, { line, by }: MadeOff): Piece {
  if (line === 'width' || line === 'height') return withEdgeOff(piece, line === 'width' ? 0 : 1, by);
  const moved = ([x, y]: Point): Point => [x + by, y];
  const isIt = ({ id, stretchOf }: Crease): boolean => id === line || stretchOf?.id === line;
  return {
    ...piece,
    creases: piece.creases.map((crease) =>
      isIt(crease)
        ? {
            ...crease,
            from: moved(crease.from),
            to: moved(crease.to),
            ...(crease.stretchOf && {
              stretchOf: { ...crease.stretchOf, from: moved(crease.stretchOf.from), to: moved(crease.stretchOf.to) },
            }),
          }
        : crease,
    ),
  };
}

/** The far edge of the blank, and the ends of scores that lie on it, farther out. */
function withEdgeOff(piece: Piece, axis: 0 | 1, by: Mm): Piece {
  const box = boxOf(piece.outline);
  const far = axis === 0 ? box.maxX : box.maxY;
  const moved = (point: Point): Point => {
    if (Math.abs(point[axis] - far) > 1e-6) return point;
    return axis === 0 ? [point[0] + by, point[1]] : [point[0], point[1] + by];
  };
  return {
    ...piece,
    outline: piece.outline.map(moved),
    creases: piece.creases.map((crease) => ({ ...crease, from: moved(crease.from), to: moved(crease.to) })),
  };
}
