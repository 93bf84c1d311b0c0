import { GROOVE_CATCH, grooveWords, nearestGroove, rulerWords, type GrooveRuler } from '../measure/ruler.js';
import type { Mm, Notation } from '../measure/units.js';

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
export function boardWords(at: Mm, board: Board, notation: Notation): string {
  return board.free ? rulerWords(at, notation) : grooveWords(at, board, board.notation);
}
