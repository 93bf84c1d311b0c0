import { offset } from '../../plane/boolean.js';
import { boxOf, signedArea, type Box, type Loop } from '../../plane/outline.js';
import { fitted, SHAPE_OPTIONS } from '../../plane/shapes.js';
import type { Point } from '../../plane/point.js';
import type { FreeSize, Range, SizeContext } from '../sizes.js';

/** Sizes of an opening: its shape, and how large that is made. */
export function windowSizes(defaults: {
  shape: string;
  width: (context: SizeContext) => number;
  height: (context: SizeContext) => number;
  widthRange: (context: SizeContext) => Range;
  heightRange: (context: SizeContext) => Range;
}): FreeSize[] {
  return [
    {
      name: 'windowShape',
      label: 'Window',
      kind: 'outline',
      default: defaults.shape,
      help: 'Shape of the opening.',
      options: SHAPE_OPTIONS,
    },
    {
      name: 'windowWidth',
      label: 'Window width',
      kind: 'length',
      default: defaults.width,
      help: 'Across the opening.',
      range: defaults.widthRange,
    },
    {
      name: 'windowHeight',
      label: 'Window height',
      kind: 'length',
      default: defaults.height,
      help: 'Along the folds.',
      range: defaults.heightRange,
    },
  ];
}

/** An opening of a shape, its box's lower left corner at `at`. */
export function windowLoop(shape: Loop, width: number, height: number, at: Point): Loop {
  return fitted(shape, height, width).map(([x, y]): Point => [x + at[0], y + at[1]]);
}

/** What is left of an opening made smaller by an even border, largest part first; empty when nothing is. */
export function shrunk(loop: Loop, border: number): Loop[] {
  if (border === 0) return [loop];
  return offset(loop, -border)
    .filter((part) => signedArea(part) > 4)
    .sort((a, b) => signedArea(b) - signedArea(a));
}

export const boxSize = (box: Box): { width: number; height: number } => ({ width: box.maxX - box.minX, height: box.maxY - box.minY });

/** Width and height of the largest part of an opening; 0 when there is none. */
export function openingSize(loops: readonly Loop[]): { width: number; height: number } {
  return loops[0] ? boxSize(boxOf(loops[0])) : { width: 0, height: 0 };
}
