import { rectangle } from '../../plane/outline.js';
import { blankPiece } from '../../sheet/piece.js';
import { TAB_CLEARANCE } from '../../supplies/limits.js';
import type { Base, Measure } from '../contract.js';
import { introduced } from '../introductions.js';
import {
  EASEL_POSE,
  easelLean,
  hingeTurn,
  leanAlternative,
  STEEPEST,
  stopForLean,
  stopNear,
  stopRange,
  stopSizes,
  ownStop,
  stopHeight,
  strutRise,
  triangleMeasures,
  type EaselSides,
} from '../easel/easel-parts.js';
import { num, type Sizes } from '../sizes.js';
import { trackedAngle, trackedHeight } from '../tracked.js';
import { panelStrip } from '../drawing/panel-strip.js';
import { mm } from '../measures.js';
import { closing } from '../../claim/claims.js';

const isZigzag = (sizes: Sizes): boolean => sizes['form'] === 'zigzag';

/** Wrapped, the flap lies behind the display's lower part; in zigzag behind its upper part, so the hinge is higher. */
const sidesOf = (sizes: Sizes): EaselSides => ({
  strut: num(sizes, 'strut'),
  foot: isZigzag(sizes) ? num(sizes, 'displayHeight') - num(sizes, 'flap') : num(sizes, 'flap'),
});

/** Where the display lies when folded flat, from the back edge: the nearer and the farther end. */
export function stripCover(displayHeight: number, flap: number, strut: number, zigzag: boolean): [from: number, to: number] {
  return zigzag ? [strut - flap, strut - flap + displayHeight] : [strut + flap - displayHeight, strut + flap];
}

/** One long strip: display, flap, strut and base, folded on itself. */
export const easelStrip: Base = {
  ...introduced('easel-strip'),
  foldEdge: 'top',
  difficulty: 'easy',
  gives: ['a display that leans'],
  needs: ['base card', 'foam or layers for a stop'],
  mayGoWrong: ['the flap glued past its fold: it cannot stand', 'the other face of the stock shows: mind two-sided card'],
  alternatives: [leanAlternative(sidesOf, 'Sets the stop distance that gives this lean.')],
  forClosedSize: (across, along) => ({ displayHeight: across, width: along }),
  sizes: [
    {
      name: 'displayHeight',
      label: 'Display height',
      kind: 'length',
      default: 120,
      help: 'From its foot up.',
      range: () => ({ min: 30, max: 250, because: 'a lower display needs no easel, and the strip is more than three times as long' }),
    },
    {
      name: 'width',
      label: 'Length of folds',
      kind: 'length',
      default: 100,
      help: 'Of the whole strip, along the folds.',
      range: () => ({ min: 25, max: 320, because: 'a narrower easel tips sideways, and a wider one needs more than a sheet' }),
    },
    {
      name: 'form',
      label: 'Folded',
      kind: 'choice',
      default: 'wrapped',
      help: 'Wrapped: the flap lies behind the lower part and the upper face shows. Zigzag: behind the upper part, and the other face shows.',
      options: [
        { value: 'wrapped', label: 'wrapped round the flap' },
        { value: 'zigzag', label: 'in a zigzag' },
      ],
    },
    {
      name: 'flap',
      label: 'Flap',
      kind: 'length',
      default: ({ sizes }) => num(sizes, 'displayHeight') / 2,
      help: 'Between strut and display, glued behind the display.',
      range: ({ sizes }) => ({
        min: 10,
        max: num(sizes, 'displayHeight') - 10,
        because: 'a narrower flap cannot be glued, and it lies behind the display',
      }),
    },
    {
      name: 'strut',
      label: 'Strut',
      kind: 'length',
      default: ({ sizes }) => sidesOf({ ...sizes, strut: 0 }).foot,
      help: 'From the back edge to the flap.',
      range: ({ sizes }) => {
        const { foot } = sidesOf({ ...sizes, strut: 0 });
        return {
          min: foot * 0.5,
          max: foot * 1.6,
          because: 'a much shorter strut leans the display far over, and a much longer one pushes it upright',
        };
      },
    },
    {
      name: 'base',
      label: 'Base',
      kind: 'length',
      default: ({ sizes }) =>
        Math.max(
          stripCover(num(sizes, 'displayHeight'), num(sizes, 'flap'), num(sizes, 'strut'), isZigzag(sizes))[1],
          num(sizes, 'strut') + 20,
          stopForLean(STEEPEST, sidesOf(sizes)) + 12,
        ),
      help: 'From the back edge to the front.',
      range: ({ sizes }) => ({
        min: stopForLean(STEEPEST, sidesOf(sizes)) + 12,
        max: 640,
        because: 'even the steepest display needs its stop on the base, and a longer base needs more than a sheet',
      }),
    },
    {
      name: 'stopDistance',
      label: 'Stop from the back edge',
      kind: 'length',
      default: ({ sizes }) => stopNear(num(sizes, 'strut'), stopRange(sidesOf(sizes), num(sizes, 'base'), 8)),
      help: 'From the back edge to the side of the stop where the foot rests. Nearer leans steeper.',
      range: ({ sizes }) => stopRange(sidesOf(sizes), num(sizes, 'base')),
    },
    ...stopSizes(
      ({ sizes }) => num(sizes, 'width'),
      ({ sizes }) => num(sizes, 'base') - num(sizes, 'stopDistance'),
    ),
  ],
  build({ sizes, baseCaliper }) {
    const [high, flap, strut, base] = [num(sizes, 'displayHeight'), num(sizes, 'flap'), num(sizes, 'strut'), num(sizes, 'base')];
    const width = num(sizes, 'width');
    const stop = num(sizes, 'stopDistance');
    const stopLength = num(sizes, 'stopLength');
    const zigzag = isZigzag(sizes);
    const sides = sidesOf(sizes);
    const held = zigzag ? Math.PI : -Math.PI;
    const { x, drawn } = panelStrip(width, [
      {
        panel: 'display',
        name: 'display',
        width: high,
        then: {
          id: 'display-fold',
          name: 'display fold',
          fold: zigzag ? 'valley' : 'mountain',
          closed: held,
          standsFor: { size: 'displayHeight', perMm: 1 },
        },
      },
      {
        panel: 'flap',
        name: 'flap',
        width: flap,
        then: { id: 'flap-fold', name: 'flap fold', fold: zigzag ? 'mountain' : 'valley', closed: zigzag ? -Math.PI : 0 },
      },
      { panel: 'strut', name: 'strut', width: strut, then: { id: 'back-fold', name: 'back fold', fold: 'valley', closed: Math.PI } },
      { panel: 'base', name: 'base', width: base },
    ]);
    const glue = rectangle(high - flap + TAB_CLEARANCE, TAB_CLEARANCE, flap - 2 * TAB_CLEARANCE, width - 2 * TAB_CLEARANCE);
    const inner = zigzag ? ('up' as const) : ('down' as const);
    const strip = blankPiece({
      id: 'base',
      name: 'Strip',
      stock: 'base',
      faceUp: 'inside of the base up',
      because: 'display, flap, strut and base one after the other',
      marks: [{ id: 'stop-line', from: [x[3]! + stop, 0], to: [x[3]! + stop, width], says: 'the stop begins here' }],
      zones: [{ id: 'flap-glue', kind: 'glue', face: inner, outline: glue, says: 'glue to the flap, clear of both folds' }],
      ...drawn,
    });
    const stopped = ownStop(
      sizes,
      'stop',
      { width: num(sizes, 'stopWidth'), length: stopLength, height: num(sizes, 'stopHeight') },
      { panel: 'base/base', at: [x[3]! + stop, (width - stopLength) / 2] },
    );
    const footX = zigzag ? 0 : x[1]!;
    const footPanel = zigzag ? 'base/display' : 'base/flap';
    const lean = easelLean(sides.strut, sides.foot, stop);
    return {
      pieces: [strip, ...stopped.pieces],
      bonds: [
        ...stopped.bonds,
        {
          id: 'display-on-flap',
          name: 'display on the flap',
          panel: 'base/display',
          face: inner,
          partner: 'base/flap',
          partnerFace: inner,
          zone: 'flap-glue',
          placement: { to: [2 * high, 0], turn: 0, flipped: true },
        },
      ],
      touches: [{ id: 'foot-on-base', panel: footPanel, at: [footX, width / 2], on: 'base/base' }],
      ground: 'base/base',
      closedOutline: rectangle(x[3]!, 0, base, width),
      schedule: {
        phases: [
          {
            name: 'raise the display',
            from: 0,
            to: 1,
            targets: [
              { hinge: 'base/back-fold', start: Math.PI, end: Math.PI - strutRise(sides, stop) },
              { hinge: 'base/display-fold', start: held, end: held },
            ],
          },
        ],
        startAt: 0.6,
        begin: { 'base/flap-fold': hingeTurn(sides, stop, 0.6) - (zigzag ? Math.PI : 0) },
        opening: { hinge: 'base/back-fold', atZero: Math.PI, perFold: -1 },
      },
      sides: { fold: 'the back edge', free: 'the front edge' },
      rest: {
        ...EASEL_POSE,
        says: `the base on the table, the foot against the stop; the display shows ${zigzag ? 'the other face of the stock' : 'the same face as the base'}`,
        stop: {
          foot: footPanel,
          footEdge: [
            [footX, 0],
            [footX, width],
          ],
          ...stopHeight(sizes),
          footThickness: (zigzag ? 1 : 2) * baseCaliper,
          lean,
        },
      },
      measures: stripMeasures(sizes, sides, x[4]!),
      tracked: [
        trackedAngle({ id: 'lean', label: 'Lean from the table' }, ['base/display', zigzag ? [1, 0] : [-1, 0]], ['base/base', [-1, 0]]),
        trackedHeight({ id: 'top', label: 'Height of the display' }, ['base/display', [zigzag ? high : 0, width / 2]]),
      ],
      openHeight: { label: 'Height when standing', because: 'the top of the display over the table' },
      claims: [
        closing({
          hinge: 'base/back-fold',
          name: 'back fold',
          lower: ['base/base'],
          upper: ['base/strut', 'base/flap', 'base/display'],
          depth: base,
          length: width,
          spined: false,
          spineSize: '',
        }),
      ],
    };
  },
};

function stripMeasures(sizes: Sizes, sides: EaselSides, length: number): Measure[] {
  const zigzag = isZigzag(sizes);
  const [from, to] = stripCover(num(sizes, 'displayHeight'), num(sizes, 'flap'), num(sizes, 'strut'), zigzag);
  return [
    mm('stripLength', 'Strip length', length, 'display, flap, strut and base together'),
    mm(
      'hingeHeight',
      'Hinge above the foot',
      sides.foot,
      zigzag ? 'display height less the flap, which lies behind its upper part' : 'the flap, which lies behind the display’s lower part',
    ),
    ...triangleMeasures(sides, num(sizes, 'stopDistance'), num(sizes, 'displayHeight')),
    mm(
      'coverFrom',
      'Flat, the display begins at',
      from,
      zigzag ? 'strut less flap, from the back edge' : 'strut and flap less the display height, from the back edge',
    ),
    mm('coverTo', 'Flat, the display ends at', to, 'one display height further'),
  ];
}
