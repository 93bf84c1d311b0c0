import { SIDES, type LayerStrips, type Side } from '../card/dressing.js';
import type { Mm } from '../measure/units.js';
import { areasOf, intersect } from '../plane/boolean.js';
import { asArea, boxOf, rectangle, type Area, type Box, type Loop } from '../plane/outline.js';

/** One of the four strips that a layer is cut in. */
export interface LayerStrip {
  side: Side;
  area: Area;
}

/**
 * A layer cut in four strips round its window, or, where it has none, round a middle that stays bare. The strips on two sides run on
 * to the corners, the others lie between them, a gap away. Where a window is not rectangular, strips end at the box round it.
 */
export function inStrips(area: Area, { corners, gap, wide = 0 }: LayerStrips): LayerStrip[] {
  const outer = boxOf(area.outer);
  const inner = middleOf(area, outer, wide);
  if (!inner) return [];
  return SIDES.flatMap((side): LayerStrip[] =>
    areasOf(intersect([area], [asArea(stripOf(side, outer, inner, corners, gap))])).map((part) => ({ side, area: part })),
  );
}

/** The box that strips lie round: of the largest window, else what strips so wide leave. */
function middleOf(area: Area, outer: Box, wide: Mm): Box | undefined {
  const windows = area.holes.map((hole) => boxOf(hole)).sort((a, b) => sizeOf(b) - sizeOf(a));
  if (windows[0]) return windows[0];
  const inner = { minX: outer.minX + wide, maxX: outer.maxX - wide, minY: outer.minY + wide, maxY: outer.maxY - wide };
  return wide > 0 && inner.minX < inner.maxX && inner.minY < inner.maxY ? inner : undefined;
}

const sizeOf = ({ minX, maxX, minY, maxY }: Box): number => (maxX - minX) * (maxY - minY);

function stripOf(side: Side, outer: Box, inner: Box, corners: LayerStrips['corners'], gap: Mm): Loop {
  const upright = side === 'left' || side === 'right';
  const runsOn = upright === (corners === 'along');
  const from = (start: Mm, end: Mm): Mm => (runsOn ? start : end + gap);
  const to = (start: Mm, end: Mm): Mm => (runsOn ? end : start - gap);
  const [x0, x1] = upright
    ? side === 'left'
      ? [outer.minX, inner.minX]
      : [inner.maxX, outer.maxX]
    : [from(outer.minX, inner.minX), to(inner.maxX, outer.maxX)];
  const [y0, y1] = upright
    ? [from(outer.minY, inner.minY), to(inner.maxY, outer.maxY)]
    : side === 'bottom'
      ? [outer.minY, inner.minY]
      : [inner.maxY, outer.maxY];
  return rectangle(x0, y0, x1 - x0, y1 - y0);
}
