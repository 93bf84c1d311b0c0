import { shifted } from '../../plane/placement.js';
import type { Mm, Radians } from '../../measure/units.js';
import { rectangle } from '../../plane/outline.js';
import { blankPiece, type Piece } from '../../sheet/piece.js';
import type { Bond } from '../../linkage/structure.js';

/** A lip narrower than this catches nothing, and cannot be glued down to a line. */
export const LEAST_LIP: Mm = 0.5;

/** A foot that leans under a rim: its lean from the table, and its thickness. */
export interface RimFoot {
  lean: Radians;
  thickness: Mm;
}

/**
 * How far a rim raised by `height` may reach over a foot that stands against what raises it, before it touches the
 * leaning panel: the foot’s upper corner stands thickness · cos(lean) above the board, and from there the front
 * face rises with the lean, so that at the rim’s height it has gone back by the rest ÷ tan(lean).
 */
export function lipRoom({ lean, thickness }: RimFoot, height: Mm): Mm {
  return (height - thickness * Math.cos(lean)) / Math.tan(lean);
}

/** The height at which a rim has room for the least lip; the same triangle the other way round. */
export function leastRimHeight({ lean, thickness }: RimFoot): Mm {
  return thickness * Math.cos(lean) + LEAST_LIP * Math.tan(lean);
}

/** A strip on top of a stop that reaches back over the foot, which catches under it. */
export function raisedRim(
  { of, index }: { of: Piece; index: number },
  { width, length, lip }: { width: Mm; length: Mm; lip: Mm },
): { piece: Piece; bond: Bond } {
  const id = `rim-${index}`;
  const glue = rectangle(lip + 0.5, 0.5, width - 1, length - 1);
  const piece = blankPiece({
    id,
    name: `Rim ${index}`,
    stock: 'base',
    faceUp: 'either face up',
    outline: rectangle(0, 0, width + lip, length),
    because: 'the stop strip’s own width, and the lip that reaches over the foot',
    zones: [{ id: 'rim-glue', kind: 'glue', face: 'down', outline: glue, says: 'glue to the stop only; the lip stays free' }],
    anchors: [{ panel: 'rim', name: `rim ${index}`, at: [lip + width / 2, length / 2] }],
  });
  const bond: Bond = {
    id: `${id}-on-stop`,
    name: `rim ${index} on its stop`,
    panel: `${id}/rim`,
    face: 'down',
    partner: `${of.id}/stop`,
    partnerFace: 'up',
    zone: 'rim-glue',
    placement: shifted([-lip, 0]),
  };
  return { piece, bond };
}
