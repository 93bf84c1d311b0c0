import { rectangle } from '../../plane/outline.js';
import type { Point } from '../../plane/point.js';
import { blankPiece } from '../../sheet/piece.js';
import { TAB_CLEARANCE } from '../../supplies/limits.js';
import type { Base, Measure } from '../contract.js';
import { introduced } from '../introductions.js';
import { depthSize, INNER_FROM, INNER_THICKNESS, lengthSize, SPINE_SIZE } from '../common-sizes.js';
import {
  EASEL_POSE,
  easelLean,
  leanAlternative,
  stopRange,
  stopSizes,
  ownStop,
  stopHeight,
  strutRise,
  triangleMeasures,
  type EaselSides,
} from '../easel/easel-parts.js';
import { innerLayersOf } from '../inner-layer.js';
import { num, type Sizes } from '../sizes.js';
import { trackedAngle, trackedHeight } from '../tracked.js';
import { mm } from '../measures.js';
import { meeting, closing, stiff } from '../../claim/claims.js';

const sidesOf = (sizes: Sizes): EaselSides => ({ strut: num(sizes, 'depth') / 2, foot: num(sizes, 'depth') / 2 });

/** A card whose front is scored at half and carries a display on its lower half only. */
export const easelFoldedFront: Base = {
  ...introduced('easel-folded-front'),
  foldEdge: 'top',
  difficulty: 'easy',
  gives: ['a display that leans'],
  needs: ['base card', 'card for a display', 'foam or layers for a stop'],
  mayGoWrong: ['glue on the upper half of the front: it cannot fold', 'a stop lower than the foot is thick: it slips over'],
  alternatives: [leanAlternative(sidesOf, 'Sets the stop distance that gives this lean.')],
  sizes: [
    depthSize(150),
    lengthSize(105),
    {
      name: 'stopDistance',
      label: 'Stop from the fold',
      kind: 'length',
      default: ({ sizes }) => num(sizes, 'depth') / 2,
      help: 'From the fold to the side of the stop where the foot rests. Nearer leans steeper.',
      range: ({ sizes }) => stopRange(sidesOf(sizes), num(sizes, 'depth')),
    },
    {
      name: 'displayHeight',
      label: 'Display height',
      kind: 'length',
      default: ({ sizes }) => num(sizes, 'depth'),
      help: 'From its foot up. Taller than the card is deep sticks out past the fold when closed.',
      range: ({ sizes }) => ({
        min: num(sizes, 'depth') / 4,
        max: num(sizes, 'depth') * 1.8,
        because: 'the display must cover half of the part it is glued to, and a much taller one has no card to lie on',
      }),
    },
    {
      name: 'displayWidth',
      label: 'Display width',
      kind: 'length',
      default: ({ sizes }) => num(sizes, 'length'),
      help: 'Along the fold, centred.',
      range: ({ sizes }) => ({
        min: 20,
        max: num(sizes, 'length') * 1.6,
        because: 'a narrower display has no grip, and a much wider one has no card to lie on',
      }),
    },
    ...stopSizes(
      ({ sizes }) => num(sizes, 'length'),
      ({ sizes }) => num(sizes, 'depth') - num(sizes, 'stopDistance'),
    ),
    SPINE_SIZE,
    INNER_THICKNESS,
    INNER_FROM,
  ],
  build({ sizes, baseCaliper, displayCaliper }) {
    const depth = num(sizes, 'depth');
    const length = num(sizes, 'length');
    const stop = num(sizes, 'stopDistance');
    const height = num(sizes, 'displayHeight');
    const width = num(sizes, 'displayWidth');
    const stopLength = num(sizes, 'stopLength');
    const foot = depth / 2;
    const strut = depth - foot;
    const lean = easelLean(strut, foot, stop);
    const rise = strutRise({ strut, foot }, stop);
    const aside = (length - width) / 2;
    const glue = rectangle(
      Math.max(0, -aside) + TAB_CLEARANCE,
      TAB_CLEARANCE,
      Math.min(width, length) - 2 * TAB_CLEARANCE,
      Math.min(foot, height) - 2 * TAB_CLEARANCE,
    );
    const base = blankPiece({
      id: 'base',
      name: 'Card',
      stock: 'base',
      faceUp: 'inside up',
      outline: rectangle(0, 0, 2 * depth, length),
      because: 'front and base side by side, each one depth wide',
      creases: [
        {
          id: 'front-score',
          name: 'front score',
          from: [foot, 0],
          to: [foot, length],
          fold: 'valley',
          closed: 0,
          ease: 0,
          standsFor: { size: 'depth', perMm: 2 },
        },
        {
          id: 'main-fold',
          name: 'main fold',
          from: [depth, 0],
          to: [depth, length],
          fold: 'valley',
          closed: Math.PI,
          ease: 0,
          standsFor: { size: 'depth', perMm: 1 },
        },
      ],
      marks: [{ id: 'stop-line', from: [depth + stop, 0], to: [depth + stop, length], says: 'the stop begins here' }],
      zones: [
        {
          id: 'strut-free',
          kind: 'keep-clear',
          face: 'down',
          outline: rectangle(foot, 0, strut, length),
          says: 'no glue here: the display only lies on the upper half of the front',
        },
      ],
      anchors: [
        { panel: 'front-lower', name: 'lower half of the front', at: [foot / 2, length / 2] },
        { panel: 'strut', name: 'upper half of the front', at: [foot + strut / 2, length / 2] },
        { panel: 'base', name: 'base', at: [1.5 * depth, length / 2] },
      ],
    });
    const display = blankPiece({
      id: 'display',
      name: 'Display',
      stock: 'display',
      faceUp: 'picture up, foot at the bottom',
      outline: rectangle(0, 0, width, height),
      because: 'as wide and as high as you chose',
      zones: [{ id: 'display-glue', kind: 'glue', face: 'down', outline: glue, says: 'glue to the lower half of the front only' }],
      marks: height > foot + 1 ? [{ id: 'glue-limit', from: [0, foot], to: [width, foot], says: 'no glue above this line' }] : [],
      anchors: [{ panel: 'display', name: 'display', at: [width / 2, height / 2] }],
    });
    const stopped = ownStop(
      sizes,
      'stop',
      { width: num(sizes, 'stopWidth'), length: stopLength, height: num(sizes, 'stopHeight') },
      { panel: 'base/base', at: [depth + stop, (length - stopLength) / 2] },
    );
    const footEdge: [Point, Point] = [
      [0, 0],
      [0, length],
    ];
    return {
      pieces: [base, display, ...stopped.pieces],
      ground: 'base/base',
      bonds: [
        {
          id: 'display-on-front',
          name: 'display on the lower half of the front',
          panel: 'display/display',
          face: 'down',
          partner: 'base/front-lower',
          partnerFace: 'down',
          zone: 'display-glue',
          placement: { to: [0, aside], turn: -Math.PI / 2, flipped: true },
        },
        ...stopped.bonds,
      ],
      touches: [{ id: 'foot-on-base', panel: 'base/front-lower', at: [0, length / 2], on: 'base/base' }],
      closedOutline: rectangle(depth, 0, depth, length),
      schedule: {
        phases: [
          { name: 'raise the display', from: 0, to: 1, targets: [{ hinge: 'base/main-fold', start: Math.PI, end: Math.PI - rise }] },
        ],
        startAt: 0.6,
        opening: { hinge: 'base/main-fold', atZero: Math.PI, perFold: -1 },
      },
      rest: {
        ...EASEL_POSE,
        says: 'the base on the table, the foot against the stop',
        stop: { foot: 'base/front-lower', footEdge, ...stopHeight(sizes), footThickness: baseCaliper + displayCaliper, lean },
      },
      measures: easelMeasures({ depth, foot, strut, stop, height }),
      tracked: [
        trackedAngle({ id: 'lean', label: 'Lean from the table' }, ['display/display', [0, 1]], ['base/base', [-1, 0]]),
        trackedHeight({ id: 'top', label: 'Height of the display' }, ['display/display', [width / 2, height]]),
      ],
      openHeight: { label: 'Height when standing', because: 'the top of the display over the table' },
      claims: [
        meeting({
          id: 'free-edges',
          name: 'the foot of the front and the free edge of the base',
          a: { panel: 'base/front-lower', from: [0, 0], to: [0, length] },
          b: { panel: 'base/base', from: [2 * depth, 0], to: [2 * depth, length] },
        }),
        closing({
          hinge: 'base/main-fold',
          name: 'main fold',
          lower: ['base/base'],
          upper: ['base/strut', 'base/front-lower'],
          depth,
          length,
          spined: sizes['spine'] === 'auto',
          spineSize: 'spine',
        }),
        ...innerLayersOf(sizes, 'base/base', depth),
        ...(height > foot + 1
          ? [
              stiff({
                id: 'display',
                name: 'the display above its glue',
                panel: 'display/display',
                held: 'cantilever',
                length: height - foot,
                width,
                lean,
                tipWeight: 0,
              }),
            ]
          : []),
      ],
    };
  },
};

type EaselNumbers = Record<'depth' | 'foot' | 'strut' | 'stop' | 'height', number>;

function easelMeasures({ depth, foot, strut, stop, height }: EaselNumbers): Measure[] {
  return [
    mm('frontScore', 'Front score at', foot, 'half the depth, so that the lower half can stand while the upper half props it'),
    mm('mainFold', 'Main fold at', depth, 'one depth from the front’s free edge: front and base are the same size'),
    mm('strut', 'Strut', strut, 'the upper half of the front, from the main fold to the front score'),
    ...triangleMeasures({ strut, foot }, stop, height),
    mm(
      'pastFold',
      'Display past the fold when closed',
      Math.max(0, height - depth),
      'display height less strut and foot part together; 0 is hidden',
    ),
    mm(
      'freePart',
      'Display above the glue',
      Math.max(0, height - foot),
      'display height less the foot part: this much stands free and needs a stiff stock',
    ),
  ];
}
