import { distance, type Point } from './point.js';

/** A stretch of a line: one straight edge, or a curve drawn through several points. */
export interface Stretch {
  curved: boolean;
  points: readonly Point[];
}

/** Edges that meet at less than this are one straight edge; at more than the other, a corner. */
const STRAIGHT_ON = (0.05 * Math.PI) / 180;
const CORNER = (18 * Math.PI) / 180;
/** Edges of one curve differ in length by less than this. */
const UNLIKE = 3.5;
const LEAST_CURVE = 3;

/**
 * Takes a line of many points apart into straight edges and curves: edges of like length that meet at a small angle, three
 * or more in a row, are a curve. A closed line's stretches begin at a corner where it has one.
 */
export function stretchesOf(points: readonly Point[], closed: boolean): Stretch[] {
  const corners = withoutStraightOn(points, closed);
  const { length } = corners;
  if (length < 2) return [];
  const last = closed ? length : length - 1;
  const at = (i: number): Point => corners[i % length]!;
  /** whether the line goes smoothly from the edge before a point to the one after it */
  const smooth = (i: number): boolean => {
    const [a, b, c] = [at(i + length - 1), at(i), at(i + 1)];
    const [before, after] = [distance(a, b), distance(b, c)];
    return turningAt(a, b, c) < CORNER && Math.max(before, after) < UNLIKE * Math.min(before, after);
  };
  const begins = closed ? corners.findIndex((_, i) => !smooth(i)) : 0;
  if (begins < 0) return [{ curved: true, points: [...corners, corners[0]!] }];
  const runs: Point[][] = [];
  for (let i = begins; i < begins + last; i++) {
    if (i > begins && smooth(i)) runs.at(-1)!.push(at(i + 1));
    else runs.push([at(i), at(i + 1)]);
  }
  return runs.flatMap((run): Stretch[] =>
    run.length > LEAST_CURVE ? [{ curved: true, points: run }] : run.slice(1).map((to, i) => ({ curved: false, points: [run[i]!, to] })),
  );
}

/** By how much a line turns at b on its way from a to c. */
function turningAt(a: Point, b: Point, c: Point): number {
  const [ux, uy, vx, vy] = [b[0] - a[0], b[1] - a[1], c[0] - b[0], c[1] - b[1]];
  return Math.abs(Math.atan2(ux * vy - uy * vx, ux * vx + uy * vy));
}

/** Points at which a line really turns. */
function withoutStraightOn(points: readonly Point[], closed: boolean): Point[] {
  const apart = points.filter((p, i) => i === 0 || distance(p, points[i - 1]!) > 1e-9);
  if (closed && apart.length > 1 && distance(apart[0]!, apart.at(-1)!) < 1e-9) apart.pop();
  const { length } = apart;
  return apart.filter((p, i) => {
    if (!closed && (i === 0 || i === length - 1)) return true;
    return turningAt(apart[(i + length - 1) % length]!, p, apart[(i + 1) % length]!) > STRAIGHT_ON;
  });
}
