import { signedArea, type Area, type Loop } from './outline.js';
import type { Point } from './point.js';

/** A line of the plane: the points where `axis` is `at`. */
export interface AxisLine {
  axis: 0 | 1;
  at: number;
}

/** The part of a loop below a line of constant x or y (Sutherland–Hodgman). */
export function clippedBelow(loop: Loop, { axis, at }: AxisLine): Loop {
  return loop.flatMap((p, i): Point[] => {
    const q = loop[(i + 1) % loop.length]!;
    const inside = p[axis] <= at;
    if (inside === q[axis] <= at) return inside ? [p] : [];
    const share = (at - p[axis]) / (q[axis] - p[axis]);
    const crossing: Point = [p[0] + (q[0] - p[0]) * share, p[1] + (q[1] - p[1]) * share];
    return inside ? [p, crossing] : [crossing];
  });
}

/** Area of a shape below a line of constant x or y, mm². */
export function areaBelow(area: Area, line: AxisLine): number {
  const below = (loop: Loop): number => Math.abs(signedArea(clippedBelow(loop, line)));
  return area.holes.reduce((left, hole) => left - below(hole), below(area.outer));
}
