import { sayLength } from '../measure/print.js';
import type { Notation } from '../measure/units.js';
import type { CutSheet } from '../sheet/cut-sheet.js';
import type { Face } from '../sheet/piece.js';
import type { Turn } from './cut-runs.js';

/** How a blank lies: which face is up, and whether its right end has come to the left. */
export interface Lie {
  face: Face;
  turned: boolean;
}

/**
 * How a blank lies, as one state that can be brought about from any other. Its edges keep their names however it lies: the left
 * one is the one that was at the left when it was laid first, and carries a pencilled L where it is ever laid another way.
 */
export function lies({ piece }: Pick<CutSheet, 'piece'>, lie: Lie): string {
  const { face, turned } = lie;
  if (face === 'up' && !turned) return piece.faceUp;
  const leftIsLeft = turned === (face === 'down');
  const up = face === 'up' ? faceOnly(piece.faceUp) : faceDown(piece.faceUp);
  return `${up}, the L at your ${leftIsLeft ? 'left' : 'right'}, the ${turned ? 'upper' : 'lower'} edge nearer you`;
}

/** The edge that lies at the board's zero. */
export const edgeAtZero = ({ face, turned }: Lie): 'left edge' | 'right edge' =>
  turned !== (face === 'down') ? 'right edge' : 'left edge';

/** How a blank lies after a turn from how it is drawn. */
export const TURNED: Readonly<Record<Turn, Lie>> = {
  'turned end for end': { face: 'up', turned: true },
  'turned over like a page': { face: 'down', turned: false },
  'turned over away from you': { face: 'down', turned: true },
};

/** How a blank is laid for the first time, which names its edges for good. @param everTurned it is laid another way later */
export function firstLayUp({ piece, width, height }: CutSheet, notation: Notation, everTurned: boolean): string {
  const square = Math.abs(width - height) < 1e-3;
  const way = square ? '' : `, its ${sayLength(width, notation)} from left to right`;
  const marked = everTurned ? ' Pencil a small L along its left edge, on both faces: it tells the ends apart from now on.' : '';
  return `Lay it ${piece.faceUp}${way}: this is how it is drawn, and how left, right, upper and lower edge are meant.${marked}`;
}

/** Which face of a piece lies up, however it is turned. */
export function faceWords({ piece }: Pick<CutSheet, 'piece'>, face: Face): string {
  if (faceOnly(piece.faceUp) === 'either face up') return 'flat';
  return face === 'up' ? faceOnly(piece.faceUp) : faceDown(piece.faceUp);
}

/** What tells the face, without how the piece lies: “inside up” of “inside up, foot at the left”. */
const faceOnly = (faceUp: string): string => faceUp.split(',')[0]!;

/** The same piece with its other face up. */
function faceDown(faceUp: string): string {
  return faceOnly(faceUp) === 'either face up' ? 'with its other face up' : faceOnly(faceUp).replace(/ up$/, ' down');
}
