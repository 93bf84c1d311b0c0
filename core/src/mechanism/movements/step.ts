import { spoken } from '../../measure/sentence.js';
import type { Mm } from '../../measure/units.js';
import type { Bond } from '../../linkage/structure.js';
import { rectangle } from '../../plane/outline.js';
import type { Point } from '../../plane/point.js';
import { composed, place, type Placement, shifted } from '../../plane/placement.js';
import { blankPiece, type Anchor, type Crease, type Piece } from '../../sheet/piece.js';
import { EDGE_MARGIN, TAB_CLEARANCE } from '../../supplies/limits.js';
import type { Measure, Movement } from '../contract.js';
import { introduced } from '../introductions.js';
import { edgesOf, uprightCrease } from '../drawing/upright.js';
import { mm } from '../measures.js';
import { leastDepth, neitherMeetNorLieFlat, type Edit, type FoldSite, type SiteLeaf } from '../sites.js';
import { num, type FreeSize, type SizeContext, type Sizes } from '../sizes.js';
import { trackedHeight } from '../tracked.js';

/** A narrower or lower step cannot be folded cleanly. */
const LEAST: Mm = 5;
const MOST_STEPS = 6;

const isStrip = (sizes: Sizes): boolean => sizes['cutFrom'] === 'strip';
const countOf = (sizes: Sizes): number => num(sizes, 'count');

/**
 * How far a step of depth b and height h may reach. Between leaves that close on each other its front edge comes to lie
 * b + h from the fold, over the longer leaf; where the closed leaves lie flat it stays in them, b on one and h on the other.
 */
function room(site: FoldSite, strip: boolean, tab: Mm): { depth: Mm; height: Mm; both: Mm } {
  const foot = strip ? tab : 0;
  const [first, second] = site.leaves.map((leaf) => leaf.depth - EDGE_MARGIN - foot);
  const both = site.closedAt > Math.PI / 2 ? first! + second! : Math.max(site.leaves[0].depth, site.leaves[1].depth) - EDGE_MARGIN;
  return { depth: first!, height: second!, both };
}

const roomFor = ({ site, sizes }: SizeContext): ReturnType<typeof room> =>
  room(site!, isStrip(sizes), isStrip(sizes) ? num(sizes, 'tabWidth') : 0);

const preset = ({ site }: SizeContext): Mm => Math.max(LEAST, Math.round(leastDepth(site!) / 4));

const LIMIT = 'its front edge, closed, must stay 3 mm inside the card';

const SIZES: readonly FreeSize[] = [
  {
    name: 'cutFrom',
    label: 'Made of',
    kind: 'choice',
    default: ({ site }) => (site!.oneSheet ? 'sheet' : 'strip'),
    cannotBe: (value, { site }) =>
      value === 'sheet' && !site!.oneSheet
        ? 'the two leaves of this fold are separate pieces, so nothing can be slit across it'
        : undefined,
    help: 'Two slits cut into the leaves themselves, or a strip of its own glued across the fold.',
    options: [
      { value: 'sheet', label: 'the sheet it stands on, slit twice' },
      { value: 'strip', label: 'a strip glued on' },
    ],
  },
  {
    name: 'tabWidth',
    label: 'Tab width',
    kind: 'length',
    default: ({ site }) => Math.max(LEAST, Math.min(10, Math.round(leastDepth(site!) / 5))),
    help: 'Of the two tabs that glue the strip to the leaves.',
    range: ({ site }) => ({
      min: LEAST,
      max: Math.max(LEAST, leastDepth(site!) / 3),
      because: 'a narrower tab peels off, and a wider one leaves the strip no room on its leaf',
    }),
    shown: isStrip,
  },
  {
    name: 'depth',
    label: 'Depth',
    kind: 'length',
    default: (context) => Math.min(preset(context), roomFor(context).depth, roomFor(context).both - LEAST),
    help: 'From the second leaf to the front edge; it begins that far up the first leaf.',
    range: (context) => ({ min: LEAST, max: Math.min(roomFor(context).depth, roomFor(context).both - LEAST), because: LIMIT }),
  },
  {
    name: 'height',
    label: 'Height',
    kind: 'length',
    default: (context) => Math.min(preset(context), roomFor(context).height, roomFor(context).both - num(context.sizes, 'depth')),
    help: 'From the first leaf to the front edge; it ends that far up the second leaf.',
    range: (context) => ({
      min: LEAST,
      max: Math.min(roomFor(context).height, roomFor(context).both - num(context.sizes, 'depth')),
      because: LIMIT,
    }),
  },
  {
    name: 'count',
    label: 'Steps in a row',
    kind: 'count',
    default: 1,
    help: 'Several side by side along the fold, each lower than the next by an even share: stairs.',
    range: ({ site, sizes }) => ({
      min: 1,
      max: Math.max(1, Math.min(MOST_STEPS, Math.floor((site!.length - 2 * EDGE_MARGIN) / LEAST), lowestFits(sizes))),
      because: 'each needs 5 mm of the fold, and the lowest must be 5 mm deep and high',
    }),
  },
  {
    name: 'width',
    label: 'Width',
    kind: 'length',
    default: ({ site, sizes }) => {
      const most = (site!.length - 2 * EDGE_MARGIN) / countOf(sizes);
      return Math.max(LEAST, Math.min(Math.round(site!.length / (2 * countOf(sizes))), most));
    },
    help: 'Along the fold, of one step.',
    range: ({ site, sizes }) => ({
      min: LEAST,
      max: (site!.length - 2 * EDGE_MARGIN) / countOf(sizes),
      because: 'a narrower step tears, and all steps together leave 3 mm of the fold at both ends',
    }),
  },
  {
    name: 'offset',
    label: 'From the lower end of the fold',
    kind: 'length',
    default: ({ site, sizes }) => (site!.length - num(sizes, 'width') * countOf(sizes)) / 2,
    help: 'To the first step.',
    range: ({ site, sizes }) => ({
      min: EDGE_MARGIN,
      max: site!.length - EDGE_MARGIN - num(sizes, 'width') * countOf(sizes),
      because: 'the fold goes on for at least 3 mm at both ends',
    }),
  },
];

const lowestFits = (sizes: Sizes): number => Math.floor(Math.min(num(sizes, 'depth'), num(sizes, 'height')) / LEAST + 1e-9);

/** One box of a row. */
interface Box {
  /** empty for a step by itself, `-2` for the second of a row */
  suffix: string;
  /** “step”, or “second step” */
  called: string;
  depth: Mm;
  height: Mm;
  from: Mm;
  to: Mm;
}

const ORDINALS = ['first', 'second', 'third', 'fourth', 'fifth', 'sixth'];

function boxesOf(sizes: Sizes): Box[] {
  const [depth, height, width, offset] = [num(sizes, 'depth'), num(sizes, 'height'), num(sizes, 'width'), num(sizes, 'offset')];
  const count = countOf(sizes);
  return Array.from({ length: count }, (_, i): Box => {
    const share = (i + 1) / count;
    return {
      suffix: i === 0 ? '' : `-${i + 1}`,
      called: count === 1 ? 'step' : `${ORDINALS[i]} step`,
      depth: depth * share,
      height: height * share,
      from: offset + i * width,
      to: offset + (i + 1) * width,
    };
  });
}

/**
 * A box on a fold: a parallelogram of the two leaves, a back wall parallel to the second leaf and a front wall parallel
 * to the first. It opens with the card and lies flat in it.
 */
export const step: Movement = {
  ...introduced('step'),
  difficulty: 'easy',
  gives: ['something rises', 'carried by a fold', 'carries a movement'],
  needs: ['knife and steel rule'],
  mayGoWrong: ['deeper and higher together than the leaf: it shows past the closed card', 'slits not parallel: the box twists'],
  stands: 'fold',
  usualId: 'step',
  placeSize: 'offset',
  alongSize: 'width',
  cannotStand: (site) => {
    if (site.length < 3 * LEAST + 2 * EDGE_MARGIN) return `the fold is only ${spoken(site.length)} long`;
    if (site.shape === 'ridge') return 'over a ridge a box would close inside out';
    if (room(site, false, 0).depth < LEAST || room(site, false, 0).height < LEAST || room(site, false, 0).both < 2 * LEAST) {
      return `its leaves are only ${spoken(site.leaves[0].depth)} and ${spoken(site.leaves[1].depth)} deep`;
    }
    return neitherMeetNorLieFlat(site);
  },
  sizes: SIZES,
  build({ sizes, id, baseCaliper, mechanismCaliper }, site) {
    const boxes = boxesOf(sizes);
    const strip = isStrip(sizes);
    const tab = strip ? num(sizes, 'tabWidth') : 0;
    const made = boxes.map((box) => (strip ? gluedStep(id, box, site, tab) : slitStep(id, box, site)));
    const caliper = strip ? mechanismCaliper : baseCaliper;
    return {
      pieces: made.flatMap(({ piece }) => piece ?? []),
      edits: made.flatMap(({ edits }) => edits),
      bonds: made.flatMap(({ bonds }) => bonds),
      sites: boxes.flatMap((box, i) => sitesOn(id, box, site, made[i]!.walls, caliper)),
      measures: stepMeasures(boxes, sizes, site, tab),
      tracked: boxes.map(({ suffix, called }, i) =>
        trackedHeight({ id: `${id}-front${suffix}`, label: `Height of the ${called}’s front edge` }, [
          made[i]!.walls.front.panel,
          made[i]!.frontEdge,
        ]),
      ),
    };
  },
};

/** The two walls of a box, as leaves that others may stand on: how the site's plane lies on each. */
interface Walls {
  /** parallel to the second leaf */
  back: Pick<SiteLeaf, 'panel' | 'frame' | 'face'>;
  /** parallel to the first leaf */
  front: Pick<SiteLeaf, 'panel' | 'frame' | 'face'>;
  /** whether leaves and walls are one sheet */
  oneSheet: boolean;
}

interface MadeStep {
  piece?: Piece;
  edits: Edit[];
  bonds: Bond[];
  walls: Walls;
  /** the middle of its front edge, on the front wall's piece */
  frontEdge: Point;
}

/** Slits and folds in the leaves themselves. Flat, the box lies from −depth to +height across the fold. */
function slitStep(id: string, { suffix, called, depth, height, from, to }: Box, site: FoldSite): MadeStep {
  const [low, edge, high] = [-depth, height - depth, height];
  const line = (name: string, x: Mm, fold: Crease['fold'], closed: number, size?: 'depth' | 'height', perMm = 1): Crease =>
    uprightCrease(`${id}${suffix}-${name}`, NAMES[name as FoldName](called), x, [from, to], fold, closed, size && { size, perMm });
  const closedFlat = site.closedAt > Math.PI / 2;
  const anchor = (panel: string, name: string, x: Mm): Anchor => ({
    panel: `${id}${suffix}-${panel}`,
    name: `${name} of the ${called}`,
    at: [x, from + CORNER],
  });
  const edits: Edit[] = [
    {
      leaf: 1,
      region: rectangle(low, from, high - low, to - from),
      cuts: [
        { id: `${id}${suffix}-lower-slit`, from: [low, from], to: [high, from] },
        { id: `${id}${suffix}-upper-slit`, from: [low, to], to: [high, to] },
      ],
      creases: [
        line('back-fold', low, 'valley', closedFlat ? 0 : Math.PI, 'depth', -1),
        line('front-edge', edge, 'mountain', closedFlat ? 0 : -Math.PI),
        line('foot-fold', high, 'valley', closedFlat ? 0 : Math.PI, 'height'),
      ],
      anchors: [anchor('back', 'top', low + CORNER), anchor('front', 'front', high - CORNER)],
    },
  ];
  const { frame, face, panel } = site.leaves[1];
  const piece = panel.slice(0, panel.indexOf('/'));
  const wall = (name: string) => ({ panel: `${piece}/${id}${suffix}-${name}`, frame, face });
  return {
    edits,
    bonds: [],
    walls: { back: wall('back'), front: wall('front'), oneSheet: true },
    frontEdge: place([edge, (from + to) / 2], frame),
  };
}

/** An anchor just inside a corner: whatever stands on the box keeps farther from its folds' ends. */
const CORNER: Mm = 1;

type FoldName = 'back-fold' | 'front-edge' | 'foot-fold';
const NAMES: Record<FoldName, (called: string) => string> = {
  'back-fold': (called) => `back fold of the ${called}`,
  'front-edge': (called) => `front edge of the ${called}`,
  'foot-fold': (called) => `foot fold of the ${called}`,
};

/** A strip of tab, wall, wall and tab. Flat it lies on the flat leaves, tab on leaf at both ends. */
function gluedStep(id: string, { suffix, called, depth, height, from, to }: Box, site: FoldSite, tab: Mm): MadeStep {
  const own = `${id}${suffix}`;
  const width = to - from;
  const x = edgesOf([tab, height, depth, tab]);
  const closedFlat = site.closedAt > Math.PI / 2;
  const line = (name: FoldName, at: Mm, fold: Crease['fold'], closed: number): Crease =>
    uprightCrease(name, NAMES[name](called), at, [0, width], fold, closedFlat ? 0 : closed);
  const glue = (at: Mm) => rectangle(at, GLUE_INSET, tab - TAB_CLEARANCE - GLUE_INSET, width - 2 * GLUE_INSET);
  const piece = blankPiece({
    id: own,
    name: called === 'step' ? 'Step' : `Stair, ${called}`,
    stock: 'mechanism',
    faceUp: 'front up',
    outline: rectangle(0, 0, x[4]!, width),
    because: 'height and depth one after the other, and a tab at either end',
    creases: [
      line('back-fold', x[1]!, 'valley', Math.PI),
      line('front-edge', x[2]!, 'mountain', -Math.PI),
      line('foot-fold', x[3]!, 'valley', Math.PI),
    ],
    zones: [
      {
        id: 'back-glue',
        kind: 'glue',
        face: 'down',
        outline: glue(GLUE_INSET),
        says: `glue to the ${site.leaves[0].name}, the fold on its line`,
      },
      {
        id: 'foot-glue',
        kind: 'glue',
        face: 'down',
        outline: glue(x[3]! + TAB_CLEARANCE),
        says: `glue to the ${site.leaves[1].name}, the fold on its line`,
      },
    ],
    anchors: [
      { panel: 'back-tab', name: `back tab of the ${called}`, at: [tab / 2, CORNER] },
      { panel: 'back', name: `top of the ${called}`, at: [x[1]! + CORNER, CORNER] },
      { panel: 'front', name: `front of the ${called}`, at: [x[3]! - CORNER, CORNER] },
      { panel: 'foot-tab', name: `foot tab of the ${called}`, at: [x[3]! + tab / 2, CORNER] },
    ],
  });
  // Where the site's plane lies on the strip, and the strip in the site's plane: the strip begins a tab before the back fold.
  const inSite: Placement = shifted([-depth - tab, from]);
  const onStrip: Placement = shifted([depth + tab, -from]);
  const bond = (end: 'back' | 'foot', leaf: SiteLeaf): Bond => ({
    id: `${own}/${end}-bond`,
    name: `${end} tab of the ${called} on the ${leaf.name}`,
    panel: `${own}/${end}-tab`,
    face: 'down',
    partner: leaf.panel,
    partnerFace: leaf.face,
    zone: `${end}-glue`,
    placement: composed(leaf.frame, inSite),
  });
  const mark = (end: string, at: Mm): NonNullable<Edit['marks']>[number] => ({
    id: `${own}-${end}`,
    from: [at, from],
    to: [at, to],
    says: `the ${end} fold of the ${called} lies here`,
  });
  const wall = (name: string) => ({ panel: `${own}/${name}`, frame: onStrip, face: 'up' as const });
  return {
    piece,
    edits: [
      { leaf: 0, marks: [mark('back', -depth)] },
      { leaf: 1, marks: [mark('foot', height)] },
    ],
    bonds: [bond('back', site.leaves[0]), bond('foot', site.leaves[1])],
    walls: { back: wall('back'), front: wall('front'), oneSheet: false },
    frontEdge: [x[2]!, width / 2],
  };
}

const GLUE_INSET: Mm = 0.5;

/** The three folds of a box that others may stand on. */
function sitesOn(id: string, box: Box, site: FoldSite, walls: Walls, caliper: Mm): FoldSite[] {
  const { suffix, called, depth, height, from, to } = box;
  const [first, second] = site.leaves;
  const named = `${id}${suffix}`;
  const at = (x: Mm): Placement => shifted([x, from]);
  const leaf = (own: Pick<SiteLeaf, 'panel' | 'frame' | 'face'>, name: string, x: Mm, deep: Mm): SiteLeaf => ({
    ...own,
    name,
    frame: composed(own.frame, at(x)),
    depth: deep,
    caliper,
  });
  const host = (own: SiteLeaf, x: Mm): SiteLeaf => ({ ...own, frame: composed(own.frame, at(x)), depth: own.depth - Math.abs(x) });
  const fold = (name: FoldName, leaves: [SiteLeaf, SiteLeaf], shape: FoldSite['shape'], oneSheet: boolean): FoldSite => ({
    kind: 'fold',
    id: `${suffix.slice(1)}${suffix && '-'}${name}`,
    name: NAMES[name](called),
    part: id,
    hinge: walls.oneSheet ? `${walls.back.panel.slice(0, walls.back.panel.indexOf('/'))}/${named}-${name}` : `${named}/${name}`,
    leaves,
    length: to - from,
    shape,
    closedAt: site.closedAt,
    opensTo: site.opensTo,
    oneSheet,
  });
  const [top, front] = [`top of the ${called}`, `front of the ${called}`];
  return [
    fold('back-fold', [host(first, -depth), leaf(walls.back, top, -depth, height)], 'valley', walls.oneSheet),
    fold('foot-fold', [leaf(walls.front, front, height, depth), host(second, height)], 'valley', walls.oneSheet),
    fold('front-edge', [leaf(walls.back, top, height - depth, height), leaf(walls.front, front, height - depth, depth)], 'ridge', true),
  ];
}

function stepMeasures(boxes: readonly Box[], sizes: Sizes, site: FoldSite, tab: Mm): Measure[] {
  const [depth, height] = [num(sizes, 'depth'), num(sizes, 'height')];
  const slits =
    tab > 0
      ? []
      : [mm('slitLength', 'Length of the slits', depth + height, 'depth and height together: flat, the box lies across the fold')];
  const own = [
    mm(
      'closedReach',
      'Front edge from the fold, closed',
      depth + height,
      `depth and height together; it must stay inside the card, ${spoken(Math.max(site.leaves[0].depth, site.leaves[1].depth))} deep`,
    ),
    mm('backFold', 'Back fold up the first leaf', depth, 'the depth: the front wall is parallel to this leaf and as long'),
    mm('frontEdge', 'Front edge from the fold, flat', height - depth, 'height less depth, toward the second leaf where it is more'),
    mm('footFold', 'Foot fold up the second leaf', height, 'the height: the top is parallel to this leaf and as long'),
  ];
  const strip = tab > 0 ? [mm('stripLength', 'Strip', depth + height + 2 * tab, 'depth, height and both tabs')] : [];
  const stairs =
    boxes.length > 1
      ? [
          mm('stepDepth', 'Each step deeper by', depth / boxes.length, 'the depth shared evenly'),
          mm('stepHeight', 'Each step higher by', height / boxes.length, 'the height shared evenly'),
        ]
      : [];
  return [...slits, ...own, ...strip, ...stairs];
}
