import type { ClosedCard } from '../card/closed-card.js';
import { closuresOf } from '../card/dressing.js';
import type { Design } from '../card/join.js';
import { poseOf, type Motion } from '../linkage/motion.js';
import type { Eases } from '../sheet/cut-sheet.js';
import type { Stock } from '../supplies/stocks.js';
import { bandPiece, bandsOf, bandStock, type PlacedBand } from './bands.js';
import { ENVELOPE_PIECE, foldedEnvelope, LINER_PIECE, type FoldedEnvelope } from './folded-envelope.js';
import type { Layers, SeenSide } from './layer.js';
import { layersOf } from './layers.js';
import { inOnePiece } from './liner.js';
import { magnetsOf, type PlacedMagnet } from './magnets.js';
import { openingOrder, type FlapOrder } from './opening-order.js';
import { postedCard } from './posted-card.js';
import { ribbonsOf, type PlacedRibbon } from './ribbons.js';
import { seenSides } from './seen-sides.js';
import { toppersOf, type LostTopper, type PlacedTopper } from './toppers.js';

/** Everything that is glued on a card that is built. */
export interface Dressed extends Layers {
  /** every face that is seen; nothing of a card that wears nothing */
  sides: readonly SeenSide[];
  toppers: readonly PlacedTopper[];
  /** toppers that are kept in the card, but have no place now */
  lost: readonly LostTopper[];
  magnets: readonly PlacedMagnet[];
  /** round the closed card, with all that it wears */
  bands: readonly PlacedBand[];
  ribbons: readonly PlacedRibbon[];
  /** flaps whose toppers reach over one another */
  order: readonly FlapOrder[];
  /** what it is sent in, where the maker folds it */
  envelope?: FoldedEnvelope;
}

export const NOTHING_WORN: Dressed = {
  sides: [],
  layers: [],
  bare: [],
  toppers: [],
  lost: [],
  magnets: [],
  bands: [],
  ribbons: [],
  order: [],
};

/** What a card wears, worked out from how it moves and lies bare. */
export function dress(design: Design, motion: Motion, closed: Pick<ClosedCard, 'stack'>): Dressed {
  const { dressing } = design.card;
  if (!dressing?.layers && !dressing?.toppers?.length && closuresOf(dressing, 'magnet').length === 0) return NOTHING_WORN;
  const sides = seenSides(design, motion, closed);
  const worn = { ...layersOf(design, sides), ...toppersOf(design, motion, sides) };
  return { ...NOTHING_WORN, sides, ...worn, magnets: magnetsOf(design, motion, closed.stack, worn) };
}

/**
 * A design that wears it: it counts in the pile, on the scales, and as pieces of a stock. Blank layers lie under the layers,
 * covers over them, toppers on all.
 */
export function wearing(design: Design, { layers, toppers, magnets }: Dressed): Design {
  const worn = [
    ...magnets.flatMap(({ blanks }) => blanks),
    ...layers,
    ...magnets.flatMap(({ covers }) => covers),
    ...toppers.flatMap((topper) => [...topper.under, topper]),
  ];
  const pieces = {
    ...design.stocks.pieces,
    ...Object.fromEntries([
      ...[...layers, ...toppers, ...toppers.flatMap(({ under }) => under)].map(({ id, stock }) => [id, stock] as const),
      ...magnets.flatMap(({ sheets, stock }) => sheets.map(({ piece }) => [piece.id, stock] as const)),
      ...envelopeStocks(design),
      ...closuresOf(design.card.dressing, 'band').map((closure) => [bandPiece(closure), bandStock(design, closure)] as const),
    ]),
  };
  return { ...design, stocks: { ...design.stocks, pieces }, worn };
}

/** What the pieces of its own envelope are cut from. */
function envelopeStocks({ card }: Design): (readonly [string, Stock])[] {
  const { stock, liner } = card.dressing?.envelope ?? {};
  const of = (piece: string, id: string | undefined) =>
    card.supplies.stocks.filter((entry) => entry.id === id).map((entry) => [piece, entry] as const);
  return [...of(ENVELOPE_PIECE, stock), ...of(LINER_PIECE, liner)];
}

/**
 * What can be told only of the dressed card as it lies closed: how its flaps open, how long a liner is, and what is wrapped round it.
 * @param eases of its folds
 */
export function wrapped(dressed: Dressed, design: Design, motion: Motion, closed: ClosedCard, eases: Eases): Dressed {
  const { dressing } = design.card;
  if (!dressing) return dressed;
  const order = openingOrder(design, poseOf(motion, motion.frames[0]!), closed.stack, dressed);
  const round = { bands: bandsOf(design, closed), ribbons: ribbonsOf(design, motion, closed) };
  const envelope = foldedEnvelope(design, postedCard(closed, round));
  const layers = dressing.layers ? inOnePiece(design, motion, dressed.layers, dressing.layers, eases) : dressed.layers;
  return { ...dressed, layers, ...round, order, ...(envelope && { envelope }) };
}
