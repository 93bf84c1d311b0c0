import type { Drawing } from '../card/draw.js';
import type { Mm } from '../measure/units.js';
import { boxOf } from '../plane/outline.js';
import type { Point } from '../plane/point.js';
import type { Crease, Piece } from '../sheet/piece.js';

/** A line that was made otherwise than it was meant: by how much it lies farther from the left end, or a blank is wider or higher. */
export interface MadeOff {
  piece: string;
  /** a score by its name, or `width` or `height` of the blank, which lie off at its right and upper edge */
  line: string;
  by: Mm;
}

/** A score that was folded, or made on the face, for the other way over. */
export interface MadeOver {
  piece: string;
  line: string;
}

/** A glued place that lies farther right and up on the piece beneath, as that is drawn. */
export interface GluedOff {
  joint: string;
  right: Mm;
  up: Mm;
}

/** A blank that was trimmed at an edge. */
export interface Trimmed {
  piece: string;
  edge: 'left' | 'right' | 'lower' | 'upper';
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

/** A drawing with a score that folds the other way over. */
export function foldedOver(drawing: Drawing, { piece, line }: MadeOver): Drawing {
  const over = (crease: Crease): Crease =>
    isOf(line)(crease) ? { ...crease, fold: crease.fold === 'valley' ? 'mountain' : 'valley', closed: -crease.closed } : crease;
  return {
    ...drawing,
    pieces: drawing.pieces.map((own) => (own.id === piece ? { ...own, creases: own.creases.map(over) } : own)),
  };
}

/** A drawing with a piece glued beside its place. */
export function gluedBeside(drawing: Drawing, { joint, right, up }: GluedOff): Drawing {
  const bonds = drawing.bonds.map((bond) => {
    const [x, y] = bond.placement.to;
    return bond.id === joint ? { ...bond, placement: { ...bond.placement, to: [x + right, y + up] as const } } : bond;
  });
  return { ...drawing, bonds };
}

/** A drawing with a blank that is smaller at one edge. */
export function trimmedAt(drawing: Drawing, { piece, edge, by }: Trimmed): Drawing {
  const axis = edge === 'left' || edge === 'right' ? 0 : 1;
  const isFar = edge === 'right' || edge === 'upper';
  return {
    ...drawing,
    pieces: drawing.pieces.map((own) => (own.id === piece ? withEdgeOff(own, axis, isFar ? -by : by, isFar) : own)),
  };
}

const isOf =
  (line: string) =>
  ({ id, stretchOf }: Crease): boolean =>
    id === line || stretchOf?.id === line;

function withLineOff(piece: Piece, { line, by }: MadeOff): Piece {
  if (line === 'width' || line === 'height') return withEdgeOff(piece, line === 'width' ? 0 : 1, by, true);
  const moved = ([x, y]: Point): Point => [x + by, y];
  const isIt = isOf(line);
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

/** An edge of the blank, and the ends of scores that lie on it, farther right or up. */
function withEdgeOff(piece: Piece, axis: 0 | 1, by: Mm, isFar: boolean): Piece {
  const { minX, maxX, minY, maxY } = boxOf(piece.outline);
  const edge = axis === 0 ? (isFar ? maxX : minX) : isFar ? maxY : minY;
  const moved = (point: Point): Point => {
    if (Math.abs(point[axis] - edge) > 1e-6) return point;
    return axis === 0 ? [point[0] + by, point[1]] : [point[0], point[1] + by];
  };
  return {
    ...piece,
    outline: piece.outline.map(moved),
    creases: piece.creases.map((crease) => ({ ...crease, from: moved(crease.from), to: moved(crease.to) })),
  };
}
