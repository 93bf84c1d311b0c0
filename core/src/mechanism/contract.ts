import type { Mm, Radians } from '../measure/units.js';
import type { Point } from '../plane/point.js';
import type { Face, Mark, Piece, Zone } from '../sheet/piece.js';
import type { Bond, Coupling, Touch } from '../linkage/structure.js';
import type { Phase, Schedule } from '../linkage/schedule.js';
import type { FreeSize, Range, Sizes } from './sizes.js';

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
  | { id: string; label: string; kind: 'height'; panel: string; at: Point };

/** How the finished card is put down. `up` is a direction of the ground panel's frame. */
export interface Rest {
  at: number;
  up: readonly [number, number, number];
  /** from where a person looks at it, a direction of the ground panel's frame */
  viewFrom: readonly [number, number, number];
  says: string;
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
  needs: readonly string[];
  mayGoWrong: readonly string[];
  sizes: readonly FreeSize[];
  alternatives: readonly AlternativeSize[];
}

export interface Base extends Described {
  kind: 'base';
  build: (context: BuildContext) => BasePart;
}

export interface Movement extends Described {
  kind: 'movement';
  /** id of this movement in its card; prefixes everything it makes */
  build: (context: BuildContext, host: HostFold, id: string) => MovementPart;
}

export type Mechanism = Base | Movement;
export type { FreeSize, Range, Sizes };
