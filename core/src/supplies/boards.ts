import { GROOVE_CATCH, grooveWords, nearestGroove, rulerWords, type GrooveRuler } from '../measure/ruler.js';
import { sayInWords } from '../measure/sentence.js';
import { markedLike, type Mm, type Notation } from '../measure/units.js';

/** A scoring board, or no board at all (pencil, rule and bone folder: any position can be scored). */
export interface Board extends GrooveRuler {
  id: string;
  name: string;
  /** no grooves: every position can be set */
  free?: boolean;
  notation: Notation;
}

/**
 * How far a position lies from where this board can score it: signed, beyond its nearest groove; nothing where it falls
 * into one or the board has none. The one place that says whether a score is off its groove.
 */
export function offGroove(at: Mm, board: Board): Mm | undefined {
  if (board.free) return undefined;
  const { off } = nearestGroove(at, board);
  return Math.abs(off) > GROOVE_CATCH ? off : undefined;
}

/** A place read in the lines that this board has; without a board, in those of a ruler of the card's notation. */
export function boardWords(at: Mm, board: Board, notation: Notation, allowed?: Mm): string {
  if (board.free) return rulerWords(at, notation);
  const off = offGroove(at, board);
  const own = markedLike(board.notation, notation);
  if (off === undefined || offKeptGroove(at, allowed, board) !== undefined) return grooveWords(at, board, own);
  return `${grooveWords(nearestGroove(at, board).at, board, own)}: the groove is ${sayInWords(Math.abs(off), own)} ${off > 0 ? 'short' : 'over'}, which the fold takes up`;
}

/** More than this is no play: the groove beside it would show. */
const MOST_KEPT: Mm = 0.6;

/**
 * How far a score lies from its groove where that counts: a few tenths that only thickness allowances moved it by are play that
 * the fold takes up, so the groove is kept. @param allowed how far allowances moved it
 */
export function offKeptGroove(at: Mm, allowed: Mm | undefined, board: Board): Mm | undefined {
  const off = offGroove(at, board);
  if (off === undefined || allowed === undefined) return off;
  return Math.abs(off) <= Math.min(MOST_KEPT, Math.abs(allowed) + GROOVE_CATCH) ? undefined : off;
}

/** Where a score would lie without the allowances that the fold takes up: the place to bring into a groove. */
export function keptPlace(at: Mm, allowed: Mm | undefined): Mm {
  return allowed !== undefined && Math.abs(allowed) <= MOST_KEPT ? at - allowed : at;
}
