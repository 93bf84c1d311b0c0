import type { Mm } from '../measure/units.js';
import type { Part, PlacedBlank, Rectangle } from './guillotine.js';

/** Lines nearer than this are one: outlines that were cut from one another are as exact as that. */
const SAME: Mm = 1e-5;

/**
 * How a sheet is cut edge to edge into the blanks that lie on it: every cut runs through one part and through no blank, until each part
 * holds one that fills it, or nothing. Nothing where no such cuts part them, as where four blanks lie round a fifth like a pinwheel.
 * A cut that may lie in more than one place lies along the blank on its lower or left side: so much less is left to trim.
 */
export function partsBetween({ width, height }: { width: Mm; height: Mm }, placed: readonly PlacedBlank[]): Part | undefined {
  return parted({ x: 0, y: 0, width, height }, placed);
}

function parted(part: Rectangle, placed: readonly PlacedBlank[]): Part | undefined {
  const [only] = placed;
  if (!only) return { ...part };
  if (placed.length === 1 && fills(only, part)) return { ...part, holds: only };
  // Whatever cut is taken first, the others can still be made: blanks that can be parted at all can be parted from here on.
  const cuts = (['x', 'y'] as const).flatMap((axis) => cutsAlong(axis, part, placed).map((cut) => ({ axis, ...cut })));
  const next = cuts.find(({ parts }) => parts) ?? cuts[0];
  if (!next) return undefined;
  const { axis, at } = next;
  const [near, far] = split(part, axis, at);
  const isNear = (one: Rectangle): boolean => (axis === 'x' ? one.x + one.width : one.y + one.height) <= at + SAME;
  const first = parted(near, placed.filter(isNear));
  const second =
    first &&
    parted(
      far,
      placed.filter((one) => !isNear(one)),
    );
  return first && second && { ...part, cut: { axis, first, second } };
}

const fills = (a: Rectangle, b: Rectangle): boolean =>
  Math.abs(a.x - b.x) < SAME && Math.abs(a.y - b.y) < SAME && Math.abs(a.width - b.width) < SAME && Math.abs(a.height - b.height) < SAME;

/** Places where a cut runs through a part and through no blank: at edges of blanks, inside the part. Some part blanks from blanks, others only trim. */
function cutsAlong(axis: 'x' | 'y', part: Rectangle, placed: readonly PlacedBlank[]): { at: Mm; parts: boolean }[] {
  const span = (one: Rectangle): [Mm, Mm] => (axis === 'x' ? [one.x, one.x + one.width] : [one.y, one.y + one.height]);
  const [low, high] = span(part);
  const free = placed
    .flatMap(span)
    .filter((at) => at > low + SAME && at < high - SAME && placed.every((one) => at <= span(one)[0] + SAME || at >= span(one)[1] - SAME));
  return [...new Set(free)]
    .sort((a, b) => a - b)
    .map((at) => ({ at, parts: placed.some((one) => span(one)[1] <= at + SAME) && placed.some((one) => span(one)[0] >= at - SAME) }));
}

function split(part: Rectangle, axis: 'x' | 'y', at: Mm): [Rectangle, Rectangle] {
  return axis === 'x'
    ? [
        { ...part, width: at - part.x },
        { ...part, x: at, width: part.x + part.width - at },
      ]
    : [
        { ...part, height: at - part.y },
        { ...part, y: at, height: part.y + part.height - at },
      ];
}
