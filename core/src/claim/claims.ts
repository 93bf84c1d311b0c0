import type { Mm, Radians } from '../measure/units.js';
import type { Loop } from '../plane/outline.js';
import type { Point } from '../plane/point.js';
import type { Face } from '../sheet/piece.js';

/** The size that puts a fault right, when one alone does. */
export interface Mend {
  size: string;
  label: string;
  /** a length, or an angle where it says so */
  value: number;
  unit?: 'rad';
}

/** Something of constant thickness lying on a leaf's inside: a layer, a stack of decoration. */
export interface InnerLayer {
  kind: 'inner-layer';
  id: string;
  name: string;
  panel: string;
  outline: readonly Point[];
  thickness: Mm;
}

/** Two edges that a maker expects to lie together when the card is closed. */
export interface MeetingEdges {
  kind: 'meeting';
  id: string;
  name: string;
  a: { panel: string; from: Point; to: Point };
  b: { panel: string; from: Point; to: Point };
  /** edges that meet side by side, not face to face: which way is out of panel a, and the gap wanted between them */
  sideBySide?: { outward: Point; gap: Mm };
  mend?: Mend;
}

/** Two rows of panels that must be equally wide, or the card shears, leans or gapes. Widths are read off the pieces. */
export interface EqualWidths {
  kind: 'equal-widths';
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
  kind: 'torn-width';
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
  kind: 'rising';
  id: string;
  name: string;
  hinge: string;
  panels: readonly string[];
}

/** An opening that one side of a part must not reach into. */
export interface Reserved {
  kind: 'reserved';
  id: string;
  panel: string;
  outline: Loop;
  /** what it is kept for, as the end of a sentence: “where the left bellows lie” */
  for: string;
  mend?: Mend;
}

/** Room that must be left in the closed card, from a point of one panel to a point of another, along a direction of the ground. */
export interface Room {
  kind: 'room';
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
  kind: 'slot';
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
  kind: 'swing';
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
  kind: 'stiff';
  id: string;
  name: string;
  panel: string;
  /** free: stands on one end; held: both ends held; cantilever: held at its lower end, leaning, or pushed where it lies level */
  held: 'free' | 'held' | 'cantilever';
  length: Mm;
  width: Mm;
  /** from the table, for what leans */
  lean: Radians;
  /** weight carried at its end, g */
  tipWeight: number;
  /** layers of its stock that are glued together there; one where left out */
  layers?: number;
}

/** A number of a part that must be another of it, or the part does not move as it should. */
export interface Agreement {
  kind: 'agreement';
  id: string;
  /** as the beginning of a sentence: “The brace between its folds” …, and what it must be equal to */
  name: string;
  with: string;
  value: number;
  wanted: number;
  /** more than it must be is no fault */
  atLeast?: true;
  unit: 'mm' | 'rad';
  /** less is nothing that a hand could set */
  play: number;
  /** what happens when they differ, in a clause */
  or: string;
  panels: readonly string[];
  mend?: Mend;
}

/** A panel that never passes a line across the fold, wherever the card is in its motion. */
export interface NeverPast {
  kind: 'never-past';
  id: string;
  name: string;
  panel: string;
  /** a point of the line on a panel, and the direction of that panel that leads past it */
  of: { panel: string; at: Point; along: Point };
  /** what the line is, as “the middle between both arms” */
  where: string;
  /** the size that is made greater by so much for each millimetre that the panel goes past */
  mend?: Mend & { perMm: number };
}

/**
 * Panels in a row that no rigid motion takes from the closed to the open card: held by a stiff panel at either end, they
 * bend between them. All are of one piece.
 */
export interface BendingRow {
  kind: 'bends';
  id: string;
  /** “the middle of the carrier” */
  name: string;
  /** in order, and the stiff panels that the first and the last of them hang on */
  panels: readonly string[];
  held: readonly [string, string];
  /** in order: the fold on the first stiff panel, those between the panels, the fold on the last one */
  folds: readonly string[];
  /** leaves that the sheet stays before: the panel, and the face that looks at the sheet */
  before: readonly { panel: string; face: Face }[];
  /** the choice that makes the row meet in itself, where another does not */
  mend?: { size: string; value: string; says: string };
}

/** A fold that closes round whatever lies between its leaves. */
export interface ClosingFold {
  kind: 'closing';
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
  /** the free size that says so; empty where the fold cannot have one */
  spineSize: string;
}

/**
 * What a part says of itself for the checks to read: one claim for one relation that must hold. A new kind of relation
 * is one more claim here and one check that asks for it.
 */
export type Claim =
  | InnerLayer
  | MeetingEdges
  | EqualWidths
  | TornWidth
  | RisingUnit
  | Reserved
  | Room
  | SlotFit
  | SwingFit
  | StiffPart
  | Agreement
  | NeverPast
  | BendingRow
  | ClosingFold;

export type ClaimKind = Claim['kind'];
export type ClaimOf<K extends ClaimKind> = Extract<Claim, { kind: K }>;

/** What is said in a claim, its kind left out. */
export type Said<C extends Claim> = Omit<C, 'kind'>;

/** Makes a claim of a kind: a mechanism writes `meeting({ … })`. */
const claim =
  <K extends ClaimKind>(kind: K) =>
  (said: Said<ClaimOf<K>>): ClaimOf<K> =>
    ({ kind, ...said }) as ClaimOf<K>;

export const innerLayer = claim('inner-layer');
export const meeting = claim('meeting');
export const equalWidths = claim('equal-widths');
export const tornWidth = claim('torn-width');
export const rising = claim('rising');
export const reserved = claim('reserved');
export const room = claim('room');
export const slot = claim('slot');
export const swing = claim('swing');
export const stiff = claim('stiff');
export const agreement = claim('agreement');
export const neverPast = claim('never-past');
export const bends = claim('bends');
export const closing = claim('closing');
