import type { Area, Loop } from './outline.js';
import type { Point } from './point.js';

const CONVEX = new WeakMap<Loop, boolean>();

/** Whether a loop turns the same way at every corner. Loops are never changed, so each is looked at once. */
export function isConvex(loop: Loop): boolean {
  const known = CONVEX.get(loop);
  if (known !== undefined) return known;
  const convex = turnsOneWay(loop);
  CONVEX.set(loop, convex);
  return convex;
}

function turnsOneWay(loop: Loop): boolean {
  let way = 0;
  for (let i = 0; i < loop.length; i++) {
    const [a, b, c] = [loop[i]!, loop[(i + 1) % loop.length]!, loop[(i + 2) % loop.length]!];
    const turn = (b[0] - a[0]) * (c[1] - b[1]) - (b[1] - a[1]) * (c[0] - b[0]);
    if (Math.abs(turn) < 1e-9) continue;
    if (way !== 0 && Math.sign(turn) !== way) return false;
    way = Math.sign(turn);
  }
  return true;
}

/** Whether an area is one convex loop without holes: then simple arithmetic serves in place of general booleans. */
export const isSimple = ({ outer, holes }: Area): boolean => holes.length === 0 && isConvex(outer);

/**
 * The part of a loop that lies inside a convex one (Sutherland and Hodgman): each edge of the convex loop cuts off what
 * lies beyond it. Empty where nothing is left. The convex loop may run either way.
 */
export function clippedTo(subject: Loop, convex: Loop, counterClockwise: boolean): Point[] {
  let left: Point[] = [...subject];
  for (let i = 0; i < convex.length && left.length > 0; i++) {
    const [a, b] = [convex[i]!, convex[(i + 1) % convex.length]!];
    const sign = counterClockwise ? 1 : -1;
    const side = (p: Point): number => sign * ((b[0] - a[0]) * (p[1] - a[1]) - (b[1] - a[1]) * (p[0] - a[0]));
    const kept: Point[] = [];
    for (let k = 0; k < left.length; k++) {
      const [p, q] = [left[k]!, left[(k + 1) % left.length]!];
      const [sp, sq] = [side(p), side(q)];
      if (sp >= 0) kept.push(p);
      if (sp >= 0 !== sq >= 0) {
        const t = sp / (sp - sq);
        kept.push([p[0] + (q[0] - p[0]) * t, p[1] + (q[1] - p[1]) * t]);
      }
    }
    left = kept;
  }
  return left;
}
