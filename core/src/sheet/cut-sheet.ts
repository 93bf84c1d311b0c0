import type { Mm } from '../measure/units.js';
import { boxOf, loopContains, type Loop } from '../plane/outline.js';
import type { Point } from '../plane/point.js';
import type { Cut, Crease, Mark, Piece, StandsFor, Window, Zone } from './piece.js';

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
  /** how far thickness allowances moved it from where it is drawn: play that a fold takes up */
  allowed?: Mm;
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
  windows: Window[];
  scores: Score[];
  cuts: Cut[];
  zones: Zone[];
  marks: Mark[];
  lettering?: readonly Loop[];
}

const isUpright = (crease: Crease): boolean => Math.abs(crease.from[0] - crease.to[0]) < 1e-9;

/** Ease given to scores once the closed card is known (spines), by hinge id; others keep the ease they are drawn with. */
export type Eases = Readonly<Record<string, Mm>>;

/** A score drawn whole, however it is interrupted, with its ease. */
interface EasedScore {
  crease: Crease;
  x: Mm;
  ease: Mm;
  /** where it runs along y, when there is paper beside its ends: then it widens only its own stretch */
  only?: readonly [from: Mm, to: Mm];
}

/**
 * Turns a nominal piece into the sheet that is cut. Every upright crease with ease pushes what lies
 * beyond it to larger x by that ease; a spine (ease on a crease) becomes two scores that far apart. One
 * with an allowance moves itself as well, so that the panel before it is wider or narrower.
 * A crease that runs only part of the way, paper going on beside it, widens nothing but its own stretch.
 * A flat outline point on the crease itself goes with the side its neighbours are on.
 */
export function cutSheet(piece: Piece, eases: Eases = {}): CutSheet {
  const { eased, easeOf, allowed, toCut } = easing(piece, eases);
  const moved = <T extends { outline: Loop }>(item: T): T => ({ ...item, outline: item.outline.map(toCut) });
  const scores = piece.creases.flatMap((crease): Score[] => {
    const { id, name, fold, standsFor } = crease;
    const moved = allowed.reduce((sum, c) => sum + (crease.from[0] > c.from[0] - 1e-9 ? c.allow! : 0), 0);
    const play = moved === 0 ? {} : { allowed: moved };
    const first: Score = { id, name, fold, standsFor, from: toCut(crease.from), to: toCut(crease.to), ...play };
    const ease = easeOf(crease);
    if (ease <= 0 || !eased.includes(crease)) return [first];
    const second = ([x, y]: Point): Point => [x + ease, y];
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
    ...(piece.lettering && { lettering: piece.lettering.map((loop) => loop.map(toCut)) }),
  };
}

/** Where a point of a piece as it is drawn comes to lie on the sheet that is cut. @param eases those that the sheet was cut with */
export const onCutSheet = (piece: Piece, eases: Eases = {}): ((point: Point) => Point) => easing(piece, eases).toCut;

/** What the creases of a piece move when it is cut. */
function easing(piece: Piece, eases: Eases) {
  const easeOf = (crease: Crease): Mm => eases[`${piece.id}/${crease.stretchOf?.id ?? crease.id}`] ?? crease.ease;
  const upright = piece.creases.filter(isUpright);
  const eased = upright.filter((crease) => easeOf(crease) !== 0);
  const widened = eased
    .map((crease) => easedScore(piece, crease, easeOf(crease)))
    .filter(({ crease }, i, all) =>
      isFirst(
        crease,
        i,
        all.map((other) => other.crease),
      ),
    );
  const allowed = upright.filter((crease) => crease.allow).filter((crease, i, all) => isFirst(crease, i, all));
  const shift = (x: number, y: number): number =>
    widened.reduce((sum, c) => sum + (x > c.x + 1e-9 && reaches(c, y) ? c.ease : 0), 0) +
    allowed.reduce((sum, c) => sum + (x > c.from[0] - 1e-9 ? c.allow! : 0), 0);
  const corner = boxOf(piece.outline);
  const toCut = ([x, y]: Point): Point => [x + shift(x, y) - corner.minX, y - corner.minY];
  return { eased, easeOf, allowed, toCut };
}

function easedScore(piece: Piece, crease: Crease, ease: Mm): EasedScore {
  const { from, to } = crease.stretchOf ?? crease;
  const x = from[0];
  const [low, high] = [Math.min(from[1], to[1]), Math.max(from[1], to[1])];
  const paper = (y: Mm): boolean =>
    loopContains(piece.outline, [x, y]) && !piece.windows.some(({ outline }) => loopContains(outline, [x, y]));
  const goesOn = paper(low - BESIDE) || paper(high + BESIDE);
  return { crease, x, ease, ...(goesOn && { only: [low, high] as const }) };
}

/** Just past the end of a score. */
const BESIDE = 1e-3;

const reaches = ({ only }: EasedScore, y: Mm): boolean => !only || (y >= only[0] - 1e-9 && y <= only[1] + 1e-9);

/** Stretches of one score ease the blank, or allow for thickness, once. */
function isFirst({ stretchOf }: Crease, i: number, all: readonly Crease[]): boolean {
  return stretchOf === undefined || all.findIndex((other) => other.stretchOf?.id === stretchOf.id) === i;
}
