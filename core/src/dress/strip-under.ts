import type { Design } from '../card/join.js';
import type { Slab } from '../card/pile.js';
import { thickestPlace } from '../card/thickest-place.js';
import type { Mm } from '../measure/units.js';
import { areasOf, intersect } from '../plane/boolean.js';
import { asArea, boxOf, rectangle, type Box } from '../plane/outline.js';

/** How thick and how wide the closed card is within a strip of it. @param round across the fold; else along it */
export function under(design: Design, pile: readonly Slab[], strip: Box, round: boolean): { thickness: Mm; wide: Mm } {
  const { minX, maxX, minY, maxY } = strip;
  if (maxX - minX < 1e-6 || maxY - minY < 1e-6) return { thickness: 0, wide: 0 };
  const window = asArea(rectangle(minX, minY, maxX - minX, maxY - minY));
  const clipped = pile.flatMap((slab): Slab[] => {
    const { box } = slab;
    if (box.maxX <= minX || box.minX >= maxX || box.maxY <= minY || box.minY >= maxY) return [];
    return areasOf(intersect([slab.area], [window])).map((area) => ({ ...slab, area, box: boxOf(area.outer) }));
  });
  if (clipped.length === 0) return { thickness: 0, wide: 0 };
  const all = boxOf(clipped.flatMap(({ area }) => area.outer));
  return { thickness: thickestPlace(design, clipped).thickness, wide: round ? all.maxX - all.minX : all.maxY - all.minY };
}
