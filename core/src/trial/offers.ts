import type { Finding } from '../check/finding.js';
import { setOnBoard } from '../check/scoreable.js';
import { evaluate, type Evaluation } from '../evaluate.js';
import { told } from '../measure/sentence.js';
import type { Workshop } from '../supplies/workshop.js';
import { applyFix } from './apply-fix.js';
import { roundedToGrooves } from './groove-rounding.js';

/**
 * Findings with the fixes that have to be searched for, worked out after the verdict is known. Each is tried out on the
 * whole card: it is offered only where nothing fails that does not fail now.
 */
export function withOffers(evaluation: Evaluation, workshop?: Workshop): Finding[] {
  const { design, findings } = evaluation;
  const offGroove = findings.filter(({ check, severity }) => check === 'scoreable' && severity !== 'pass');
  if (offGroove.length === 0) return findings;
  const board = design.card.supplies.boards.find(({ id }) => id === design.card.board)!;
  const eases = Object.fromEntries(Object.entries(evaluation.closed.spines));
  const found = roundedToGrooves(design, board, eases, setOnBoard);
  const offer = found && { ...found, says: told(found.says, design.card.notation) };
  if (!offer) return findings;
  const failing = (some: readonly Finding[]): string[] => some.filter(({ severity }) => severity === 'fail').map(({ id }) => id);
  const now = failing(findings);
  const tried = evaluate(applyFix(design.card, offer), workshop);
  if (!tried.ok || failing(tried.evaluation.findings).some((id) => !now.includes(id))) return findings;
  return findings.map((finding) => (offGroove.includes(finding) ? { ...finding, fix: offer } : finding));
}
