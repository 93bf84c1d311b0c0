import type { Design } from '../card/compose.js';
import type { Piece } from '../sheet/piece.js';

/** Foam and layers of a raised stop, g/m² for each mm of height. */
const FOAM_PER_MM = 120;

/** Weight of a piece for its area, g/m². */
export function weightPerArea(design: Design, piece: Piece): number {
  return piece.stock === 'stop' ? FOAM_PER_MM * (piece.thickness ?? 1) : design.stocks[piece.stock].weight;
}
