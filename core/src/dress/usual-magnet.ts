import { stockOf } from '../card/card-stocks.js';
import type { ClosedCard } from '../card/closed-card.js';
import type { MagnetClosure } from '../card/dressing.js';
import type { Design } from '../card/join.js';
import { poseOf, type Motion } from '../linkage/motion.js';
import { carryFlat, inverted } from '../linkage/rigid.js';
import { stayStill } from '../linkage/still.js';
import type { Mm } from '../measure/units.js';
import { areaContains, boxOf } from '../plane/outline.js';
import type { Point } from '../plane/point.js';
import { isClear } from '../supplies/stocks.js';
import { freeFace } from './free-face.js';

/** A pair is put so far inside the free edge where nothing else is wished. */
const INSIDE: Mm = 14;

/**
 * Where a pair of magnets holds a card closed best: near the middle of its free edge, between the two uppermost panels there
 * that part and have free paper. Nothing where there is no such place.
 */
export function usualMagnet({
  design,
  motion,
  closed,
}: {
  design: Design;
  motion: Motion;
  closed: ClosedCard;
}): Pick<MagnetClosure, 'panel' | 'face' | 'across' | 'along'> | undefined {
  const { box, stack } = closed;
  const pose = poseOf(motion, motion.frames[0]!);
  const order = stack.order.length > 0 ? stack.order : stack.layers.map(({ body }) => body);
  const heights = [0.5, 0.4, 0.6, 0.25, 0.75].map((share) => box.minY + share * (box.maxY - box.minY));
  const places = [box.maxX - INSIDE, box.minX + INSIDE, (box.minX + box.maxX) / 2 - INSIDE].flatMap((x) =>
    heights.map((y): Point => [x, y]),
  );
  for (const place of places) {
    const here = order.filter((body) => areaContains(stack.layers[body]!.area, place));
    for (let i = here.length - 1; i > 0; i--) {
      const [upper, lower] = [here[i]!, here[i - 1]!];
      if (stayStill(motion, upper, lower)) continue;
      const spots = [upper, lower].map((body, k) => {
        const face = stack.layers[body]!.faceUp === (k === 1) ? ('up' as const) : ('down' as const);
        return { panel: design.panels[body]!, face, at: carryFlat(inverted(pose[body]!), place) };
      });
      if (
        spots.some(
          ({ panel, face, at }) =>
            isClear(stockOf(design, panel.piece)) || !freeFace(design, panel, face).some((area) => areaContains(area, at)),
        )
      )
        continue;
      const { panel, face, at } = spots[0]!;
      const { minX, minY } = boxOf(panel.area.outer);
      return { panel: panel.id, face, across: at[0] - minX, along: at[1] - minY };
    }
  }
  return undefined;
}
