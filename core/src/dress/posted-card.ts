import type { ClosedCard } from '../card/closed-card.js';
import type { Dressed } from './dress.js';
import type { PostedCard } from './square-envelope.js';

/** Sheets of a band over its card at its thickest place: one in front, one behind, and the end lapped over. */
const BAND_SHEETS = 3;

/** A closed card as it goes into an envelope: with all that sticks out, and with the bands round it. */
export function postedCard({ box, thickest }: Pick<ClosedCard, 'box' | 'thickest'>, { bands }: Pick<Dressed, 'bands'>): PostedCard {
  const around = (way: 'across' | 'along'): number =>
    bands.reduce((most, { closure, stock }) => (closure.around === way ? Math.max(most, 2 * stock.caliper) : most), 0);
  return {
    width: box.maxX - box.minX + around('across'),
    height: box.maxY - box.minY + around('along'),
    thickness: bands.reduce((most, band) => Math.max(most, band.thickness + BAND_SHEETS * band.stock.caliper), thickest.thickness),
  };
}
