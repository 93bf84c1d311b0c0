import type { Mm } from '../../measure/units.js';
import { rectangle, type Loop } from '../../plane/outline.js';
import type { Point } from '../../plane/point.js';
import { blankPiece, type Crease, type Mark, type Piece } from '../../sheet/piece.js';
import { TAB_CLEARANCE } from '../../supplies/limits.js';
import type { FoldSite } from '../sites.js';
import type { Twist } from './twist-sizes.js';

/** The strip’s triangles lie on the leaves of these numbers, its legs point down and up the fold. */
export const SIDES = [
  { leaf: 0, hand: -1, name: 'first' },
  { leaf: 1, hand: 1, name: 'second' },
] as const;
export const LEGS = [
  { name: 'lower', dir: -1 },
  { name: 'upper', dir: 1 },
] as const;

/** The half of a leg that carries an end of the carrier: across from each other, or by mistake on one side. */
export const halfWithGlue = ({ opposite }: Pick<Twist, 'opposite'>, leg: 'lower' | 'upper'): (typeof SIDES)[number] =>
  leg === 'lower' || !opposite ? SIDES[0] : SIDES[1];

/**
 * The strip, seen as it lies in the open card: its middle at the origin, its length along the fold. In the square two
 * diagonals are valleys, along the legs the middle line is a mountain.
 */
export function stripPiece(id: string, twist: Twist, site: FoldSite): Piece {
  const { width: w, strip, carrier } = twist;
  const half = w / 2;
  const crease = (own: Pick<Crease, 'id' | 'name' | 'to' | 'fold'>): Crease => ({
    ...own,
    from: [0, 0],
    closed: own.fold === 'valley' ? Math.PI : -Math.PI,
    ease: 0,
  });
  return blankPiece({
    id,
    name: 'Strip',
    stock: 'mechanism',
    faceUp: 'side toward the carrier up',
    outline: rectangle(-half, -strip / 2, w, strip),
    because: 'two legs, and a square between them whose triangles are glued to the leaves',
    creases: [
      ...LEGS.map(({ name, dir }) =>
        crease({ id: `${name}-middle`, name: `middle fold of the ${name} leg`, to: [0, (dir * strip) / 2], fold: 'mountain' }),
      ),
      ...LEGS.flatMap(({ name, dir }) =>
        SIDES.map(({ name: side, hand, leaf }) =>
          crease({
            id: `${name}-${side}-diagonal`,
            name: `diagonal between the ${name} leg and the ${site.leaves[leaf].name}`,
            to: [hand * half, dir * half],
            fold: 'valley',
          }),
        ),
      ),
    ],
    zones: SIDES.map(({ name, hand, leaf }) => ({
      id: `${name}-glue`,
      kind: 'glue' as const,
      face: 'down' as const,
      outline: triangleGlue(hand, half),
      says: `glue to the ${site.leaves[leaf].name}, its point on the fold`,
    })),
    marks: LEGS.map(({ name, dir }) => carrierMark(twist, name, (dir * carrier) / 4)),
    anchors: [
      ...SIDES.map(({ name, hand, leaf }) => ({
        panel: `${name}-triangle`,
        name: `triangle on the ${site.leaves[leaf].name}`,
        at: [(hand * half * 2) / 3, 0] as Point,
      })),
      ...LEGS.flatMap(({ name, dir }) =>
        SIDES.map(({ name: side, hand, leaf }) => ({
          panel: `${name}-${side}-half`,
          name: `half of the ${name} leg by the ${site.leaves[leaf].name}`,
          at: [hand * half * 0.5, dir * (half + (strip / 2 - half) / 2)] as Point,
        })),
      ),
    ],
  });
}

/** Inside a triangle with its point at the origin, clear of both diagonals. */
function triangleGlue(hand: 1 | -1, half: Mm): Loop {
  const from = TAB_CLEARANCE * Math.SQRT2;
  const to = half - TAB_CLEARANCE / 2;
  const corner = to - from;
  return [
    [hand * from, 0],
    [hand * to, -corner],
    [hand * to, corner],
  ];
}

/** Where a fold of the carrier lies on a leg, over the half that is glued: that half only. */
function carrierMark(twist: Twist, leg: 'lower' | 'upper', y: Mm): Mark {
  const { hand } = halfWithGlue(twist, leg);
  return {
    id: `${leg}-fold-line`,
    from: [0, y],
    to: [(hand * twist.width) / 2, y],
    says: `the carrier’s ${leg === 'lower' ? 'first' : 'last'} fold lies here; glue beyond it, on this half of the leg only`,
  };
}
