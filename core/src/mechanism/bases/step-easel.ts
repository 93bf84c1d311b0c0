import { toRadians } from '../../measure/units.js';
import { rectangle } from '../../plane/outline.js';
import type { Point } from '../../plane/point.js';
import { blankPiece } from '../../sheet/piece.js';
import { EDGE_MARGIN } from '../../supplies/limits.js';
import type { Base, Measure } from '../contract.js';
import { introduced } from '../introductions.js';
import { depthSize, lengthSize, SPINE_SIZE } from '../common-sizes.js';
import { LEAST_STOP, ownStop, stopHeight, stopSizes } from '../easel/easel-parts.js';
import { CARRYING_SIZES, clearStrip, floatingPanel } from '../stepped/floating-panel.js';
import {
  hangingGap,
  hangingHeight,
  PANEL_SIZES,
  panelBelow,
  profileOf,
  takesTread,
  WINDOW_SIZES,
  windowOf,
} from '../stepped/step-window.js';
import { num, type Sizes } from '../sizes.js';
import { trackedAngle, trackedTravel } from '../tracked.js';
import { stepDrive } from '../stepped/step-drive.js';
import { footDistance, greatestLean, risers, slopeRise, staysLevel, workingSlack } from '../stepped/step-profile.js';
import { uprightCrease } from '../drawing/upright.js';
import { mm, angle } from '../measures.js';
import { room, closing, stiff, swing } from '../../claim/claims.js';

/** The foot keeps this far from the main fold when it is folded the working way. */
const FOOT_ROOM = 3;
const LEAST_SLOPE = 12;
const LEAST_LEAN = toRadians(35);

/** A front folded in steps, with a panel that floats in the window of its upper riser. */
export const stepEasel: Base = {
  ...introduced('step-easel'),
  difficulty: 'hard',
  gives: ['a display that leans', 'something floats', 'a window'],
  needs: ['base card', 'card for a display', 'clear film', 'strong glue or tape', 'foam or layers for a stop'],
  mayGoWrong: ['the foot reaches past the main fold when folded', 'a panel as large as its window rubs', 'tape on the clear strip shows'],
  sizes: [
    depthSize(150),
    lengthSize(120),
    {
      name: 'riser',
      label: 'Riser',
      kind: 'length',
      default: ({ sizes }) => Math.round(num(sizes, 'depth') * 0.17),
      help: 'Height of the lower step.',
      range: ({ sizes }) => ({
        min: 5,
        max: num(sizes, 'depth') / 2 - 11,
        because: 'both risers together may be half the depth at most, or the foot passes the main fold when folded the working way',
      }),
    },
    {
      name: 'tread',
      label: 'Tread',
      kind: 'length',
      default: ({ sizes }) => Math.min(Math.round(num(sizes, 'depth') * 0.13), num(sizes, 'depth') - num(sizes, 'riser') - 24),
      help: 'Depth of the step, level when it stands.',
      range: ({ sizes }) => ({
        min: 5,
        max: num(sizes, 'depth') - num(sizes, 'riser') - 10 - LEAST_SLOPE,
        because: 'an upper riser of 10 mm and a back slope of 12 mm must be left of the front',
      }),
    },
    {
      name: 'upperRiser',
      label: 'Upper riser',
      kind: 'length',
      default: ({ sizes }) => Math.max(10, Math.min(mostUpperRiser(sizes), Math.round(num(sizes, 'depth') * 0.22))),
      help: 'Height of the upper step, where the clear strip is glued.',
      range: ({ sizes }) => ({
        min: 10,
        max: mostUpperRiser(sizes),
        because:
          'folded the working way the foot lies depth − 2 × (riser + upper riser) from the main fold, which may not be less than 0, and a back slope of 12 mm must be left',
      }),
    },
    ...WINDOW_SIZES,
    {
      name: 'stripInset',
      label: 'Strip inside the edges by',
      kind: 'length',
      default: 2,
      help: 'At both ends, so that it does not show past the card.',
      range: ({ sizes }) => ({ min: 0, max: Math.max(0, num(sizes, 'rail') - 8), because: 'the strip must be taped to both rails' }),
    },
    ...CARRYING_SIZES,
    ...PANEL_SIZES,
    {
      name: 'lean',
      label: 'Lean of the risers',
      kind: 'angle',
      default: ({ sizes }) => Math.min(toRadians(78), greatestLean(profileOf(sizes))),
      help: 'From the table, the same for both. 90° is upright.',
      range: ({ sizes }) => ({
        min: Math.min(LEAST_LEAN, greatestLean(profileOf(sizes))),
        max: greatestLean(profileOf(sizes)),
        because: 'with a level tread the slope must reach as high as both risers: sin(lean) is at most slope ÷ risers; flatter slides off',
      }),
    },
    ...stopSizes(
      ({ sizes }) => num(sizes, 'length'),
      ({ sizes }) => num(sizes, 'depth') - footAt(sizes),
    ),
    SPINE_SIZE,
  ],
  build({ sizes, baseCaliper }) {
    const [depth, length] = [num(sizes, 'depth'), num(sizes, 'length')];
    const profile = profileOf(sizes);
    const lean = num(sizes, 'lean');
    const u1 = profile.riser;
    const u2 = u1 + profile.tread;
    const u3 = u2 + profile.upperRiser;
    const rail = num(sizes, 'rail');
    const foot = footAt(sizes);
    const along = [0, length] as const;
    const window = windowOf(sizes);
    const piece = blankPiece({
      id: 'base',
      name: 'Card',
      stock: 'base',
      faceUp: 'outside up',
      outline: rectangle(0, 0, 2 * depth, length),
      because: 'front and back side by side, each one depth wide',
      creases: [
        uprightCrease('tread-front', 'front of the tread', u1, along, 'mountain', -Math.PI, { size: 'riser', perMm: 1 }),
        uprightCrease('tread-back', 'back of the tread', u2, along, 'valley', Math.PI),
        uprightCrease('top', 'top of the upper riser', u3, along, 'mountain', -Math.PI),
        uprightCrease('main-fold', 'main fold', depth, along, 'mountain', -Math.PI),
      ],
      windows: [{ id: 'window', outline: rectangle(window.x, rail, window.across, window.along) }],
      zones: [
        {
          id: 'back-clear',
          kind: 'keep-clear',
          face: 'down',
          outline: rectangle(depth + 2, 2, Math.max(1, foot - 4), length - 4),
          says: 'under the steps: flat things only, the risers fold down here',
        },
      ],
      anchors: [
        { panel: 'riser', name: 'riser', at: [Math.min(u1, window.x) / 2, length / 2] },
        ...(takesTread(sizes)
          ? [
              { panel: 'tread', name: 'near rail of the tread', at: [(u1 + u2) / 2, rail / 2] as Point },
              { panel: 'far-tread', name: 'far rail of the tread', at: [(u1 + u2) / 2, length - rail / 2] as Point },
            ]
          : [{ panel: 'tread', name: 'tread', at: [u1 + 1, length / 2] as Point }]),
        { panel: 'near-rail', name: 'near rail of the upper riser', at: [(u2 + u3) / 2, rail / 2] },
        { panel: 'far-rail', name: 'far rail of the upper riser', at: [(u2 + u3) / 2, length - rail / 2] },
        { panel: 'slope', name: 'back slope', at: [depth - 2, length / 2] },
        { panel: 'back-leaf', name: 'base', at: [1.5 * depth, length / 2] },
      ],
    });
    const strip = clearStrip(sizes, u2);
    const panels = floatingPanel(sizes);
    const stopLength = num(sizes, 'stopLength');
    const stopped = ownStop(
      sizes,
      'stop',
      { width: num(sizes, 'stopWidth'), length: stopLength, height: num(sizes, 'stopHeight') },
      { panel: 'base/back-leaf', at: [depth + foot, (length - stopLength) / 2], face: 'down' },
    );
    return {
      pieces: [piece, strip.piece, ...panels.map((panel) => panel.piece), ...stopped.pieces],
      bonds: [...strip.bonds, ...panels.map((panel) => panel.bond), ...stopped.bonds],
      // Under a short slope every fold is led, and the foot is in the air until it is set down.
      ...(staysLevel(profile)
        ? {
            touches: [{ id: 'foot-on-back', panel: 'base/riser', at: [0, length / 2], on: 'base/back-leaf' }],
            couplings: [
              { id: 'equal-lean', terms: fold('tread-front', 'tread-back'), constant: 0 },
              { id: 'level-tread', terms: fold('top', 'tread-back', 'main-fold'), constant: -Math.PI },
            ],
          }
        : { touches: [], couplings: [] }),
      ground: 'base/back-leaf',
      closedOutline: rectangle(depth, 0, depth, length),
      schedule: stepDrive(profile, lean, takesTread(sizes)),
      rest: {
        at: 1,
        up: [0, 0, -1],
        viewFrom: [1, 0.75, -0.6],
        says: 'the base on the table, the foot against its stop, the tread level',
        stop: {
          foot: 'base/riser',
          footEdge: [
            [0, 0],
            [0, length],
          ],
          ...stopHeight(sizes),
          footThickness: baseCaliper,
          lean,
        },
      },
      measures: stepMeasures(sizes),
      tracked: [
        trackedAngle({ id: 'lean', label: 'Lean of the risers' }, ['base/riser', [1, 0]], ['base/back-leaf', [-1, 0]]),
        trackedAngle({ id: 'tread', label: 'Tread from level' }, ['base/tread', [-1, 0]], ['base/back-leaf', [1, 0]]),
        trackedTravel(
          { id: 'foot', label: 'Foot from the main fold' },
          ['base/riser', [0, length / 2]],
          ['base/back-leaf', [depth, length / 2], [1, 0]],
        ),
      ],
      openHeight: { label: 'Height when standing', because: 'the top of the slope, or of the panel, over the table' },
      claims: [
        room({
          id: 'foot',
          name: 'foot',
          from: { panel: 'base/back-leaf', at: [depth, length / 2] },
          to: { panel: 'base/riser', at: [0, length / 2] },
          along: [1, 0],
          least: FOOT_ROOM,
          says: {
            enough: 'folded the working way, the foot lies clear of the main fold',
            tight: 'folded the working way, the foot comes close to the main fold',
            none: 'folded the working way, the foot reaches past the main fold',
          },
        }),
        closing({
          hinge: 'base/main-fold',
          name: 'main fold',
          lower: ['base/back-leaf'],
          upper: [
            'base/slope',
            'base/near-rail',
            'base/far-rail',
            'base/tread',
            ...(takesTread(sizes) ? ['base/far-tread'] : []),
            'base/riser',
          ],
          depth,
          length,
          spined: sizes['spine'] === 'auto',
          spineSize: 'spine',
        }),
        // Beside the window only the rails push the steps up and carry them.
        stiff({
          id: 'rails',
          name: 'a rail beside the window',
          panel: 'base/near-rail',
          held: 'cantilever',
          length: window.across,
          width: rail,
          lean: 0,
          tipWeight: 0,
        }),
        stiff({
          id: 'floating-panel',
          name: 'the floating panel on its strip',
          panel: 'strip/strip',
          held: 'held',
          length: length - 2 * rail,
          width: profile.upperRiser,
          lean,
          tipWeight: 0,
        }),
        swing({
          id: 'floating-panel',
          name: 'the floating panel',
          panel: 'panel/panel',
          reach: Math.max(panelBelow(sizes), num(sizes, 'windowAbove') - num(sizes, 'panelClearance')),
          opening: Math.max(window.below, num(sizes, 'windowAbove')),
          mend: { size: 'panelClearance', label: 'clearance of the panel', value: 2 },
        }),
      ],
      words: {
        posting:
          'Post it folded the working way: the steps folded over each other, the foot toward the main fold. It then springs up; laid flat for weeks it leans backward.',
        settingUp: ['Raise the front, let the steps fold down, and set the foot against its stop: the tread is level.'],
      },
    };
  },
};

function mostUpperRiser(sizes: Sizes): number {
  const [depth, riser, tread] = [num(sizes, 'depth'), num(sizes, 'riser'), num(sizes, 'tread')];
  return Math.min(depth / 2 - riser, depth - riser - tread - LEAST_SLOPE);
}

/** Where the foot stands, from the main fold; the whole stop must have room in front of it. */
function footAt(sizes: Sizes): number {
  return Math.min(footDistance(profileOf(sizes), num(sizes, 'lean')), num(sizes, 'depth') - LEAST_STOP);
}

const fold = (...hinges: readonly string[]) => hinges.map((hinge) => ({ hinge: `base/${hinge}`, factor: 1 }));

function stepMeasures(sizes: Sizes): Measure[] {
  const profile = profileOf(sizes);
  const window = windowOf(sizes);
  const lean = num(sizes, 'lean');
  return [
    mm('slope', 'Back slope', profile.slope, 'depth less riser, tread and upper riser'),
    angle(
      'greatestLean',
      'Greatest lean',
      greatestLean(profile),
      'sin(lean) = slope ÷ both risers; upright needs a slope at least as long as both',
    ),
    angle(
      'slopeRise',
      'Slope from the table',
      slopeRise(profile, lean),
      'slope × sin(angle) = both risers × sin(lean), so that the tread is level',
    ),
    mm(
      'stopDistance',
      'Stop from the main fold',
      footDistance(profile, lean),
      'slope × cos(its angle), both risers × cos(lean), and the tread: where the foot stands',
    ),
    mm('topHeight', 'Top of the upper riser', risers(profile) * Math.sin(lean), 'both risers × sin(lean)'),
    mm(
      'workingSlack',
      'Foot from the main fold, folded',
      workingSlack(profile),
      'slope − upper riser + tread − riser: every part folded back over the one before',
    ),
    mm(
      'windowAcross',
      'Window across',
      window.across,
      takesTread(sizes)
        ? 'the upper riser, the tread, and what the window takes of riser and slope'
        : 'the upper riser and what the window takes of tread and slope',
    ),
    mm('windowAlong', 'Window along', window.along, 'the length less both rails'),
    ...(takesTread(sizes) ? hangingMeasures(sizes) : []),
    mm(
      'decorationInside',
      'Free of the edges',
      EDGE_MARGIN,
      'what is raised on the panel stays this far inside, so that it clears its window',
    ),
  ];
}

function hangingMeasures(sizes: Sizes): Measure[] {
  return [
    mm(
      'hangingGap',
      'Panel behind the riser',
      hangingGap(sizes),
      'tread × sin(lean); what is glued between them takes its thickness from it',
    ),
    mm('hangingHeight', 'Panel over the table', hangingHeight(sizes), '(riser − how far it hangs) × sin(lean): its lower edge'),
  ];
}
