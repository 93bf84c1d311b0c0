import type { Design } from './compose.js';
import { areaOf } from '../plane/outline.js';
import type { Piece } from '../sheet/piece.js';

/** Foam and layers of a raised stop, g/m² for each mm of height. */
const FOAM_PER_MM = 120;
const MM2_PER_M2 = 1e6;

/** Weight of a piece for its area, g/m². */
export function weightOfArea(design: Design, piece: Piece): number {
  return piece.stock === 'stop' ? FOAM_PER_MM * (piece.thickness ?? 1) : design.stocks[piece.stock].weight;
}

/** Weight of the whole card, g: area of every panel × weight of its stock. */
export function weightOf(design: Design): number {
  return design.panels.reduce((sum, panel) => sum + (areaOf(panel.area) / MM2_PER_M2) * weightOfArea(design, panel.piece), 0);
}
