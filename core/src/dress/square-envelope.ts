import type { Mm } from '../measure/units.js';

/** So much wider and higher than the card is its envelope, besides the card's thickness. */
export const ENVELOPE_EASE: Mm = 3;
/** So much larger than its pocket's corners ask is the square: what the flaps lap over each other by. */
export const FLAP_OVERLAP: Mm = 12;

/** A card as it goes into an envelope. */
export interface PostedCard {
  width: Mm;
  height: Mm;
  /** at its thickest place, with everything that is on it */
  thickness: Mm;
}

/** An envelope folded from a square laid on its corner, its pocket in the middle. */
export interface SquareEnvelope {
  /** side of the square */
  square: Mm;
  /** along the square's edge, from the corner of a flap over one of the shorter sides: where the pocket's corner is */
  firstFold: Mm;
  /** the same for a flap over one of the longer sides; both together are the side of the square */
  secondFold: Mm;
  /** where a fold meets the square's edge, from its flap's corner: the fold lies between two such points */
  foldEnds: { shorter: Mm; longer: Mm };
  /** how far the pocket's corners lie inside the square's edge: so deep a notch is cut there */
  notch: Mm;
  /** the inside: the shorter side first */
  pocket: readonly [shorter: Mm, longer: Mm];
  /** by how much the two flaps over the longer sides lap over each other */
  seam: Mm;
}

/**
 * The square that folds into an envelope for a card. A rectangle of sides a ≤ b that lies at half a right angle in a square and
 * touches its edges with its corners has a square of (a + b) ÷ √2, and a corner at a ÷ √2 along an edge; an overlap of o makes
 * the square larger by o, and the corner lies o ÷ 2 farther along and o ÷ 2 inside the edge.
 * @param card its closed outline with all that sticks out, and its thickness; thickness and ease are added both ways
 */
export function squareEnvelope(
  { width, height, thickness }: PostedCard,
  ease: Mm = ENVELOPE_EASE,
  overlap: Mm = FLAP_OVERLAP,
): SquareEnvelope {
  const inside = (side: Mm): Mm => side + thickness + ease;
  const [a, b] = [inside(Math.min(width, height)), inside(Math.max(width, height))];
  const along = (side: Mm): Mm => side / Math.SQRT2 + overlap / 2;
  return {
    square: (a + b) / Math.SQRT2 + overlap,
    firstFold: along(a),
    secondFold: along(b),
    foldEnds: { shorter: a / Math.SQRT2 + overlap, longer: b / Math.SQRT2 + overlap },
    notch: overlap / 2,
    pocket: [a, b],
    // From the middle a flap over a longer side reaches the square's half diagonal back past the pocket's middle line.
    seam: b - a + Math.SQRT2 * overlap,
  };
}
