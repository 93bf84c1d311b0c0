import { bends } from '../../claim/claims.js';
import { printAngle } from '../../measure/print.js';
import { spoken } from '../../measure/sentence.js';
import { toRadians, type Radians } from '../../measure/units.js';
import type { Bond } from '../../linkage/structure.js';
import { composed, place, shifted, UNMOVED } from '../../plane/placement.js';
import type { Point } from '../../plane/point.js';
import type { Movement } from '../contract.js';
import { introduced } from '../introductions.js';
import { leastDepth, type Edit, type FoldSite } from '../sites.js';
import { trackedAngle, trackedHeight } from '../tracked.js';
import { carrierPiece, quarterOf } from '../twisted/carrier-piece.js';
import { halfWithGlue, LEGS, SIDES, stripPiece } from '../twisted/strip-piece.js';
import { twistMeasures } from '../twisted/twist-measures.js';
import { LEAST_LEG_GLUE, LEAST_TWIST_WIDTH, TWIST_FROM_SHEET, TWIST_SIZES, twistOf, type Twist } from '../twisted/twist-sizes.js';

/** Leaves that lie this close together when the card is closed meet, and that near to half a turn they lie flat open. */
const CLOSED_ENOUGH: Radians = toRadians(1);

/**
 * A strip on the fold turns its two legs up as the card opens, like two V-folds with a common point. The carrier’s ends
 * ride on opposite halves of the legs: closed it is an accordion between them, open it lies flat, turned by a quarter.
 * Legs move as stiff panels do; the two middle quarters bend on the way, which is worked out by itself.
 */
export const twistCarrier: Movement = {
  ...introduced('twist-carrier'),
  difficulty: 'hard',
  gives: ['something turns', 'carried by a fold', 'carries a picture'],
  needs: ['light card', 'strong glue or tape'],
  mayGoWrong: [
    'both ends of the carrier glued on the same side: open it lies well, and it does not close',
    'glue on a whole leg: it cannot fold along its middle',
    'stiff card: the carrier creases where it should only bend',
  ],
  stands: 'fold',
  usualId: 'twist',
  placeSize: 'middle',
  alongSize: 'width',
  cannotStand: (site) => {
    if (site.shape === 'ridge') return 'over a ridge its legs would close inside out';
    if (site.closedAt > CLOSED_ENOUGH) return `closed, its leaves lie at ${printAngle(site.closedAt)} to each other`;
    if (site.opensTo < Math.PI - CLOSED_ENOUGH) {
      return `it opens to ${printAngle(site.opensTo)} only, and the carrier comes to rest where the leaves lie flat open`;
    }
    if (site.length < LEAST_TWIST_WIDTH) return `the fold is only ${spoken(site.length)} long`;
    const depth = leastDepth(site);
    return depth < LEAST_TWIST_WIDTH / 2 + LEAST_LEG_GLUE || depth < 2 * LEAST_LEG_GLUE
      ? `a leaf only ${spoken(depth)} deep has no room for its legs`
      : undefined;
  },
  sizes: TWIST_SIZES,
  usesUp: TWIST_FROM_SHEET,
  build({ sizes, id }, site) {
    const twist = twistOf(sizes);
    const [strip, carrier] = [`${id}-strip`, `${id}-carrier`];
    return {
      pieces: [stripPiece(strip, twist, site), carrierPiece(carrier, twist)],
      edits: edgesOn(id, twist),
      bonds: [...trianglesOnLeaves(strip, twist, site), ...carrierOnLegs(strip, carrier, twist, site)],
      // The middle quarters bend: where only their folds are needed, they are taken to fold as their legs do.
      couplings: LEGS.map(({ name }) => ({
        id: `${id}/${name}-quarters`,
        terms: [
          { hinge: `${carrier}/${name === 'lower' ? 'first' : 'last'}-fold`, factor: 1 },
          { hinge: `${strip}/${name}-middle`, factor: 1 },
        ],
        constant: 0,
      })),
      claims: [
        bends({
          id: `${id}/bend`,
          name: 'the middle of the carrier',
          panels: [quarterOf(carrier, 'second'), quarterOf(carrier, 'third')],
          held: [quarterOf(carrier, 'first'), quarterOf(carrier, 'last')],
          folds: ['first', 'middle', 'last'].map((fold) => `${carrier}/${fold}-fold`),
          before: site.leaves.map(({ panel, face }) => ({ panel, face })),
          ...(!twist.opposite && {
            mend: { size: 'secondHalf', value: 'opposite', says: 'Glue the carrier’s last quarter across from the first.' },
          }),
        }),
      ],
      measures: twistMeasures(twist, site),
      tracked: [
        trackedAngle(
          { id: `${id}-leg-tilt`, label: 'Legs from the fold' },
          [`${strip}/upper-second-half`, [0, 1]],
          [site.leaves[1].panel, alongOn(site)],
        ),
        trackedHeight({ id: `${id}-leg-end`, label: 'Height of a leg’s end' }, [`${strip}/upper-second-half`, [0, twist.strip / 2]]),
      ],
      words: {
        settingUp: [
          'To close it, lift the carrier’s middle fold toward you until it stands as a ridge, let the quarters fold between the legs, and close the card behind them; pressed shut from flat it would crease.',
        ],
      },
    };
  },
};

/** Up the fold, as a direction of the second leaf’s piece. */
function alongOn({ leaves }: FoldSite): Point {
  const { frame } = leaves[1];
  const [from, to] = [place([0, 0], frame), place([0, 1], frame)];
  return [to[0] - from[0], to[1] - from[1]];
}

/** On either leaf the line where the edge of the strip’s square lies. */
const edgesOn = (id: string, { width, middle }: Twist): Edit[] =>
  SIDES.map(({ leaf, hand, name }) => ({
    leaf,
    marks: [
      {
        id: `${id}-${name}-edge`,
        from: [(hand * width) / 2, middle - width / 2] as const,
        to: [(hand * width) / 2, middle + width / 2] as const,
        says: 'the edge of the strip lies here, the ends of this line at its diagonals',
      },
    ],
  }));

const trianglesOnLeaves = (strip: string, { middle }: Twist, site: FoldSite): Bond[] =>
  SIDES.map(({ leaf, name }) => ({
    id: `${strip}/${name}-bond`,
    name: `triangle of the strip on the ${site.leaves[leaf].name}`,
    panel: `${strip}/${name}-triangle`,
    face: 'down',
    partner: site.leaves[leaf].panel,
    partnerFace: site.leaves[leaf].face,
    zone: `${name}-glue`,
    placement: composed(site.leaves[leaf].frame, shifted([0, middle])),
    flat: true,
    atOnce: 'both triangles of the strip, its middle on the fold',
  }));

const carrierOnLegs = (strip: string, carrier: string, twist: Twist, site: FoldSite): Bond[] =>
  LEGS.map(({ name }) => {
    const { name: side, leaf } = halfWithGlue(twist, name);
    const which = name === 'lower' ? ('first' as const) : ('last' as const);
    return {
      id: `${carrier}/${name}-bond`,
      name: `${which} quarter of the carrier on the ${name} leg`,
      panel: quarterOf(carrier, which),
      face: 'down',
      partner: `${strip}/${name}-${side}-half`,
      partnerFace: 'up',
      zone: `${name}-glue`,
      placement: UNMOVED,
      flat: true,
      says: [`Glue only the half of the leg by the ${site.leaves[leaf].name}; the other half must come away from the carrier.`],
    };
  });
