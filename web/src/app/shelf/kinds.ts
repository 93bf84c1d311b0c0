import {
  cardOfClosedSize,
  CATALOGUE,
  cardToTry,
  mechanismById,
  PLAIN_CARD,
  type Base,
  type CardDocument,
  type ClosedSize,
  type SheetSize,
  type UsedUp,
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
  /** of a movement that uses up a sheet together with its card */
  usesUp?: UsedUp;
}

/** Everything there is to start, in the order of the catalogue. */
export const KINDS: readonly Kind[] = CATALOGUE.map((mechanism): Kind => {
  const { id, name, summary } = mechanism;
  const common = { id, title: name, says: summary };
  if (mechanism.kind === 'base') return { ...common, base: mechanism, foldEdge: mechanism.foldEdge ?? 'side' };
  return {
    ...common,
    base: mechanismById(PLAIN_CARD) as Base,
    foldEdge: 'side',
    movement: id,
    ...(mechanism.usesUp && { usesUp: mechanism.usesUp }),
  };
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

/** A new card that uses up a sheet together with what moves on it. @param value of the one size that is given */
export function cardFromSheet(
  kind: Kind,
  sheet: SheetSize,
  value: number,
  given: Partial<CardDocument> = {},
  workshop?: Workshop,
): CardDocument {
  const { depth, length, sizes } = kind.usesUp!.from(sheet, value);
  const card = cardOfKind(kind, { depth, length }, given, workshop);
  const [base, ...movements] = card.parts;
  // One sheet is one stock.
  const stocks = { ...card.stocks, mechanism: card.stocks.base };
  return { ...card, stocks, parts: [base!, ...movements.map((part) => ({ ...part, sizes: sizes as typeof part.sizes }))] };
}
