import { toRadians } from '../measure/units.js';
import type { Mm } from '../measure/units.js';
import { LEAST_TAB, TAB_CLEARANCE } from '../supplies/limits.js';
import { num, type FreeSize, type Sizes } from './sizes.js';

/** Sizes that every folded base has. */

export function depthSize(preset: number): FreeSize {
  return {
    name: 'depth',
    label: 'Depth',
    kind: 'length',
    default: preset,
    help: 'From the fold to the free edge of the closed card.',
    range: () => ({ min: 40, max: 320, because: 'a leaf must be large enough to handle and small enough for a sheet' }),
  };
}

/** How long the folds are. A base that stands on the ends of its folds calls it a height. */
export function lengthSize(preset: number, called: Partial<Pick<FreeSize, 'name' | 'label' | 'help'>> = {}): FreeSize {
  return {
    name: 'length',
    label: 'Length of fold',
    kind: 'length',
    default: preset,
    help: 'Along the fold.',
    range: () => ({ min: 40, max: 320, because: 'a card must be large enough to handle and small enough for a sheet' }),
    ...called,
  };
}

export const SPINE_SIZE: FreeSize = {
  name: 'spine',
  label: 'Main fold',
  kind: 'choice',
  default: 'none',
  help: 'A spine is two scores as far apart as the stack inside is thick, so that the card closes without gaping.',
  options: [
    { value: 'none', label: 'single score' },
    { value: 'auto', label: 'spine, fitted to the stack' },
  ],
};

/** Belongs to the card as a whole; named here so that it can be set like any size. */
export const FOLD_EDGE: FreeSize = {
  name: 'foldEdge',
  label: 'Fold edge',
  kind: 'choice',
  default: 'side',
  help: 'Which edge of the closed card is the fold.',
  options: [
    { value: 'side', label: 'at the side' },
    { value: 'top', label: 'at the top' },
  ],
  shown: () => false,
};

export const INNER_THICKNESS: FreeSize = {
  name: 'innerThickness',
  label: 'Layers inside, thickness',
  kind: 'length',
  default: 0,
  help: 'Everything glued flat inside: mats, foam, gift. 0 for nothing.',
  range: () => ({ min: 0, max: 20, because: 'a thicker stack wants a box, not a folded card' }),
};

export const INNER_FROM: FreeSize = {
  name: 'innerFrom',
  label: 'Layers begin at',
  kind: 'length',
  default: ({ sizes }) => num(sizes, 'depth') * 0.2,
  help: 'How far from the fold the inside layers begin.',
  range: ({ sizes }) => ({ min: 2, max: num(sizes, 'depth') - 5, because: 'the layers lie on the leaf, clear of its fold and edge' }),
  shown: (sizes) => num(sizes, 'innerThickness') > 0,
};

export const STRAIGHT = toRadians(180);

const MOST_TAB: Mm = 20;

/** How wide the tabs are that glue a part on. @param room how much there is for them at the most */
export function tabSize(preset: Mm, help: string, room: (sizes: Sizes) => Mm = () => MOST_TAB): FreeSize {
  return {
    name: 'tabWidth',
    label: 'Glue tabs',
    kind: 'length',
    default: preset,
    help,
    range: ({ sizes }) => ({
      min: LEAST_TAB + TAB_CLEARANCE,
      max: Math.min(MOST_TAB, room(sizes)),
      because: 'a narrower tab peels off, and a wider one shows or lies in the way of others',
    }),
  };
}
