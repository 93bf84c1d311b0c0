import type { Mechanism } from '../mechanism/contract.js';
import type { Mm } from '../measure/units.js';
import type { Workshop } from '../supplies/workshop.js';
import { newCard, ROOT, type CardDocument, type CardPart } from './document.js';

/** The card that a movement is shown on where nothing else is said: two plain leaves. */
export const PLAIN_CARD = 'folded-card';
const PLAIN_FOLD = 'main-fold';

/** A card that shows one mechanism at its own sizes: a base by itself, a movement on the fold of a plain card. */
export function cardToTry(
  mechanism: Mechanism,
  given: Partial<CardDocument> & { sizes?: CardPart['sizes'] } = {},
  workshop?: Workshop,
): CardDocument {
  const { id, name } = mechanism;
  const { sizes = {}, ...rest } = given;
  const own = { id, name, ...rest };
  if (mechanism.kind === 'base') return newCard({ ...own, base: { mechanism: id, sizes } }, workshop);
  const movement = { id: mechanism.usualId, mechanism: id, on: { part: ROOT, site: PLAIN_FOLD }, sizes: {} };
  return newCard({ ...own, base: { mechanism: PLAIN_CARD, sizes }, movements: [movement] }, workshop);
}

/**
 * Sizes of a base that give a closed card of this size: across the fold, and along it.
 * @param step others follow down to whole steps of the maker’s ruler; exactly where there is none
 */
export function sizesForClosed(base: Extract<Mechanism, { kind: 'base' }>, across: Mm, along: Mm, step?: Mm): CardPart['sizes'] {
  return (base.forClosedSize?.(across, along, step) ?? { depth: across, length: along }) as CardPart['sizes'];
}
