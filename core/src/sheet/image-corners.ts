import type { Point } from '../plane/point.js';
import type { PieceImage } from './piece.js';

/** Where the lower left, the lower right and the upper left corner of a picture lie on its piece, as it is looked at. */
export function imageCorners({ x, y, width, height, mirrored }: PieceImage): readonly [lowLeft: Point, lowRight: Point, upLeft: Point] {
  const [left, right] = mirrored ? [x + width, x] : [x, x + width];
  return [
    [left, y],
    [right, y],
    [left, y + height],
  ];
}
