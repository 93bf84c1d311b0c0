import type { Mm } from '../../measure/units.js';
import { num, type PlainSize, type Sizes } from '../sizes.js';
import type { StepProfile } from './step-profile.js';

/** A narrower strip of card across the front tears, or is folded crooked. */
const LEAST_LEFT: Mm = 3;
/** A window that reaches past a fold reaches past it by so much at least: its edge is not cut into the fold. */
const PAST_FOLD: Mm = 2;
/** A panel that hangs below the tread stays this far from the table, and from the main fold when folded. */
const HANGING_ROOM: Mm = 3;

/** Lengths of a step easel's front from its sizes. */
export const profileOf = (sizes: Sizes): StepProfile => {
  const [riser, tread, upperRiser] = [num(sizes, 'riser'), num(sizes, 'tread'), num(sizes, 'upperRiser')];
  return { riser, tread, upperRiser, slope: num(sizes, 'depth') - riser - tread - upperRiser };
};

/** Whether the window takes the whole tread, so that only the rails hold the steps and the panel can hang below them. */
export const takesTread = (sizes: Sizes): boolean => sizes['windowForm'] === 'tread';

/** How far the window reaches below the upper riser. */
const windowReach = (sizes: Sizes): Mm =>
  takesTread(sizes) ? num(sizes, 'tread') + num(sizes, 'windowInRiser') : num(sizes, 'windowBelow');

/** Where the window of a step easel lies on its front, and how large it is. */
export function windowOf(sizes: Sizes): { x: Mm; below: Mm; across: Mm; along: Mm } {
  const { riser, tread, upperRiser } = profileOf(sizes);
  const below = windowReach(sizes);
  return {
    x: riser + tread - below,
    below,
    across: below + upperRiser + num(sizes, 'windowAbove'),
    along: num(sizes, 'length') - 2 * num(sizes, 'rail'),
  };
}

/** How far the panel in the window reaches below the upper riser, in that riser's own plane. */
export const panelBelow = (sizes: Sizes): Mm =>
  takesTread(sizes) ? num(sizes, 'overhang') : num(sizes, 'windowBelow') - num(sizes, 'panelClearance');

/** Between the lower riser and a panel that hangs behind it, square to both: they lean alike, a level tread apart. */
export const hangingGap = (sizes: Sizes): Mm => num(sizes, 'tread') * Math.sin(num(sizes, 'lean'));

/** The lower edge of a panel that hangs, over the table. */
export const hangingHeight = (sizes: Sizes): Mm => (num(sizes, 'riser') - num(sizes, 'overhang')) * Math.sin(num(sizes, 'lean'));

/** What of the front the window takes. */
export const WINDOW_SIZES: readonly PlainSize[] = [
  {
    name: 'rail',
    label: 'Rail',
    kind: 'length',
    default: ({ sizes }) => Math.min(14, Math.round(num(sizes, 'length') * 0.15)),
    help: 'What is left of the front on both sides of its window.',
    range: ({ sizes }) => ({
      min: 6,
      max: num(sizes, 'length') / 2 - 8,
      because: 'narrower rails tear, and the window must be 16 mm wide',
    }),
  },
  {
    name: 'windowForm',
    label: 'Window takes',
    kind: 'choice',
    default: 'riser',
    help: 'With the whole tread cut out the rails alone make the step, and the panel can hang below it, behind the lower riser.',
    options: [
      { value: 'riser', label: 'the upper riser, and part of the tread' },
      { value: 'tread', label: 'the whole tread too: the panel hangs' },
    ],
  },
  {
    name: 'windowBelow',
    label: 'Window below the upper riser',
    kind: 'length',
    default: ({ sizes }) => Math.round(num(sizes, 'tread') * 0.4),
    help: 'How far the window reaches into the tread.',
    range: ({ sizes }) => ({ min: 0, max: num(sizes, 'tread') - LEAST_LEFT, because: '3 mm of the tread must be left at its front' }),
    shown: (sizes) => !takesTread(sizes),
  },
  {
    name: 'windowInRiser',
    label: 'Window into the riser',
    kind: 'length',
    default: ({ sizes }) => Math.max(PAST_FOLD, Math.min(num(sizes, 'riser') - LEAST_LEFT, Math.round(num(sizes, 'riser') * 0.3))),
    help: 'How far the window reaches past the front of the tread, down into the lower riser.',
    range: ({ sizes }) => ({
      min: PAST_FOLD,
      max: num(sizes, 'riser') - LEAST_LEFT,
      because: 'its edge must not lie in the fold, and 3 mm of the riser must be left at the foot',
    }),
    shown: takesTread,
  },
  {
    name: 'windowAbove',
    label: 'Window above the upper riser',
    kind: 'length',
    default: ({ sizes }) => Math.round(profileOf(sizes).slope * 0.3),
    help: 'How far the window reaches into the back slope.',
    range: ({ sizes }) => ({ min: 0, max: profileOf(sizes).slope - 6, because: '6 mm of the slope must be left at the main fold' }),
  },
];

/** How much smaller than its window the panel is, and where it hangs how far it hangs. */
export const PANEL_SIZES: readonly PlainSize[] = [
  {
    name: 'panelClearance',
    label: 'Panel smaller than its window by',
    kind: 'length',
    default: 2,
    help: 'On every side.',
    range: ({ sizes }) => {
      const { across, below, along } = windowOf(sizes);
      return {
        min: 0.5,
        max: Math.min(takesTread(sizes) ? across - below : across, along) / 2 - 4,
        because: 'a larger panel rubs in its window, and a much smaller one is no panel',
      };
    },
  },
  {
    name: 'overhang',
    label: 'Panel hangs below the tread by',
    kind: 'length',
    default: ({ sizes }) => Math.round(mostOverhang(sizes) * 0.6),
    help: 'Along the panel, behind the lower riser.',
    range: ({ sizes }) => ({
      min: 0,
      max: mostOverhang(sizes),
      because:
        'its edge stays 3 mm from the table, in its window while the card lies flat, and folded the working way 3 mm from the main fold',
    }),
    shown: takesTread,
  },
];

function mostOverhang(sizes: Sizes): Mm {
  const { riser, slope, upperRiser } = profileOf(sizes);
  const inWindow = windowReach(sizes) - num(sizes, 'panelClearance');
  return Math.max(0, Math.min(riser - HANGING_ROOM, slope - upperRiser - HANGING_ROOM, inWindow));
}
