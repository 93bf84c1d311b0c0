import { shifted } from '../../plane/placement.js';
import type { Mm } from '../../measure/units.js';
import { rectangle } from '../../plane/outline.js';
import { blankPiece, type Piece } from '../../sheet/piece.js';
import { TAB_CLEARANCE } from '../../supplies/limits.js';
import type { Bond } from '../../linkage/structure.js';
import { num, type Sizes } from '../sizes.js';
import type { StepProfile } from './step-profile.js';

/** Lengths of a step easel's front from its sizes. */
export const profileOf = (sizes: Sizes): StepProfile => {
  const [riser, tread, upperRiser] = [num(sizes, 'riser'), num(sizes, 'tread'), num(sizes, 'upperRiser')];
  return { riser, tread, upperRiser, slope: num(sizes, 'depth') - riser - tread - upperRiser };
};

/** Where the window of a step easel lies on its front, and how large it is. */
export function windowOf(sizes: Sizes): { x: Mm; across: Mm; along: Mm } {
  const { riser, tread, upperRiser } = profileOf(sizes);
  const below = num(sizes, 'windowBelow');
  return {
    x: riser + tread - below,
    across: below + upperRiser + num(sizes, 'windowAbove'),
    along: num(sizes, 'length') - 2 * num(sizes, 'rail'),
  };
}

/** A clear strip across both rails, as wide as the upper riser, on the inside. */
export function clearStrip(sizes: Sizes, u2: number): { piece: Piece; bonds: Bond[] } {
  const [across, rail] = [num(sizes, 'upperRiser'), num(sizes, 'rail')];
  const inset = num(sizes, 'stripInset');
  const along = num(sizes, 'length') - 2 * inset;
  const glued = rail - inset - 1.5;
  const zone = (y: number) => rectangle(TAB_CLEARANCE, y, across - 2 * TAB_CLEARANCE, glued);
  const zones = [zone(0.5), zone(along - 0.5 - glued)];
  const piece = blankPiece({
    id: 'strip',
    name: 'Clear strip',
    stock: 'film',
    faceUp: 'either face up',
    outline: rectangle(0, 0, across, along),
    because: 'as wide as the upper riser, as long as the card less its inset at both ends',
    zones: zones.map((outline, i) => ({
      id: i === 0 ? 'near-glue' : 'far-glue',
      kind: 'glue' as const,
      face: 'up' as const,
      outline,
      says: `tape to the inside of the ${i === 0 ? 'near' : 'far'} rail`,
    })),
    anchors: [{ panel: 'strip', name: 'clear strip', at: [across / 2, along / 2] }],
  });
  const bond = (i: 0 | 1): Bond => ({
    id: i === 0 ? 'strip-near' : 'strip-far',
    name: `clear strip inside the ${i === 0 ? 'near' : 'far'} rail`,
    panel: 'strip/strip',
    face: 'up',
    partner: `base/${i === 0 ? 'near' : 'far'}-rail`,
    partnerFace: 'down',
    zone: i === 0 ? 'near-glue' : 'far-glue',
    placement: shifted([u2, inset]),
    atOnce: 'clear strip inside both rails',
    flat: true,
  });
  return { piece, bonds: [bond(0), bond(1)] };
}

/** The panel, a little smaller than its window, its back on the clear strip. */
export function floatingPanel(sizes: Sizes): { piece: Piece; bond: Bond } {
  const window = windowOf(sizes);
  const [clearance, below] = [num(sizes, 'panelClearance'), num(sizes, 'windowBelow')];
  const [width, height] = [window.along - 2 * clearance, window.across - 2 * clearance];
  const from = Math.max(1, below - clearance + 1);
  const glue = rectangle(2, from, width - 4, Math.max(2, Math.min(num(sizes, 'upperRiser') - 2, height - from - 1)));
  const piece = blankPiece({
    id: 'panel',
    name: 'Floating panel',
    stock: 'display',
    faceUp: 'picture up, foot at the bottom',
    outline: rectangle(0, 0, width, height),
    because: 'its window less the clearance on every side',
    zones: [
      { id: 'panel-glue', kind: 'glue', face: 'down', outline: glue, says: 'tape to the clear strip only; cover its back with a twin' },
    ],
    anchors: [{ panel: 'panel', name: 'floating panel', at: [width / 2, height / 2] }],
  });
  return {
    piece,
    bond: {
      id: 'panel-on-strip',
      name: 'floating panel on the clear strip',
      panel: 'panel/panel',
      face: 'down',
      partner: 'strip/strip',
      partnerFace: 'up',
      zone: 'panel-glue',
      placement: {
        to: [clearance - below, num(sizes, 'rail') - num(sizes, 'stripInset') + clearance + width],
        turn: -Math.PI / 2,
        flipped: false,
      },
      flat: true,
    },
  };
}
