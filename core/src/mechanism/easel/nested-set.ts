import { shifted } from '../../plane/placement.js';
import type { Mm } from '../../measure/units.js';
import { boxOf, type Loop } from '../../plane/outline.js';
import type { Point } from '../../plane/point.js';
import { fitted, shapeNamed } from '../../plane/shapes.js';
import { blankPiece, type Piece } from '../../sheet/piece.js';
import type { Bond } from '../../linkage/structure.js';
import { insideOf } from './hung-front.js';
import type { BuildContext, Measure } from '../contract.js';
import { items, num, type SizeContext, type Sizes } from '../sizes.js';
import { openingSize, shrunk } from '../opening/window-sizes.js';

/** Layers on a nested easel’s cover: the two outlines of the set next smaller than its own. */
export const LAYERS = 2;

export const isNested = (sizes: Sizes): boolean => sizes['form'] === 'nested';

/** The two smaller outlines of the set, layered on the cover an even border apart. */
export function layersOn({ sizes }: BuildContext, easel: string, shape: Loop): { piece: Piece; bond: Bond }[] {
  return [1, 2].flatMap((k) => {
    const loop = shrunk(shape, k * num(sizes, 'setBorder'))[0];
    if (!loop) return [];
    const { minX, minY } = boxOf(loop);
    const own = loop.map(([x, y]): Point => [x - minX, y - minY]);
    const id = `${easel}-layer-${k}`;
    const glue = shrunk(own, 1)[0] ?? own;
    const piece = blankPiece({
      id,
      name: `Layer ${k} of ${easel.replace('-', ' ')}`,
      stock: 'mechanism',
      faceUp: 'picture up',
      outline: own,
      because: 'the next smaller outline of the set',
      zones: [{ id: 'layer-glue', kind: 'glue', face: 'down', outline: glue, says: 'an even border all round' }],
      anchors: [{ panel: 'layer', name: `layer ${k} of ${easel.replace('-', ' ')}`, at: insideOf(own) }],
    });
    const below = k === 1 ? `${easel}-display/display` : `${easel}-layer-1/layer`;
    const inset = k === 1 ? ([minX, minY] as Point) : insetOf(shape, num(sizes, 'setBorder'), [minX, minY]);
    const bond: Bond = {
      id: `${id}-on`,
      name: `layer ${k} of ${easel.replace('-', ' ')}`,
      panel: `${id}/layer`,
      face: 'down',
      partner: below,
      partnerFace: 'up',
      zone: 'layer-glue',
      placement: shifted(inset),
    };
    return [{ piece, bond }];
  });
}

/** Lower left corner of the second layer on the first. */
function insetOf(shape: Loop, border: number, corner: Point): Point {
  const first = boxOf(shrunk(shape, border)[0]!);
  return [corner[0] - first.minX, corner[1] - first.minY];
}

/** The border at which the innermost layer of the smallest easel is about to vanish; the largest there is for others. */
export function mostSetBorder({ sizes, ownOutlines }: SizeContext, most: Mm): Mm {
  const shape = shapeNamed(String(sizes['outline']), ownOutlines);
  if (!isNested(sizes) || !shape) return most;
  const smallest = fitted(shape, Math.min(...items(sizes, 'easels').map((easel) => num(easel, 'displayHeight'))));
  const remains = (border: Mm): boolean => shrunk(smallest, LAYERS * border).length > 0;
  let [low, high] = [0, most];
  if (remains(high)) return most;
  for (let i = 0; i < 12; i++) {
    const middle = (low + high) / 2;
    if (remains(middle)) low = middle;
    else high = middle;
  }
  return low;
}

/** Which outlines of the set each easel takes, and how large they are. */
export function nestedMeasures({ sizes, outline }: BuildContext, count: number): Measure[] {
  const largest = fitted(outline(String(sizes['outline'])), num(items(sizes, 'easels')[0]!, 'displayHeight'));
  return Array.from({ length: count + LAYERS }, (_, k) => {
    const users = Array.from({ length: count }, (_, e) => e + 1).filter((e) => k + 1 >= e && k + 1 <= e + LAYERS);
    const { height } = openingSize(shrunk(largest, k * num(sizes, 'setBorder')));
    return {
      name: `outline${k + 1}`,
      label: `Outline ${k + 1} of the set, height`,
      value: height,
      unit: 'mm' as const,
      because: `${k === 0 ? 'the largest' : `${k} borders smaller all round than the largest`}; cut for easel ${users.join(' and ')}`,
    };
  });
}
