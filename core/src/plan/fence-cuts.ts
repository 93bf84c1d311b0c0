import type { Mm } from '../measure/units.js';
import type { Point } from '../plane/point.js';
import { THIN, type Part, type Rectangle } from './guillotine.js';

/** One cut of a trimmer, edge to edge through the part of the sheet that lies there by then. */
export interface FenceCut {
  order: number;
  /** how far the blade is from the fence */
  fence: Mm;
  /** which edge of the part lies against the fence, as the sheet lies on the table */
  edge: 'left' | 'right' | 'lower' | 'upper';
  /** the part of the sheet that is cut, which the cuts before it left */
  part: Rectangle;
  /** the ends of the cut on the sheet */
  from: Point;
  to: Point;
  /** what falls off is narrower than a hand holds: the wider side lies against the fence */
  thin?: true;
}

/**
 * The cuts of a sheet, each through one part that the cuts before it left: those with the same setting of the fence one after the
 * other wherever they may be, else through the largest part that is there.
 */
export function fenceCuts(sheet: Part, begin = 1): FenceCut[] {
  const open: Part[] = sheet.cut ? [sheet] : [];
  const cuts: FenceCut[] = [];
  while (open.length > 0) {
    const last = cuts.at(-1);
    const same = last && open.find((part) => isSetLike(cutOf(part, 0), last));
    const next = same ?? open.reduce((largest, part) => (part.width * part.height > largest.width * largest.height ? part : largest));
    open.splice(open.indexOf(next), 1);
    cuts.push(cutOf(next, begin + cuts.length));
    open.push(...[next.cut!.first, next.cut!.second].filter(({ cut }) => cut));
  }
  return cuts;
}

const isSetLike = (a: FenceCut, b: FenceCut): boolean => Math.abs(a.fence - b.fence) < 1e-6;

function cutOf({ cut, x, y, width, height }: Part, order: number): FenceCut {
  const { axis, first, second } = cut!;
  const isUpright = axis === 'x';
  const [near, far] = isUpright ? [first.width, second.width] : [first.height, second.height];
  // What is wanted is measured, unless it is too narrow to be held and the rest is not.
  const isThin = near < THIN && far >= THIN;
  const edge = isUpright ? (isThin ? 'right' : 'left') : isThin ? 'upper' : 'lower';
  const at = (isUpright ? x : y) + near;
  return {
    order,
    fence: isThin ? far : near,
    edge,
    part: { x, y, width, height },
    from: isUpright ? [at, y] : [x, at],
    to: isUpright ? [at, y + height] : [x + width, at],
    ...(Math.min(near, far) < THIN && { thin: true as const }),
  };
}
