import type { Mm, Radians } from '../measure/units.js';
import type { Loop } from '../plane/outline.js';
import type { Point } from '../plane/point.js';
import type { Face, Mark, Piece, Zone } from '../sheet/piece.js';
import type { Bond, Coupling, Touch } from '../linkage/structure.js';
import type { Phase, Schedule } from '../linkage/schedule.js';
import type { FreeSize, PlainSize, Range, SizeItem, Sizes, SizeValue } from './sizes.js';

/** A number that follows from others, with the reason a maker would want. */
export interface Measure {
  name: string;
  label: string;
  value: number;
  unit: 'mm' | 'rad';
  because: string;
}

/** Something of constant thickness lying on a leaf's inside: a layer, a stack of decoration. */
export interface InnerLayer {
  id: string;
  name: string;
  panel: string;
  outline: readonly Point[];
  thickness: Mm;
}

/** Two edges that a maker expects to lie together when the card is closed. */
export interface MeetingEdges {
  id: string;
  name: string;
  a: { panel: string; from: Point; to: Point };
  b: { panel: string; from: Point; to: Point };
  /** edges that meet side by side, not face to face: which way is out of panel a, and the gap wanted between them */
  sideBySide?: { outward: Point; gap: Mm };
  mend?: Mend;
}

/** The size that puts a fault right, when one alone does. */
export interface Mend {
  size: string;
  label: string;
  value: Mm;
}

/** Two rows of panels that must be equally wide, or the card shears, leans or gapes. Widths are read off the pieces. */
export interface EqualWidths {
  id: string;
  name: string;
  a: { says: string; panels: readonly string[] };
  b: { says: string; panels: readonly string[] };
  /** what happens when they differ, in a clause */
  or: string;
  mend?: Mend;
}

/** A width that thickness pulls two ways: one when the card stands, another when it is closed. */
export interface TornWidth {
  id: string;
  piece: string;
  name: string;
  /** over or under the nominal width */
  wantedOpen: Mm;
  wantedClosed: Mm;
  given: Mm;
}

/** A part that is raised by itself: nothing may cover its hinge that it covers in turn. */
export interface RisingUnit {
  id: string;
  name: string;
  hinge: string;
  panels: readonly string[];
}

/** An opening that one side of a part must not reach into. */
export interface Reserved {
  id: string;
  panel: string;
  outline: Loop;
  /** what it is kept for, as the end of a sentence: “where the left bellows lie” */
  for: string;
  mend?: Mend;
}

/** Room that must be left in the closed card, from a point of one panel to a point of another, along a direction of the ground. */
export interface Room {
  id: string;
  /** as the beginning of a sentence: “The panel’s edge” … */
  name: string;
  from: { panel: string; at: Point };
  to: { panel: string; at: Point };
  along: Point;
  /** less than this is a warning; less than nothing fails */
  least: Mm;
  says: { enough: string; tight: string; none: string };
  mend?: Mend;
}

/** An opening that a strip of film passes through as the card moves. */
export interface SlotFit {
  id: string;
  name: string;
  /** the panel with the slot, the middle of its line, and how wide and long the slot is cut */
  panel: string;
  at: Point;
  width: Mm;
  length: Mm;
  /** what passes: the panel, its y axis along the travel, and its width along the slot */
  film: string;
  filmWidth: Mm;
  /** length needed beyond the film, both sides together */
  sideClearance: Mm;
  widthSize: string;
}

/** A part that swings through an opening of the sheet it is cut from. */
export interface SwingFit {
  id: string;
  name: string;
  panel: string;
  /** from its axis to its farthest free edge, and from the axis to the opening's edge there */
  reach: Mm;
  opening: Mm;
  mend?: Mend;
}

/** A part that must be stiff enough for how it stands. */
export interface StiffPart {
  id: string;
  name: string;
  panel: string;
  /** free: stands on one end; held: both ends held; cantilever: held at its lower end, leaning */
  kind: 'free' | 'held' | 'cantilever';
  length: Mm;
  width: Mm;
  /** from the table, for what leans */
  lean: Radians;
  /** weight carried at its end, g */
  tipWeight: number;
}

/** A fold that closes round whatever lies between its leaves. */
export interface ClosingFold {
  hinge: string;
  name: string;
  /** panels on the two sides, the lower first */
  lower: readonly string[];
  upper: readonly string[];
  /** from the fold to the free edge */
  depth: Mm;
  /** along the fold */
  length: Mm;
  /** whether the maker wants a spine: two scores as far apart as the stack is thick */
  spined: boolean;
  /** the free size that says so */
  spineSize: string;
}

/** A fold that a movement may stand on. Coordinates are those of the piece it belongs to. */
export interface HostFold {
  id: string;
  piece: string;
  hinge: string;
  /** the two leaves, in the order left (smaller x), right */
  leaves: readonly [left: string, right: string];
  /** x of the fold line, and where along y it runs */
  x: Mm;
  fromY: Mm;
  toY: Mm;
  depth: Mm;
  innerFace: Face;
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
  /** what keeps the pose, where it is not simply weight on a broad foot */
  heldBy?: { by: 'creases' | 'friction'; says: string };
  /** a stop that holds a foot: pushing against it, not friction, keeps the pose */
  stop?: { foot: string; footEdge: readonly [Point, Point]; height: Mm; footThickness: Mm; lean: Radians };
}

/** What a mechanism contributes to a card. */
export interface Part {
  pieces: Piece[];
  bonds: Bond[];
  touches: Touch[];
  couplings: Coupling[];
  measures: Measure[];
  tracked: Tracked[];
}

/** A side of the closed card: x from the fold to the free edge, y from the lower to the upper end. */
export type Side = 'fold' | 'free' | 'lower' | 'upper';

/** What a base gives: the body of the card, its drive, and folds to build on. */
export interface BasePart extends Part {
  ground: string;
  /** outline of the closed card as intended, in ground coordinates: x across the fold, y along it */
  closedOutline: readonly Point[];
  schedule: Schedule;
  hostFolds: HostFold[];
  meetings: MeetingEdges[];
  closings: ClosingFold[];
  innerLayers: InnerLayer[];
  rest: Rest;
  /** what the card's height means when it is open */
  openHeight: { label: string; because: string };
  equalWidths?: EqualWidths[];
  tornWidths?: TornWidth[];
  reserved?: Reserved[];
  rising?: RisingUnit[];
  rooms?: Room[];
  slots?: SlotFit[];
  swings?: SwingFit[];
  stiff?: StiffPart[];
  /** how it is folded for the post, where it can be folded in two ways */
  posting?: string;
  /** names of the closed card's sides, where they are not a fold at the left and free edges */
  sides?: Partial<Record<Side, string>>;
  /** sides with which moving parts end level on purpose */
  flush?: readonly Side[];
  /** said in order when the card is set up, after it is opened */
  settingUp?: string[];
  /** said when the parts are tried without glue */
  fitting?: string[];
}

/** What a movement gives, and what it draws on its host. */
export interface MovementPart extends Part {
  hostMarks: Mark[];
  hostZones: Zone[];
  phases?: readonly Phase[];
}

export interface BuildContext {
  sizes: Sizes;
  baseCaliper: Mm;
  mechanismCaliper: Mm;
  displayCaliper: Mm;
  filmCaliper: Mm;
  /** the outline of that name, in its own units: built in, or brought by the card */
  outline: (name: string) => Loop;
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
  alternatives: readonly AlternativeSize[];
}

export interface Base extends Described {
  kind: 'base';
  /** sizes that give a closed card of this size: across the fold, and along it */
  forClosedSize: (across: Mm, along: Mm) => Sizes;
  build: (context: BuildContext) => BasePart;
}

export interface Movement extends Described {
  kind: 'movement';
  /** id of this movement in its card; prefixes everything it makes */
  build: (context: BuildContext, host: HostFold, id: string) => MovementPart;
}

export type Mechanism = Base | Movement;
export type { FreeSize, PlainSize, Range, SizeItem, Sizes, SizeValue };
