import type { Mm, Radians } from '../../measure/units.js';
import type { Loop } from '../../plane/outline.js';
import type { Placement } from '../../plane/placement.js';
import { polar, type Point } from '../../plane/point.js';
import { TAB_CLEARANCE } from '../../supplies/limits.js';

/** One side of a crest over a fold: ray angle β on the leaf, wing angle α on the figure, both from the apex. */
export interface Side {
  ray: Radians;
  wing: Radians;
}

/** Right of an upright crest on its piece, or of a fold on its site, is +1; left is −1. */
export type Hand = 1 | -1;

/** Where a ray runs on its leaf, as a direction of the site. @param dir +1 when the crest opens up the fold, −1 when down it */
export const rayOnLeaf = ({ ray }: Side, leafHand: Hand, dir: Hand): Radians => Math.atan2(dir * Math.cos(ray), leafHand * Math.sin(ray));

/** How a piece with its crest upright from its origin lies on a leaf so that its ray falls on the leaf's ray. */
export function rayPlacement(
  side: Side,
  { leafHand, pieceHand, dir, flipped, apex }: { leafHand: Hand; pieceHand: Hand; dir: Hand; flipped: boolean; apex: Point },
): Placement {
  const onPiece = Math.PI / 2 + (flipped ? pieceHand : -pieceHand) * side.wing;
  return { to: apex, turn: rayOnLeaf(side, leafHand, dir) - onPiece, flipped };
}

/** A tab beyond a ray, on its piece. */
export interface RayTab {
  /** outline points from the ray's near end round the tab to its far end */
  loop: Loop;
  near: Point;
  far: Point;
  /** its corner away from both the ray and the apex */
  outer: Point;
  glue: Loop;
  middle: Point;
}

/** Glue keeps this far inside the edges of its tab. */
const INSET: Mm = 0.5;

/**
 * A tab beyond a ray. Its near end keeps clear of the fold: a point at `t` along the ray and `w` beyond
 * it lies t·sin β − w·cos β from the fold when the tab points into the V.
 * @param from how far from the apex the piece begins
 */
export function rayTab(
  { ray, wing }: Side,
  hand: Hand,
  { length, width, inside, from = 0 }: { length: Mm; width: Mm; inside: boolean; from?: Mm },
): RayTab {
  const along = Math.PI / 2 - hand * wing;
  const at = (t: Mm, w: Mm): Point => polar(polar([0, 0], t, along), w, along - (hand * Math.PI) / 2);
  const nearest = (w: Mm): Mm => {
    const clear = (TAB_CLEARANCE + (inside ? w * Math.cos(ray) : 0)) / Math.sin(ray);
    return Math.min(Math.max(from, clear + (inside ? 0 : w / 2)), length - width / 2 - 1);
  };
  return {
    near: at(nearest(0), 0),
    far: at(length, 0),
    outer: at(length - width / 2, width),
    loop: [at(nearest(0), 0), at(nearest(width), width), at(length - width / 2, width), at(length, 0)],
    glue: [
      at(nearest(0) + 2 * INSET, INSET),
      at(nearest(width) + INSET, width - INSET),
      at(length - width / 2 - INSET, width - INSET),
      at(length - 2 * INSET, INSET),
    ],
    middle: at((nearest(width / 2) + length - width / 4) / 2, width / 2),
  };
}
