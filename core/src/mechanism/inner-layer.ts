import { rectangle } from '../plane/outline.js';
import { innerLayer, type InnerLayer } from '../claim/claims.js';
import { num, type Sizes } from './sizes.js';

/** Kept free round layers glued inside a leaf. */
const BORDER = 3;

/** The layers a maker says lie inside on the back leaf (x from `foldX`), as one block of even thickness. */
export function innerLayersOf(sizes: Sizes, panel: string, foldX: number): InnerLayer[] {
  const thickness = num(sizes, 'innerThickness');
  if (thickness <= 0) return [];
  const from = num(sizes, 'innerFrom');
  const width = num(sizes, 'depth') - from - BORDER;
  const outline = rectangle(foldX + from, BORDER, width, num(sizes, 'length') - 2 * BORDER);
  return [innerLayer({ id: 'inner-layers', name: 'layers inside', panel, outline, thickness })];
}
