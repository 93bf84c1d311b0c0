import type { Mm, Radians } from '../measure/units.js';
import type { Loop } from '../plane/outline.js';
import type { Point } from '../plane/point.js';
import type { Piece } from '../sheet/piece.js';
import type { Bond, Coupling, Touch } from '../linkage/structure.js';
import type { Phase, Schedule } from '../linkage/schedule.js';
import type { Claim } from '../claim/claims.js';
import type { SheetSize } from '../supplies/sheets.js';
import type { Edit, FoldSite } from './sites.js';
import type { FreeSize, PlainSize, Range, SizeContext, SizeItem, Sizes, SizeValue } from './sizes.js';

/** A number that follows from others, with the reason a maker would want. */
export interface Measure {
  name: string;
  label: string;
  value: number;
  unit: 'mm' | 'rad';
  because: string;
}

/** An angle or height followed through the motion. */
export type Tracked =
  | { id: string; label: string; kind: 'angle'; panel: string; along: Point; withPanel: string; withAlong: Point }
  | { id: string; label: string; kind: 'height'; panel: string; at: Point }
  /** how far a point of one panel lies from a point of another, along a direction of the other: a slide's travel */
  | { id: string; label: string; kind: 'travel'; panel: string; at: Point; onPanel: string; from: Point; along: Point };

/** How the finished card is put down. `up` is a direction of the ground panel's frame. */
export interface Rest {
  at: number;
  up: readonly [number, number, number];
  /** from where a person looks at it, a direction of the ground panel's frame */
  viewFrom: readonly [number, number, number];
  says: string;
  /** the panel that lies on the table, where it is not the ground */
  onTable?: string;
  /** what keeps the pose, where it is not simply weight on a broad foot */
  heldBy?: { by: 'creases' | 'friction'; says: string };
  /** a stop that holds a foot: pushing against it, not friction, keeps the pose */
  stop?: {
    foot: string;
    footEdge: readonly [Point, Point];
    height: Mm;
    footThickness: Mm;
    lean: Radians;
    /** one of the maker's toppers is the stop, with its own height */
    byTopper?: true;
  };
}

/** A side of the closed card: x from the fold to the free edge, y from the lower to the upper end. */
export type Side = 'fold' | 'free' | 'lower' | 'upper';

/** Words for the steps that the geometry does not give. */
export interface PartWords {
  /** said in order when the card is set up, after it is opened */
  settingUp?: readonly string[];
  /** said when the parts are tried without glue */
  fitting?: readonly string[];
  /** how it is folded for the post, where it can be folded in two ways */
  posting?: string;
}

/** What any part gives, base or movement. What is left out is nothing. */
export interface Contribution {
  pieces?: readonly Piece[];
  /** what it draws on the leaves that it stands on */
  edits?: readonly Edit[];
  bonds?: readonly Bond[];
  touches?: readonly Touch[];
  couplings?: readonly Coupling[];
  claims?: readonly Claim[];
  /** folds that others may build on, besides those that `draw` finds along the creases of a base */
  sites?: readonly FoldSite[];
  /** folds that are led through the drive besides the base's own */
  phases?: readonly Phase[];
  measures?: readonly Measure[];
  tracked?: readonly Tracked[];
  words?: PartWords;
}

/** What a base gives besides: the body of the card, its drive, and how it is put down. */
export interface BaseContribution extends Contribution {
  pieces: readonly Piece[];
  ground: string;
  /** outline of the closed card as intended, in ground coordinates: x across the fold, y along it */
  closedOutline: readonly Point[];
  schedule: Schedule;
  rest: Rest;
  /** what the card's height means when it is open */
  openHeight: { label: string; because: string };
  /** names of the closed card's sides, where they are not a fold at the left and free edges */
  sides?: Partial<Record<Side, string>>;
  /** sides with which moving parts end level on purpose */
  flush?: readonly Side[];
}

export interface BuildContext extends Omit<SizeContext, 'item' | 'index' | 'ownOutlines' | 'site'> {
  /** the outline of that name, in its own units: built in, or brought by the card */
  outline: (name: string) => Loop;
  /** id of this part in its card; begins the ids of everything that a movement makes */
  id: string;
}

/** Another way of setting a size: it is turned into that size when typed, and shown beside it. */
export interface AlternativeSize {
  name: string;
  label: string;
  kind: 'length' | 'angle';
  insteadOf: string;
  help: string;
  toSize: (value: number, sizes: Sizes) => number;
  fromSize: (sizes: Sizes) => number;
}

interface Described {
  id: string;
  name: string;
  summary: string;
  difficulty: 'easy' | 'medium' | 'hard';
  /** what a maker may want of a card, in a few words */
  gives: readonly string[];
  needs: readonly string[];
  mayGoWrong: readonly string[];
  sizes: readonly FreeSize[];
  alternatives?: readonly AlternativeSize[];
}

export interface Base extends Described {
  kind: 'base';
  /**
   * sizes that give a closed card of this size, across the fold and along it, what follows from them down to steps of a
   * ruler where one is given; left out where they are `depth` and `length`
   */
  forClosedSize?: (across: Mm, along: Mm, step?: Mm) => Sizes;
  /** which edge of the card the fold is when it is held to be read; the side where left out */
  foldEdge?: 'side' | 'top';
  build: (context: BuildContext) => BaseContribution;
}

/** A card and a movement that use up one sheet, by one size of the movement that is given. */
export interface UsedUp {
  /** the size that is given, and what it is to begin with */
  size: string;
  usual: (sheet: SheetSize) => Mm;
  /** what that size may be on a sheet */
  range: (sheet: SheetSize) => Range;
  /** the closed card of two leaves, across and along its fold, and all sizes of the movement */
  from: (sheet: SheetSize, value: Mm) => { depth: Mm; length: Mm; sizes: Sizes };
}

export interface Movement extends Described {
  kind: 'movement';
  stands: 'fold';
  /** what a part of this kind is called in a card, to begin with */
  usualId: string;
  /** the size that says where along its site it stands: what is changed when it is moved there by hand */
  placeSize: string;
  /** the size that says how much of its site it takes along it */
  alongSize: string;
  /** for one that shares a sheet with its card so that nothing of it is left over */
  usesUp?: UsedUp;
  /** why it cannot stand on a site, as the end of a sentence that begins “It cannot stand there:”; nothing where it can */
  cannotStand: (site: FoldSite) => string | undefined;
  build: (context: BuildContext, site: FoldSite) => Contribution;
}

export type Mechanism = Base | Movement;
export type { FreeSize, PlainSize, Range, SizeItem, Sizes, SizeValue };
