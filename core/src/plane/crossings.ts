import type { Loop } from './outline.js';
import type { Point } from './point.js';

/**
 * How often a closed line crosses itself: pairs of its edges that pass through each other. Edges that only touch, and
 * neighbours, do not count.
 * @param most counting stops there: who asks only wants to know whether it is more
 */
export function crossingsOf(loop: Loop, most: number): number {
  const edges = loop.map((from, i) => {
    const to = loop[(i + 1) % loop.length]!;
    return { i, from, to, left: Math.min(from[0], to[0]), right: Math.max(from[0], to[0]) };
  });
  edges.sort((a, b) => a.left - b.left);
  let count = 0;
  edges.forEach((edge, k) => {
    for (let m = k + 1; m < edges.length && edges[m]!.left <= edge.right && count < most; m++) {
      const other = edges[m]!;
      if (passThrough(edge.from, edge.to, other.from, other.to)) count++;
    }
  });
  return count;
}

/** Twice the signed area of a triangle. */
const side = (a: Point, b: Point, p: Point): number => (b[0] - a[0]) * (p[1] - a[1]) - (b[1] - a[1]) * (p[0] - a[0]);

function passThrough(a: Point, b: Point, c: Point, d: Point): boolean {
  return side(a, b, c) * side(a, b, d) < 0 && side(c, d, a) * side(c, d, b) < 0;
}
