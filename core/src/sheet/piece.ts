import type { Mm, Radians } from '../measure/units.js';
import type { Loop } from '../plane/outline.js';
import type { Point } from '../plane/point.js';
import type { StockRole } from '../supplies/stocks.js';

/** As seen on a piece's upper face: a valley folds toward you, a mountain away from you. */
export type Fold = 'mountain' | 'valley';

/** Which side of a flat piece: `up` is the face the drawing shows. */
export type Face = 'up' | 'down';

/** The free size that a score on the drawing stands for: dragging it by 1 mm in x changes the size by `perMm`. */
export interface StandsFor {
  size: string;
  perMm: number;
  /** the part whose size it is; filled in as the card is drawn */
  part?: string;
}

/** A score. It may run only part of the way across its piece. */
export interface Crease {
  id: string;
  name: string;
  from: Point;
  to: Point;
  fold: Fold;
  /** nominal fold angle in the closed card: 0 or ±π, valley positive */
  closed: Radians;
  /**
   * Thickness allowance: the cut sheet is longer by this at the crease (a spine: two scores this far
   * apart). A negative ease takes that much off what lies beyond. Motion uses the crease without it.
   */
  ease: Mm;
  /**
   * Width given to (or with a minus taken from) the panel before this crease when it is cut, because the
   * panel lies outside or inside its neighbours. No second score; motion uses the crease without it.
   */
  allow?: Mm;
  standsFor?: StandsFor;
  /** between two panels that bend: they meet in it in the closed and in the open card, and on the way only as they are bent */
  bends?: true;
  /** of a stretch of a score that a part interrupts: the score as it was drawn */
  stretchOf?: { id: string; from: Point; to: Point };
}

/** A cut inside the outline that removes nothing. */
export interface Cut {
  id: string;
  /** of one bit of a longer line that is cut in one go: the line; its bits come in order, end to end */
  line?: string;
  from: Point;
  to: Point;
}

/** An opening, cut out and removed. */
export interface Window {
  id: string;
  outline: Loop;
  /** something slides through it */
  slot?: true;
}

/** An area with a meaning for glue or decoration. */
export interface Zone {
  id: string;
  kind: 'glue' | 'keep-clear' | 'decorate';
  face: Face;
  outline: Loop;
  /** what a maker should know about it */
  says: string;
}

/** A pencil line, drawn and rubbed out again. */
export interface Mark {
  id: string;
  from: Point;
  to: Point;
  says: string;
  /** the face it is drawn on; the upper one where left out */
  face?: Face;
  /** a small cross, at the one point where it begins and ends */
  cross?: true;
}

/** Names the panel that holds a point, however the sheet is split. */
export interface Anchor {
  panel: string;
  name: string;
  at: Point;
  /** the part that cut this panel out of a piece of another; filled in as the card is drawn */
  part?: string;
}

/**
 * What you hold before folding. Coordinates: mm, origin at the blank's lower-left corner, x across
 * the main scores, seen with the upper face up.
 */
export interface Piece {
  id: string;
  name: string;
  stock: StockRole;
  /** how a maker recognises the upper face */
  faceUp: string;
  outline: Loop;
  /** why the blank has this size, in a short sentence */
  because: string;
  windows: Window[];
  creases: Crease[];
  cuts: Cut[];
  zones: Zone[];
  marks: Mark[];
  anchors: Anchor[];
  /** outlines of letters on its upper face, holes in them the other way round */
  lettering?: readonly Loop[];
  /** the card's picture that is printed on its upper face: its lower left corner, how wide and how high */
  image?: PieceImage;
  /** thickness when it is not simply the caliper of its stock (a raised stop) */
  thickness?: Mm;
  /** the part that it belongs to; filled in as the card is drawn */
  part?: string;
}

/** A picture that lies on a piece, upright as the piece is drawn. */
export interface PieceImage {
  /** its id in the card */
  of: string;
  x: Mm;
  y: Mm;
  width: Mm;
  height: Mm;
  /** seen in a mirror, left and right changed */
  mirrored?: true;
}

/** A piece with nothing on it yet. */
export function blankPiece(given: Pick<Piece, 'id' | 'name' | 'stock' | 'faceUp' | 'outline' | 'because'> & Partial<Piece>): Piece {
  return { windows: [], creases: [], cuts: [], zones: [], marks: [], anchors: [], ...given };
}
