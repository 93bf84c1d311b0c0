import type { Mm } from '../measure/units.js';

/** The ends of a band lap over each other by so much. */
export const BAND_OVERLAP: Mm = 12;
/** A band is so much wider inside than the card, so that it slips off. */
export const BAND_SLIP: Mm = 1;

/** A closed card that a band goes round. */
export interface BandedCard {
  width: Mm;
  height: Mm;
  /** at the thickest place that the band goes over */
  thickness: Mm;
  /** which of its measures the band goes round */
  around: 'width' | 'height';
}

/** A strip that is wrapped round a closed card and joined to itself. */
export interface Band {
  length: Mm;
  /** from its first end, at the four edges of the card */
  folds: readonly [Mm, Mm, Mm, Mm];
  overlap: Mm;
  slip: Mm;
  /** the way in which it slides off: along the measure that it does not go round */
  slidesAlong: 'width' | 'height';
}

/**
 * A band round a card: twice what it goes round and twice the thickness, and the overlap, 2(W + T) + o. It goes over the back,
 * round an edge, over the front, round the other edge, and onto its own beginning; what it goes round counts with the slip.
 */
export function bandRound({ width, height, thickness, around }: BandedCard, overlap: Mm = BAND_OVERLAP, slip: Mm = BAND_SLIP): Band {
  const over = (around === 'width' ? width : height) + slip;
  const folds = [over, over + thickness, 2 * over + thickness, 2 * over + 2 * thickness] as const;
  return { length: folds[3] + overlap, folds, overlap, slip, slidesAlong: around === 'width' ? 'height' : 'width' };
}
