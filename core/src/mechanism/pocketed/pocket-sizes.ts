import { toRadians, type Mm, type Radians } from '../../measure/units.js';
import { EDGE_MARGIN, LEAST_TAB, TAB_CLEARANCE } from '../../supplies/limits.js';
import { SPINE_SIZE } from '../common-sizes.js';
import type { AlternativeSize } from '../contract.js';
import { num, type FreeSize, type SizeContext, type Sizes } from '../sizes.js';

/** A shorter leg cannot be folded twice. */
const LEAST_RUN: Mm = 6;
/** The turned creases stay this far inside the hinges: nearer, nothing lifts the platform as the flaps begin to open. */
const LEAST_TURNED: Mm = 2;
/** Below the opening at which the strip is taut: there a hundredth of a degree lifts the platform by tenths of a mm. */
export const BEFORE_TAUT: Radians = toRadians(0.5);
const LEAST_PLATFORM: Mm = 12;
const LEAST_FLAP: Mm = 20;
const LEAST_GLUE_AT: Mm = LEAST_TAB + TAB_CLEARANCE + LEAST_TURNED;

/** The opening at which the strip is taut: the legs then lie in line with the platform. p = u(1 − cos φ)/2. */
export const tautAt = (glueAt: Mm, run: Mm): Radians => 2 * Math.asin(Math.sqrt(Math.min(1, run / glueAt)));
/** The leg that is taut at an opening. */
export const runFor = (glueAt: Mm, opening: Radians): Mm => (glueAt * (1 - Math.cos(opening))) / 2;
/** How high the platform stands over the back, at the lower of the two heights that its legs allow. */
export function platformHeight(glueAt: Mm, run: Mm, opening: Radians): Mm {
  const moved = glueAt * (1 - Math.cos(opening));
  return glueAt * Math.sin(opening) - Math.sqrt(Math.max(0, 2 * run * moved - moved * moved));
}

/** Between the turned creases: as long as the strip lies along the back. */
export const platformOf = (sizes: Sizes): Mm => num(sizes, 'backHeight') - 2 * num(sizes, 'glueAt') + 2 * num(sizes, 'run');

/** Whether a pocket is put on the platform. */
export const hasPocket = (sizes: Sizes): boolean => sizes['openSide'] !== 'none';
/** What of the platform’s width the pocket needs beside the insert: its glued edges, clear of the turned creases. */
const besideInsert = (sizes: Sizes): Mm => (hasPocket(sizes) ? 2 * (num(sizes, 'rim') + TAB_CLEARANCE) : 0);

/** What the pocket has inside, across and along: its front is glued on all sides but the open one. */
export function insideOf(sizes: Sizes): { across: Mm; along: Mm } {
  return { across: platformOf(sizes) - besideInsert(sizes), along: num(sizes, 'stripWidth') - (hasPocket(sizes) ? num(sizes, 'rim') : 0) };
}
/** What the insert needs. */
export function neededBy(sizes: Sizes): { across: Mm; along: Mm } {
  const room = 2 * num(sizes, 'clearance');
  return { across: num(sizes, 'insertHeight') + room, along: num(sizes, 'insertWidth') + room };
}

/** What follows from the insert is so much larger than it need be: a mark of the ruler is no tighter fit. */
const TO_A_MARK: Mm = 2;
const widthForInsert = (sizes: Sizes): Mm => neededBy(sizes).along + (hasPocket(sizes) ? num(sizes, 'rim') : 0) + TO_A_MARK;
const platformForInsert = (sizes: Sizes): Mm => neededBy(sizes).across + besideInsert(sizes) + TO_A_MARK;

/** The insert that a closed card of this size has room for, all else at its defaults, down to whole steps of a ruler. */
export function insertFor(backHeight: Mm, length: Mm, step?: Mm): { insertHeight: Mm; insertWidth: Mm } {
  // The back is the platform, a quarter of it and a little more; beside the insert there are room, edges and a mark.
  const most = { insertHeight: Math.min(backHeight / 1.275 - 24, 200), insertWidth: Math.min(length - 34, 250) };
  const down = (mm: Mm): Mm => Math.max(10, step ? Math.floor(mm / step) * step : mm);
  return { insertHeight: down(most.insertHeight), insertWidth: down(most.insertWidth) };
}

const mostTab = (sizes: Sizes): Mm => num(sizes, 'glueAt') - TAB_CLEARANCE;

/** Free sizes: the insert first, because everything may follow from it. */
export const POCKET_SIZES: readonly FreeSize[] = [
  {
    name: 'insertHeight',
    label: 'Insert, across',
    kind: 'length',
    default: 54,
    help: 'What the pocket is for, measured from hinge to hinge.',
    range: () => ({ min: 10, max: 200, because: 'a smaller one is lost in its pocket, and a larger one wants a box' }),
  },
  {
    name: 'insertWidth',
    label: 'Insert, along',
    kind: 'length',
    default: 86,
    help: 'Measured along the hinges.',
    range: () => ({ min: 10, max: 250, because: 'a smaller one is lost in its pocket, and a larger one wants a box' }),
  },
  {
    name: 'insertThickness',
    label: 'Insert, thickness',
    kind: 'length',
    default: 0.8,
    help: 'It counts in the closed card.',
    range: () => ({ min: 0, max: 10, because: 'a thicker insert wants a box' }),
  },
  {
    name: 'openSide',
    label: 'Pocket open',
    kind: 'choice',
    default: 'upper',
    help: 'Where the insert goes in; the three other edges are glued.',
    options: [
      { value: 'upper', label: 'at the upper end' },
      { value: 'lower', label: 'at the lower end' },
      { value: 'none', label: 'no pocket: the insert is fixed on the platform' },
    ],
  },
  {
    name: 'clearance',
    label: 'Room round the insert',
    kind: 'length',
    default: 2,
    help: 'On every side of it.',
    range: () => ({ min: 0.5, max: 15, because: 'a tighter pocket does not let go of what is in it, and a wider one lets it fall about' }),
  },
  {
    name: 'rim',
    label: 'Glued edges of the pocket',
    kind: 'length',
    default: LEAST_TAB,
    help: 'How wide the glue is along its three closed edges.',
    range: () => ({ min: 4, max: 15, because: 'narrower edges peel off, and wider ones leave the insert no room' }),
    shown: hasPocket,
  },
  {
    name: 'glueAt',
    label: 'Glue line from the hinge',
    kind: 'length',
    default: ({ sizes }) => {
      const platform = platformForInsert(sizes);
      return Math.max(LEAST_GLUE_AT, Math.round(Math.min(platform * 0.55, (platform - 2 * EDGE_MARGIN) / 1.5)));
    },
    help: 'On the inside of each flap. The farther from its hinge, the higher the platform rises.',
    range: () => ({
      min: LEAST_GLUE_AT,
      max: 120,
      because: 'the tab lies between the glue line and the hinge and must not touch it',
    }),
  },
  {
    name: 'run',
    label: 'Leg of the strip',
    kind: 'length',
    default: ({ sizes }) => Math.round(num(sizes, 'glueAt') * 0.75),
    help: 'Between the glue line and the platform, at both ends. Longer lets the flaps open farther before the strip is taut.',
    range: ({ sizes }) => ({
      min: LEAST_RUN,
      max: num(sizes, 'glueAt') - LEAST_TURNED,
      because: 'the turned creases must lie at least 2 mm inside the hinges when the card is closed, or nothing lifts them',
    }),
  },
  {
    name: 'backHeight',
    label: 'Back',
    kind: 'length',
    default: ({ sizes }) => Math.max(platformForInsert(sizes) + 2 * (num(sizes, 'glueAt') - num(sizes, 'run')), 2 * leastFlap(sizes)),
    help: 'From hinge to hinge: the closed card across.',
    range: ({ sizes }) => ({
      min: Math.max(2 * (num(sizes, 'glueAt') - num(sizes, 'run')) + LEAST_PLATFORM, 2 * leastFlap(sizes)),
      max: 320,
      because: 'the platform is at least 12 mm wide, and both flaps, with the strip glued to them, meet over the back',
    }),
  },
  {
    name: 'flapHeight',
    label: 'Flaps',
    kind: 'length',
    default: ({ sizes }) => num(sizes, 'backHeight') / 2,
    help: 'From each hinge to the flap’s free edge. Half of the back, they just meet.',
    range: ({ sizes }) => ({
      min: leastFlap(sizes),
      max: num(sizes, 'backHeight') / 2,
      because: 'the glue line lies on the flap, and flaps turned in together may not meet before they lie flat',
    }),
  },
  {
    name: 'stripWidth',
    label: 'Strip along the hinges',
    kind: 'length',
    default: ({ sizes }) => widthForInsert(sizes),
    help: 'How wide the strip is, and the pocket on it.',
    range: () => ({ min: LEAST_PLATFORM, max: 310, because: 'a narrower strip twists, and a wider one does not come out of a sheet' }),
  },
  {
    name: 'length',
    label: 'Length of hinges',
    kind: 'length',
    default: ({ sizes }) => Math.min(320, Math.max(40, num(sizes, 'stripWidth') + 20)),
    help: 'Along the hinges: the closed card along.',
    range: ({ sizes }) => ({
      min: Math.max(40, num(sizes, 'stripWidth') + 2 * EDGE_MARGIN),
      max: 320,
      because: 'the strip stays 3 mm inside both ends',
    }),
  },
  {
    name: 'tabWidth',
    label: 'Tab width',
    kind: 'length',
    default: ({ sizes }) => Math.min(15, mostTab(sizes)),
    help: 'Of both ends of the strip, from the glue line toward the hinge.',
    range: ({ sizes }) => ({
      min: LEAST_TAB,
      max: mostTab(sizes),
      because: 'a narrower tab peels off, and one that touches the hinge keeps the flap from folding',
    }),
  },
  {
    name: 'openTo',
    label: 'Opens to',
    kind: 'angle',
    default: (context) => mostOpen(context),
    help: 'How far the flaps are turned from the closed card.',
    range: (context) => ({
      min: toRadians(20),
      max: mostOpen(context),
      because: 'there the strip is taut: legs and platform lie in one line',
    }),
  },
  { ...SPINE_SIZE, label: 'Hinges', default: 'auto' } as FreeSize,
  {
    name: 'front',
    label: 'Front panel',
    kind: 'choice',
    default: 'none',
    help: 'A picture over the whole front. It is glued on its own flap only, and hides the other.',
    options: [
      { value: 'none', label: 'none: both flaps show' },
      { value: 'left', label: 'on the left flap' },
    ],
  },
];

const leastFlap = (sizes: Sizes): Mm => Math.max(LEAST_FLAP, num(sizes, 'glueAt') + EDGE_MARGIN);
const mostOpen = ({ sizes }: Pick<SizeContext, 'sizes'>): Radians => tautAt(num(sizes, 'glueAt'), num(sizes, 'run')) - BEFORE_TAUT;

/** The leg may be given by the opening at which the strip is taut. */
export const OPEN_ANGLE: AlternativeSize = {
  name: 'openAngle',
  label: 'Strip is taut at',
  kind: 'angle',
  insteadOf: 'run',
  help: 'The opening at which platform and legs lie in one line: the legs follow.',
  toSize: (value, sizes) => runFor(num(sizes, 'glueAt'), value as Radians),
  fromSize: (sizes) => tautAt(num(sizes, 'glueAt'), num(sizes, 'run')),
};
