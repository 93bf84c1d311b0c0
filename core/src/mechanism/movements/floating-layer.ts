import { spoken } from '../../measure/sentence.js';
import type { Mm } from '../../measure/units.js';
import type { Bond } from '../../linkage/structure.js';
import { rectangle } from '../../plane/outline.js';
import { composed, type Placement, shifted } from '../../plane/placement.js';
import { blankPiece, type Crease, type Face, type Piece } from '../../sheet/piece.js';
import { EDGE_MARGIN, TAB_CLEARANCE } from '../../supplies/limits.js';
import type { Measure, Movement } from '../contract.js';
import { introduced } from '../introductions.js';
import { LAYER_SIZES, LEAST_TAB_WIDTH, LEAST_WIDTH, mostTab, tabOf } from '../floated/floating-layer-sizes.js';
import { edgesOf, uprightCrease } from '../drawing/upright.js';
import { mm } from '../measures.js';
import { neitherMeetNorLieFlat, type Edit, type FoldSite, type SiteLeaf } from '../sites.js';
import { num, type Sizes } from '../sizes.js';
import { trackedHeight } from '../tracked.js';

/** Glue keeps this far inside the edges of its tab. */
const GLUE_INSET: Mm = 0.5;
/** All sizes of a layer. */
interface Layer {
  tab: Mm;
  lift: Mm;
  height: Mm;
  width: Mm;
  /** its ends along the fold */
  from: Mm;
  to: Mm;
  supportWidth: Mm;
  /** from each side of the layer to the supports */
  inset: Mm;
}

function layerOf(sizes: Sizes): Layer {
  const [width, from, supportWidth] = [num(sizes, 'width'), num(sizes, 'offset'), num(sizes, 'supportWidth')];
  const [tab, lift, height] = [tabOf(sizes), num(sizes, 'lift'), num(sizes, 'height')];
  return { tab, lift, height, width, from, to: from + width, supportWidth, inset: (width - supportWidth) / 2 };
}

/** A support: both are alike but for where they stand. */
interface Support {
  end: 'lower' | 'upper';
  /** how far up the first leaf its foot fold lies, and up the layer its head fold */
  at: Mm;
}

const supportsOf = (sizes: Sizes): Support[] => [
  { end: 'lower', at: num(sizes, 'lowerSupport') },
  { end: 'upper', at: num(sizes, 'upperSupport') },
];

/**
 * A panel parallel to the first leaf. Its foot is glued to the second leaf at the lift, two equal supports stand between
 * it and the first leaf: three sides of a parallelogram that stay parallel to the second leaf, whatever the opening.
 */
export const floatingLayer: Movement = {
  ...introduced('floating-layer'),
  difficulty: 'medium',
  gives: ['something floats', 'carried by a fold', 'carries a movement'],
  needs: ['card for a picture', 'light card', 'strong glue or tape'],
  mayGoWrong: [
    'higher and farther in front together than the leaf is deep: it shows past the closed card',
    'supports of different lengths, or not parallel to the fold: the layer bulges and does not close flat',
  ],
  stands: 'fold',
  usualId: 'layer',
  placeSize: 'offset',
  alongSize: 'width',
  cannotStand: (site) => {
    if (site.length < LEAST_WIDTH + 2 * EDGE_MARGIN) return `the fold is only ${spoken(site.length)} long`;
    if (site.shape === 'ridge') return 'over a ridge its supports would close inside out';
    if (mostTab(site) < LEAST_TAB_WIDTH) {
      return `its leaves are only ${spoken(site.leaves[0].depth)} and ${spoken(site.leaves[1].depth)} deep`;
    }
    return neitherMeetNorLieFlat(site);
  },
  sizes: LAYER_SIZES,
  build({ sizes, id, displayCaliper }, site) {
    const layer = layerOf(sizes);
    const supports = supportsOf(sizes);
    const panel = layerPiece(id, layer, supports, site);
    return {
      pieces: [panel, ...supports.map((support) => supportPiece(id, layer, support, site))],
      edits: marksOn(id, layer, supports),
      bonds: [...supports.flatMap((support) => supportBonds(id, layer, support, site)), footBond(id, layer, site)],
      sites: [footFold(id, layer, site, displayCaliper)],
      measures: measuresOf(layer, supports),
      tracked: [
        trackedHeight({ id: `${id}-edge`, label: 'Height of the layer’s upper edge' }, [
          `${id}/layer`,
          [layer.tab + layer.height, layer.width / 2],
        ]),
      ],
    };
  },
};

/** A fold angle in the closed card: none between leaves that close on each other, all the way where they lie flat. */
const closedAngle = (site: FoldSite, fold: Crease['fold']): number =>
  site.closedAt > Math.PI / 2 ? (fold === 'valley' ? Math.PI : -Math.PI) : 0;

/** The layer, its picture up: a tab, and the panel beyond it. */
function layerPiece(id: string, { tab, height, width, inset, supportWidth }: Layer, supports: readonly Support[], site: FoldSite): Piece {
  const outline = rectangle(0, 0, tab + height, width);
  return blankPiece({
    id,
    name: 'Layer',
    stock: 'display',
    faceUp: 'picture up',
    outline,
    because: 'the height, and a tab that is folded behind it',
    creases: [uprightCrease('foot-fold', 'foot fold of the layer', tab, [0, width], 'mountain', closedAngle(site, 'mountain'))],
    zones: [
      {
        id: 'foot-glue',
        kind: 'glue',
        face: 'up',
        outline: glued(0, tab, width),
        says: `glue to the ${site.leaves[1].name}, the fold on its line and the tab toward the ${site.name}`,
      },
    ],
    marks: supports.map(({ end, at }) => ({
      id: `${end}-head`,
      from: [tab + at, inset],
      to: [tab + at, inset + supportWidth],
      face: 'down',
      says: `the head fold of the ${end} support lies here, its tab toward the upper edge`,
    })),
    anchors: [
      { panel: 'foot-tab', name: 'foot tab of the layer', at: [tab / 2, width / 2] },
      { panel: 'layer', name: 'layer', at: [tab + height / 2, width / 2] },
    ],
  });
}

/** A strip folded to a Z: foot tab, wall, head tab. It lies as its upper face looks toward the layer. */
function supportPiece(id: string, { tab, lift, supportWidth }: Layer, { end }: Support, site: FoldSite): Piece {
  const x = edgesOf([tab, lift, tab]);
  return blankPiece({
    id: supportId(id, end),
    name: end === 'lower' ? 'Lower support' : 'Upper support',
    stock: 'mechanism',
    faceUp: 'side toward the layer up',
    outline: rectangle(0, 0, x[3]!, supportWidth),
    because: 'the lift, and a tab at either end',
    creases: [
      uprightCrease('foot-fold', `foot fold of the ${end} support`, x[1]!, [0, supportWidth], 'valley', closedAngle(site, 'valley')),
      uprightCrease('head-fold', `head fold of the ${end} support`, x[2]!, [0, supportWidth], 'mountain', closedAngle(site, 'mountain')),
    ],
    zones: [
      {
        id: 'foot-glue',
        kind: 'glue',
        face: 'down',
        outline: glued(0, tab, supportWidth),
        says: `glue to the ${site.leaves[0].name}, the fold on its line and the tab toward the ${site.name}`,
      },
      {
        id: 'head-glue',
        kind: 'glue',
        face: 'up',
        outline: glued(tab + lift, tab, supportWidth, true),
        says: 'glue to the back of the layer, the fold on its line',
      },
    ],
    anchors: [
      { panel: 'foot-tab', name: `foot tab of the ${end} support`, at: [tab / 2, supportWidth / 2] },
      { panel: 'wall', name: `wall of the ${end} support`, at: [tab + lift / 2, supportWidth / 2] },
      { panel: 'head-tab', name: `head tab of the ${end} support`, at: [tab + lift + tab / 2, supportWidth / 2] },
    ],
  });
}

const supportId = (id: string, end: Support['end']): string => `${id}-${end}`;

/** Glue on a tab that begins at x, clear of its fold: the far one, or the near one of a tab at a strip's other end. */
const glued = (x: Mm, tab: Mm, width: Mm, foldFirst = false) =>
  rectangle(x + (foldFirst ? TAB_CLEARANCE : GLUE_INSET), GLUE_INSET, tab - TAB_CLEARANCE - GLUE_INSET, width - 2 * GLUE_INSET);

/** Where feet and foot tab are glued, in the site's axes. */
const marksOn = (id: string, { lift, from, to, inset }: Layer, supports: readonly Support[]): Edit[] => [
  {
    leaf: 0,
    marks: supports.map(({ end, at }) => ({
      id: `${supportId(id, end)}-foot`,
      from: [-at, from + inset],
      to: [-at, to - inset],
      says: `the foot fold of the ${end} support lies here`,
    })),
  },
  { leaf: 1, marks: [{ id: `${id}-foot`, from: [lift, from], to: [lift, to], says: 'the foot fold of the layer lies here' }] },
];

/** Laid in the site's plane face over, its foot tab between the fold and the line at the lift. */
const layerInSite = ({ tab, lift, to }: Layer): Placement => ({ to: [lift - tab, to], turn: Math.PI, flipped: true });
/** A support points up the first leaf. */
const supportInSite = ({ tab, to, inset }: Layer, { at }: Support): Placement => ({
  to: [tab - at, to - inset],
  turn: Math.PI,
  flipped: false,
});

const footBond = (id: string, layer: Layer, site: FoldSite): Bond => ({
  id: `${id}/foot-bond`,
  name: `foot tab of the layer on the ${site.leaves[1].name}`,
  panel: `${id}/foot-tab`,
  face: 'up',
  partner: site.leaves[1].panel,
  partnerFace: site.leaves[1].face,
  zone: 'foot-glue',
  placement: composed(site.leaves[1].frame, layerInSite(layer)),
});

/** Its head on the layer's back, its foot on the first leaf. */
function supportBonds(id: string, layer: Layer, support: Support, site: FoldSite): Bond[] {
  const own = supportId(id, support.end);
  const [leaf] = site.leaves;
  return [
    {
      id: `${own}/head-bond`,
      name: `head tab of the ${support.end} support on the layer`,
      panel: `${own}/head-tab`,
      face: 'up',
      partner: `${id}/layer`,
      partnerFace: 'down',
      zone: 'head-glue',
      // Closed, the strip lies straight under the layer: its head fold, a tab and the lift along it, on the layer's line.
      placement: shifted([support.at - layer.lift, layer.inset]),
    },
    {
      id: `${own}/foot-bond`,
      name: `foot tab of the ${support.end} support on the ${leaf.name}`,
      panel: `${own}/foot-tab`,
      face: 'down',
      partner: leaf.panel,
      partnerFace: leaf.face,
      zone: 'foot-glue',
      placement: composed(leaf.frame, supportInSite(layer, support)),
    },
  ];
}

/** Between the layer and the second leaf: the next floor of a tower, or a figure before the layer, stands there. */
function footFold(id: string, { tab, lift, height, width, from, to }: Layer, site: FoldSite, caliper: Mm): FoldSite {
  const second = site.leaves[1];
  const face: Face = 'up';
  const picture: SiteLeaf = {
    panel: `${id}/layer`,
    name: 'layer',
    face,
    // From the fold up the layer x is negative; its picture is seen from the front.
    frame: { to: [tab, width], turn: Math.PI, flipped: false },
    depth: height,
    caliper,
  };
  const host: SiteLeaf = { ...second, frame: composed(second.frame, shifted([lift, from])), depth: second.depth - lift };
  return {
    kind: 'fold',
    id: 'foot-fold',
    name: 'foot fold of the layer',
    part: id,
    hinge: `${id}/foot-fold`,
    leaves: [picture, host],
    length: to - from,
    shape: 'valley',
    closedAt: site.closedAt,
    opensTo: site.opensTo,
    oneSheet: false,
  };
}

function measuresOf({ tab, lift, height }: Layer, supports: readonly Support[]): Measure[] {
  return [
    mm(
      'closedReach',
      'Upper edge from the fold, closed',
      lift + height,
      'lift and height together: closing moves the layer on by the lift',
    ),
    mm('footLine', 'Foot of the layer up the second leaf', lift, 'the lift: the supports are parallel to this leaf and as long'),
    ...supports.map(({ end, at }) =>
      mm(
        `${end}Line`,
        `Foot of the ${end} support up the first leaf`,
        at,
        'as far as it holds the layer above its foot: the layer is parallel',
      ),
    ),
    mm('supportLength', 'Each support', lift + 2 * tab, 'the lift and both tabs'),
    mm('layerBlank', 'Layer before folding', height + tab, 'the height and its tab'),
  ];
}
