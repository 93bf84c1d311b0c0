import type { Mm } from '../measure/units.js';

/** A sheet material. Values are typical of its kind: measure ten sheets of your own and correct them. */
export interface Stock {
  id: string;
  name: string;
  /** thickness of one sheet */
  caliper: Mm;
  /** g/m² */
  weight: number;
  /** Young's modulus along the grain, N/mm² */
  stiffness: number;
  clear?: boolean;
}

export const STOCKS: readonly Stock[] = [
  { id: 'text-100', name: 'Text paper, 100 g', caliper: 0.12, weight: 100, stiffness: 4500 },
  { id: 'patterned-120', name: 'Patterned paper, 120 g', caliper: 0.16, weight: 120, stiffness: 3500 },
  { id: 'light-card-160', name: 'Light card, 160 g', caliper: 0.2, weight: 160, stiffness: 4000 },
  { id: 'card-216', name: 'Card, 216 g', caliper: 0.27, weight: 216, stiffness: 4000 },
  { id: 'card-250', name: 'Card, 250 g', caliper: 0.31, weight: 250, stiffness: 4000 },
  { id: 'heavy-card-300', name: 'Heavy card, 300 g', caliper: 0.38, weight: 300, stiffness: 4200 },
  { id: 'board-400', name: 'Thin board, 400 g', caliper: 0.55, weight: 400, stiffness: 3200 },
  { id: 'film-125', name: 'Clear film, 0.125 mm', caliper: 0.125, weight: 175, stiffness: 3500, clear: true },
  { id: 'film-190', name: 'Clear film, 0.19 mm', caliper: 0.19, weight: 265, stiffness: 3500, clear: true },
  { id: 'film-250', name: 'Clear film, 0.25 mm', caliper: 0.25, weight: 350, stiffness: 3500, clear: true },
];

/** @throws RangeError naming the stock when there is none of that id */
export function stockById(id: string): Stock {
  const stock = STOCKS.find((candidate) => candidate.id === id);
  if (!stock) throw new RangeError(`no stock “${id}”; known: ${STOCKS.map((s) => s.id).join(', ')}`);
  return stock;
}
