import type { Design } from '../card/join.js';
import { dot, type Rigid, type Vec3 } from '../linkage/rigid.js';

/** A panel that rises less than this (as a share of its own length) lies: its top is what is farther away. */
const LIES = 0.35;

/** A direction of the world in the flat axes of a panel; what stands out of the panel is left out. */
export function onPanel(m: Rigid, direction: Vec3): [x: number, y: number] {
  return [dot([m[0]!, m[4]!, m[8]!], direction), dot([m[1]!, m[5]!, m[9]!], direction)];
}

/** Which way a picture on a panel of the open card has its top, in the panel's flat axes; `lies` when nothing of it rises. */
export function topOf(m: Rigid, { up, viewFrom }: Design['base']['rest']): { toward: [x: number, y: number]; lies: boolean } {
  const rising = onPanel(m, up);
  if (Math.hypot(...rising) > LIES) return { toward: rising, lies: false };
  return { toward: onPanel(m, awayFrom(viewFrom, up)), lies: true };
}

/** Level, and away from who looks. */
function awayFrom(viewFrom: Vec3, up: Vec3): Vec3 {
  const height = dot(viewFrom, up) / dot(up, up);
  return [height * up[0] - viewFrom[0], height * up[1] - viewFrom[1], height * up[2] - viewFrom[2]];
}
