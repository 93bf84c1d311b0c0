import type { CardDocument } from '../card/document.js';
import type { SizeRow } from '../card/size-rows.js';
import type { Finding, Severity } from '../check/finding.js';
import { evaluateQuickly, type Outcome } from '../evaluate.js';
import type { Workshop } from '../supplies/workshop.js';
import { freeRows } from './changed-sizes.js';

/** What is to be put right: what keeps the card from working, or what it could do better as well. */
export type Aim = Extract<Severity, 'fail' | 'warn'>;

/** A card that was tried, and how much is wrong with it: 0 where nothing of what is aimed at is. */
export interface Tried {
  card: CardDocument;
  outcome: Outcome;
  trouble: number;
}

/** An angle counts as what it moves a place so far out, mm. */
export const LEVER = 60;
/** A size outside its limits counts for more than anything that a check may find: nothing is known of such a card. */
const OUTSIDE = 1000;
/** A degree counts as so many mm. */
const PER_DEGREE = 0.5;
/** What is set by rounding or choosing, not by sizes growing or shrinking. */
const NOT_BY_SIZES: readonly string[] = ['scoreable', 'writable', 'grain', 'has-sheet'];

/** How far a card is from having nothing against it: the sum of how far each finding is from right, in mm. */
export function tried(card: CardDocument, workshop: Workshop, aim: Aim): Tried {
  const outcome = evaluateQuickly(card, workshop);
  if (!outcome.ok) return { card, outcome, trouble: OUTSIDE * (1 + outsideBy(card)) };
  return { card, outcome, trouble: outcome.evaluation.findings.reduce((sum, finding) => sum + weightOf(finding, aim), 0) };
}

/** Whether a finding is among what is aimed at. */
export const isAimedAt = ({ severity, check }: Finding, aim: Aim): boolean =>
  severity === 'fail' || (aim === 'warn' && severity === 'warn' && !NOT_BY_SIZES.includes(check));

function weightOf(finding: Finding, aim: Aim): number {
  if (!isAimedAt(finding, aim)) return 0;
  // What has hardly a shortfall is there all the same: nothing may be taken for nothing.
  return 1e-3 + finding.shortfall * (finding.unit === 'deg' ? PER_DEGREE : 1);
}

/** By how much the sizes of a card lie outside their limits, mm all together. */
function outsideBy(card: CardDocument): number {
  return freeRows(card).reduce((sum, row) => sum + beyond(row), 0);
}

function beyond({ range, value, kind }: SizeRow): number {
  if (!range || typeof value !== 'number' || range.max < range.min) return 0;
  return Math.max(0, range.min - value, value - range.max) * (kind === 'angle' ? LEVER : 1);
}
