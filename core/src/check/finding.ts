import type { ClosedCard } from '../card/closed-card.js';
import type { Dressing } from '../card/dressing.js';
import type { Design } from '../card/join.js';
import type { Standing } from '../card/standing.js';
import type { Dressed } from '../dress/dress.js';
import type { Frame, Motion } from '../linkage/motion.js';
import type { Envelope } from '../supplies/envelopes.js';
import type { Board } from '../supplies/boards.js';
import type { Workshop } from '../supplies/workshop.js';
import type { CutSheet } from '../sheet/cut-sheet.js';

export type Severity = 'pass' | 'warn' | 'fail';

/** A change of sizes that mends a finding. */
export interface Fix {
  says: string;
  changes: { owner: string; size: string; value: number | string }[];
  /** what the card then wears, where that goes along */
  dressing?: Dressing;
}

/** One verdict: a sentence with its numbers and its place. */
export interface Finding {
  id: string;
  check: string;
  severity: Severity;
  says: string;
  /** what was measured, and what it may be; mm, or degrees where `unit` says so */
  value?: number;
  limit?: number;
  unit?: 'mm' | 'deg' | 'g';
  /** panels and creases it is about */
  panels?: string[];
  creases?: string[];
  /** where in the drive (0 closed … 1 open) */
  at?: number;
  /** id of the finding that causes this one */
  followsFrom?: string;
  fix?: Fix;
  /** the part it is about */
  owner: string;
  /** how far from right it is, in one direction: 0 when it passes */
  shortfall: number;
}

/** What a check says. Owner and shortfall are worked out where it leaves them out: see `all-checks`. */
export type Verdict = Omit<Finding, 'owner' | 'shortfall'> & Partial<Pick<Finding, 'owner' | 'shortfall'>>;

/** What every check may read. */
export interface CheckInput {
  card: Design['card'];
  design: Design;
  /** how it moves; where its joints miss each other, as it does with them pressed together flat */
  motion: Motion;
  /** how it moves left to itself, joints missing each other as they do */
  free: Motion;
  closed: ClosedCard;
  sheets: CutSheet[];
  /** what its panels wear */
  dressed: Dressed;
  resting: Frame;
  standing: Standing;
  board: Board;
  envelope: Envelope | undefined;
  workshop: Workshop;
}

export type Check = (input: CheckInput) => Verdict[];

/** The part of a finding's id that names two things: the same whichever was drawn first. */
export const ofBoth = (a: string, b: string): string => (a < b ? `${a}/${b}` : `${b}/${a}`);
