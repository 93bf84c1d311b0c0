import type { ClosedCard } from '../card/closed-card.js';
import type { Design } from '../card/join.js';
import { poseOf, type Motion } from '../linkage/motion.js';
import { bandPiece, bandsOf, bandStock, type PlacedBand } from './bands.js';
import type { Layers, SeenSide } from './layer.js';
import { layersOf } from './layers.js';
import { openingOrder, type FlapOrder } from './opening-order.js';
import { seenSides } from './seen-sides.js';
import { toppersOf, type LostTopper, type PlacedTopper } from './toppers.js';

/** Everything that is glued on a card that is built. */
export interface Dressed extends Layers {
  /** every face that is seen; nothing of a card that wears nothing */
  sides: readonly SeenSide[];
  toppers: readonly PlacedTopper[];
  /** toppers that are kept in the card, but have no place now */
  lost: readonly LostTopper[];
  /** round the closed card, with all that it wears */
  bands: readonly PlacedBand[];
  /** flaps whose toppers reach over one another */
  order: readonly FlapOrder[];
}

export const NOTHING_WORN: Dressed = { sides: [], layers: [], bare: [], toppers: [], lost: [], bands: [], order: [] };

/** What a card wears, worked out from how it moves and lies bare. */
export function dress(design: Design, motion: Motion, closed: Pick<ClosedCard, 'stack'>): Dressed {
  const { dressing } = design.card;
  if (!dressing?.layers && !dressing?.toppers?.length) return NOTHING_WORN;
  const sides = seenSides(design, motion, closed);
  return { ...NOTHING_WORN, sides, ...layersOf(design, sides), ...toppersOf(design, motion, sides) };
}

/** A design that wears it: it counts in the pile, on the scales, and as pieces of a stock. Toppers lie on the layers. */
export function wearing(design: Design, { layers, toppers }: Dressed): Design {
  const worn = [...layers, ...toppers];
  const bands = (design.card.dressing?.closures ?? []).map((closure) => [bandPiece(closure), bandStock(design, closure)] as const);
  const pieces = { ...design.stocks.pieces, ...Object.fromEntries([...worn.map(({ id, stock }) => [id, stock] as const), ...bands]) };
  return { ...design, stocks: { ...design.stocks, pieces }, worn };
}

/** What can be told only of the dressed card as it lies closed: how its flaps open, and what is wrapped round it. */
export function wrapped(dressed: Dressed, design: Design, motion: Motion, closed: ClosedCard): Dressed {
  if (!design.card.dressing) return dressed;
  const order = openingOrder(design, poseOf(motion, motion.frames[0]!), closed.stack, dressed);
  return { ...dressed, bands: bandsOf(design, closed), order };
}
