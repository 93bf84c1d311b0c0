import { areaOf } from '../plane/outline.js';
import type { Piece } from '../sheet/piece.js';
import { stockOf, type CardStocks } from './card-stocks.js';
import type { Design } from './join.js';

const MM2_PER_M2 = 1e6;

/** Weight of a piece for its area, g/m²: that of its stock, for raised stock by its height. */
export function weightOfArea(card: { stocks: CardStocks }, piece: Piece): number {
  const { weight, caliper } = stockOf(card, piece);
  return piece.thickness === undefined ? weight : (weight * piece.thickness) / caliper;
}

/** Weight of the whole card, g: area of every panel and of what it wears × weight of its stock. */
export function weightOf(design: Design): number {
  const panels = design.panels.reduce((sum, panel) => sum + (areaOf(panel.area) / MM2_PER_M2) * weightOfArea(design, panel.piece), 0);
  return design.worn.reduce((sum, { area, weight }) => sum + (areaOf(area) / MM2_PER_M2) * weight, panels);
}
