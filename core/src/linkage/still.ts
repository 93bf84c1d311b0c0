import type { Mm } from '../measure/units.js';
import { poseOf, type Motion } from './motion.js';
import { carry, inverted, minus, norm, type Vec3 } from './rigid.js';

/** Panels that move less than this against one another may as well be glued together. */
const STILL: Mm = 0.1;
/** Three places of a panel, far enough from one another to tell every way in which it moves. */
const PLACES: readonly Vec3[] = [
  [0, 0, 0],
  [100, 0, 0],
  [0, 100, 0],
];

/** Whether two panels stay as they lie on one another all the way. */
export function stayStill(motion: Motion, a: number, b: number): boolean {
  if (a === b) return true;
  const seen = motion.frames.map((frame) => {
    const pose = poseOf(motion, frame);
    const back = inverted(pose[a]!);
    return PLACES.map((place) => carry(back, ...carry(pose[b]!, ...place)));
  });
  return seen.every((places) => places.every((place, i) => norm(minus(place, seen[0]![i]!)) < STILL));
}
