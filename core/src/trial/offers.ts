import type { CardDocument } from '../card/document.js';
import type { Finding, Fix } from '../check/finding.js';
import { setOnBoard } from '../check/scoreable.js';
import { evaluate, type Evaluation } from '../evaluate.js';
import { told } from '../measure/sentence.js';
import type { Workshop } from '../supplies/workshop.js';
import { applyFix } from './apply-fix.js';
import { fittedToEnvelope } from './envelope-fit.js';
import { roundedToGrooves } from './groove-rounding.js';

/** Fixes that have to be searched for, by the finding that they mend. */
const SEARCHES: Readonly<Record<string, (evaluation: Evaluation, workshop?: Workshop) => Fix | undefined>> = {
  scoreable: ({ design, closed }) => {
    const board = design.card.supplies.boards.find(({ id }) => id === design.card.board)!;
    return roundedToGrooves(design, board, closed.spines, setOnBoard);
  },
  'stays-inside/envelope': fittedToEnvelope,
};

/**
 * Findings with the fixes that have to be searched for, worked out after the verdict is known. Each is tried out on the
 * whole card: it is offered only where nothing fails that does not fail now.
 */
export function withOffers(evaluation: Evaluation, workshop?: Workshop): Finding[] {
  return evaluation.findings.map((finding) => {
    const search = finding.severity === 'pass' || finding.fix ? undefined : SEARCHES[finding.id];
    const fix = search?.(evaluation, workshop);
    if (!fix || !mends(finding, fix, evaluation, workshop)) return finding;
    return { ...finding, fix: { ...fix, says: told(fix.says, evaluation.design.card.notation) } };
  });
}

function mends({ id, severity }: Finding, fix: Fix, { design, findings }: Evaluation, workshop?: Workshop): boolean {
  const tried = evaluate(applyFix(design.card, fix), workshop);
  if (!tried.ok) return false;
  const failing = tried.evaluation.findings.filter((found) => found.severity === 'fail').map((found) => found.id);
  const now = findings.filter((found) => found.severity === 'fail').map((found) => found.id);
  return failing.every((other) => now.includes(other)) && !(severity === 'fail' && failing.includes(id));
}

/** A card that was just begun, its sizes brought to the grooves of its board where that can be done and breaks nothing; and what that changed. */
export function begunOnBoard(card: CardDocument, workshop: Workshop): { card: CardDocument; says?: string } {
  const outcome = evaluate(card, workshop);
  if (!outcome.ok) return { card };
  const fix = withOffers(outcome.evaluation, workshop).find(({ id }) => id === 'scoreable')?.fix;
  return fix ? { card: applyFix(card, fix), says: fix.says } : { card };
}
