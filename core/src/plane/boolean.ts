import { differenceD, FillRule, inflatePathsD, EndType, intersectD, JoinType, unionD, type PathD, type PathsD } from 'clipper2-ts';
import type { Mm } from '../measure/units.js';
import { loopContains, signedArea, type Area, type Loop } from './outline.js';
import type { Point } from './point.js';

/** Clipper rounds to a grid of 10⁻⁶ mm: finer than any closure tolerance that is reported. */
const DECIMALS = 6;

const toPath = (loop: Loop): PathD => loop.map(([x, y]) => ({ x, y }) as PathD[number]);
const toPaths = (areas: readonly Area[]): PathsD =>
  areas.flatMap((area) => [area.outer, ...area.holes].map((loop) => toPath(oriented(loop, loop === area.outer))));
const toLoops = (paths: PathsD): Loop[] => paths.map((path) => path.map(({ x, y }): Point => [x, y]));

function oriented(loop: Loop, counterClockwise: boolean): Loop {
  return signedArea(loop) > 0 === counterClockwise ? loop : [...loop].reverse();
}

/** Loops of a Clipper result: counter-clockwise ones are areas, clockwise ones holes. */
export function unite(areas: readonly Area[]): Loop[] {
  return toLoops(unionD(toPaths(areas), [], FillRule.NonZero, DECIMALS));
}

export function intersect(a: readonly Area[], b: readonly Area[]): Loop[] {
  return toLoops(intersectD(toPaths(a), toPaths(b), FillRule.NonZero, DECIMALS));
}

export function subtract(a: readonly Area[], b: readonly Area[]): Loop[] {
  return toLoops(differenceD(toPaths(a), toPaths(b), FillRule.NonZero, DECIMALS));
}

/** Grows (or with a negative distance shrinks) a loop by a constant border, sharp corners kept. */
export function offset(loop: Loop, by: Mm): Loop[] {
  return toLoops(inflatePathsD([toPath(oriented(loop, true))], by, JoinType.Miter, EndType.Polygon, 4, DECIMALS));
}

/** The areas of a result, each with the holes that lie in it. */
export function areasOf(loops: readonly Loop[]): Area[] {
  const outers = loops.filter((loop) => signedArea(loop) > 0);
  const holes = loops.filter((loop) => signedArea(loop) < 0);
  // A hole belongs to the smallest of the lines round it: an island in it has an outer line of its own.
  const around = holes.map((hole) => outers.filter((outer) => holds(outer, hole)).sort((a, b) => signedArea(a) - signedArea(b))[0]);
  return outers.map((outer) => ({ outer, holes: holes.filter((_, i) => around[i] === outer) }));
}

/** Whether a line lies inside another that it does not cross; where corners of both touch, most of its corners decide. */
const holds = (outer: Loop, inner: Loop): boolean => 2 * inner.filter((point) => loopContains(outer, point)).length > inner.length;

/** Area of a set of loops with holes clockwise, mm². */
export function totalArea(loops: readonly Loop[]): number {
  return loops.reduce((sum, loop) => sum + signedArea(loop), 0);
}

/** The largest of the areas among some loops, holes left aside; nothing where there is none. */
export function largestOf(loops: readonly Loop[]): Loop | undefined {
  return loops.reduce<Loop | undefined>((most, loop) => (signedArea(loop) > (most ? signedArea(most) : 0) ? loop : most), undefined);
}
