import { draw, type Drawing } from '../card/draw.js';
import type { CardDocument } from '../card/document.js';
import { cardToTry, sizesForClosed } from '../card/try-out.js';
import type { Workshop } from '../supplies/workshop.js';
import type { Base } from '../mechanism/contract.js';
import type { Mm } from '../measure/units.js';
import { boxOf } from '../plane/outline.js';
import { cutSheet } from '../sheet/cut-sheet.js';
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

/** A new card on a base, of a closed size. */
export function cardOfClosedSize(
  base: Base,
  { depth, length }: ClosedSize,
  given: Partial<CardDocument> = {},
  workshop?: Workshop,
): CardDocument {
  return cardToTry(base, { ...given, sizes: sizesForClosed(base, depth, length) }, workshop);
}

/** The closed size that a card is meant to have, whatever sticks out of it. */
export function closedSizeOf({ design }: { design: Pick<Drawing, 'base'> }): ClosedSize {
  const { minX, maxX, minY, maxY } = boxOf(design.base.closedOutline);
  return { depth: maxX - minX, length: maxY - minY };
}

const SEARCH_STEPS = 16;
/** Shares of a base's own size that are tried when that is too large. */
const SMALLER = [1, 0.9, 0.8, 0.7, 0.6, 0.5, 0.4, 0.3];
const LARGEST_SHARE = 6;

/**
 * The largest closed card of a base whose every blank comes out of a sheet of that size, in the base's own
 * proportions; for two plain leaves the whole sheet is used. Nothing when not even a small one does.
 */
export function sizeForSheet(base: Base, sheet: SheetSize): ClosedSize | undefined {
  const [long, short] = sheet.width >= sheet.height ? [sheet.width, sheet.height] : [sheet.height, sheet.width];
  const halved = { depth: long / 2, length: short };
  if (comesOut(base, halved, [long, short]) && !comesOut(base, scaledSize(halved, 1.01), [long, short])) return halved;
  const own = draw(cardToTry(base));
  if (!own.ok) return undefined;
  const preset = closedSizeOf({ design: own.drawing });
  const scaled = (k: number): ClosedSize => scaledSize(preset, k);
  const fits = (k: number): boolean => comesOut(base, scaled(k), [long, short]);
  const start = SMALLER.find(fits);
  if (start === undefined) return undefined;
  let [least, most] = [start, start === 1 ? LARGEST_SHARE : start + 0.1];
  for (let i = 0; i < SEARCH_STEPS; i++) {
    const middle = (least + most) / 2;
    if (fits(middle)) least = middle;
    else most = middle;
  }
  return scaled(least);
}

const scaledSize = ({ depth, length }: ClosedSize, k: number): ClosedSize => ({ depth: depth * k, length: length * k });

function comesOut(base: Base, size: ClosedSize, [long, short]: readonly [Mm, Mm]): boolean {
  const drawn = draw(cardOfClosedSize(base, size));
  return (
    drawn.ok &&
    drawn.drawing.pieces.every((piece) => {
      const { width, height } = cutSheet(piece);
      return Math.max(width, height) <= long + 1e-6 && Math.min(width, height) <= short + 1e-6;
    })
  );
}
