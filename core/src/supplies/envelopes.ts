import { sayLength } from '../measure/print.js';
import type { Mm, Notation } from '../measure/units.js';

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

/** The inner sides that an envelope may have. */
const INSIDE: readonly [Mm, Mm] = [40, 1000];

/** An envelope known by its inner sides alone, whichever is longer; or why there is none of that size. */
export function envelopeByInside(one: Mm, other: Mm, notation: Notation): Envelope | string {
  const say = (mm: Mm): string => sayLength(mm, notation);
  const wrong = [one, other].find((side) => !(side >= INSIDE[0] && side <= INSIDE[1]));
  if (wrong !== undefined) return `Inside of the envelope: ${say(wrong)} does not work; allowed is ${say(INSIDE[0])} to ${say(INSIDE[1])}.`;
  const [long, short] = [Math.max(one, other), Math.min(one, other)];
  const id = `inside-${Math.round(long * 100)}-${Math.round(short * 100)}`;
  return { id, name: `My envelope, ${say(long)} × ${say(short)} inside`, long, short };
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
