import { toRadians, type Mm } from '../../measure/units.js';
import { rectangle } from '../../plane/outline.js';
import type { Point } from '../../plane/point.js';
import { blankPiece, type Anchor } from '../../sheet/piece.js';
import type { Base, Measure } from '../contract.js';
import { introduced } from '../introductions.js';
import { lengthSize } from '../common-sizes.js';
import { num, type Sizes } from '../sizes.js';
import { trackedAngle, trackedTravel } from '../tracked.js';
import { isSliver, mirroredSide, sideOf, type Side } from '../swinging/swing-cuts.js';
import { armFrames, FRAME_SIZES, frameWaste, hasFrames, isTwo } from '../swinging/swing-frames.js';
import { mm } from '../measures.js';
import { meeting, room, stiff, swing, type Room, type Said, type SwingFit } from '../../claim/claims.js';

/** A narrower neck between the scores tears or twists. */
const LEAST_NECK = 6;
/** A narrower arm beside a window tears. */
const LEAST_ARM = 4;

const swingsOf = (sizes: Sizes): 1 | 2 => (isTwo(sizes) ? 2 : 1);
/** What the scores may take of the blank: all of it, or for two swings half. */
const share = (sizes: Sizes): Mm => num(sizes, 'blankLength') / swingsOf(sizes);

/**
 * With two swings the panels meet in the middle when closed if the score lies at half of what two zigzags and
 * the border leave: x1 = (L/2 − 2z + b) ÷ 2, the panel beginning at the border.
 */
const meetingScore = (sizes: Sizes): Mm => (num(sizes, 'blankLength') / 2 - 2 * num(sizes, 'zigzag') + num(sizes, 'border')) / 2;

/** The score of panels that meet, or of a swing in the middle of its blank; kept where its panel has room. */
function presetScore(sizes: Sizes): Mm {
  const wanted = isTwo(sizes) ? meetingScore(sizes) : Math.round((num(sizes, 'blankLength') - num(sizes, 'zigzag')) / 2);
  return Math.max(num(sizes, 'border') + 12, Math.min(wanted, lastScore(sizes)));
}

const lastScore = (sizes: Sizes): Mm => share(sizes) - num(sizes, 'zigzag') * swingsOf(sizes) - LEAST_ARM - 6;

/** A panel on a zigzag that turns over as the card is drawn out, in the window of its arm. */
export const swingCard: Base = {
  ...introduced('swing'),
  difficulty: 'medium',
  gives: ['something turns', 'two sides seen'],
  needs: ['base card', 'knife and steel rule'],
  mayGoWrong: [
    'a panel a hair too large rubs on its frame',
    'scores carried across the panel: it folds instead of swinging',
    'thin arms bow',
  ],
  forClosedSize: (across, height) => ({ blankLength: across + 2 * 15, zigzag: 15, height }),
  sizes: [
    {
      name: 'blankLength',
      label: 'Blank, across',
      kind: 'length',
      default: 210,
      help: 'Across the scores, drawn out flat.',
      range: () => ({ min: 100, max: 420, because: 'a shorter card has no room for a swing, and a longer one needs more than a sheet' }),
    },
    lengthSize(120, { name: 'height', label: 'Height', help: 'Along the scores: the card stands on this edge.' }),
    {
      name: 'swings',
      label: 'Swings',
      kind: 'choice',
      default: '1',
      help: 'One panel, or two that meet in the middle when closed.',
      options: [
        { value: '1', label: 'one' },
        { value: '2', label: 'two, mirrored' },
      ],
    },
    {
      name: 'border',
      label: 'Border',
      kind: 'length',
      default: ({ sizes }) => Math.max(8, Math.round(num(sizes, 'height') * 0.1)),
      help: 'Of the arms above and below the panel: the scores run only here.',
      range: ({ sizes }) => ({
        min: 5,
        max: Math.min(num(sizes, 'height') / 2 - 8, share(sizes) / 4),
        because: 'narrower strips tear at the scores, and a panel of 16 mm must be left between them',
      }),
    },
    {
      name: 'zigzag',
      label: 'Zigzag',
      kind: 'length',
      default: ({ sizes }) => Math.max(LEAST_NECK, Math.floor(share(sizes) * 0.1)),
      help: 'Between the two scores: the neck the panel hangs on. Closed, the card is shorter by twice this for each swing.',
      range: ({ sizes }) => ({
        min: LEAST_NECK,
        max: Math.min(share(sizes) / 5, (share(sizes) - num(sizes, 'border') - 24) / swingsOf(sizes)),
        because: 'a narrower neck tears, and a wider one leaves no arm to close over it',
      }),
    },
    {
      name: 'scoreAt',
      label: 'First score at',
      kind: 'length',
      default: ({ sizes }) => presetScore(sizes),
      help: 'From the left edge. With two swings the panels meet in the middle at half of what two zigzags and the border leave.',
      range: ({ sizes }) => ({
        min: num(sizes, 'border') + 12,
        max: lastScore(sizes),
        because: 'the panel needs 12 mm on its arm, and the zigzag must lie on its half of the blank',
      }),
    },
    {
      name: 'panelFrom',
      label: 'Panel from',
      kind: 'length',
      default: ({ sizes }) => presetFrom(sizes),
      help: 'From the left edge of the blank to the panel.',
      range: ({ sizes }) => ({
        min: LEAST_ARM,
        max: num(sizes, 'scoreAt') - 4,
        because: 'a strip of 4 mm must be left beside the panel, and it reaches across the score',
      }),
    },
    {
      name: 'panelTo',
      label: 'Panel to',
      kind: 'length',
      default: ({ sizes }) =>
        Math.max(
          num(sizes, 'scoreAt') + num(sizes, 'zigzag') + 2,
          Math.min(2 * num(sizes, 'scoreAt') - num(sizes, 'panelFrom'), lastPanelEnd(sizes)),
        ),
      help: 'It fills its window when this is twice the score less where the panel begins; further, it laps over its frame.',
      range: ({ sizes }) => ({
        min: num(sizes, 'scoreAt') + num(sizes, 'zigzag') + 2,
        max: lastPanelEnd(sizes),
        because: 'the panel reaches across both scores, and a strip of 4 mm must be left beyond it',
      }),
    },
    {
      name: 'trim',
      label: 'Sliver taken off',
      kind: 'length',
      default: 0,
      help: 'Round the free edges of the panel. 0 is a single cut.',
      range: ({ sizes }) => ({
        min: 0,
        max: Math.min(
          3,
          (num(sizes, 'scoreAt') - num(sizes, 'panelFrom')) / 3,
          (num(sizes, 'panelTo') - num(sizes, 'scoreAt') - num(sizes, 'zigzag')) / 3,
        ),
        because: 'a wider gap shows',
      }),
    },
    {
      name: 'frames',
      label: 'Frames on the arms',
      kind: 'choice',
      default: 'none',
      help: 'Thin arms bow. A frame of the arm’s own outline stiffens it; one blank framed and halved gives two.',
      options: [
        { value: 'none', label: 'none' },
        { value: 'outer', label: 'on the outer arms' },
      ],
    },
    ...FRAME_SIZES,
    {
      name: 'displayFold',
      label: 'Zigzag when shown',
      kind: 'angle',
      default: toRadians(50),
      help: 'How far the zigzag is left folded when it stands. 0° is drawn out flat.',
      range: () => ({ min: 0, max: toRadians(100), because: 'folded further the panel hides' }),
    },
  ],
  build({ sizes }) {
    const [length, height] = [num(sizes, 'blankLength'), num(sizes, 'height')];
    const z = num(sizes, 'zigzag');
    const left = sideOf(sizes);
    const sides = isTwo(sizes) ? [left, mirroredSide(left, length)] : [left];
    const folds = sides.flatMap((side) => side.creases);
    const targets = folds.map((crease) => ({ hinge: `base/${crease.id}`, start: crease.closed, end: 0 }));
    const rest = 1 - num(sizes, 'displayFold') / Math.PI;
    const frames = hasFrames(sizes) ? armFrames(sizes) : undefined;
    const piece = blankPiece({
      id: 'base',
      name: 'Card',
      stock: 'base',
      faceUp: 'front up',
      outline: rectangle(0, 0, length, height),
      because: 'the closed width, and twice the zigzag for each swing',
      creases: folds,
      cuts: sides.flatMap((side) => side.cuts),
      windows: sides.flatMap((side) => side.slivers),
      anchors: anchorsOf(sizes, sides),
    });
    const closedWidth = length - 2 * swingsOf(sizes) * z;
    return {
      pieces: [piece, ...(frames ? [frames.piece] : [])],
      bonds: frames?.bonds ?? [],
      ground: 'base/left-arm',
      closedOutline: rectangle(0, 0, closedWidth, height),
      schedule: {
        phases: [{ name: 'draw the arms apart: the panel swings round', from: 0, to: 1, targets }],
        startAt: 0.5,
        opening: { hinge: 'base/left-near', atZero: Math.PI, perFold: -1 },
      },
      sides: { fold: 'the left edge', free: 'the right edge' },
      rest: {
        at: rest,
        up: [0, 1, 0],
        viewFrom: [0.35, 0.25, 1],
        says: 'standing on the lower edges of its arms, the zigzag left folded',
        heldBy: {
          by: 'creases',
          says: 'The zigzag stays part-folded by crease memory alone; drawn out flat, the card needs something to lean on.',
        },
      },
      measures: swingMeasures(sizes),
      tracked: [
        trackedAngle({ id: 'swing', label: 'Panel to its arm' }, ['base/left-swing', [1, 0]], ['base/left-arm', [1, 0]]),
        trackedTravel(
          { id: 'panelFrom', label: 'Free edge of the panel, from the left edge' },
          ['base/left-swing', [num(sizes, 'panelFrom'), height / 2]],
          ['base/left-arm', [0, height / 2], [1, 0]],
        ),
        trackedTravel(
          { id: 'panelTo', label: 'Other edge of the panel, from the left edge' },
          ['base/left-swing', [num(sizes, 'panelTo'), height / 2]],
          ['base/left-arm', [0, height / 2], [1, 0]],
        ),
      ],
      openHeight: { label: 'Height', because: 'the card stands on its lower edge' },
      claims: [
        ...(isTwo(sizes) ? [panelsMeet(sizes)] : []).map(meeting),
        room(frameRoom(sizes)),
        ...sides.map((side) => swingFit(sizes, side.name)).map(swing),
        // An arm pushes the zigzag through the borders beside its panel.
        stiff({
          id: 'arms',
          name: 'the border of an arm beside the panel',
          panel: 'base/left-arm',
          held: 'cantilever',
          length: num(sizes, 'scoreAt') - num(sizes, 'panelFrom'),
          width: num(sizes, 'border'),
          lean: 0,
          tipWeight: 0,
          layers: frames ? 2 : 1,
        }),
      ],
      words: { settingUp: ['Hold both arms and draw them apart: the panel swings round and shows its other face.'] },
    };
  },
};

/** At the border, or as far in as a panel must begin that neither sticks out of the closed card nor cuts its far arm off. */
function presetFrom(sizes: Sizes): Mm {
  const [x1, length] = [num(sizes, 'scoreAt'), num(sizes, 'blankLength')];
  const inside = isTwo(sizes) ? 0 : 2 * x1 - length + 2 * num(sizes, 'zigzag');
  return Math.min(x1 - 4, Math.max(num(sizes, 'border'), 2 * x1 - lastPanelEnd(sizes), inside));
}

/** As far as a panel may reach: to the far arm's last strip, or the middle arm's. */
function lastPanelEnd(sizes: Sizes): number {
  return share(sizes) - (isTwo(sizes) ? LEAST_ARM / 2 : LEAST_ARM);
}

function anchorsOf(sizes: Sizes, sides: readonly Side[]): Anchor[] {
  const [length, height, b] = [num(sizes, 'blankLength'), num(sizes, 'height'), num(sizes, 'border')];
  const neck = num(sizes, 'scoreAt') + num(sizes, 'zigzag') / 2;
  const edge: Mm = b / 2;
  const swings = sides.map(({ name }): Anchor => ({
    panel: `${name}-swing`,
    name: sides.length === 1 ? 'swinging panel' : `${name} swinging panel`,
    at: [name === 'left' ? neck : length - neck, height / 2],
  }));
  const arms: Anchor[] = [
    { panel: 'left-arm', name: 'left arm', at: [1, edge] },
    { panel: 'right-arm', name: 'right arm', at: [length - 1, edge] },
    ...(sides.length === 2 ? [{ panel: 'middle-arm', name: 'middle arm', at: [length / 2, edge] as Point }] : []),
  ];
  return [...arms, ...swings];
}

/** Closed, the panel's far edge comes to lie at 2·score − panelTo and may not pass the frame that begins at panelFrom. */
function frameRoom(sizes: Sizes): Said<Room> {
  const height = num(sizes, 'height');
  return {
    id: 'frame',
    name: 'panel in its frame',
    from: { panel: 'base/left-arm', at: [num(sizes, 'panelFrom'), height / 2] },
    to: { panel: 'base/left-swing', at: [num(sizes, 'panelTo'), height / 2] },
    along: [1, 0],
    least: 0,
    says: {
      enough: 'closed, the panel lies within its frame',
      tight: 'closed, the panel just reaches its frame',
      none: 'closed, the panel laps over its frame',
    },
    mend: { size: 'panelTo', label: 'panel end at', value: 2 * num(sizes, 'scoreAt') - num(sizes, 'panelFrom') },
  };
}

function panelsMeet(sizes: Sizes) {
  const [length, height] = [num(sizes, 'blankLength'), num(sizes, 'height')];
  const edge = num(sizes, 'panelFrom');
  const line = (x: Mm) => ({ from: [x, num(sizes, 'border')] as Point, to: [x, height - num(sizes, 'border')] as Point });
  return {
    id: 'panels',
    name: 'the two panels',
    a: { panel: 'base/left-swing', ...line(edge) },
    b: { panel: 'base/right-swing', ...line(length - edge) },
    sideBySide: { outward: [-1, 0] as Point, gap: 2 * seamHalf(sizes) },
  };
}

/** From a panel's edge to the middle of the closed card: L/2 − 2z − 2·score + panelFrom. */
const seamHalf = (sizes: Sizes): Mm =>
  num(sizes, 'blankLength') / 2 - 2 * num(sizes, 'zigzag') - 2 * num(sizes, 'scoreAt') + num(sizes, 'panelFrom');

function swingFit(sizes: Sizes, name: 'left' | 'right'): Said<SwingFit> {
  const onArm = num(sizes, 'scoreAt') - num(sizes, 'panelFrom');
  const beyond = num(sizes, 'panelTo') - num(sizes, 'scoreAt') - num(sizes, 'zigzag');
  const opening = Math.max(onArm, beyond);
  return {
    id: name,
    name: isTwo(sizes) ? `the ${name} panel` : 'the panel',
    panel: `base/${name}-swing`,
    reach: opening - (isSliver(num(sizes, 'trim')) ? num(sizes, 'trim') : 0),
    opening,
    mend: { size: 'trim', label: 'sliver', value: 0.6 },
  };
}

function swingMeasures(sizes: Sizes): Measure[] {
  const [length, height, b] = [num(sizes, 'blankLength'), num(sizes, 'height'), num(sizes, 'border')];
  const [x1, z] = [num(sizes, 'scoreAt'), num(sizes, 'zigzag')];
  const [xs, xe] = [num(sizes, 'panelFrom'), num(sizes, 'panelTo')];
  return [
    mm('closedWidth', 'Closed width', length - 2 * swingsOf(sizes) * z, 'the blank less twice the zigzag for each swing'),
    mm('secondScore', 'Second score at', x1 + z, 'the first score and the zigzag'),
    mm('panelWidth', 'Panel, width', xe - xs, 'from where it begins to where it ends'),
    mm('panelHeight', 'Panel, height', height - 2 * b, 'the height less both borders'),
    mm('closedFrom', 'Closed, the panel lies from', 2 * x1 - xe, 'its far edge turned over about the first score: 2 × score − panel end'),
    mm('closedTo', 'Closed, the panel lies to', 2 * x1 - xs, 'its near edge turned over about the first score: 2 × score − panel begin'),
    mm('fillingEnd', 'It would fill its frame at', 2 * x1 - xs, 'twice the first score less where it begins'),
    ...(isTwo(sizes)
      ? [
          mm(
            'seamGap',
            'Gap between the closed panels',
            2 * seamHalf(sizes),
            'twice (half the blank − 2 zigzags − 2 × score + panel begin): each panel ends half of it from the middle',
          ),
          mm(
            'meetingScore',
            'Score at which they meet',
            meetingScore(sizes),
            'half of (half the blank − 2 zigzags + border), the panel beginning at the border',
          ),
        ]
      : []),
    ...(hasFrames(sizes)
      ? [
          mm(
            'frameWaste',
            'What falls out of the frames, width',
            frameWaste(sizes)[0],
            'twice from panel begin to score, and as much more or less as the frames are set back: a layer for one panel',
          ),
          mm(
            'frameWasteHeight',
            'What falls out of the frames, height',
            frameWaste(sizes)[1],
            'the height less the frame’s strip above and below',
          ),
        ]
      : []),
  ];
}
