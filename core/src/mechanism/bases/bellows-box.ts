import { shifted } from '../../plane/placement.js';
import { rectangle } from '../../plane/outline.js';
import { blankPiece } from '../../sheet/piece.js';
import { TAB_CLEARANCE } from '../../supplies/limits.js';
import type { Base, Measure } from '../contract.js';
import { introduced } from '../introductions.js';
import { lengthSize } from '../common-sizes.js';
import { num, type Sizes } from '../sizes.js';
import { trackedAngle } from '../tracked.js';
import { panelStrip, type StripFold } from '../drawing/panel-strip.js';
import { windowLoop, windowSizes } from '../opening/window-sizes.js';
import { mm } from '../measures.js';
import { meeting, equalWidths, reserved } from '../../claim/claims.js';

/** How far a bellows is folded when its middle crease is poked in: 0 for a straight wall. sin(fold/2) = poke ÷ bellows. */
export function bellowsFold(bellows: number, poke: number): number {
  return 2 * Math.asin(poke / bellows);
}

const windowPlace = (sizes: Sizes) => {
  const [front, length] = [num(sizes, 'frontWidth'), num(sizes, 'length')];
  const [width, height] = [num(sizes, 'windowWidth'), num(sizes, 'windowHeight')];
  return { x: (front - width) / 2, y: (length - height) / 2 + num(sizes, 'windowOffsetY'), width, height };
};

/** Panels are told apart below the window. */
const BELOW_WINDOW = 1;

/** A box whose sides fold inward like bellows; the front has a window. */
export const bellowsBox: Base = {
  ...introduced('bellows-box'),
  difficulty: 'medium',
  gives: ['stands upright', 'a scene in depth', 'a window'],
  needs: ['base card', 'strong glue or tape'],
  mayGoWrong: ['bellows of different width: the front leans', 'a window cut into the bellows’ zone: they show and catch'],
  forClosedSize: (frontWidth, length) => ({ frontWidth, length }),
  sizes: [
    {
      name: 'frontWidth',
      label: 'Closed width',
      kind: 'length',
      default: 110,
      help: 'As wide as the front and the back.',
      range: () => ({ min: 40, max: 220, because: 'the blank is more than twice as wide and must come out of a sheet' }),
    },
    lengthSize(150, { label: 'Height', help: 'Along the folds: the box stands on this edge.' }),
    {
      name: 'bellows',
      label: 'Bellows',
      kind: 'length',
      default: ({ sizes }) => Math.round(num(sizes, 'frontWidth') / 6),
      help: 'Width of each of the two panels of a side, and of the glue tab.',
      range: ({ sizes }) => ({
        min: 8,
        max: num(sizes, 'frontWidth') / 2 - 1,
        because: 'narrower bellows cannot be creased, and wider ones meet in the middle when tucked in',
      }),
    },
    {
      name: 'rightBellows',
      label: 'Right bellows',
      kind: 'length',
      default: ({ sizes }) => num(sizes, 'bellows'),
      help: 'As wide as the left ones. Set it only for a box that is already cut.',
      asCut: true,
      range: ({ sizes }) => ({
        min: 8,
        max: num(sizes, 'frontWidth') / 2 - 1,
        because: 'narrower bellows cannot be creased, and wider ones meet in the middle when tucked in',
      }),
    },
    {
      name: 'poke',
      label: 'Poked in by',
      kind: 'length',
      default: ({ sizes }) => Math.round(num(sizes, 'bellows') * 0.25),
      help: 'How far the middle crease of each side is left pushed in when the box stands. 0 is a straight side.',
      range: ({ sizes }) => ({
        min: 0,
        max: Math.min(num(sizes, 'bellows'), num(sizes, 'rightBellows')) * 0.9,
        because: 'a crease poked in by its whole bellows is closed again',
      }),
    },
    ...windowSizes({
      shape: 'oval',
      width: ({ sizes }) => Math.round(num(sizes, 'frontWidth') - 2 * num(sizes, 'bellows') - 12),
      height: ({ sizes }) => Math.round(num(sizes, 'length') * 0.6),
      widthRange: ({ sizes }) => ({ min: 5, max: num(sizes, 'frontWidth') - 6, because: 'a rim of 3 mm must be left on both sides' }),
      heightRange: ({ sizes }) => ({ min: 5, max: num(sizes, 'length') - 6, because: 'a rim of 3 mm must be left above and below' }),
    }),
    {
      name: 'windowOffsetY',
      label: 'Window above the middle',
      kind: 'length',
      default: 0,
      help: 'Raised (or with a minus lowered) from the middle of the front.',
      range: ({ sizes }) => {
        const room = (num(sizes, 'length') - num(sizes, 'windowHeight')) / 2 - 3;
        return { min: -room, max: room, because: 'a rim of 3 mm must be left above and below' };
      },
    },
  ],
  build({ sizes, outline }) {
    const front = num(sizes, 'frontWidth');
    const length = num(sizes, 'length');
    const [left, right] = [num(sizes, 'bellows'), num(sizes, 'rightBellows')];
    const over = (id: string, name: string): StripFold => ({ id, name, fold: 'mountain', closed: -Math.PI });
    const middle = (side: string): StripFold => ({
      id: `${side}-middle`,
      name: `middle of the ${side} bellows`,
      fold: 'valley',
      closed: Math.PI,
    });
    const { x, drawn } = panelStrip(
      length,
      [
        {
          panel: 'tab',
          name: 'glue tab',
          width: left,
          then: { ...over('tab-fold', 'tab fold'), standsFor: { size: 'bellows', perMm: 1 } },
        },
        { panel: 'left-back-bellows', name: 'back half of the left bellows', width: left, then: middle('left') },
        {
          panel: 'left-front-bellows',
          name: 'front half of the left bellows',
          width: left,
          then: over('left-front', 'left fold of the front'),
        },
        { panel: 'front', name: 'front', width: front, then: over('right-front', 'right fold of the front') },
        { panel: 'right-front-bellows', name: 'front half of the right bellows', width: right, then: middle('right') },
        { panel: 'right-back-bellows', name: 'back half of the right bellows', width: right, then: over('right-back', 'back fold') },
        { panel: 'back', name: 'back', width: front },
      ],
      BELOW_WINDOW,
    );
    const window = windowPlace(sizes);
    const fold = bellowsFold(left, num(sizes, 'poke'));
    const glue = rectangle(TAB_CLEARANCE, TAB_CLEARANCE, left - 2 * TAB_CLEARANCE, length - 2 * TAB_CLEARANCE);
    const zone = (side: 'left' | 'right') => ({
      id: `${side}-bellows-zone`,
      panel: 'base/front',
      outline: side === 'left' ? rectangle(x[3]!, 0, left, length) : rectangle(x[4]! - right, 0, right, length),
      for: `where the ${side} bellows lie when the box is closed`,
      mend: { size: 'windowWidth', label: 'window', value: front - 2 * Math.max(left, right) },
    });
    const piece = blankPiece({
      id: 'base',
      name: 'Box',
      stock: 'base',
      faceUp: 'outside up',
      because: 'front and back, two bellows on either side, and a tab as wide as one of them',
      windows: [
        {
          id: 'window',
          outline: windowLoop(outline(String(sizes['windowShape'])), window.width, window.height, [x[3]! + window.x, window.y]),
        },
      ],
      zones: [
        { id: 'tab-glue', kind: 'glue', face: 'up', outline: glue, says: 'glue behind the free edge of the back' },
        ...(['left', 'right'] as const).map((side) => ({
          id: `inside-${side}`,
          kind: 'keep-clear' as const,
          face: 'down' as const,
          outline: zone(side).outline,
          says: `keep clear inside: here lie the ${side} bellows`,
        })),
      ],
      ...drawn,
    });
    const depth = 2 * left * Math.cos(fold / 2);
    return {
      pieces: [piece],
      bonds: [
        {
          id: 'tab-on-back',
          name: 'glue tab behind the free edge of the back',
          panel: 'base/tab',
          face: 'up',
          partner: 'base/back',
          partnerFace: 'down',
          zone: 'tab-glue',
          placement: shifted([x[7]! - left, 0]),
        },
      ],
      ground: 'base/front',
      closedOutline: rectangle(x[3]!, 0, front, length),
      schedule: {
        phases: [
          {
            name: 'squeeze the sides: front and back part',
            from: 0,
            to: 1,
            // The left side leads, its three folds always half a turn together: so the back stays parallel to the front.
            targets: [
              { hinge: 'base/left-middle', start: Math.PI, end: fold },
              ...['left-front', 'tab-fold'].map((name) => ({ hinge: `base/${name}`, start: -Math.PI, end: -(Math.PI + fold) / 2 })),
            ],
          },
        ],
        startAt: 0.5,
        // The right side is the left one in a mirror.
        begin: {
          'base/right-middle': (Math.PI + fold) / 2,
          'base/right-front': -Math.PI / 2 - (Math.PI + fold) / 4,
          'base/right-back': -Math.PI / 2 - (Math.PI + fold) / 4,
        },
        opening: { hinge: 'base/left-middle', atZero: Math.PI, perFold: -1 },
      },
      sides: { fold: 'the left side', free: 'the right side' },
      rest: {
        at: 1,
        up: [0, 1, 0],
        viewFrom: [0.55, 0.5, 1],
        says: 'standing upright; it stays square by the friction of its creases and equal pokes',
      },
      measures: bellowsMeasures(sizes, x, depth),
      tracked: [
        trackedAngle({ id: 'side', label: 'Left side to the front' }, ['base/left-front-bellows', [-1, 0]], ['base/front', [1, 0]]),
        trackedAngle({ id: 'skew', label: 'Front to the back' }, ['base/back', [-1, 0]], ['base/front', [1, 0]]),
      ],
      openHeight: { label: 'Height when standing', because: 'the box stands on the ends of its folds' },
      claims: [
        meeting({
          id: 'front-back',
          name: 'the left edges of front and back',
          a: { panel: 'base/front', from: [x[3]!, 0], to: [x[3]!, length] },
          b: { panel: 'base/back', from: [x[7]!, 0], to: [x[7]!, length] },
        }),
        equalWidths({
          id: 'bellows',
          name: 'the bellows of both sides',
          a: { says: 'the left bellows', panels: ['base/left-front-bellows', 'base/left-back-bellows'] },
          b: { says: 'the right bellows', panels: ['base/right-front-bellows', 'base/right-back-bellows'] },
          or: 'one side pulls straight before the other and the front leans',
          mend: { size: 'rightBellows', label: 'right bellows', value: left },
        }),
        equalWidths({
          id: 'front-back',
          name: 'front and back',
          a: { says: 'the front', panels: ['base/front'] },
          b: { says: 'the back', panels: ['base/back'] },
          or: 'the box does not lie flat',
        }),
        reserved(zone('left')),
        reserved(zone('right')),
      ],
      words: {
        fitting: [
          'Fold it at the right bellows’ middle score alone: the back lies right behind the front. Mark through the window what will be seen, and centre the picture on that.',
        ],
        settingUp: ['Squeeze the sides together a little, then poke both middle folds in by the same amount.'],
      },
    };
  },
};

function bellowsMeasures(sizes: Sizes, x: readonly number[], depth: number): Measure[] {
  const window = windowPlace(sizes);
  const bellows = num(sizes, 'bellows');
  const clear = num(sizes, 'frontWidth') - bellows - num(sizes, 'rightBellows');
  return [
    mm('openDepth', 'Depth when standing', depth, 'both bellows panels of a side, less what the poke takes: 2 × √(bellows² − poke²)'),
    mm('greatestDepth', 'Greatest depth', 2 * bellows, 'both bellows panels of a side pulled straight'),
    mm('clearWidth', 'Width free for window and scene', clear, 'the front less the bellows that lie behind it on both sides when closed'),
    mm('windowFromEdge', 'Window from the front’s edge', window.x, 'the window is centred on the front'),
    mm('windowOnRuler', 'Window on the flat blank’s ruler', x[3]! + window.x, 'tab and both left bellows come before the front'),
    mm('windowFromFoot', 'Window from the lower edge', window.y, 'centred, and raised as you chose'),
    mm(
      'registrationFold',
      'Registration fold',
      x[5]!,
      'folded at this score alone, the back lies right behind the front: mark through the window what will be seen, before gluing',
    ),
  ];
}
