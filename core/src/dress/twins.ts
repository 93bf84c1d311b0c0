import type { Mm } from '../measure/units.js';
import { areaOf, type Area, type Loop } from '../plane/outline.js';
import { distance, type Point } from '../plane/point.js';

/** How a shape has to be moved, its good side kept toward you unless mirrored, to lie on its twin. */
export type TwinBy = 'same' | 'half turn' | 'mirror image' | 'mirror image, turned by half';

export interface Twin {
  /** the earlier layer that it is a twin of */
  of: string;
  by: TwinBy;
}

/** Points this close are one: no hand cuts finer. */
const SAME: Mm = 0.02;

type Motion = (p: Point, size: { width: Mm; height: Mm }) => Point;

/** In the order in which a maker would try them: as it is first, the mirror last. */
const MOTIONS: readonly [TwinBy, Motion][] = [
  ['same', (p) => p],
  ['half turn', ([x, y], { width, height }) => [width - x, height - y]],
  ['mirror image', ([x, y], { width }) => [width - x, y]],
  ['mirror image, turned by half', ([x, y], { height }) => [x, height - y]],
];

/** A shape with its lower left corner at the origin. */
export interface Cornered {
  area: Area;
  width: Mm;
  height: Mm;
}

/** The motion that lays a shape on another of its size; nothing where none does. */
export function twinBy(a: Cornered, b: Cornered): TwinBy | undefined {
  if (Math.abs(a.width - b.width) > SAME || Math.abs(a.height - b.height) > SAME) return undefined;
  if (a.area.holes.length !== b.area.holes.length) return undefined;
  if (Math.abs(areaOf(a.area) - areaOf(b.area)) > SAME * (a.width + a.height)) return undefined;
  return MOTIONS.find(([, move]) => liesOn(moved(a, move), b.area))?.[0];
}

function moved({ area, width, height }: Cornered, move: Motion): Area {
  const carry = (loop: Loop): Loop => loop.map((point) => move(point, { width, height }));
  return { outer: carry(area.outer), holes: area.holes.map(carry) };
}

/** Whether every corner of either lies on a corner of the other. */
function liesOn(a: Area, b: Area): boolean {
  return haveSameCorners(a.outer, b.outer) && a.holes.every((hole) => b.holes.some((other) => haveSameCorners(hole, other)));
}

const haveSameCorners = (a: Loop, b: Loop): boolean => {
  const each = (from: Loop, onto: Loop): boolean => cornersOf(from).every((p) => onto.some((q) => distance(p, q) < SAME));
  return each(a, b) && each(b, a);
};

/** Points at which a line turns: those along a straight edge say nothing of its shape. */
function cornersOf(loop: Loop): Loop {
  return loop.filter((p, i) => {
    const [before, after] = [loop[(i + loop.length - 1) % loop.length]!, loop[(i + 1) % loop.length]!];
    const area = Math.abs((p[0] - before[0]) * (after[1] - before[1]) - (p[1] - before[1]) * (after[0] - before[0]));
    return area > 1e-3 * Math.max(distance(before, after), 1e-9);
  });
}
