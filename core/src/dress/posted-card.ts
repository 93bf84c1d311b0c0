import type { ClosedCard } from '../card/closed-card.js';
import type { PlacedBand } from './bands.js';
import { KNOT_HIGH, RIBBON_THICK } from './ribbon.js';
import type { PlacedRibbon } from './ribbons.js';
import type { PostedCard } from './square-envelope.js';

/** Sheets of a band over its card at its thickest place: one in front, one behind, and the end lapped over. */
const BAND_SHEETS = 3;

/** A closed card as it goes into an envelope: with all that sticks out, and with the bands and ribbons round it. */
export function postedCard(
  { box, thickest }: Pick<ClosedCard, 'box' | 'thickest'>,
  { bands, ribbons }: { bands: readonly PlacedBand[]; ribbons: readonly PlacedRibbon[] },
): PostedCard {
  const round = [
    ...bands.map(({ closure, stock, thickness }) => ({
      around: closure.around,
      sheet: stock.caliper,
      // Its fastener and what is dotted on it stand out on one another, at worst.
      high: thickness + BAND_SHEETS * stock.caliper + (closure.fastener ?? 0) + (closure.gift?.thick ?? 0),
    })),
    // A ribbon is a sheet in front, a sheet behind, and its knot on top; one round a panel may stand out at any edge of the card.
    ...ribbons.map(({ closure, thickness }) => ({
      around: closure.way === 'slits' ? ('across' as const) : closure.way === 'panel' ? ('either' as const) : closure.around,
      sheet: RIBBON_THICK,
      high: thickness + 2 * RIBBON_THICK + KNOT_HIGH,
    })),
  ];
  const edges = (way: 'across' | 'along'): number =>
    round.reduce((most, { around, sheet }) => (around === way || around === 'either' ? Math.max(most, 2 * sheet) : most), 0);
  return {
    width: box.maxX - box.minX + edges('across'),
    height: box.maxY - box.minY + edges('along'),
    thickness: round.reduce((most, { high }) => Math.max(most, high), thickest.thickness),
  };
}
