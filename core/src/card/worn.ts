import type { Rigid } from '../linkage/rigid.js';
import { carryFlat } from '../linkage/rigid.js';
import type { Mm } from '../measure/units.js';
import { movedArea, type Area } from '../plane/outline.js';
import type { Face } from '../sheet/piece.js';

/** Something flat that is glued on a face of a panel and goes where the panel goes: what the pile, the scales and pictures need of it. */
export interface Worn {
  id: string;
  name: string;
  panel: string;
  face: Face;
  /** in the coordinates of the panel's piece, upper face toward you */
  area: Area;
  /** with the film of glue under it */
  thickness: Mm;
  /** g/m² */
  weight: number;
}

/** Where a worn thing comes to lie in the closed card, seen along z. */
export const lyingAt = (pose: Rigid, { area }: Pick<Worn, 'area'>): Area => movedArea(area, (point) => carryFlat(pose, point));
