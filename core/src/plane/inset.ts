import { EndType, inflatePathsD, JoinType, type PathD, type PathsD } from 'clipper2-ts';
import type { Mm } from '../measure/units.js';
import { areasOf, offset, subtract } from './boolean.js';
import { areaContains, asArea, boxOf, centroid, rectangle, signedArea, type Area, type Loop } from './outline.js';
import { distance, distanceToSegment, type Point } from './point.js';

/** A sharp corner is not followed farther than this many borders: beyond it is cut off square, as an offset does it. */
const MITRE = 4;
const DECIMALS = 6;

/**
 * What is left of an area inside a border of its own along every edge of its outer line, corners sharp; openings grow by one
 * border all round. It may come apart, or be nothing. An edge with a negative border is moved out by so much.
 * @param borders for the outer line's edges in order, the first from its first to its second point
 * @param around border of every opening
 */
export function inset(area: Area, borders: readonly Mm[], around: Mm): Area[] {
  const plain = plainInset(area, borders);
  if (plain) return plain;
  if (borders.some((border) => border < 0)) {
    const outer = movedOut(area.outer, borders);
    return inset(
      { outer, holes: area.holes },
      borders.map((border) => Math.max(0, border)),
      around,
    );
  }
  const isTurned = signedArea(area.outer) < 0;
  const outer = isTurned ? [...area.outer].reverse() : area.outer;
  // Turned round, the edge from point i begins at what was point n − 1 − i and ends at the one before it.
  const own = isTurned ? outer.map((_, i) => borders[(2 * outer.length - 2 - i) % outer.length]!) : borders;
  const kept = own.every((border) => border === own[0]) ? offset(outer, -own[0]!) : subtract([asArea(outer)], bandsAlong(outer, own));
  if (area.holes.length === 0) return areasOf(kept);
  const openings = area.holes.flatMap((hole) => offset(hole, around)).map(asArea);
  return areasOf(subtract(areasOf(kept), openings));
}

/** A line whose edges with a negative border lie so much farther out, each corner where its two edges then meet. */
function movedOut(outer: Loop, borders: readonly Mm[]): Loop {
  const n = outer.length;
  const side = Math.sign(signedArea(outer));
  const lines = outer.map((from, i) => {
    const to = outer[(i + 1) % n]!;
    const length = distance(from, to);
    const way: Point = [(to[0] - from[0]) / length, (to[1] - from[1]) / length];
    const out = Math.max(0, -borders[i]!) * side;
    return { at: [from[0] + way[1] * out, from[1] - way[0] * out] as Point, way };
  });
  return lines.map(({ at, way }, i) => {
    const before = lines[(i + n - 1) % n]!;
    const sine = before.way[0] * way[1] - before.way[1] * way[0];
    // Edges in one line meet where the second begins.
    if (Math.abs(sine) < 1e-6) return at;
    const along = ((at[0] - before.at[0]) * way[1] - (at[1] - before.at[1]) * way[0]) / sine;
    return [before.at[0] + before.way[0] * along, before.at[1] + before.way[1] * along];
  });
}

/** Most areas are rectangles along the axes, of which nothing has to be cut off by edges. Nothing where this is none. */
function plainInset({ outer, holes }: Area, borders: readonly Mm[]): Area[] | undefined {
  if (outer.length !== 4 || holes.length > 0) return undefined;
  const { minX, minY, maxX, maxY } = boxOf(outer);
  let [left, right, low, high] = [minX, maxX, minY, maxY];
  for (const [i, from] of outer.entries()) {
    const to = outer[(i + 1) % 4]!;
    const border = borders[i]!;
    if (from[0] === to[0] && from[0] === minX) left = minX + border;
    else if (from[0] === to[0] && from[0] === maxX) right = maxX - border;
    else if (from[1] === to[1] && from[1] === minY) low = minY + border;
    else if (from[1] === to[1] && from[1] === maxY) high = maxY - border;
    else return undefined;
  }
  return right - left > 1e-6 && high - low > 1e-6 ? [asArea(rectangle(left, low, right - left, high - low))] : [];
}

/** Whether there is a point of an area farther than a distance from all its edges. */
export function isWiderThan(area: Area, half: Mm): boolean {
  const { minX, minY, maxX, maxY } = boxOf(area.outer);
  if (Math.min(maxX - minX, maxY - minY) <= 2 * half) return false;
  // Its middle tells of most areas; others are shrunk to see whether anything is left.
  const middle = centroid(area);
  const clear = (loop: Loop): boolean => loop.every((from, i) => distanceToSegment(middle, from, loop[(i + 1) % loop.length]!) > half);
  if (areaContains(area, middle) && [area.outer, ...area.holes].every(clear)) return true;
  return (
    inset(
      area,
      area.outer.map(() => half),
      half,
    ).length > 0
  );
}

/** Bands on both sides of every run of edges with one border, each as wide as that; none where it is 0. */
function bandsAlong(outer: Loop, borders: readonly Mm[]): Area[] {
  const n = outer.length;
  const starts = borders.flatMap((border, i) => (border !== borders[(i + n - 1) % n] ? [i] : []));
  return starts.flatMap((start, k): Area[] => {
    const border = borders[start]!;
    if (border === 0) return [];
    const edges = (starts[(k + 1) % starts.length]! - start + n) % n || n;
    const points = Array.from({ length: edges + 1 }, (_, i) => outer[(start + i) % n]!);
    const before = reachPast(outer[(start + n - 1) % n]!, points[0]!, points[1]!, border, borders[(start + n - 1) % n]!);
    const last = points.length - 1;
    const after = reachPast(points[last - 1]!, points[last]!, outer[(start + edges + 1) % n]!, border, borders[(start + edges) % n]!);
    const path = [along(points[1]!, points[0]!, before), ...points.slice(1, -1), along(points[last - 1]!, points[last]!, after)].map(
      ([x, y]) => ({ x, y }),
    ) as PathD;
    const band: PathsD = inflatePathsD([path], border, JoinType.Miter, EndType.Butt, MITRE, DECIMALS);
    return areasOf(band.map((loop) => loop.map(({ x, y }): Point => [x, y])));
  });
}

/**
 * How far a band runs on past a corner of a counter-clockwise line so that it ends in the corner of both borders. Round a blunt
 * corner up to where its own inner side meets the next edge; round an inner corner up to the next border’s inner side.
 */
function reachPast(a: Point, corner: Point, b: Point, border: Mm, next: Mm): Mm {
  const [ux, uy] = [corner[0] - a[0], corner[1] - a[1]];
  const [vx, vy] = [b[0] - corner[0], b[1] - corner[1]];
  const turned = Math.atan2(ux * vy - uy * vx, ux * vx + uy * vy);
  const most = MITRE * Math.max(border, next);
  if (Math.abs(turned) < 1e-9) return 0;
  if (turned > 0) return turned < Math.PI / 2 ? Math.min(most, border / Math.tan(turned)) : 0;
  return Math.min(most, Math.max(0, (next - border * Math.cos(turned)) / Math.sin(-turned)));
}

/** The point so far beyond `to`, seen from `from`. */
function along(from: Point, to: Point, by: Mm): Point {
  const share = by / distance(from, to);
  return [to[0] + (to[0] - from[0]) * share, to[1] + (to[1] - from[1]) * share];
}
