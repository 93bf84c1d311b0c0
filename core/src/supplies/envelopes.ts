import type { Mm } from '../measure/units.js';

/** Where a size is sold: envelopes and sheets come in families. */
export type Region = 'inch' | 'metric';

/** An envelope by its inner size, longer side first. */
export interface Envelope {
  id: string;
  name: string;
  long: Mm;
  short: Mm;
  region?: Region;
}

/**
 * How much room an envelope leaves along both sides of a closed card; negative where it is too small. Rule used: the card's
 * thickness bends the envelope and is lost from both inner sides.
 */
export function easeIn(width: Mm, height: Mm, thickness: Mm, envelope: Envelope): { long: Mm; short: Mm } {
  const [long, short] = width >= height ? [width, height] : [height, width];
  return { long: envelope.long - long - thickness, short: envelope.short - short - thickness };
}

/** Far below what an envelope gives. */
const EXACT: Mm = 1e-9;

/** Whether a closed card slips into an envelope. */
export function fits(width: Mm, height: Mm, thickness: Mm, envelope: Envelope): boolean {
  const { long, short } = easeIn(width, height, thickness, envelope);
  return Math.min(long, short) >= -EXACT;
}

/**
 * The envelope that takes a closed card with the least room to slide about in either way: of the maker's region where one
 * does, else of any.
 */
export function closestEnvelope(
  width: Mm,
  height: Mm,
  thickness: Mm,
  { envelopes, region }: { envelopes: readonly Envelope[]; region: Region },
): Envelope | undefined {
  const looseness = (envelope: Envelope): Mm => {
    const { long, short } = easeIn(width, height, thickness, envelope);
    return Math.max(long, short);
  };
  const taking = envelopes.filter((envelope) => fits(width, height, thickness, envelope));
  const mine = taking.filter((envelope) => envelope.region === undefined || envelope.region === region);
  return [...(mine.length > 0 ? mine : taking)].sort((a, b) => looseness(a) - looseness(b))[0];
}
