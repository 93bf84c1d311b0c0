import {
  cardOfClosedSize,
  CATALOGUE,
  cardToTry,
  mechanismById,
  PLAIN_CARD,
  type Base,
  type CardDocument,
  type ClosedSize,
  type Workshop,
} from '@diptychon/core';

/** A kind of card that can be started: a base, and for a movement the plain card it stands on. */
export interface Kind {
  id: string;
  title: string;
  says: string;
  base: Base;
  foldEdge: CardDocument['foldEdge'];
  movement?: string;
}

/** Everything there is to start, in the order of the catalogue. */
export const KINDS: readonly Kind[] = CATALOGUE.map((mechanism): Kind => {
  const { id, name, summary } = mechanism;
  const common = { id, title: name, says: summary };
  if (mechanism.kind === 'base') return { ...common, base: mechanism, foldEdge: mechanism.foldEdge ?? 'side' };
  return { ...common, base: mechanismById(PLAIN_CARD) as Base, foldEdge: 'side', movement: id };
});

/** A new card of a kind: of a closed size, or with the kind's own sizes. */
export function cardOfKind(
  { base, foldEdge, movement }: Kind,
  size: ClosedSize | undefined,
  given: Partial<CardDocument> = {},
  workshop?: Workshop,
): CardDocument {
  const own = { id: base.id, name: base.name, foldEdge, ...given };
  const card = size ? cardOfClosedSize(base, size, own, workshop) : cardToTry(base, own, workshop);
  if (!movement) return card;
  const [, figure] = cardToTry(mechanismById(movement)).parts;
  return { ...card, parts: [...card.parts, figure!] };
}
