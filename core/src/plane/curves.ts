import type { Mm } from '../measure/units.js';
import { between, distance, type Point } from './point.js';
import { stretchesOf } from './smooth.js';

/** One piece of a line: straight, an arc of a circle (angle signed, positive counter-clockwise), or a cubic curve. */
export type Segment =
  | { kind: 'line'; to: Point }
  | { kind: 'arc'; to: Point; centre: Point; radius: Mm; angle: number }
  | { kind: 'cubic'; to: Point; handles: readonly [Point, Point] };

/** A line as a pen draws it. */
export interface Path {
  from: Point;
  segments: Segment[];
  closed: boolean;
}

/** Points of a circle lie this close to it, as a share of its radius. */
const ON_CIRCLE = 1e-5;
/** An arc is drawn in pieces of no more than this. */
const MOST_ARC = (2 * Math.PI) / 3;

/** A line of many points as straight edges, arcs of circles and smooth curves through the points. */
export function pathOf(points: readonly Point[], closed: boolean): Path {
  const stretches = stretchesOf(points, closed);
  const segments = stretches.flatMap(({ curved, points: own }): Segment[] => {
    if (!curved) return [{ kind: 'line', to: own[1]! }];
    return arcThrough(own) ?? splineThrough(own);
  });
  return { from: stretches[0]?.points[0] ?? points[0]!, segments, closed };
}

/** The same line as points no farther from it than a tolerance. */
export function flattened({ from, segments, closed }: Path, tolerance: Mm): Point[] {
  const points: Point[] = [from];
  let at = from;
  for (const segment of segments) {
    points.push(...inSteps(at, segment, tolerance));
    at = segment.to;
  }
  if (closed && points.length > 1 && distance(points[0]!, points.at(-1)!) < 1e-9) points.pop();
  return points;
}

function inSteps(from: Point, segment: Segment, tolerance: Mm): Point[] {
  if (segment.kind === 'line') return [segment.to];
  if (segment.kind === 'arc') {
    const { centre, radius, angle, to } = segment;
    // A chord over an angle a lies r(1 − cos(a/2)) inside its arc.
    const each = 2 * Math.acos(Math.max(0.5, 1 - tolerance / Math.max(radius, tolerance)));
    const steps = Math.max(1, Math.ceil(Math.abs(angle) / each));
    const start = Math.atan2(from[1] - centre[1], from[0] - centre[0]);
    return Array.from({ length: steps }, (_, i): Point => {
      if (i === steps - 1) return to;
      const a = start + (angle * (i + 1)) / steps;
      return [centre[0] + radius * Math.cos(a), centre[1] + radius * Math.sin(a)];
    });
  }
  const [b, c] = segment.handles;
  const d = segment.to;
  // |B''| ≤ 6·max(|a − 2b + c|, |b − 2c + d|), and a chord over 1/n of it is off by at most |B''|/(8n²).
  const bend =
    6 *
    Math.max(Math.hypot(from[0] - 2 * b[0] + c[0], from[1] - 2 * b[1] + c[1]), Math.hypot(b[0] - 2 * c[0] + d[0], b[1] - 2 * c[1] + d[1]));
  const steps = Math.max(1, Math.ceil(Math.sqrt(bend / (8 * tolerance))));
  return Array.from({ length: steps }, (_, i): Point => (i === steps - 1 ? d : onCubic(from, b, c, d, (i + 1) / steps)));
}

function onCubic(a: Point, b: Point, c: Point, d: Point, t: number): Point {
  const [p, q, r] = [between(a, b, t), between(b, c, t), between(c, d, t)];
  return between(between(p, q, t), between(q, r, t), t);
}

/** Arcs of the one circle that all points lie on, if they do. */
function arcThrough(points: readonly Point[]): Segment[] | undefined {
  const last = points.length - 1;
  const round = distance(points[0]!, points[last]!) < 1e-9;
  const circle = circleThrough(points[0]!, points[Math.floor(last / (round ? 3 : 2))]!, points[round ? Math.floor((2 * last) / 3) : last]!);
  if (!circle) return undefined;
  const { centre, radius } = circle;
  if (points.some((p) => Math.abs(distance(p, centre) - radius) > ON_CIRCLE * radius)) return undefined;
  const turns = points.slice(1).map((p, i) => turnAbout(centre, points[i]!, p));
  const segments: Segment[] = [];
  let angle = 0;
  turns.forEach((turn, i) => {
    angle += turn;
    if (i === turns.length - 1 || Math.abs(angle + turns[i + 1]!) > MOST_ARC) {
      segments.push({ kind: 'arc', to: points[i + 1]!, centre, radius, angle });
      angle = 0;
    }
  });
  return segments;
}

function turnAbout(centre: Point, a: Point, b: Point): number {
  const [ux, uy, vx, vy] = [a[0] - centre[0], a[1] - centre[1], b[0] - centre[0], b[1] - centre[1]];
  return Math.atan2(ux * vy - uy * vx, ux * vx + uy * vy);
}

function circleThrough(a: Point, b: Point, c: Point): { centre: Point; radius: Mm } | undefined {
  const [bx, by, cx, cy] = [b[0] - a[0], b[1] - a[1], c[0] - a[0], c[1] - a[1]];
  const twice = 2 * (bx * cy - by * cx);
  if (Math.abs(twice) < 1e-9) return undefined;
  const [bb, cc] = [bx * bx + by * by, cx * cx + cy * cy];
  const [x, y] = [(cy * bb - by * cc) / twice, (bx * cc - cx * bb) / twice];
  return { centre: [a[0] + x, a[1] + y], radius: Math.hypot(x, y) };
}

/** A cubic curve through points: at each it runs as the parabola through the point and its neighbours does, by chord length. */
function splineThrough(points: readonly Point[]): Segment[] {
  const last = points.length - 1;
  const round = distance(points[0]!, points[last]!) < 1e-9;
  const at = (i: number): Point => {
    if (!round) return points[Math.min(last, Math.max(0, i))]!;
    return points[((i % last) + last) % last]!;
  };
  const slopes = points.map((_, i): Point => {
    if (!round && i === 0) return slopeAt(at(0), at(1), at(2), 0);
    if (!round && i === last) return slopeAt(at(last - 2), at(last - 1), at(last), 2);
    return slopeAt(at(i - 1), at(i), at(i + 1), 1);
  });
  return points.slice(1).map((to, i): Segment => {
    const from = points[i]!;
    const third = distance(from, to) / 3;
    const [m, n] = [slopes[i]!, slopes[i + 1]!];
    return {
      kind: 'cubic',
      to,
      handles: [
        [from[0] + m[0] * third, from[1] + m[1] * third],
        [to[0] - n[0] * third, to[1] - n[1] * third],
      ],
    };
  });
}

/** Slope, by chord length, of the parabola through three points at the first, second or third of them. */
function slopeAt(a: Point, b: Point, c: Point, where: 0 | 1 | 2): Point {
  const [h, k] = [distance(a, b), distance(b, c)];
  const slope = (axis: 0 | 1): number => {
    const [before, after] = [(b[axis] - a[axis]) / h, (c[axis] - b[axis]) / k];
    const bend = (after - before) / (h + k);
    return { 0: before - bend * h, 1: before + bend * h, 2: after + bend * k }[where];
  };
  return [slope(0), slope(1)];
}
