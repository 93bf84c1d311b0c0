import type { Design } from '../card/join.js';
import type { Pose } from '../linkage/kinematics.js';
import type { ClosedStack } from '../linkage/stacking.js';
import type { Mm } from '../measure/units.js';
import type { Loop } from '../plane/outline.js';
import { reach } from '../plane/reach.js';
import { CLOSING_PLAY } from '../supplies/limits.js';
import type { DressedLayer } from './layer.js';
import { flapsOf, lyingOver, type Flap } from './lying-over.js';
import type { PlacedTopper } from './toppers.js';

/** How two flaps open whose toppers reach over one another. */
export interface FlapOrder {
  panels: readonly [string, string];
  /**
   * `first`: one of them first; `first or together`: that one first, or both at once; `together`: only both at once;
   * `locked`: not at all, each lies over the other
   */
  order: 'first' | 'first or together' | 'together' | 'locked';
  /** the panel that is opened first, where one is */
  first?: string;
  /** of `together` how many times as fast the first of the two must be turned, at least and at most */
  ratio?: readonly [number, number];
  /** the narrower of both overlaps: by so much something must be moved to undo the lock */
  over: Mm;
}

const SAME = 1e-6;

/**
 * The order in which flaps open. A flap that is turned about its fold lifts a point as fast as that is far from the fold:
 * of two that are turned at a ratio λ, what lies above must nowhere rise slower than what lies under it. As the ratio of two
 * distances changes along a straight line only one way, its greatest and least value over an area are at its corners.
 */
export function openingOrder(
  design: Design,
  pose: Pose,
  stack: ClosedStack,
  worn: { layers: readonly DressedLayer[]; toppers: readonly PlacedTopper[] },
): FlapOrder[] {
  if (worn.toppers.length === 0 && worn.layers.every(({ past }) => past.length === 0)) return [];
  const flaps = flapsOf(design, pose, stack, worn);
  return flaps.flatMap((a, i) =>
    flaps.slice(i + 1).flatMap((b): FlapOrder[] => {
      if (a.facesUp !== b.facesUp) return [];
      const found = orderOf(a, b);
      const name = (flap: Flap): string => design.panels[flap.body]!.id;
      if (!found) return [];
      const { first, ...rest } = found;
      return [{ panels: [name(a), name(b)], ...rest, ...(first && { first: name(first) }) }];
    }),
  );
}

type Found = Omit<FlapOrder, 'panels' | 'first'> & { first?: Flap };

function orderOf(a: Flap, b: Flap): Found | undefined {
  const [aOver, bOver] = [lyingOver(a, b), lyingOver(b, a)];
  const [wideA, wideB] = [reach(aOver), reach(bOver)];
  const [isA, isB] = [wideA > CLOSING_PLAY, wideB > CLOSING_PLAY];
  if (!isA && !isB) return undefined;
  // λ: how many times as fast a is turned as b.
  const least = isA ? Math.max(...ratios(aOver, b, a)) : 0;
  const most = isB ? Math.min(...ratios(bOver, b, a)) : Infinity;
  const both = least <= most + SAME;
  if (isA && isB)
    return { order: both ? 'together' : 'locked', over: Math.min(wideA, wideB), ...(both && { ratio: [least, most] as const }) };
  const together = isA ? least <= 1 + SAME : most >= 1 - SAME;
  return { order: together ? 'first or together' : 'first', first: isA ? a : b, over: Math.max(wideA, wideB) };
}

/** How many times as far from the one fold as from the other the corners of some areas are. */
const ratios = (loops: readonly Loop[], far: Flap, near: Flap): number[] =>
  loops.flat().map((point) => {
    const [above, below] = [far.fromFold(point), near.fromFold(point)];
    if (below < SAME) return above < SAME ? 1 : Infinity;
    return Math.max(0, above) / below;
  });
