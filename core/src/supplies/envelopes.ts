import type { Mm } from '../measure/units.js';

/** An envelope by its inner size, longer side first. */
export interface Envelope {
  id: string;
  name: string;
  long: Mm;
  short: Mm;
}

export const ENVELOPES: readonly Envelope[] = [
  { id: 'a2', name: 'A2, 5 3/4 × 4 3/8 in', long: 146.05, short: 111.125 },
  { id: 'a6', name: 'A6, 6 1/2 × 4 3/4 in', long: 165.1, short: 120.65 },
  { id: 'a7', name: 'A7, 7 1/4 × 5 1/4 in', long: 184.15, short: 133.35 },
  { id: 'square-6', name: 'Square, 6 in', long: 152.4, short: 152.4 },
  { id: 'c7', name: 'C7, 114 × 81 mm', long: 114, short: 81 },
  { id: 'c6', name: 'C6, 162 × 114 mm', long: 162, short: 114 },
  { id: 'dl', name: 'DL, 220 × 110 mm', long: 220, short: 110 },
  { id: 'square-155', name: 'Square, 155 mm', long: 155, short: 155 },
  { id: 'square-165', name: 'Square, 165 mm', long: 165, short: 165 },
  { id: 'c5', name: 'C5, 229 × 162 mm', long: 229, short: 162 },
  { id: 'c4', name: 'C4, 324 × 229 mm', long: 324, short: 229 },
];

/**
 * Whether a closed card slips into an envelope. Rule used: the card's thickness bends the envelope and
 * is lost from both inner sides, so length + thickness and width + thickness must fit.
 */
export function fits(width: Mm, height: Mm, thickness: Mm, envelope: Envelope): boolean {
  const [long, short] = width >= height ? [width, height] : [height, width];
  return long + thickness <= envelope.long && short + thickness <= envelope.short;
}

/** The smallest envelope (by area) that takes a closed card, if any does. */
export function smallestEnvelope(width: Mm, height: Mm, thickness: Mm, envelopes = ENVELOPES): Envelope | undefined {
  return envelopes.filter((envelope) => fits(width, height, thickness, envelope)).sort((a, b) => a.long * a.short - b.long * b.short)[0];
}
