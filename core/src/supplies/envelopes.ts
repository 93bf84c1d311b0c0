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
 * Whether a closed card slips into an envelope. Rule used: the card's thickness bends the envelope and
 * is lost from both inner sides, so length + thickness and width + thickness must fit.
 */
export function fits(width: Mm, height: Mm, thickness: Mm, envelope: Envelope): boolean {
  const [long, short] = width >= height ? [width, height] : [height, width];
  return long + thickness <= envelope.long && short + thickness <= envelope.short;
}

/** The smallest envelope (by area) that takes a closed card, if any does. */
export function smallestEnvelope(width: Mm, height: Mm, thickness: Mm, envelopes: readonly Envelope[]): Envelope | undefined {
  return envelopes.filter((envelope) => fits(width, height, thickness, envelope)).sort((a, b) => a.long * a.short - b.long * b.short)[0];
}
