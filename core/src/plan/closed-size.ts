import type { Mm } from '../measure/units.js';
import type { Envelope } from '../supplies/envelopes.js';
import type { SheetSize } from '../supplies/sheets.js';

/** A closed card: across the fold, and along it. */
export interface ClosedSize {
  depth: Mm;
  length: Mm;
}

/** Ease of a card in its envelope, over and above its thickness. */
const ENVELOPE_EASE: Mm = 3;
/** A card of everyday thickness, for choosing a size before it is known. */
const USUAL_THICKNESS: Mm = 3;

/**
 * The largest closed card that slips easily into an envelope: its inner size less the card's thickness
 * and 3 mm of ease, both ways. The fold runs along the longer side when at the side, along the shorter
 * when at the top.
 */
export function sizeForEnvelope(envelope: Envelope, foldEdge: 'side' | 'top'): ClosedSize {
  const less = ENVELOPE_EASE + USUAL_THICKNESS;
  const [long, short] = [envelope.long - less, envelope.short - less];
  return foldEdge === 'side' ? { depth: short, length: long } : { depth: long, length: short };
}

/** The largest closed card whose two leaves come out of one sheet: two leaves along its longer side. */
export function sizeForSheet(sheet: SheetSize): ClosedSize {
  const [long, short] = sheet.width >= sheet.height ? [sheet.width, sheet.height] : [sheet.height, sheet.width];
  return { depth: long / 2, length: short };
}
