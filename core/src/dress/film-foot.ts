import type { Mm } from '../measure/units.js';
import { boxOf } from '../plane/outline.js';
import { place, undone } from '../plane/placement.js';
import type { PlacedTopper } from './toppers.js';

/** How a topper stands on its film, along the way that it stands. */
export interface FilmFoot {
  /** how much of the film lies on the panel */
  on: Mm;
  /** from there to the lower edge of what it carries; nothing where that begins lower down */
  free: Mm;
  /** from there to the middle of what it carries */
  toMiddle: Mm;
}

/** How a topper stands on its film; nothing of anything where it has none. */
export function filmFoot({ glue, topper, area, whole, placement }: PlacedTopper): FilmFoot {
  if (!topper.film) return { on: 0, free: 0, toMiddle: 0 };
  const back = undone(placement);
  const upright = (loops: readonly { outer: readonly (readonly [number, number])[] }[]) =>
    boxOf(loops.flatMap(({ outer }) => outer.map((point) => place(point, back))));
  if (glue.length === 0) return { on: 0, free: 0, toMiddle: 0 };
  const foot = upright(glue);
  const [paper, carried] = [upright(whole.slice(0, 1)), upright([area])];
  return {
    on: foot.maxY - foot.minY,
    free: Math.max(0, paper.minY - foot.maxY),
    toMiddle: Math.max(0, (carried.minY + carried.maxY) / 2 - foot.maxY),
  };
}
