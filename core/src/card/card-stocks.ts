import type { Piece } from '../sheet/piece.js';
import { STOCK_ROLES, type Stock, type StockRole } from '../supplies/stocks.js';
import type { CardDocument } from './document.js';

/** The stocks of a card by role, and those of pieces that have one of their own. */
export type CardStocks = Readonly<Record<StockRole, Stock>> & { readonly pieces: Readonly<Record<string, Stock>> };

const FOUND = new WeakMap<CardDocument, CardStocks>();

/**
 * Looks up the stocks that a card carries.
 * @throws RangeError naming a stock that it does not carry: the reader of a file refuses such a card
 */
export function stocksOf(card: CardDocument): CardStocks {
  const known = FOUND.get(card);
  if (known) return known;
  const stock = (id: string): Stock => {
    const found = card.supplies.stocks.find((entry) => entry.id === id);
    if (!found) throw new RangeError(`no stock “${id}”; the card carries ${card.supplies.stocks.map((entry) => entry.id).join(', ')}`);
    return found;
  };
  const stocks = {
    ...(Object.fromEntries(STOCK_ROLES.map((role) => [role, stock(card.stocks[role])])) as Record<StockRole, Stock>),
    pieces: Object.fromEntries(Object.entries(card.pieceStocks ?? {}).map(([piece, id]) => [piece, stock(id)])),
  };
  FOUND.set(card, stocks);
  return stocks;
}

/** The stock that a piece is cut from. */
export function stockOf({ stocks }: { stocks: CardStocks }, piece: Pick<Piece, 'id' | 'stock'>): Stock {
  return stocks.pieces[piece.id] ?? stocks[piece.stock];
}

/** Thickness of one layer of a piece. */
export function caliperOf(card: { stocks: CardStocks }, piece: Pick<Piece, 'id' | 'stock' | 'thickness'>): number {
  return piece.thickness ?? stockOf(card, piece).caliper;
}
