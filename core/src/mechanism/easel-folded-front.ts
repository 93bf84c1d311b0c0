import { toRadians } from '../measure/units.js';
import { rectangle } from '../plane/outline.js';
import type { Point } from '../plane/point.js';
import { blankPiece } from '../sheet/piece.js';
import { STOP_CALIPERS, TAB_CLEARANCE } from '../supplies/limits.js';
import type { Base, Measure } from './contract.js';
import { depthSize, INNER_FROM, INNER_THICKNESS, lengthSize, SPINE_SIZE } from './common-sizes.js';
import { innerLayersOf } from './inner-layer.js';
import { num, type Sizes } from './sizes.js';

const STEEPEST = toRadians(85);
const FLATTEST = toRadians(20);

/**
 * Lean of the display from the table when its foot stands at `stop` from the back edge: the strut and
 * the foot part are two sides of a triangle on the base (law of cosines).
 */
export function easelLean(strut: number, foot: number, stop: number): number {
  return Math.acos((foot * foot + stop * stop - strut * strut) / (2 * foot * stop));
}

/** Stop distance that gives a lean, strut and foot part being equal halves of the front. */
function stopForLean(lean: number, sizes: Sizes): number {
  return num(sizes, 'depth') * Math.cos(lean);
}

/** A card whose front is scored at half and carries a display on its lower half only. */
export const easelFoldedFront: Base = {
  id: 'easel-folded-front',
  kind: 'base',
  name: 'Easel, folded front',
  summary: 'The front folds at half; the display glued to its lower half stands against a stop inside.',
  difficulty: 'easy',
  needs: ['base card', 'a display panel', 'a raised strip as a stop'],
  mayGoWrong: ['glue on the upper half of the front: it cannot fold', 'a stop lower than the foot is thick: it slips over'],
  alternatives: [
    {
      name: 'lean',
      label: 'Lean from the table',
      kind: 'angle',
      insteadOf: 'stopDistance',
      help: 'Sets the stop distance: stop = depth × cos(lean).',
      toSize: stopForLean,
      fromSize: (sizes) => easelLean(num(sizes, 'depth') / 2, num(sizes, 'depth') / 2, num(sizes, 'stopDistance')),
    },
  ],
  sizes: [
    depthSize(150),
    lengthSize(105),
    {
      name: 'stopDistance',
      label: 'Stop from the fold',
      kind: 'length',
      default: ({ sizes }) => num(sizes, 'depth') / 2,
      help: 'From the fold to the side of the stop where the foot rests. Nearer leans steeper.',
      range: ({ sizes }) => {
        const depth = num(sizes, 'depth');
        const onBase = depth - num(sizes, 'stopWidth');
        const flattest = stopForLean(FLATTEST, sizes);
        return {
          min: stopForLean(STEEPEST, sizes),
          max: Math.min(onBase, flattest),
          because:
            onBase < flattest
              ? 'the whole stop must lie on the base, and nearer than the least distance the display tips backward'
              : 'the display leans between 85° (steeper tips backward) and 20° (flatter slides off), and the stop must lie on the base',
        };
      },
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
    {
      name: 'stopHeight',
      label: 'Stop height',
      kind: 'length',
      default: ({ baseCaliper }) => Math.max(2, Math.ceil(STOP_CALIPERS * 2 * baseCaliper * 2) / 2),
      help: 'How far the stop stands up from the base: foam or layers.',
      range: () => ({ min: 0.3, max: 12, because: 'a stop is a raised strip that still lets the card close' }),
    },
    {
      name: 'stopWidth',
      label: 'Stop width',
      kind: 'length',
      default: 8,
      help: 'Across the stop.',
      range: () => ({ min: 4, max: 30, because: 'a narrower strip peels off' }),
    },
    {
      name: 'stopLength',
      label: 'Stop length',
      kind: 'length',
      default: ({ sizes }) => Math.round(num(sizes, 'length') * 0.6),
      help: 'Along the fold, centred.',
      range: ({ sizes }) => ({ min: 10, max: num(sizes, 'length'), because: 'the stop lies on the base' }),
    },
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
    const stopHeight = num(sizes, 'stopHeight');
    const stopLength = num(sizes, 'stopLength');
    const foot = depth / 2;
    const strut = depth - foot;
    const lean = easelLean(strut, foot, stop);
    const rise = Math.acos((strut * strut + stop * stop - foot * foot) / (2 * strut * stop));
    const aside = (length - width) / 2;
    const glue = rectangle(
      Math.max(0, -aside) + TAB_CLEARANCE,
      TAB_CLEARANCE,
      Math.min(width, length) - 2 * TAB_CLEARANCE,
      Math.min(foot, height) - 2 * TAB_CLEARANCE,
    );
    const stopGlue = rectangle(0.5, 0.5, num(sizes, 'stopWidth') - 1, stopLength - 1);
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
    const stopStrip = blankPiece({
      id: 'stop',
      name: 'Stop',
      stock: 'stop',
      faceUp: 'either face up',
      outline: rectangle(0, 0, num(sizes, 'stopWidth'), stopLength),
      because: 'a strip long enough to hold the foot straight',
      thickness: stopHeight,
      zones: [{ id: 'stop-glue', kind: 'glue', face: 'down', outline: stopGlue, says: 'glue the whole stop' }],
      anchors: [{ panel: 'stop', name: 'stop', at: [num(sizes, 'stopWidth') / 2, stopLength / 2] }],
    });
    const footEdge: [Point, Point] = [
      [0, 0],
      [0, length],
    ];
    return {
      pieces: [base, display, stopStrip],
      ground: 'base/base',
      bonds: [
        {
          id: 'display-on-front',
          name: 'display on the lower half of the front',
          panel: 'display/display',
          face: 'down',
          partner: 'base/front-lower',
          partnerFace: 'down',
          corners: glue,
          placement: { to: [0, aside], turn: -Math.PI / 2, flipped: true },
          placedBy: 'marks',
        },
        {
          id: 'stop-on-base',
          name: 'stop on the base',
          panel: 'stop/stop',
          face: 'down',
          partner: 'base/base',
          partnerFace: 'up',
          corners: stopGlue,
          placement: { to: [depth + stop, (length - stopLength) / 2], turn: 0, flipped: false },
          placedBy: 'marks',
        },
      ],
      touches: [{ id: 'foot-on-base', panel: 'base/front-lower', at: [0, length / 2], on: 'base/base' }],
      couplings: [],
      closedOutline: rectangle(depth, 0, depth, length),
      schedule: {
        phases: [
          { name: 'raise the display', from: 0, to: 1, targets: [{ hinge: 'base/main-fold', start: Math.PI, end: Math.PI - rise }] },
        ],
        startAt: 0.6,
        opening: { hinge: 'base/main-fold', atZero: Math.PI, perFold: -1 },
      },
      hostFolds: [
        {
          id: 'main-fold',
          piece: 'base',
          hinge: 'base/main-fold',
          leaves: ['base/strut', 'base/base'],
          x: depth,
          fromY: 0,
          toY: length,
          depth: strut,
          innerFace: 'up',
        },
      ],
      meetings: [
        {
          id: 'free-edges',
          name: 'the foot of the front and the free edge of the base',
          a: { panel: 'base/front-lower', from: [0, 0], to: [0, length] },
          b: { panel: 'base/base', from: [2 * depth, 0], to: [2 * depth, length] },
        },
      ],
      closings: [
        {
          hinge: 'base/main-fold',
          name: 'main fold',
          lower: ['base/base'],
          upper: ['base/strut', 'base/front-lower'],
          depth,
          length,
          spined: sizes['spine'] === 'fitted',
          spineSize: 'spine',
        },
      ],
      innerLayers: innerLayersOf(sizes, 'base/base', depth),
      rest: {
        at: 1,
        up: [0, 0, 1],
        viewFrom: [1, 0.75, 0.55],
        says: 'the base on the table, the foot against the stop',
        stop: { foot: 'base/front-lower', footEdge, height: stopHeight, footThickness: baseCaliper + displayCaliper, lean },
      },
      measures: easelMeasures({ depth, foot, strut, stop, lean, rise, height, width }),
      tracked: [
        {
          id: 'lean',
          label: 'Lean from the table',
          kind: 'angle',
          panel: 'display/display',
          along: [0, 1],
          withPanel: 'base/base',
          withAlong: [-1, 0],
        },
        { id: 'top', label: 'Height of the display', kind: 'height', panel: 'display/display', at: [width / 2, height] },
      ],
      openHeight: { label: 'Height when standing', because: 'the top of the display over the table' },
    };
  },
};

type EaselNumbers = Record<'depth' | 'foot' | 'strut' | 'stop' | 'lean' | 'rise' | 'height' | 'width', number>;

function easelMeasures({ depth, foot, strut, lean, rise, height }: EaselNumbers): Measure[] {
  return [
    {
      name: 'frontScore',
      label: 'Front score at',
      value: foot,
      unit: 'mm',
      because: 'half the depth, so that the lower half can stand while the upper half props it',
    },
    {
      name: 'mainFold',
      label: 'Main fold at',
      value: depth,
      unit: 'mm',
      because: 'one depth from the front’s free edge: front and base are the same size',
    },
    {
      name: 'strut',
      label: 'Strut',
      value: strut,
      unit: 'mm',
      because: 'the upper half of the front, from the main fold to the front score',
    },
    {
      name: 'lean',
      label: 'Lean from the table',
      value: lean,
      unit: 'rad',
      because: 'strut, foot part and stop distance make a triangle: cos(lean) = stop distance ÷ depth when the halves are equal',
    },
    {
      name: 'strutRise',
      label: 'Strut from the table',
      value: rise,
      unit: 'rad',
      because: 'the third side of the same triangle, at the fold',
    },
    {
      name: 'standingHeight',
      label: 'Top of the display',
      value: height * Math.sin(lean),
      unit: 'mm',
      because: 'display height × sin(lean)',
    },
    {
      name: 'pastFold',
      label: 'Display past the fold when closed',
      value: Math.max(0, height - depth),
      unit: 'mm',
      because: 'display height less strut and foot part together; 0 is hidden',
    },
    {
      name: 'freePart',
      label: 'Display above the glue',
      value: Math.max(0, height - foot),
      unit: 'mm',
      because: 'display height less the foot part: this much stands free and needs a stiff stock',
    },
  ];
}
