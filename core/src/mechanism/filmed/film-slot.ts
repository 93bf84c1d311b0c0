import type { Mm } from '../../measure/units.js';

/** How far the slot slides up the film: from the wall's height to that and both floors. */
export const slotTravel = (floor: Mm, wall: Mm): { from: Mm; to: Mm } => ({ from: wall, to: wall + 2 * floor });
