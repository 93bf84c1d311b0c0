import type { Mm } from '../measure/units.js';
import type { RibbonClosure } from '../card/dressing.js';

/** A knot takes so many widths of its ribbon: our estimate, tried with satin of 6 to 25 mm. */
const KNOT_WIDTHS = 6;
/** Ribbons of the trade are hardly thicker. */
export const RIBBON_THICK: Mm = 0.3;
/** A knot or a bow stands up so high on what it is tied round: our estimate. */
export const KNOT_HIGH: Mm = 3;
/** Paper between two slits, and what each is longer than the ribbon is wide. */
export const SLIT_GAP: Mm = 6;
export const SLIT_PLAY: Mm = 1;

/** The way of a ribbon, bit by bit; all of it is its length. */
export interface Ribbon {
  round: Mm;
  knot: Mm;
  loops: Mm;
  ends: Mm;
  length: Mm;
}

/**
 * A ribbon round a card of width W and thickness T goes 2(W + T) round it; out of two slits in the fold it goes W over the
 * front, W over the back and T round the free edge, and from slit to slit inside. A bow has two loops, each there and back.
 */
export function ribbonRound(
  { way, loop, end, wide }: Pick<RibbonClosure, 'way' | 'loop' | 'end' | 'wide'>,
  card: { wide: Mm; thickness: Mm },
): Ribbon {
  const round = 2 * card.wide + (way === 'round' ? 2 * card.thickness : card.thickness + SLIT_GAP);
  const parts = { round, knot: KNOT_WIDTHS * wide, loops: 4 * loop, ends: 2 * end };
  return { ...parts, length: parts.round + parts.knot + parts.loops + parts.ends };
}
