import type { CarriedSupplies } from '../supplies/supplies-in-use.js';
import type { StockRole } from '../supplies/stocks.js';
import type { Workshop } from '../supplies/workshop.js';
import { withOwnSupplies, type CardDocument } from './document.js';

/**
 * What a choice on the bench offers: what the maker has, and what this card carries besides. What it carries is called as it is
 * there: the card’s own copy governs.
 */
export function offeredSupplies<L extends keyof CarriedSupplies>(
  list: L,
  { supplies }: Pick<CardDocument, 'supplies'>,
  workshop: Workshop,
): readonly { id: string; name: string; mine: boolean }[] {
  const mine = workshop[list];
  const others = supplies[list].filter(({ id }) => !mine.some((entry) => entry.id === id));
  const called = ({ id, name }: { id: string; name: string }): string => supplies[list].find((entry) => entry.id === id)?.name ?? name;
  return [
    ...mine.map((entry) => ({ id: entry.id, name: called(entry), mine: true })),
    ...others.map(({ id, name }) => ({ id, name, mine: false })),
  ];
}

/** A card with another stock for a role, copied from the workshop as it is there now. */
export function withStock(card: CardDocument, role: StockRole, id: string, workshop: Workshop): CardDocument {
  return copied({ ...card, stocks: { ...card.stocks, [role]: id } }, 'stocks', id, workshop);
}

/** A card with a stock of its own for one piece; nothing puts the piece back to the stock of its role. */
export function withPieceStock(card: CardDocument, piece: string, id: string | undefined, workshop: Workshop): CardDocument {
  const { [piece]: _, ...others } = card.pieceStocks ?? {};
  const pieceStocks = id === undefined ? others : { ...others, [piece]: id };
  const { pieceStocks: __, ...rest } = card;
  const changed = Object.keys(pieceStocks).length > 0 ? { ...rest, pieceStocks } : rest;
  return copied(changed, 'stocks', id, workshop);
}

export function withBoard(card: CardDocument, id: string, workshop: Workshop): CardDocument {
  return copied({ ...card, board: id }, 'boards', id, workshop);
}

export function withEnvelope(card: CardDocument, id: string | undefined, workshop: Workshop): CardDocument {
  const { envelope: _, ...rest } = card;
  return copied(id === undefined ? rest : { ...rest, envelope: id }, 'envelopes', id, workshop);
}

/** A card whose copy of a supply is brought to what the workshop has now. */
export function withMine(card: CardDocument, list: keyof CarriedSupplies, id: string, workshop: Workshop): CardDocument {
  return copied(card, list, id, workshop);
}

/** Copies of what the card uses; that of one id as the workshop has it, where it does. */
function copied(card: CardDocument, list: keyof CarriedSupplies, id: string | undefined, workshop: Workshop): CardDocument {
  const isThere = workshop[list].some((entry) => entry.id === id);
  const kept = card.supplies[list].filter((entry) => !isThere || entry.id !== id);
  return withOwnSupplies({ ...card, supplies: { ...card.supplies, [list]: kept } }, workshop);
}
