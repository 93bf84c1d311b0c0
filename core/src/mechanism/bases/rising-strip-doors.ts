import { toRadians } from '../../measure/units.js';
import { rectangle } from '../../plane/outline.js';
import { blankPiece } from '../../sheet/piece.js';
import { EDGE_MARGIN } from '../../supplies/limits.js';
import type { Base, Measure } from '../contract.js';
import { introduced } from '../introductions.js';
import { lengthSize } from '../common-sizes.js';
import { num, type FreeSize, type Sizes } from '../sizes.js';
import { trackedAngle } from '../tracked.js';
import { panelStrip, type StripFold } from '../drawing/panel-strip.js';
import { mm } from '../measures.js';
import { meeting, equalWidths, closing, type Mend } from '../../claim/claims.js';

/** A narrower door has no grip. */
const LEAST_DOOR = 15;

/** Width of an inner panel: what the strip leaves of the closed width, shared by both sides. */
const innerPanel = (sizes: Sizes): number => (num(sizes, 'closedWidth') - num(sizes, 'strip')) / 2;

/** A door meets the other in the middle of the closed card: half its width, less half the wanted gap. */
const meetingDoor = (sizes: Sizes): number => num(sizes, 'closedWidth') / 2 - num(sizes, 'gap') / 2;

const door = (name: string, label: string): FreeSize => ({
  name,
  label,
  kind: 'length',
  default: ({ sizes }) => meetingDoor(sizes),
  help: 'Follows from the closed width, so that the doors meet. Set it only for a card that is already cut.',
  asCut: true,
  range: ({ sizes }) => ({
    min: LEAST_DOOR,
    max: num(sizes, 'closedWidth'),
    because: 'a narrower door has no grip, and one wider than the closed card sticks out of it',
  }),
});

/** Closed, doors are folded over and the slopes lie flat. */
const valley = (id: string, name: string): StripFold => ({ id, name, fold: 'valley', closed: Math.PI });
const lifting = (id: string, name: string): StripFold => ({ id, name, fold: 'mountain', closed: 0 });

/** Two doors over a middle whose strip rises on slopes as the doors are laid open. */
export const risingStripDoors: Base = {
  ...introduced('rising-strip-doors'),
  difficulty: 'easy',
  gives: ['something rises', 'doors'],
  needs: ['base card'],
  mayGoWrong: ['a door too wide: the doors overlap', 'decoration on the doors’ inside and on the slopes hit each other'],
  forClosedSize: (closedWidth, length) => ({ closedWidth, length }),
  sizes: [
    {
      name: 'closedWidth',
      label: 'Closed width',
      kind: 'length',
      default: 120,
      help: 'Across the closed card: two inner panels and the strip.',
      range: () => ({ min: 50, max: 260, because: 'the blank is twice as wide, and must be handled and cut from a sheet' }),
    },
    lengthSize(150, { label: 'Length of folds', help: 'Along the folds.' }),
    {
      name: 'strip',
      label: 'Strip',
      kind: 'length',
      default: ({ sizes }) => Math.round(num(sizes, 'closedWidth') / 4),
      help: 'Width of the strip that rises.',
      range: ({ sizes }) => ({
        min: 8,
        max: num(sizes, 'closedWidth') - 30,
        because: 'a narrower strip carries nothing, and slopes narrower than 15 mm lift nothing',
      }),
    },
    {
      name: 'gap',
      label: 'Gap between the doors',
      kind: 'length',
      default: 0,
      help: 'Wanted between the closed doors. 0 lets them just meet.',
      range: ({ sizes }) => ({
        min: 0,
        max: Math.min(num(sizes, 'closedWidth') / 2, num(sizes, 'closedWidth') - 2 * LEAST_DOOR),
        because: 'doors that cover less than half, or are narrower than 15 mm, do not close the card',
      }),
    },
    {
      name: 'displaySlope',
      label: 'Slope when shown',
      kind: 'angle',
      default: toRadians(50),
      help: 'Of the inner panels, from the table. Steeper stands higher and narrower.',
      range: () => ({ min: toRadians(10), max: toRadians(80), because: 'flatter does not rise, and steeper springs back' }),
    },
    door('leftDoor', 'Left door'),
    door('rightDoor', 'Right door'),
  ],
  build({ sizes }) {
    const width = num(sizes, 'closedWidth');
    const length = num(sizes, 'length');
    const strip = num(sizes, 'strip');
    const slope = num(sizes, 'displaySlope');
    const gap = num(sizes, 'gap');
    const inner = innerPanel(sizes);
    const [left, right] = [num(sizes, 'leftDoor'), num(sizes, 'rightDoor')];
    const { x, drawn } = panelStrip(length, [
      { panel: 'left-door', name: 'left door', width: left, then: valley('left-door', 'left door fold') },
      { panel: 'left-slope', name: 'left inner panel', width: inner, then: lifting('strip-left', 'left score of the strip') },
      { panel: 'strip', name: 'strip', width: strip, then: lifting('strip-right', 'right score of the strip') },
      { panel: 'right-slope', name: 'right inner panel', width: inner, then: valley('right-door', 'right door fold') },
      { panel: 'right-door', name: 'right door', width: right },
    ]);
    const piece = blankPiece({
      id: 'base',
      name: 'Card',
      stock: 'base',
      faceUp: 'inside up',
      because: 'two doors, two inner panels and the strip side by side',
      zones: (
        [
          ['left-slope', x[1]!, inner],
          ['right-slope', x[3]!, inner],
        ] as const
      ).map(([id, from, wide]) => ({
        id,
        kind: 'keep-clear' as const,
        face: 'up' as const,
        outline: rectangle(from, 0, wide, length),
        says: 'the door folds down onto this: what is raised here and on the door’s inside counts together',
      })),
      ...drawn,
    });
    const door = (side: 'left' | 'right') => ({ hinge: `base/${side}-door`, start: Math.PI, end: slope });
    const lift = (side: 'left' | 'right') => ({ hinge: `base/strip-${side}`, start: 0, end: -slope });
    const doorClosing = (side: 'left' | 'right') => ({
      hinge: `base/${side}-door`,
      name: `${side} door fold`,
      lower: [`base/${side}-slope`, 'base/strip'],
      upper: [`base/${side}-door`],
      depth: side === 'left' ? left : right,
      length,
      spined: false,
      spineSize: '',
    });
    return {
      pieces: [piece],
      ground: 'base/strip',
      closedOutline: rectangle(x[1]!, 0, width, length),
      schedule: {
        phases: [
          { name: 'open the doors; the strip rises', from: 0, to: 1, targets: [door('left'), door('right'), lift('left'), lift('right')] },
        ],
        startAt: 0.5,
        opening: { hinge: 'base/left-door', atZero: Math.PI, perFold: -1 },
      },
      sides: { fold: 'the left fold', free: 'the right fold' },
      rest: {
        at: 1,
        up: [0, 0, 1],
        viewFrom: [0.45, -1, 0.7],
        onTable: 'base/left-door',
        says: 'both doors lying on the table; friction and crease memory hold the slopes',
      },
      measures: doorMeasures(sizes),
      tracked: [trackedAngle({ id: 'slope', label: 'Slope of the inner panels' }, ['base/left-slope', [1, 0]], ['base/strip', [1, 0]])],
      openHeight: { label: 'Height of the strip', because: 'inner panel × sin(slope)' },
      claims: [
        meeting({
          id: 'doors',
          name: 'the two doors',
          a: { panel: 'base/left-door', from: [0, 0], to: [0, length] },
          b: { panel: 'base/right-door', from: [x[5]!, 0], to: [x[5]!, length] },
          sideBySide: { outward: [-1, 0], gap },
          ...doorMend(sizes),
        }),
        equalWidths({
          id: 'slopes',
          name: 'the two inner panels',
          a: { says: 'the left', panels: ['base/left-slope'] },
          b: { says: 'the right', panels: ['base/right-slope'] },
          or: 'the strip rises askew',
        }),
        closing(doorClosing('left')),
        closing(doorClosing('right')),
      ],
      words: { settingUp: ['Lay both doors flat on the table and push them together until the slopes stand as steep as you like.'] },
    };
  },
};

/** A door that is not as wide as it follows is the one to trim. */
function doorMend(sizes: Sizes): { mend?: Mend } {
  const value = meetingDoor(sizes);
  const off = (['leftDoor', 'rightDoor'] as const).filter((name) => Math.abs(num(sizes, name) - value) > 1e-6);
  return off.length === 1 ? { mend: { size: off[0]!, label: off[0] === 'leftDoor' ? 'left door' : 'right door', value } } : {};
}

function doorMeasures(sizes: Sizes): Measure[] {
  const inner = innerPanel(sizes);
  const slope = num(sizes, 'displaySlope');
  return [
    mm(
      'door',
      'Door',
      meetingDoor(sizes),
      'half the closed width, which is an inner panel and half the strip, less half the wanted gap, so that the doors meet',
    ),
    mm('innerPanel', 'Inner panel', inner, 'half of what the strip leaves of the closed width, so that the strip rises in the middle'),
    mm('stripHeight', 'Strip above the table', inner * Math.sin(slope), 'inner panel × sin(slope)'),
    mm(
      'footprint',
      'Footprint of the slopes',
      2 * inner * Math.cos(slope) + num(sizes, 'strip'),
      'both inner panels × cos(slope), and the strip',
    ),
    mm(
      'openWidth',
      'Width when shown',
      2 * inner * Math.cos(slope) + num(sizes, 'strip') + num(sizes, 'leftDoor') + num(sizes, 'rightDoor'),
      'the footprint with a door on either side',
    ),
    mm(
      'doorDecoration',
      'Widest flat decoration on a door',
      meetingDoor(sizes) - 2 * EDGE_MARGIN,
      'a door less 3 mm at its fold and at the seam',
    ),
  ];
}
