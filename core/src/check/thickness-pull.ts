import { claimsOf } from '../card/draw.js';
import { spoken } from '../measure/sentence.js';
import type { Check } from './finding.js';

/** What a fold and its glue give without being seen, at either end of the motion. */
const GIVES = 1;

/** A width that thickness pulls two ways: how far is it off at either end, and which end has the slack? */
export const thicknessPull: Check = ({ design }) =>
  claimsOf(design, 'torn-width').map(({ id, piece, name, wantedOpen, wantedClosed, given }) => {
    const [open, closed] = [given - wantedOpen, given - wantedClosed];
    const value = Math.abs(wantedOpen - wantedClosed);
    const off = (end: string, by: number): string =>
      Math.abs(by) < 0.005 ? `${end} it fits` : `${end} it is ${spoken(Math.abs(by))} too ${by > 0 ? 'wide' : 'narrow'}`;
    return {
      id: `thickness-pull/${id}`,
      check: 'thickness-pull',
      severity: Math.max(Math.abs(open), Math.abs(closed)) > GIVES ? ('warn' as const) : ('pass' as const),
      value,
      limit: 2 * GIVES,
      unit: 'mm' as const,
      panels: design.panels.filter((panel) => panel.piece.id === piece).map((panel) => panel.id),
      says:
        `Thickness pulls ${name} two ways: standing it wants ${differs(wantedOpen)} the inner width, flat ${differs(wantedClosed)}. ` +
        `It is cut ${differs(given).replace(' than', '')}: ${off('standing', open)}, ${off('flat', closed)}, which folds and glue give.`,
    };
  });

function differs(by: number): string {
  if (Math.abs(by) < 0.005) return 'exactly';
  return `${spoken(Math.abs(by))} ${by > 0 ? 'more' : 'less'} than`;
}
