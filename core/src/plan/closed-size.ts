import { largestBetween } from '../measure/largest.js';
import { stockOf, stocksOf } from '../card/card-stocks.js';
import { closedSizeOf, type ClosedSize } from '../card/closed-size.js';
import { claimsOf, draw } from '../card/draw.js';
import type { CardDocument } from '../card/document.js';
import { cardToTry, sizesForClosed } from '../card/try-out.js';
import type { Workshop } from '../supplies/workshop.js';
import type { Base } from '../mechanism/contract.js';
import { rulerStep, type Mm, type Notation } from '../measure/units.js';
import { closedOnly } from '../evaluate.js';
import { cutSheet, type Eases } from '../sheet/cut-sheet.js';
import type { Envelope } from '../supplies/envelopes.js';
import { comesOutOfSheets } from '../supplies/stocks.js';
import { ENVELOPE_EASE } from '../supplies/limits.js';
import type { SheetSize } from '../supplies/sheets.js';
import { high, onBeds, wide } from './beds.js';

/** A card of everyday thickness, for choosing a size before it is known. */
const USUAL_THICKNESS: Mm = 3;

/**
 * The largest closed card that slips easily into an envelope: its inner size less the card's thickness
 * and 3 mm of ease, both ways, down to a mark of the maker's ruler. The fold runs along the longer side when at the side, along
 * the shorter when at the top.
 */
export function sizeForEnvelope(envelope: Envelope, foldEdge: 'side' | 'top', notation: Notation): ClosedSize {
  const step = rulerStep(notation);
  const [long, short] = [envelope.long, envelope.short].map(
    (inside) => Math.floor((inside - ENVELOPE_EASE - USUAL_THICKNESS) / step + 1e-6) * step,
  ) as [Mm, Mm];
  return foldEdge === 'side' ? { depth: short, length: long } : { depth: long, length: short };
}

/** A new card on a base, of a closed size. */
export function cardOfClosedSize(
  base: Base,
  { depth, length }: ClosedSize,
  given: Partial<CardDocument> = {},
  workshop?: Workshop,
): CardDocument {
  const step = given.notation && rulerStep(given.notation);
  return cardToTry(base, { ...given, sizes: sizesForClosed(base, depth, length, step) }, workshop);
}

/** A closed card from a sheet, and how many such cards the sheet gives. */
export interface SizeFromSheet extends ClosedSize {
  count: number;
}

/** How the closed card is to look: how high it is for its width. */
export const LOOKS = ['any', 'upright', 'square', 'wide'] as const;
export type Look = (typeof LOOKS)[number];

/** Length along the fold for each mm across it, at least and at the most. */
export interface Proportions {
  min: number;
  max: number;
}

/** Higher than wide by a fifth at least, and by no more than twice; within a twenty-fifth of a square; the other way round. */
const HIGH_FOR_WIDE: Readonly<Record<Look, Proportions>> = {
  any: { min: 0, max: Infinity },
  upright: { min: 1.2, max: 2 },
  square: { min: 0.96, max: 1.04 },
  wide: { min: 0.5, max: 1 / 1.2 },
};

/** What a look asks of a card whose fold is at the side, where its length is its height, or at the top, where it is its width. */
export function proportionsOf(look: Look, foldEdge: 'side' | 'top'): Proportions {
  const { min, max } = HIGH_FOR_WIDE[look];
  return foldEdge === 'side' ? { min, max } : { min: 1 / max, max: 1 / min };
}

/** Lengths for widths that are tried first, and how a card is made smaller until it comes out. */
const PROPORTIONS = [0.5, 0.6, 0.71, 0.84, 1, 1.19, 1.41, 1.68, 2];
const SMALLER = 0.88;
const SMALLEST: Mm = 40;
const HALVINGS = 12;
/** The best of the proportions is made larger one way and the other, in turn, until neither way gives anything. */
const POLISHES = 3;
const FINE_HALVINGS = 34;

/**
 * The largest closed card of a base of which all card and paper pieces come out of one sheet, laid in rows; of two cards where
 * asked for. Its proportions are whatever gives most within the look that is wanted. Film and raised stock come from elsewhere. Nothing when not even a
 * small one comes out.
 * @param cardOf the card of a closed size: of what stocks it is, its spines follow
 */
export function sizeForSheet(
  base: Base,
  sheet: SheetSize,
  count = 1,
  within: Proportions = HIGH_FOR_WIDE.any,
  cardOf: (size: ClosedSize) => CardDocument = (size) => cardOfClosedSize(base, size),
): SizeFromSheet | undefined {
  let eases: Eases = {};
  const out = (size: ClosedSize): ClosedSize | undefined =>
    Math.min(size.depth, size.length) >= SMALLEST ? comesOut(size, { sheet, count, eases, within, cardOf }) : undefined;
  const fits = (size: ClosedSize): boolean => out(size) !== undefined;
  const area = (size: ClosedSize): number => {
    const { depth, length } = out(size)!;
    return depth * length;
  };
  let best: ClosedSize | undefined;
  for (const proportion of triedWithin(within)) {
    const found = largestOf(proportion, sheet, fits);
    if (found && (!best || area(found) > area(best))) best = found;
  }
  if (!best) return undefined;
  // Spines are as wide as the closed stack is thick, which hardly depends on the size.
  eases = easesOf(cardOf(best));
  if (!fits(best)) best = largestOf(best.length / best.depth, sheet, fits);
  if (!best) return undefined;
  for (let i = 0; i < POLISHES; i++) {
    const before = area(best);
    for (const way of ['depth', 'length'] as const) {
      const { [way]: now } = best;
      const larger = (share: number): ClosedSize => ({ ...best!, [way]: now * share });
      best = larger(largestBetween((share) => fits(larger(share)), 1, 1.6, FINE_HALVINGS));
    }
    if (area(best) < before * 1.0001) break;
  }
  return { ...out(best)!, count };
}

/** Of the usual proportions those that are wanted, and some between the narrowest and the widest that is. */
function triedWithin({ min, max }: Proportions): number[] {
  const usual = PROPORTIONS.filter((each) => each >= min && each <= max);
  const between = min > 0 && max < Infinity ? [0.02, 0.25, 0.5, 0.75, 0.98].map((share) => min + (max - min) * share) : [];
  return [...usual, ...between];
}

/** The largest of a proportion that comes out: from the sheet's own length down, until one does. */
function largestOf(proportion: number, sheet: SheetSize, fits: (size: ClosedSize) => boolean): ClosedSize | undefined {
  const sized = (depth: Mm): ClosedSize => ({ depth, length: depth * proportion });
  let depth = Math.max(sheet.width, sheet.height) / Math.max(1, proportion);
  while (Math.min(depth, depth * proportion) >= SMALLEST && !fits(sized(depth))) depth *= SMALLER;
  if (!fits(sized(depth))) return undefined;
  return sized(largestBetween((at) => fits(sized(at)), depth, depth / SMALLER, HALVINGS));
}

/** What is asked of a size: a sheet, how many cards, and by how much folds are widened. */
interface Asked {
  sheet: SheetSize;
  count: number;
  eases: Eases;
  within: Proportions;
  cardOf: (size: ClosedSize) => CardDocument;
}

/** How wide the spines of a card are, where it has any. */
function easesOf(card: CardDocument): Eases {
  const made = closedOnly(card);
  if (!made) return {};
  const spined = claimsOf(made.design, 'closing').filter((fold) => fold.spined);
  return Object.fromEntries(spined.map(({ hinge }) => [hinge, made.closed.spines[hinge]!]));
}

/**
 * The closed size that such a card really has, where all pieces of so many of them that are cut from card or paper lie on one
 * sheet, whichever way it is turned; nothing where they do not.
 */
function comesOut(size: ClosedSize, { sheet, count, eases, within, cardOf }: Asked): ClosedSize | undefined {
  const { width, height } = sheet;
  const card = cardOf(size);
  const drawn = draw(card);
  if (!drawn.ok) return undefined;
  const stocks = stocksOf(card);
  const own = drawn.drawing.pieces.filter((piece) => comesOutOfSheets(stockOf({ stocks }, piece))).map((piece) => cutSheet(piece, eases));
  const all = Array.from({ length: count }, () => own).flat();
  const room = width * height + 1e-6;
  if (all.reduce((sum, sheet) => sum + sheet.width * sheet.height, 0) > room) return undefined;
  const lies = [
    { width, height },
    { width: height, height: width },
  ].some((bed) => {
    const beds = onBeds(all, bed, 0);
    return (
      beds.length === 1 &&
      beds[0]!.every((placed) => placed.x + wide(placed) <= bed.width + 1e-6 && placed.y + high(placed) <= bed.height + 1e-6)
    );
  });
  if (!lies) return undefined;
  const closed = closedSizeOf({ design: drawn.drawing });
  const proportion = closed.length / closed.depth;
  return proportion >= within.min && proportion <= within.max ? closed : undefined;
}
