import { carry, cross, dot, minus, norm, type Rigid, type Vec3 } from '../linkage/rigid.js';
import type { Area, Box, Loop } from '../plane/outline.js';

/** A shared line shorter than this is a corner touching, not a collision. */
const LEAST_LINE = 1;
/** A panel in space. Its hull is enough to tell that it misses another; its lines are carried only when they are needed. */
export interface Solid {
  hull: Vec3[];
  lines: () => Vec3[][];
  origin: Vec3;
  normal: Vec3;
}

/** @param hullOf the hull of the area's outer line  @param raised how far it lies over its panel, along that panel's own normal */
export function solidOf({ area }: { area: Area }, hullOf: Loop, m: Rigid, raised = 0): Solid {
  const hull = hullOf.map(([x, y]) => carry(m, x, y, raised));
  let carried: Vec3[][] | undefined;
  const lines = (): Vec3[][] => (carried ??= [area.outer, ...area.holes].map((loop) => loop.map(([x, y]) => carry(m, x, y, raised))));
  return { hull, lines, origin: hull[0]!, normal: [m[2]!, m[6]!, m[10]!] };
}

/**
 * Whether the flat box of something on one panel stays, within the slack, on one side of the plane of another panel: then it
 * cannot cross it. @param raised how far the box, and the plane, lie over their panels along those panels' own normals
 */
export function staysBeside(
  { minX, maxX, minY, maxY }: Box,
  m: Rigid,
  raised: number,
  plane: Rigid,
  planeRaised: number,
  slack: number,
): boolean {
  const [nx, ny, nz] = [plane[2]!, plane[6]!, plane[10]!];
  // The height over the plane of the box's middle, and how much its half sides add.
  const u = nx * m[0]! + ny * m[4]! + nz * m[8]!;
  const v = nx * m[1]! + ny * m[5]! + nz * m[9]!;
  const w = nx * m[2]! + ny * m[6]! + nz * m[10]!;
  const level = nx * (m[3]! - plane[3]!) + ny * (m[7]! - plane[7]!) + nz * (m[11]! - plane[11]!);
  const middle = (u * (minX + maxX)) / 2 + (v * (minY + maxY)) / 2 + w * raised + level - planeRaised;
  const reach = (Math.abs(u) * (maxX - minX)) / 2 + (Math.abs(v) * (maxY - minY)) / 2;
  return middle - reach > -slack || middle + reach < slack;
}

/** How deep two flat panels pass through each other: 0 when one stays on one side of the other or they miss. */
export function crossingDepth(a: Solid, b: Solid, slack: number): number {
  const depthA = straddle(a, b, slack);
  if (depthA === 0) return 0;
  const depthB = straddle(b, a, slack);
  if (depthB === 0) return 0;
  const line = cross(a.normal, b.normal);
  const length = norm(line);
  if (length < 1e-6) return 0;
  const direction: Vec3 = [line[0] / length, line[1] / length, line[2] / length];
  // Paper must go on at both sides of the line, in both: an edge that lies in the other's plane only touches it.
  const through = [
    spans(a, b, direction, slack),
    spans(a, b, direction, -slack),
    spans(b, a, direction, slack),
    spans(b, a, direction, -slack),
  ];
  const shared = through.reduce(inBoth).reduce((sum, [from, to]) => sum + to - from, 0);
  return shared > LEAST_LINE ? Math.min(depthA, depthB) : 0;
}

/** The smaller of the two extents of `a` on the two sides of the plane of `b`; 0 when within the slack. */
function straddle(a: Solid, b: Solid, slack: number): number {
  let low = 0;
  let high = 0;
  for (const p of a.hull) {
    const d = dot(minus(p, b.origin), b.normal);
    if (d < low) low = d;
    if (d > high) high = d;
  }
  const least = Math.min(-low, high);
  return least > slack ? least : 0;
}

/**
 * Stretches of a line that lie inside panel `a`, as sorted parameters along the direction: where it meets the plane of panel
 * b, moved to one side of it by some mm.
 */
function spans(a: Solid, b: Solid, direction: Vec3, aside: number): [number, number][] {
  const hits: number[] = [];
  for (const loop of a.lines()) {
    for (let i = 0, j = loop.length - 1; i < loop.length; j = i++) {
      const di = dot(minus(loop[i]!, b.origin), b.normal) - aside;
      const dj = dot(minus(loop[j]!, b.origin), b.normal) - aside;
      if (di > 0 === dj > 0) continue;
      const t = di / (di - dj);
      const p = loop[i]!;
      const q = loop[j]!;
      hits.push(dot([p[0] + (q[0] - p[0]) * t, p[1] + (q[1] - p[1]) * t, p[2] + (q[2] - p[2]) * t], direction));
    }
  }
  hits.sort((x, y) => x - y);
  const found: [number, number][] = [];
  for (let i = 0; i + 1 < hits.length; i += 2) found.push([hits[i]!, hits[i + 1]!]);
  return found;
}

/** Stretches that two lists of stretches share. */
function inBoth(a: readonly [number, number][], b: readonly [number, number][]): [number, number][] {
  return a.flatMap(([from, to]) =>
    b.flatMap(([start, end]): [number, number][] => {
      const both: [number, number] = [Math.max(from, start), Math.min(to, end)];
      return both[1] > both[0] ? [both] : [];
    }),
  );
}
