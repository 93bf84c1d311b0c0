import type { Mm } from '../measure/units.js';
import type { Point } from '../plane/point.js';
import { linesOf } from './cut-lines.js';
import type { CutSheet } from './cut-sheet.js';
import { stretchesOnPaper } from './on-paper.js';
import type { Face, Fold, Mark, Zone } from './piece.js';

/** What a line or an area of a flat piece is for. */
export type DrawingRole = 'outline' | 'window' | 'slit' | Fold | 'pencil' | 'lettering' | Zone['kind'];

/** One line or area of a flat piece, in the piece's own coordinates (mm, origin at the lower left corner of the blank). */
export interface Primitive {
  role: DrawingRole;
  /** of the score, window, slit, mark or zone it draws; `outline` for the outline. Stretches of one line have one id */
  id: string;
  points: readonly Point[];
  closed: boolean;
  face: Face;
}

/** A cut sheet, or as much of one as there is. */
type Drawable = Pick<CutSheet, 'outline' | 'scores'> & Partial<Pick<CutSheet, 'windows' | 'cuts' | 'marks' | 'zones' | 'lettering'>>;

const CUT: readonly DrawingRole[] = ['outline', 'window', 'slit'];

/** Whether a line is cut through. */
export const isCut = ({ role }: Primitive): boolean => CUT.includes(role);

/** Whether a line is folded along. */
export const isFold = ({ role }: Primitive): boolean => role === 'mountain' || role === 'valley';

/**
 * The one drawing of a flat piece that every page, screen and file shows: each says only how a role looks. Outline first,
 * then what is cut inside it, folds, pencil lines and zones. Folds and pencil lines are drawn only where there is paper.
 */
export function pieceDrawing({ outline, windows = [], cuts = [], scores, marks = [], zones = [], lettering = [] }: Drawable): Primitive[] {
  const up = { face: 'up' } as const;
  const onPaper = (from: Point, to: Point) => stretchesOnPaper({ outline, windows }, from, to);
  return [
    { role: 'outline', id: 'outline', points: outline, closed: true, ...up },
    ...windows.map((window): Primitive => ({ role: 'window', id: window.id, points: window.outline, closed: true, ...up })),
    ...cuts
      .filter(({ line }) => !line)
      .map(({ id, from, to }): Primitive => ({ role: 'slit', id, points: [from, to], closed: false, ...up })),
    ...linesOf(cuts).map(({ line, points }): Primitive => ({ role: 'slit', id: line, points, closed: false, ...up })),
    ...scores.flatMap(({ id, fold, from, to }) =>
      onPaper(from, to).map((points): Primitive => ({ role: fold, id, points, closed: false, ...up })),
    ),
    ...marks.flatMap((mark) =>
      strokesOf(mark).flatMap(([from, to]) =>
        onPaper(from, to).map((points): Primitive => ({ role: 'pencil', id: mark.id, points, closed: false, face: mark.face ?? 'up' })),
      ),
    ),
    ...lettering.map((points, i): Primitive => ({ role: 'lettering', id: `letters-${i + 1}`, points, closed: true, ...up })),
    ...zones.map(({ id, kind, outline: edge, face }): Primitive => ({ role: kind, id, points: edge, closed: true, face })),
  ];
}

/** From its point to the end of each arm. */
const CROSS_ARM: Mm = 1.5;

/** The strokes of a pencil mark: one line, or two across each other. */
function strokesOf({ from, to, cross }: Pick<Mark, 'from' | 'to' | 'cross'>): [from: Point, to: Point][] {
  if (!cross) return [[from, to]];
  const [x, y] = from;
  return [
    [
      [x - CROSS_ARM, y],
      [x + CROSS_ARM, y],
    ],
    [
      [x, y - CROSS_ARM],
      [x, y + CROSS_ARM],
    ],
  ];
}

/** The straight edges of a line, one after the other; back to its beginning where it is closed. */
export function edgesOf({ points, closed }: Pick<Primitive, 'points' | 'closed'>): [from: Point, to: Point][] {
  const last = closed ? points.length : points.length - 1;
  return points.slice(0, last).map((from, i) => [from, points[(i + 1) % points.length]!]);
}
