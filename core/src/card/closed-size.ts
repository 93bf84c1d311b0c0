import type { Mm } from '../measure/units.js';
import { boxOf } from '../plane/outline.js';
import type { Drawing } from './draw.js';

/** A closed card: across the fold, and along it. */
export interface ClosedSize {
  depth: Mm;
  length: Mm;
}

/** The closed size that a card is meant to have, whatever sticks out of it. */
export function closedSizeOf({ design }: { design: Pick<Drawing, 'base'> }): ClosedSize {
  const { minX, maxX, minY, maxY } = boxOf(design.base.closedOutline);
  return { depth: maxX - minX, length: maxY - minY };
}
