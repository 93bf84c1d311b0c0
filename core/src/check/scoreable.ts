import { plainMm, sayLength } from '../measure/print.js';
import { GROOVE_CATCH, nearestGroove } from '../measure/ruler.js';
import { readsOffRuler } from '../sheet/cut-sheet.js';
import type { Check, Finding } from './finding.js';

/** Does every score that is set on the board fall into one of its grooves? */
export const scoreable: Check = ({ card, sheets, board }) => {
  if (board.free)
    return [
      {
        id: 'scoreable',
        check: 'scoreable',
        severity: 'pass',
        says: 'Scored with pencil, rule and bone folder: every position can be set.',
      },
    ];
  const found: Finding[] = [];
  let upright = 0;
  for (const sheet of sheets) {
    for (const score of sheet.scores) {
      // The second score of a spine is set by eye beside the first: no groove pitch is that fine.
      if (!readsOffRuler(score, sheet) || score.secondOfSpine) continue;
      upright++;
      const x = score.from[0];
      const fromEnd = x > board.length ? sheet.width - x : x;
      const { off } = nearestGroove(fromEnd, board);
      if (fromEnd <= board.length && Math.abs(off) <= GROOVE_CATCH) continue;
      const reach = fromEnd > board.length ? ' and beyond the board from both ends' : '';
      found.push({
        id: `scoreable/${sheet.piece.id}/${score.id}`,
        check: 'scoreable',
        severity: 'warn',
        value: Math.abs(off),
        limit: GROOVE_CATCH,
        unit: 'mm',
        creases: [`${sheet.piece.id}/${score.id}`],
        says: `The ${score.name} of ${sheet.piece.name} at ${sayLength(x, card.notation)} lies ${plainMm(Math.abs(off))} ${off > 0 ? 'beyond' : 'short of'} the nearest groove${reach}. Mark it with pencil, or round the size to the board.`,
      });
    }
  }
  if (found.length > 0) return found;
  const says = upright > 0 ? 'Every score across a blank falls into a groove of the board.' : 'No score has to be set on the board.';
  return [{ id: 'scoreable', check: 'scoreable', severity: 'pass', says }];
};
