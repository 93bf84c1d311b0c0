import type { Mm, Radians } from '../../measure/units.js';
import { rectangle, type Loop } from '../../plane/outline.js';
import type { Placement } from '../../plane/placement.js';
import type { Point } from '../../plane/point.js';
import type { Crease, Fold } from '../../sheet/piece.js';
import { TAB_CLEARANCE } from '../../supplies/limits.js';
import { rayPlacement, rayTab, type Hand, type RayTab } from '../crested/ray-tab.js';
import { inFront, type LiftArm } from './lift-arm.js';

/** One of the two arms, and where it stands. */
export interface Placed {
  arm: LiftArm;
  /** the lower one opens up the fold, the upper one down it: its pieces are mirror images */
  hand: Hand;
  /** what its pieces are called by: `arm`, `brace`, `figure` of the lower or the upper end */
  end: 'lower' | 'upper';
  apex: Point;
  /** the figure with its hinge at x = 0, as the lower one is drawn */
  figure: Loop;
  braceWide: Mm;
  braceTurn: Radians;
}

/** What a maker calls an arm: on a fold that is turned round, the lower end of its site is the upper one of the card. */
export const numberOf = (end: Placed['end']): 1 | 2 => (end === 'lower' ? 1 : 2);

export const pieceId = (id: string, end: Placed['end'], what: 'arm' | 'figure' | 'brace'): string => `${id}-${end}-${what}`;

const OF_ARM = new Set(['first-wing', 'second-wing', 'large-tab', 'small-tab']);
export const panelOf = (id: string, end: Placed['end'], panel: string): string => {
  const piece = OF_ARM.has(panel) ? 'arm' : panel.startsWith('brace') ? 'brace' : 'figure';
  return `${pieceId(id, end, piece)}/${panel}`;
};

/** Tabs of an arm: the large one beyond the first wing, the small one beyond the second. Both lie inside the V. */
export function tabsOf({ arm, hand }: Placed): [RayTab, RayTab] {
  const tab = (i: 0 | 1): RayTab =>
    rayTab(arm.sides[i], i === 0 ? hand : hand === 1 ? -1 : 1, { length: arm.rays[i], width: arm.tab, inside: true, from: arm.trim });
  return [tab(0), tab(1)];
}

/** How an arm lies on one of its leaves: the first side is glued to the second leaf. */
export function armOn({ arm, hand, apex }: Placed, i: 0 | 1): Placement {
  const leafHand: Hand = i === 0 ? 1 : -1;
  return rayPlacement(arm.sides[i], { leafHand, pieceHand: leafHand === hand ? 1 : -1, dir: hand, flipped: true, apex });
}

export const heightOf = ({ mount: [low, high] }: LiftArm): Mm => high - low;
/** How far from the brace's nearer fold its fold on the figure lies, and that on the arm. */
export const figureSide = ({ arm, braceWide }: Placed): Mm => (inFront(arm.hinge) ? 0 : braceWide);
export const armSide = ({ arm, braceWide }: Placed): Mm => (inFront(arm.hinge) ? braceWide : 0);

/** A score that lies open in the closed card. */
export const fold = (id: string, name: string, from: Point, to: Point, way: Fold): Crease => ({
  ...{ id, name, from, to, fold: way, closed: 0, ease: 0 },
});

/** Glue keeps this far inside the edges of its tab. */
const GLUE_INSET: Mm = 0.5;
/** Glue on an upright tab, clear of the fold at one of its sides. */
export function glueOn(x: Mm, y: Mm, width: Mm, height: Mm, foldAt: 'left' | 'right'): Loop {
  const from = x + (foldAt === 'left' ? TAB_CLEARANCE : GLUE_INSET);
  return rectangle(from, y + GLUE_INSET, width - TAB_CLEARANCE - GLUE_INSET, height - 2 * GLUE_INSET);
}
