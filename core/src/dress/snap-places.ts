import type { Design } from '../card/join.js';
import { poseOf, type Motion } from '../linkage/motion.js';
import { carryFlat, inverted } from '../linkage/rigid.js';
import type { Mm } from '../measure/units.js';
import { areaContains, boxOf } from '../plane/outline.js';
import type { Point } from '../plane/point.js';
import type { Dressed } from './dress.js';

/** A place that something which is moved is drawn to, and why, in words that follow its length. */
export interface SnapPlace {
  at: Mm;
  says: string;
}

/** Places for the middle of a topper, from the left and from the lower end of its panel. */
export interface SnapPlaces {
  across: readonly SnapPlace[];
  along: readonly SnapPlace[];
}

/**
 * Where a topper that is moved is drawn to: the middle of its panel, in line with another topper of the same face, and over
 * or under what comes to lie there when the card is closed. The first of a list is the strongest.
 */
export function snapPlaces(
  { design, motion, dressed }: { design: Design; motion: Motion; dressed: Pick<Dressed, 'toppers' | 'magnets'> },
  topper: string,
): SnapPlaces {
  const moved = dressed.toppers.find((each) => each.topper.id === topper);
  if (!moved) return { across: [], along: [] };
  const body = design.linkage.bodyOf.get(moved.panel)!;
  const { area } = design.panels[body]!;
  const { minX, maxX, minY, maxY } = boxOf(area.outer);
  const beside = dressed.toppers.filter((each) => each !== moved && each.panel === moved.panel && each.face === moved.face);
  const pressed = motion.pressed ?? motion;
  const pose = poseOf(pressed, pressed.frames[0]!);
  const home = inverted(pose[body]!);
  const elsewhere = [
    ...dressed.toppers.map(({ panel, at, number }) => ({ panel, at, number })),
    ...dressed.magnets.flatMap(({ number, first, second }) => [first, second].flatMap((disc) => (disc ? [{ ...disc, number }] : []))),
  ].filter(({ panel }) => panel !== moved.panel);
  const closed = elsewhere
    .map(({ panel, at, number }) => ({ number, at: carryFlat(home, carryFlat(pose[design.linkage.bodyOf.get(panel)!]!, at)) as Point }))
    .filter(({ at }) => areaContains(area, at));
  const list = (i: 0 | 1): SnapPlace[] => {
    const low = [minX, minY][i]!;
    const size = [maxX - minX, maxY - minY][i]!;
    return [
      { at: size / 2, says: 'in the middle' },
      ...beside.map(({ at, number }) => ({ at: at[i] - low, says: `in line with ${number}` })),
      ...closed.map(({ at, number }) => ({ at: at[i] - low, says: `where ${number} lies when closed` })),
    ];
  };
  return { across: list(0), along: list(1) };
}

/**
 * The place at which a topper is as far from the nearer edge across as it is from the nearer one along: its border is even
 * round that corner. @param size of the panel  @param half of the topper, both ways  @param along its middle now
 */
export function evenBorder(size: Point, half: Point, across: Mm, along: Mm): Mm {
  const gap = Math.min(along - half[1], size[1] - along - half[1]);
  return across < size[0] / 2 ? half[0] + gap : size[0] - half[0] - gap;
}
