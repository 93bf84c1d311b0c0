import type { Mm } from '../measure/units.js';
import { boxOf, type Loop } from '../plane/outline.js';
import type { Point } from '../plane/point.js';
import type { Crease, Mark, Piece, StandsFor, Zone } from './piece.js';

/** A score as it is made: where the ease of the creases before it has already been counted in. */
export interface Score {
  id: string;
  name: string;
  from: Point;
  to: Point;
  fold: Crease['fold'];
  standsFor?: StandsFor;
  /** the second of a spine’s two scores */
  secondOfSpine?: boolean;
}

/** Whether a score runs straight up its blank, so that it is read off a ruler or set in a groove. */
export function readsOffRuler({ from, to }: Pick<Score, 'from' | 'to'>): boolean {
  return Math.abs(from[0] - to[0]) < 1e-6;
}

/** Where a score begins and ends along y when it does not run right across from edge to edge. */
export function partOf({ from, to }: Pick<Score, 'from' | 'to'>, { height }: Pick<CutSheet, 'height'>): [from: Mm, to: Mm] | undefined {
  const low = Math.max(0, Math.min(from[1], to[1]));
  const high = Math.min(height, Math.max(from[1], to[1]));
  return low < 0.05 && high > height - 0.05 ? undefined : [low, high];
}

/**
 * What is really cut and scored: the piece with thickness allowances put in. Axes as in the piece, the
 * origin at the blank's lower-left corner.
 */
export interface CutSheet {
  piece: Piece;
  width: number;
  height: number;
  outline: Loop;
  windows: { id: string; outline: Loop }[];
  scores: Score[];
  cuts: { id: string; from: Point; to: Point }[];
  zones: Zone[];
  marks: Mark[];
}

const isUpright = (crease: Crease): boolean => Math.abs(crease.from[0] - crease.to[0]) < 1e-9;

/**
 * Turns a nominal piece into the sheet that is cut. Every upright crease with ease pushes what lies
 * beyond it to larger x by that ease; a spine (ease on a crease) becomes two scores that far apart. One
 * with an allowance moves itself as well, so that the panel before it is wider or narrower.
 * A flat outline point on the crease itself goes with the side its neighbours are on.
 */
export function cutSheet(piece: Piece): CutSheet {
  const eased = piece.creases.filter((crease) => crease.ease !== 0 && isUpright(crease));
  const allowed = piece.creases.filter((crease) => crease.allow && isUpright(crease));
  const shift = (x: number): number =>
    eased.reduce((sum, c) => sum + (x > c.from[0] + 1e-9 ? c.ease : 0), 0) +
    allowed.reduce((sum, c) => sum + (x > c.from[0] - 1e-9 ? c.allow! : 0), 0);
  const corner = boxOf(piece.outline);
  const toCut = ([x, y]: Point): Point => [x + shift(x) - corner.minX, y - corner.minY];
  const moved = <T extends { outline: Loop }>(item: T): T => ({ ...item, outline: item.outline.map(toCut) });
  const scores = piece.creases.flatMap((crease): Score[] => {
    const { id, name, fold, standsFor } = crease;
    const first: Score = { id, name, fold, standsFor, from: toCut(crease.from), to: toCut(crease.to) };
    if (crease.ease <= 0 || !eased.includes(crease)) return [first];
    const second = ([x, y]: Point): Point => [x + crease.ease, y];
    return [
      { ...first, name: `${name}, first spine score` },
      { id: `${id}-2`, name: `${name}, second spine score`, fold, secondOfSpine: true, from: second(first.from), to: second(first.to) },
    ];
  });
  const outline = piece.outline.map(toCut);
  const box = boxOf(outline);
  return {
    piece,
    width: box.maxX - box.minX,
    height: box.maxY - box.minY,
    outline,
    windows: piece.windows.map(moved),
    scores: scores.sort((a, b) => Math.min(a.from[0], a.to[0]) - Math.min(b.from[0], b.to[0])),
    cuts: piece.cuts.map((cut) => ({ ...cut, from: toCut(cut.from), to: toCut(cut.to) })),
    zones: piece.zones.map(moved),
    marks: piece.marks.map((mark) => ({ ...mark, from: toCut(mark.from), to: toCut(mark.to) })),
  };
}
