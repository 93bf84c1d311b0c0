import { shifted } from '../../plane/placement.js';
import { rectangle, type Loop } from '../../plane/outline.js';
import type { Point } from '../../plane/point.js';
import { blankPiece, type Piece } from '../../sheet/piece.js';
import { TAB_CLEARANCE } from '../../supplies/limits.js';
import type { Bond } from '../../linkage/structure.js';
import { num, type Sizes } from '../sizes.js';

/** The centre line is scored right across, not only where it folds. */
export const isWhole = (sizes: Sizes): boolean => sizes['school'] === 'full';
export const hasLayers = (sizes: Sizes): boolean => sizes['layers'] !== 'none';

/**
 * Two layers, one for each half of the floor. The near half keeps its front face up, the far half is turned over: its layer
 * goes on the back. Seen on the table one is the other after half a turn. Round the corner a layer goes on over the part of
 * the centre line that never folds, to the other edge of the blank.
 */
export function floorLayers(sizes: Sizes): { piece: Piece; bonds: Bond[] }[] {
  const [length, width, inset] = [num(sizes, 'blankLength'), num(sizes, 'blankWidth'), num(sizes, 'inset')];
  const border = num(sizes, 'layerBorder');
  const [wide, long] = [width / 2 - 2 * border, length / 2 - 2 * border];
  const corner = sizes['layers'] === 'corner';
  const [reach, short] = [width - 2 * border, inset - 2 * border];
  const outline: Loop = corner
    ? [
        [0, 0],
        [reach, 0],
        [reach, short],
        [wide, short],
        [wide, long],
        [0, long],
      ]
    : rectangle(0, 0, wide, long);
  // Scored right across, the end of the floor is a panel of its own: the layer is glued to both, clear of the score.
  const past = width / 2 - border + TAB_CLEARANCE;
  const ends = corner && isWhole(sizes) ? [rectangle(past, 1, reach - past - 1, short - 2)] : [];
  const glue = corner && !isWhole(sizes) ? inwards(outline) : rectangle(1, 1, wide - 2, long - 2);
  return (['near', 'far'] as const).map((half) => {
    const near = half === 'near';
    const says = near ? 'glue to the front' : 'glue to the back: this half is turned over';
    const zone = (id: string, loop: Loop) => ({ id, kind: 'glue' as const, face: 'down' as const, outline: loop, says });
    const piece = blankPiece({
      id: `${half}-layer`,
      name: `Layer of the ${half} half`,
      stock: 'display',
      faceUp: 'picture up',
      outline,
      because: corner
        ? 'half the width by half the length, and past the upright the whole width by the inset, less the border all round'
        : 'half the width by half the length, less the border all round',
      zones: [zone('layer-glue', glue), ...ends.map((loop) => zone('end-glue', loop))],
      anchors: [{ panel: 'layer', name: `layer of the ${half} half`, at: [wide / 2, (corner ? short : long) / 2] }],
    });
    const bondOn = (id: string, where: string, partner: string, on: string): Bond => ({
      id,
      name: `layer on the ${where}`,
      panel: `${half}-layer/layer`,
      face: 'down',
      partner,
      partnerFace: near ? 'up' : 'down',
      zone: on,
      placement: near ? shifted([border, border]) : { to: [border, length - border], turn: Math.PI, flipped: true },
      ...(ends.length > 0 && { atOnce: `layer of the ${half} half` }),
    });
    return {
      piece,
      bonds: [
        bondOn(`${half}-layer-on`, `${half} half of the floor`, `base/${half}-floor`, 'layer-glue'),
        ...ends.map(() => bondOn(`${half}-layer-on-end`, `${half} end of the floor`, `base/${half}-end`, 'end-glue')),
      ],
    };
  });
}

/** The outline of a layer round the corner, a millimetre in from its edges. */
const inwards = (outline: Loop): Loop => {
  const [[x0, y0], [x1], [, y2], [x3], [, y4]] = outline as [Point, Point, Point, Point, Point];
  return [
    [x0 + 1, y0 + 1],
    [x1 - 1, y0 + 1],
    [x1 - 1, y2 - 1],
    [x3 - 1, y2 - 1],
    [x3 - 1, y4 - 1],
    [x0 + 1, y4 - 1],
  ];
};
