import type { Mm } from '../../measure/units.js';
import type { Loop } from '../../plane/outline.js';
import type { Point } from '../../plane/point.js';
import type { Crease, Cut, Window } from '../../sheet/piece.js';
import { num, type Sizes } from '../sizes.js';
import { uprightCrease } from '../drawing/upright.js';

/** A thinner sliver is no more than a cut. */
export const isSliver = (trim: Mm): boolean => trim >= 0.1;

/** The scores, cuts and slivers of one swing. */
export interface Side {
  name: 'left' | 'right';
  creases: Crease[];
  cuts: Cut[];
  slivers: Window[];
}

/** The left swing as drawn: scores only in the borders, three cuts on either side of the neck, or slivers in their place. */
export function sideOf(sizes: Sizes): Side {
  const height = num(sizes, 'height');
  const b = num(sizes, 'border');
  const [x1, z] = [num(sizes, 'scoreAt'), num(sizes, 'zigzag')];
  const [xs, xe] = [num(sizes, 'panelFrom'), num(sizes, 'panelTo')];
  const trim = num(sizes, 'trim');
  const score = (id: string, name: string, x: Mm, fold: Crease['fold']): Crease[] => {
    const closed = fold === 'valley' ? Math.PI : -Math.PI;
    const lower = uprightCrease(id, `${name}, lower border`, x, [0, b], fold, closed);
    const upper = uprightCrease(`${id}-upper`, `${name}, upper border`, x, [height - b, height], fold, closed);
    return [lower, upper];
  };
  const cut = (id: string, from: Point, to: Point): Cut => ({ id: `left-${id}`, from, to });
  const arms: { side: 'inner' | 'outer'; at: Mm; neck: Mm }[] = [
    { side: 'outer', at: xs, neck: x1 },
    { side: 'inner', at: xe, neck: x1 + z },
  ];
  return {
    name: 'left',
    creases: [...score('left-near', 'first score', x1, 'valley'), ...score('left-far', 'second score', x1 + z, 'mountain')],
    cuts: isSliver(trim)
      ? []
      : arms.flatMap(({ side, at, neck }) => {
          const [from, to] = [Math.min(at, neck), Math.max(at, neck)];
          return [
            cut(`${side}-lower`, [from, b], [to, b]),
            cut(`${side}-upper`, [from, height - b], [to, height - b]),
            cut(`${side}-edge`, [at, b], [at, height - b]),
          ];
        }),
    slivers: isSliver(trim)
      ? arms.map(({ side, at, neck }): Window => ({ id: `left-${side}-sliver`, outline: sliver(at, neck, b, height - b, trim) }))
      : [],
  };
}

/** A band of even width along the three free edges of one side of the panel, open at the neck. */
function sliver(at: Mm, neck: Mm, low: Mm, high: Mm, width: Mm): Loop {
  const inward = Math.sign(neck - at) * width;
  return [
    [neck, low],
    [at, low],
    [at, high],
    [neck, high],
    [neck, high - width],
    [at + inward, high - width],
    [at + inward, low + width],
    [neck, low + width],
  ];
}

/** The same on the right, as seen in a mirror. */
export function mirroredSide(side: Side, length: Mm): Side {
  const flip = ([x, y]: Point): Point => [length - x, y];
  const named = (id: string): string => id.replace(/^left-/, 'right-');
  return {
    name: 'right',
    creases: side.creases.map((crease) => ({ ...crease, id: named(crease.id), from: flip(crease.from), to: flip(crease.to) })),
    cuts: side.cuts.map((cut) => ({ id: named(cut.id), from: flip(cut.from), to: flip(cut.to) })),
    slivers: side.slivers.map((window) => ({ id: named(window.id), outline: window.outline.map(flip) })),
  };
}
