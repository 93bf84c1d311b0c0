import { shifted } from '../../plane/placement.js';
import { rectangle } from '../../plane/outline.js';
import { blankPiece, type Piece } from '../../sheet/piece.js';
import { TAB_CLEARANCE } from '../../supplies/limits.js';
import { toRadians } from '../../measure/units.js';
import type { Bond } from '../../linkage/structure.js';
import type { Base, BuildContext, Measure } from '../contract.js';
import { introduced } from '../introductions.js';
import { depthSize, FOLD_EDGE, INNER_FROM, INNER_THICKNESS, lengthSize, SPINE_SIZE, STRAIGHT } from '../common-sizes.js';
import { innerLayersOf } from '../inner-layer.js';
import { num } from '../sizes.js';
import { panelStrip, type StripFold } from '../drawing/panel-strip.js';
import { mm } from '../measures.js';
import { linerAllowance } from '../../sheet/liner-allowance.js';
import { meeting, closing } from '../../claim/claims.js';

/** A card folded once: the plain ground that movements on a fold stand on. */
export const foldedCard: Base = {
  ...introduced('folded-card'),
  difficulty: 'easy',
  gives: ['carries a movement', 'posts flat'],
  needs: ['base card'],
  mayGoWrong: ['a stack inside near the fold props the card open', 'a fold across the grain cracks'],
  sizes: [
    depthSize(105),
    lengthSize(148),
    FOLD_EDGE,
    {
      name: 'openTo',
      label: 'Opens to',
      kind: 'angle',
      default: STRAIGHT,
      help: 'How far the leaves are opened. 180° is flat on the table.',
      range: () => ({ min: toRadians(60), max: STRAIGHT, because: 'a single fold opens no further than flat' }),
    },
    {
      name: 'shown',
      label: 'Shown',
      kind: 'choice',
      default: 'lying',
      help: 'How the open card is put down.',
      options: [
        { value: 'lying', label: 'lying on its back leaf' },
        { value: 'standing', label: 'standing upright, half open' },
      ],
    },
    SPINE_SIZE,
    {
      name: 'liner',
      label: 'Liner',
      kind: 'choice',
      default: 'none',
      help: 'One sheet over both leaves inside, cut shorter across the fold because it lies on the inside of the bend.',
      options: [
        { value: 'none', label: 'none' },
        { value: 'one-piece', label: 'one piece over both leaves' },
      ],
    },
    {
      name: 'linerBorder',
      label: 'Liner border, free edges',
      kind: 'length',
      default: 4,
      help: 'How much of the card shows beside the liner at both free edges.',
      range: ({ sizes }) => ({ min: 0, max: num(sizes, 'depth') / 4, because: 'a liner covers most of its leaf' }),
      shown: (sizes) => sizes['liner'] === 'one-piece',
    },
    {
      name: 'linerBorderAlong',
      label: 'Liner border, ends of the fold',
      kind: 'length',
      default: ({ sizes }) => num(sizes, 'linerBorder'),
      help: 'How much of the card shows above and below the liner.',
      range: ({ sizes }) => ({ min: 0, max: num(sizes, 'length') / 4, because: 'a liner covers most of its leaf' }),
      shown: (sizes) => sizes['liner'] === 'one-piece',
    },
    INNER_THICKNESS,
    INNER_FROM,
  ],
  build(context) {
    const { sizes } = context;
    const depth = num(sizes, 'depth');
    const length = num(sizes, 'length');
    const openTo = num(sizes, 'openTo');
    const mainFold: StripFold = {
      id: 'main-fold',
      name: 'main fold',
      fold: 'valley',
      closed: Math.PI,
      standsFor: { size: 'depth', perMm: 1 },
    };
    const { drawn } = panelStrip(length, [
      { panel: 'front-leaf', name: 'front leaf', width: depth, then: mainFold },
      { panel: 'back-leaf', name: 'back leaf', width: depth },
    ]);
    const piece = blankPiece({
      id: 'base',
      name: 'Card',
      stock: 'base',
      faceUp: 'inside up',
      because: 'two leaves side by side, one score between them',
      ...drawn,
    });
    const standing = sizes['shown'] === 'standing';
    const halfOpen = Math.min(1, Math.PI / 2 / openTo);
    const liner = sizes['liner'] === 'one-piece' ? linerOf(context) : undefined;
    return {
      pieces: [piece, ...(liner ? [liner.piece] : [])],
      bonds: liner?.bonds ?? [],
      ground: 'base/back-leaf',
      closedOutline: rectangle(depth, 0, depth, length),
      schedule: {
        phases: [
          { name: 'open the leaves', from: 0, to: 1, targets: [{ hinge: 'base/main-fold', start: Math.PI, end: Math.PI - openTo }] },
        ],
        startAt: Math.min(halfOpen, 0.6),
        opening: { hinge: 'base/main-fold', atZero: Math.PI, perFold: -1 },
      },
      rest: standing
        ? { at: halfOpen, up: [0, 1, 0], viewFrom: [1.1, 0.7, 0.9], says: 'standing on the edges of both leaves, half open' }
        : { at: 1, up: [0, 0, 1], viewFrom: [0.3, -1, 0.75], says: 'lying on its back leaf' },
      measures: [mm('mainFold', 'Main fold at', depth, 'one leaf deep, so that both leaves are the same'), ...(liner?.measures ?? [])],
      openHeight: { label: 'Height when open', because: 'the highest point over the table' },
      claims: [
        meeting({
          id: 'free-edges',
          name: 'the free edges of the two leaves',
          a: { panel: 'base/front-leaf', from: [0, 0], to: [0, length] },
          b: { panel: 'base/back-leaf', from: [2 * depth, 0], to: [2 * depth, length] },
        }),
        closing({
          hinge: 'base/main-fold',
          name: 'main fold',
          lower: ['base/back-leaf'],
          upper: ['base/front-leaf'],
          depth,
          length,
          spined: sizes['spine'] === 'auto',
          spineSize: 'spine',
        }),
        ...innerLayersOf(sizes, 'base/back-leaf', depth),
      ],
    };
  },
};

/** A liner over both leaves. It folds with the card on the same line; only its cut is shorter. */
function linerOf({ sizes, baseCaliper, mechanismCaliper }: BuildContext): { piece: Piece; bonds: Bond[]; measures: Measure[] } {
  const border = num(sizes, 'linerBorder');
  const half = num(sizes, 'depth') - border;
  const along = num(sizes, 'linerBorderAlong');
  const height = num(sizes, 'length') - 2 * along;
  const allowance = linerAllowance(Math.PI, baseCaliper, mechanismCaliper);
  const glued = (x: number): readonly (readonly [number, number])[] =>
    rectangle(x, TAB_CLEARANCE, half - 2 * TAB_CLEARANCE, height - 2 * TAB_CLEARANCE);
  const zones = [glued(TAB_CLEARANCE), glued(half + TAB_CLEARANCE)];
  const { drawn } = panelStrip(height, [
    {
      panel: 'front-half',
      name: 'front half of the liner',
      width: half,
      then: { id: 'liner-fold', name: 'liner fold', fold: 'valley', closed: Math.PI },
    },
    { panel: 'back-half', name: 'back half of the liner', width: half },
  ]);
  const piece = blankPiece({
    id: 'liner',
    name: 'Liner',
    stock: 'mechanism',
    faceUp: 'front up',
    ...drawn,
    because: 'both leaves less the border all round, and shorter across the fold by half a turn of its distance inside the bend',
    // Half of it is taken off each half, so that the fold stays in the middle.
    creases: drawn.creases.map((fold) => ({ ...fold, allow: -allowance / 2, ease: -allowance / 2 })),
    zones: zones.map((outline, i) => ({
      id: i === 0 ? 'front-glue' : 'back-glue',
      kind: 'glue' as const,
      face: 'down' as const,
      outline,
      says: i === 0 ? 'glue the front half last: close the card onto it' : 'glue the back half first',
    })),
  });
  const bond = (side: 'front' | 'back'): Bond => ({
    id: `liner-on-${side}`,
    name: `${side} half of the liner on the ${side} leaf`,
    panel: `liner/${side}-half`,
    face: 'down',
    partner: `base/${side}-leaf`,
    partnerFace: 'up',
    zone: `${side}-glue`,
    placement: shifted([border, along]),
  });
  return {
    piece,
    bonds: [bond('back'), bond('front')],
    measures: [
      mm(
        'linerAllowance',
        'Liner shorter by',
        allowance,
        'π × its distance from the middle of the card’s thickness: half of both calipers together',
      ),
    ],
  };
}
