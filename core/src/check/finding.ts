import type { CardDocument } from '../card/document.js';
import type { ClosedCard } from '../card/closed-card.js';
import { setSize } from '../card/set-size.js';
import type { Design } from '../card/compose.js';
import type { Standing } from '../card/standing.js';
import type { Frame, Motion } from '../linkage/motion.js';
import type { Envelope } from '../supplies/envelopes.js';
import type { Board } from '../supplies/boards.js';
import type { CutSheet } from '../sheet/cut-sheet.js';

export type Severity = 'pass' | 'warn' | 'fail';

/** A change of sizes that mends a finding. */
export interface Fix {
  says: string;
  changes: { owner: string; size: string; value: number | string }[];
  /** may make something else fail: it is tried out before it is offered */
  untried?: true;
}

/** A card with the changes of a fix made. */
export function applyFix(card: CardDocument, { changes }: Fix): CardDocument {
  return changes.reduce((changed, { owner, size, value }) => setSize(changed, owner, size, value), card);
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
}

/** What every check may read. */
export interface CheckInput {
  card: CardDocument;
  design: Design;
  motion: Motion;
  closed: ClosedCard;
  sheets: CutSheet[];
  resting: Frame;
  standing: Standing;
  board: Board;
  envelope: Envelope | undefined;
}

export type Check = (input: CheckInput) => Finding[];
