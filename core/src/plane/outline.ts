import type { Mm } from '../measure/units.js';
import type { Point } from './point.js';

/** A closed line, first point not repeated. Counter-clockwise unless said. */
export type Loop = readonly Point[];

/** An area: one outer loop, any number of holes. */
export interface Area {
  outer: Loop;
  holes: readonly Loop[];
}

/** A loop as an area without holes. */
export const asArea = (outer: Loop): Area => ({ outer, holes: [] });

export interface Box {
  minX: Mm;
  minY: Mm;
  maxX: Mm;
  maxY: Mm;
}

/** Whether two boxes share no more than an edge. */
export const apart = (a: Box, b: Box): boolean => a.minX >= b.maxX || b.minX >= a.maxX || a.minY >= b.maxY || b.minY >= a.maxY;

export function rectangle(x: Mm, y: Mm, width: Mm, height: Mm): Loop {
  return [
    [x, y],
    [x + width, y],
    [x + width, y + height],
    [x, y + height],
  ];
}

/** Signed area of a loop by the shoelace sum, mm²; positive when counter-clockwise. */
export function signedArea(loop: Loop): number {
  let sum = 0;
  for (let i = 0, j = loop.length - 1; i < loop.length; j = i++) {
    sum += loop[j]![0] * loop[i]![1] - loop[i]![0] * loop[j]![1];
  }
  return sum / 2;
}

/** Whether a loop fills its box, to a thousandth of a millimetre along its sides: four corners alone may be those of a slanted shape. */
export function isRectangle(loop: Loop): boolean {
  const { minX, maxX, minY, maxY } = boxOf(loop);
  const [width, height] = [maxX - minX, maxY - minY];
  return width * height - Math.abs(signedArea(loop)) < 1e-3 * Math.max(width, height);
}

/** Area of a shape less its holes, mm². */
export function areaOf(area: Area): number {
  return area.holes.reduce((left, hole) => left - Math.abs(signedArea(hole)), Math.abs(signedArea(area.outer)));
}

/** Centre of area of a shape with holes. */
export function centroid(area: Area): Point {
  let sum = 0;
  let x = 0;
  let y = 0;
  const add = (loop: Loop, sign: number): void => {
    const orientation = Math.sign(signedArea(loop)) * sign;
    for (let i = 0, j = loop.length - 1; i < loop.length; j = i++) {
      const cross = (loop[j]![0] * loop[i]![1] - loop[i]![0] * loop[j]![1]) * orientation;
      sum += cross;
      x += (loop[j]![0] + loop[i]![0]) * cross;
      y += (loop[j]![1] + loop[i]![1]) * cross;
    }
  };
  add(area.outer, 1);
  for (const hole of area.holes) add(hole, -1);
  return [x / (3 * sum), y / (3 * sum)];
}

/** Whether a point lies inside a loop (even-odd; a point on the line may fall either way). */
export function loopContains(loop: Loop, [x, y]: Point): boolean {
  let inside = false;
  for (let i = 0, j = loop.length - 1; i < loop.length; j = i++) {
    const p = loop[i]!;
    const q = loop[j]!;
    if (p[1] > y !== q[1] > y && x < ((q[0] - p[0]) * (y - p[1])) / (q[1] - p[1]) + p[0]) inside = !inside;
  }
  return inside;
}

export function areaContains(area: Area, point: Point): boolean {
  return loopContains(area.outer, point) && !area.holes.some((hole) => loopContains(hole, point));
}

export function boxOf(points: Iterable<Point>): Box {
  const box = { minX: Infinity, minY: Infinity, maxX: -Infinity, maxY: -Infinity };
  for (const [x, y] of points) {
    if (x < box.minX) box.minX = x;
    if (y < box.minY) box.minY = y;
    if (x > box.maxX) box.maxX = x;
    if (y > box.maxY) box.maxY = y;
  }
  return box;
}

/** The smallest convex loop round some points (Andrew's monotone chain), counter-clockwise. */
export function convexHull(points: readonly Point[]): Loop {
  const sorted = [...points].sort((a, b) => a[0] - b[0] || a[1] - b[1]);
  if (sorted.length < 3) return sorted;
  const half = (list: readonly Point[]): Point[] => {
    const chain: Point[] = [];
    for (const p of list) {
      while (chain.length >= 2) {
        const a = chain[chain.length - 2]!;
        const b = chain[chain.length - 1]!;
        if ((b[0] - a[0]) * (p[1] - a[1]) - (b[1] - a[1]) * (p[0] - a[0]) > 0) break;
        chain.pop();
      }
      chain.push(p);
    }
    chain.pop();
    return chain;
  };
  return [...half(sorted), ...half(sorted.reverse())];
}

/** An area each point of which is carried somewhere; lines that a mirror turned round run as before again. */
export function movedArea({ outer, holes }: Area, carry: (point: Point) => Point): Area {
  const move = (loop: Loop): Loop => loop.map(carry);
  const moved = { outer: move(outer), holes: holes.map(move) };
  if (signedArea(moved.outer) > 0 === signedArea(outer) > 0) return moved;
  return { outer: [...moved.outer].reverse(), holes: moved.holes.map((hole) => [...hole].reverse()) };
}

/** The loop seen in a mirror along the y axis, still counter-clockwise if it was. */
export function mirrored(loop: Loop): Loop {
  return loop.map(([x, y]): Point => [-x, y]).reverse();
}
