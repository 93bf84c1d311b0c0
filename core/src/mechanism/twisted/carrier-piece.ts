import type { Mm } from '../../measure/units.js';
import { rectangle, type Loop } from '../../plane/outline.js';
import { blankPiece, type Fold, type Piece } from '../../sheet/piece.js';
import { TAB_CLEARANCE } from '../../supplies/limits.js';
import { halfWithGlue, LEGS } from './strip-piece.js';
import { glueFrom, glueTo, type Twist } from './twist-sizes.js';

/** Glue keeps this far inside the edges of its half. */
const INSET: Mm = 0.5;
const QUARTERS = ['first', 'second', 'third', 'last'] as const;

/** Ids of the carrier’s quarters, from the lower leg to the upper. */
export const quarterOf = (id: string, which: (typeof QUARTERS)[number]): string => `${id}/${which}-quarter`;

/** The carrier as it lies in the open card, its middle at the origin: folded in quarters, valley, mountain, valley. */
export function carrierPiece(id: string, twist: Twist): Piece {
  const { width: w, carrier } = twist;
  const fold = (name: string, label: string, at: number, way: Fold) => ({
    id: name,
    name: label,
    from: [-w / 2, (at * carrier) / 4] as const,
    to: [w / 2, (at * carrier) / 4] as const,
    fold: way,
    closed: way === 'valley' ? Math.PI : -Math.PI,
    ease: 0,
  });
  return blankPiece({
    id,
    name: 'Carrier',
    stock: 'mechanism',
    faceUp: 'picture up',
    outline: rectangle(-w / 2, -carrier / 2, w, carrier),
    because: 'four quarters: the outer two are glued to the legs, the inner two carry what turns',
    creases: [
      fold('first-fold', 'first fold of the carrier', -1, 'valley'),
      { ...fold('middle-fold', 'middle fold of the carrier', 0, 'mountain'), bends: true },
      fold('last-fold', 'last fold of the carrier', 1, 'valley'),
    ],
    zones: LEGS.map(({ name, dir }) => ({
      id: `${name}-glue`,
      kind: 'glue' as const,
      face: 'down' as const,
      outline: legGlue(twist, name, dir),
      says: `glue to the ${name} leg, on this half only: the rest must come away from it`,
    })),
    anchors: QUARTERS.map((which, i) => ({
      panel: `${which}-quarter`,
      name: `${which} quarter of the carrier`,
      at: [0, ((i - 1.5) * carrier) / 4] as const,
    })),
  });
}

/** On one half of a leg, between its middle fold and its edge, from the carrier’s fold to the shorter end. */
function legGlue(twist: Twist, leg: 'lower' | 'upper', dir: 1 | -1): Loop {
  const { hand } = halfWithGlue(twist, leg);
  const [from, to] = [glueFrom(twist) + TAB_CLEARANCE, glueTo(twist) - INSET];
  const [near, far] = [TAB_CLEARANCE, twist.width / 2 - INSET];
  const [x, y] = [hand > 0 ? near : -far, dir > 0 ? from : -to];
  return rectangle(x, y, far - near, to - from);
}
