import { tabSize } from '../common-sizes.js';
import { shifted } from '../../plane/placement.js';
import { rectangle } from '../../plane/outline.js';
import type { Point } from '../../plane/point.js';
import { SHAPE_OPTIONS } from '../../plane/shapes.js';
import { blankPiece, type Crease, type Piece } from '../../sheet/piece.js';
import { toRadians, type Mm } from '../../measure/units.js';
import { TAB_CLEARANCE } from '../../supplies/limits.js';
import type { Base, BuildContext, Measure } from '../contract.js';
import { introduced } from '../introductions.js';
import { dividerOf } from '../boxed/box-divider.js';
import { clearanceOn, items, num, type Range, type Sizes } from '../sizes.js';
import { trackedAngle } from '../tracked.js';
import { edgesOf, uprightCrease } from '../drawing/upright.js';
import { mm } from '../measures.js';
import { equalWidths, type EqualWidths, type Said } from '../../claim/claims.js';

const WALLS = ['first', 'second', 'third', 'fourth'] as const;
/** A lower flap is a ragged edge: it is left out. */
const LEAST_FLAP = 5;
/** Flaps stand back from the corners by this, so that they part freely. */
const FLAP_INSET = 0.5;
/** The glue tab is cut slanting by this at both ends, so that it slips in. */
const TAB_TAPER = 3;

const wallRange = (): Range => ({
  min: 25,
  max: 200,
  because: 'a narrower wall has no room for dividers, and a wider one needs more than a sheet',
});

/** Four walls that flatten in pairs, with flaps that fall outward and dividers that carry figures. */
export const boxCard: Base = {
  ...introduced('box-card'),
  difficulty: 'easy',
  gives: ['stands upright', 'several figures', 'a scene in depth'],
  needs: ['base card', 'light card'],
  mayGoWrong: ['opposite walls of different width: it will not lie flat', 'a figure that sticks out of the flattened box'],
  forClosedSize: (across, along) => {
    const height = Math.round(along / 1.45);
    return { wall: across / 2, height, flaps: WALLS.map(() => ({ height: along - height })) };
  },
  sizes: [
    { name: 'wall', label: 'First wall', kind: 'length', default: 60, help: 'Width of the front wall.', range: wallRange },
    {
      name: 'secondWall',
      label: 'Second wall',
      kind: 'length',
      default: ({ sizes }) => num(sizes, 'wall'),
      help: 'Width of the side wall.',
      range: wallRange,
    },
    {
      name: 'height',
      label: 'Height',
      kind: 'length',
      default: 90,
      help: 'Of the walls, without flaps.',
      range: () => ({ min: 25, max: 250, because: 'a lower box holds no dividers, and a higher one needs more than a sheet' }),
    },
    tabSize(10, 'Of the walls, and at both ends of every divider.', (sizes) => num(sizes, 'secondWall') / 2),
    {
      name: 'thirdWall',
      label: 'Third wall',
      kind: 'length',
      default: ({ sizes }) => num(sizes, 'wall'),
      help: 'As wide as the first. Set it only for a box that is already cut.',
      asCut: true,
      range: wallRange,
    },
    {
      name: 'fourthWall',
      label: 'Fourth wall',
      kind: 'length',
      default: ({ sizes }) => num(sizes, 'secondWall'),
      help: 'As wide as the second. Set it only for a box that is already cut.',
      asCut: true,
      range: wallRange,
    },
    {
      name: 'flaps',
      label: 'Flaps',
      kind: 'list',
      itemLabel: 'flap',
      help: 'On the first, second, third and fourth wall in this order.',
      least: 0,
      most: 4,
      default: ({ sizes }) => WALLS.map(() => ({ height: Math.round(num(sizes, 'height') * 0.45) })),
      item: [
        {
          name: 'height',
          label: 'Height',
          kind: 'length',
          default: ({ sizes }) => Math.round(num(sizes, 'height') * 0.45),
          help: 'Above the wall when flattened. Below 5 mm the wall has none.',
          range: () => ({ min: 0, max: 200, because: 'a higher flap needs more than a sheet' }),
        },
      ],
    },
    {
      name: 'flapAngle',
      label: 'Flaps fall by',
      kind: 'angle',
      default: toRadians(115),
      help: 'From upright, outward, when the box is shown.',
      range: () => ({ min: 0, max: toRadians(170), because: 'further down they lie against the walls' }),
    },
    {
      name: 'dividers',
      label: 'Dividers',
      kind: 'list',
      itemLabel: 'divider',
      help: 'Strips between the second and the fourth wall, parallel to the first.',
      least: 0,
      most: 6,
      default: ({ sizes }) =>
        [1, 2].map((k) => ({ distance: Math.round((num(sizes, 'secondWall') * k) / 3), figure: k === 1 ? 'fern' : 'mushroom' })),
      item: [
        {
          name: 'distance',
          label: 'Behind the first wall',
          kind: 'length',
          default: ({ sizes, index }) => 5 + ((num(sizes, 'secondWall') - 25) * (index! + 1)) / 8,
          help: 'The same on both walls, so that it stays parallel.',
          range: ({ sizes }) => ({
            min: 4,
            max: num(sizes, 'secondWall') - num(sizes, 'tabWidth') - TAB_CLEARANCE,
            because: 'nearer to the wall in front it cannot be folded, and its tabs lie on the walls behind it, short of the next corner',
          }),
        },
        {
          name: 'height',
          label: 'Strip height',
          kind: 'length',
          default: ({ sizes }) => Math.round(num(sizes, 'height') * 0.6),
          help: 'Of the strip, from the foot of the box.',
          range: ({ sizes }) => ({
            min: 8,
            max: num(sizes, 'height'),
            because: 'a lower strip cannot be glued, and a higher one shows over the wall',
          }),
        },
        {
          name: 'figure',
          label: 'Figure',
          kind: 'outline',
          default: 'mushroom',
          help: 'Rises from the strip.',
          options: [{ value: 'none', label: 'none' }, ...SHAPE_OPTIONS],
        },
        {
          name: 'figureHeight',
          label: 'Figure height',
          kind: 'length',
          default: ({ sizes }) => Math.round(num(sizes, 'height') * 0.6),
          help: 'Above the strip.',
          range: ({ sizes }) => ({
            min: 5,
            max: num(sizes, 'height') * 3,
            because: 'a smaller figure cannot be cut, and a much larger one has no box to lie in',
          }),
          shown: (sizes) => sizes['figure'] !== 'none',
        },
        {
          name: 'figureWidth',
          label: 'Figure width',
          kind: 'length',
          default: ({ sizes }) => Math.round(num(sizes, 'wall') * 0.5),
          help: 'Across the figure.',
          range: ({ sizes }) => ({
            min: 5,
            max: num(sizes, 'wall') * 2,
            because: 'a smaller figure cannot be cut, and a much wider one has no box to lie in',
          }),
          shown: (sizes) => sizes['figure'] !== 'none',
        },
        {
          name: 'figureAt',
          label: 'Figure’s middle',
          kind: 'length',
          default: ({ sizes, index }) => num(sizes, 'wall') * (index! % 2 === 0 ? 0.36 : 0.64),
          help: 'From the strip’s left end.',
          range: ({ sizes }) => ({ min: 0, max: num(sizes, 'wall'), because: 'the figure stands on its strip' }),
          shown: (sizes) => sizes['figure'] !== 'none',
        },
      ],
    },
  ],
  build(context) {
    const { sizes } = context;
    const [first, second] = [num(sizes, 'wall'), num(sizes, 'secondWall')];
    const height = num(sizes, 'height');
    const widths = [first, second, num(sizes, 'thirdWall'), num(sizes, 'fourthWall')];
    const x = edgesOf([...widths, num(sizes, 'tabWidth')]);
    const inset = clearanceOn(context.marks, FLAP_INSET);
    const flaps = items(sizes, 'flaps')
      .map((flap, i) => ({ wall: WALLS[i]!, from: x[i]! + inset, to: x[i + 1]! - inset, height: num(flap, 'height') }))
      .filter((flap) => flap.height >= LEAST_FLAP);
    const piece = wallsPiece(x, height, flaps, clearanceOn(context.marks, TAB_TAPER));
    const dividers = items(sizes, 'dividers').map((divider, i) => dividerOf(context, divider, i, x[4]!));
    const angle = num(sizes, 'flapAngle');
    const tallest = Math.max(0, ...flaps.map((flap) => flap.height));
    return {
      pieces: [piece, ...dividers.map((divider) => divider.piece)],
      bonds: [
        {
          id: 'box-tab',
          name: 'glue tab inside the first wall',
          panel: 'base/tab',
          face: 'up',
          partner: 'base/first-wall',
          partnerFace: 'down',
          zone: 'tab-glue',
          placement: shifted([-x[4]!, 0]),
        },
        ...dividers.flatMap((divider) => divider.bonds),
      ],
      ground: 'base/first-wall',
      closedOutline: rectangle(0, 0, first + second, height + tallest),
      schedule: {
        phases: [
          {
            name: 'press it square',
            from: 0,
            to: 0.7,
            targets: [
              { hinge: 'base/first-second', start: 0, end: -Math.PI / 2 },
              ...flaps.map((flap) => ({ hinge: `base/${flap.wall}-flap`, start: 0, end: 0 })),
            ],
          },
          {
            name: 'let the flaps fall',
            from: 0.7,
            to: 1,
            targets: flaps.map((flap) => ({ hinge: `base/${flap.wall}-flap`, start: 0, end: angle })),
          },
        ],
        startAt: 0.4,
        opening: { hinge: 'base/first-second', atZero: 0, perFold: 1 },
      },
      flush: ['lower'],
      sides: { fold: 'the left corner', free: 'the right corner', upper: 'the top of wall and flaps' },
      rest: { at: 1, up: [0, 1, 0], viewFrom: [0.5, 0.75, 1], says: 'standing on the lower edges of its walls' },
      measures: boxMeasures(context, dividers),
      tracked: [
        trackedAngle({ id: 'corner', label: 'First wall to second wall' }, ['base/first-wall', [-1, 0]], ['base/second-wall', [1, 0]]),
      ],
      openHeight: { label: 'Height when standing', because: 'walls, upright flaps and figures, whichever is highest' },
      claims: [equalWidths(pair('first', 'third', first)), equalWidths(pair('second', 'fourth', second))],
      words: {
        fitting: ['Flatten the box with the dividers in place: nothing may show past walls and flaps.'],
        settingUp: ['Press two opposite corners until the box stands square, then let the flaps fall outward.'],
      },
    };
  },
};

const pair = (a: (typeof WALLS)[number], b: (typeof WALLS)[number], width: Mm): Said<EqualWidths> => ({
  id: `${a}-${b}`,
  name: `the ${a} and the ${b} wall`,
  a: { says: `the ${a} wall`, panels: [`base/${a}-wall`] },
  b: { says: `the ${b} wall`, panels: [`base/${b}-wall`] },
  or: 'the box does not lie flat',
  mend: { size: `${b}Wall`, label: `${b} wall`, value: width },
});

interface Flap {
  wall: string;
  from: number;
  to: number;
  height: number;
}

function wallsPiece(x: readonly number[], height: number, flaps: readonly Flap[], taper: number): Piece {
  const [end, tabEnd] = [x[4]!, x[5]!];
  const top: Point[] = [...flaps].reverse().flatMap(({ from, to, height: up }): Point[] => [
    [to, height],
    [to, height + up],
    [from, height + up],
    [from, height],
  ]);
  const corner = (i: number, id: string, name: string, closed: number): Crease => ({
    ...uprightCrease(id, name, x[i]!, [0, height], 'mountain', closed),
    ...(i === 1 && { standsFor: { size: 'wall', perMm: 1 } }),
  });
  return blankPiece({
    id: 'base',
    name: 'Walls',
    stock: 'base',
    faceUp: 'outside up',
    outline: [[0, 0], [end, 0], [tabEnd, taper], [tabEnd, height - taper], [end, height], ...top, [0, height]],
    because: 'four walls side by side and a tab that closes the box',
    creases: [
      corner(1, 'first-second', 'corner of first and second wall', 0),
      corner(2, 'second-third', 'corner of second and third wall', -Math.PI),
      corner(3, 'third-fourth', 'corner of third and fourth wall', 0),
      corner(4, 'tab-fold', 'tab fold', -Math.PI),
      ...flaps.map(({ wall, from, to }): Crease => ({
        id: `${wall}-flap`,
        name: `flap of the ${wall} wall`,
        from: [from, height],
        to: [to, height],
        fold: 'valley',
        closed: 0,
        ease: 0,
      })),
    ],
    zones: [
      {
        id: 'tab-glue',
        kind: 'glue',
        face: 'up',
        outline: rectangle(end + TAB_CLEARANCE, 4, tabEnd - end - TAB_CLEARANCE - 1, height - 8),
        says: 'glue inside the first wall, its fold on the wall’s edge',
      },
    ],
    anchors: [
      ...WALLS.map((wall, i) => ({ panel: `${wall}-wall`, name: `${wall} wall`, at: [(x[i]! + x[i + 1]!) / 2, height / 2] as Point })),
      { panel: 'tab', name: 'glue tab', at: [(end + tabEnd) / 2, height / 2] },
      ...flaps.map(({ wall, from, to, height: up }) => ({
        panel: `${wall}-flap`,
        name: `flap of the ${wall} wall`,
        at: [(from + to) / 2, height + up / 2] as Point,
      })),
    ],
  });
}

function boxMeasures({ sizes }: BuildContext, dividers: readonly { name: string; length: number }[]): Measure[] {
  return [
    mm(
      'flatWidth',
      'Width lying flat',
      num(sizes, 'wall') + num(sizes, 'secondWall'),
      'flattened, two neighbouring walls lie side by side on the other two',
    ),
    mm('flatHeight', 'Height lying flat', num(sizes, 'height') + highestFlap(sizes), 'the walls, and the highest flap straight above them'),
    ...dividers.map(({ name, length }, i): Measure =>
      mm(`divider${i + 1}Length`, `Free length of ${name}`, length, 'the first wall’s width less the thickness of both its tabs'),
    ),
  ];
}

function highestFlap(sizes: Sizes): number {
  return Math.max(0, ...items(sizes, 'flaps').map((flap) => num(flap, 'height')));
}
