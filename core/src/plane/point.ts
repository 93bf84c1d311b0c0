import type { Mm } from '../measure/units.js';

/** A point of the plane, in mm. */
export type Point = readonly [x: Mm, y: Mm];

export function distance(a: Point, b: Point): Mm {
  return Math.hypot(b[0] - a[0], b[1] - a[1]);
}

/** The point a share `t` of the way from `a` to `b`. */
export function between(a: Point, b: Point, t: number): Point {
  return [a[0] + (b[0] - a[0]) * t, a[1] + (b[1] - a[1]) * t];
}

/** Twice the signed area of the triangle a, b, c: positive when c lies left of a→b. */
export function turn(a: Point, b: Point, c: Point): number {
  return (b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0]);
}

/** The point at distance `r` from `from` in a direction given as an angle from the +x axis. */
export function polar(from: Point, r: Mm, angle: number): Point {
  return [from[0] + r * Math.cos(angle), from[1] + r * Math.sin(angle)];
}

/** Distance from a point to a segment. */
export function distanceToSegment(p: Point, a: Point, b: Point): Mm {
  const length2 = (b[0] - a[0]) ** 2 + (b[1] - a[1]) ** 2;
  if (length2 === 0) return distance(p, a);
  const t = ((p[0] - a[0]) * (b[0] - a[0]) + (p[1] - a[1]) * (b[1] - a[1])) / length2;
  return distance(p, between(a, b, Math.min(1, Math.max(0, t))));
}
