import { sayLength } from '../measure/print.js';
import { spoken } from '../measure/sentence.js';
import { GROOVE_CATCH } from '../measure/ruler.js';
import { partOf, readsOffRuler, type CutSheet, type Score } from '../sheet/cut-sheet.js';
import { scorePlaces } from '../sheet/score-places.js';
import type { Check, Verdict } from './finding.js';
import { offKeptGroove } from '../supplies/boards.js';

/** Does every score that is set on the board fall into one of its grooves? */
export const scoreable: Check = (input) => {
  const { card, sheets, board, workshop } = input;
  if (board.free)
    return [
      {
        id: 'scoreable',
        check: 'scoreable',
        severity: 'pass',
        says: 'Scored with pencil, rule and bone folder: every position can be set.',
      },
    ];
  const found: Verdict[] = [];
  let upright = 0;
  for (const sheet of sheets) {
    const readable = new Set(setOnBoard(sheet));
    const places = scorePlaces(sheet, board.length, workshop.schools.scoring, (score) => readable.has(score));
    for (const { score, fromEnd } of places.flatMap(({ scores, at }) => scores.map((own) => ({ score: own, fromEnd: at })))) {
      upright++;
      const x = score.from[0];
      const off = offKeptGroove(fromEnd, score.allowed, board);
      if (fromEnd <= board.length && off === undefined) continue;
      const reach = fromEnd > board.length ? ' and beyond the board from both ends' : '';
      const by = off ?? fromEnd - board.length;
      found.push({
        id: `scoreable/${sheet.piece.id}/${score.id}`,
        check: 'scoreable',
        severity: 'warn',
        value: Math.abs(by),
        limit: GROOVE_CATCH,
        unit: 'mm',
        creases: [`${sheet.piece.id}/${score.id}`],
        says: `The ${score.name} of ${sheet.piece.name} at ${sayLength(x, card.notation)} lies ${spoken(Math.abs(by))} ${by > 0 ? 'beyond' : 'short of'} the nearest groove${reach}. Mark it with pencil, or round the size to the board.`,
      });
    }
  }
  if (found.length > 0) return found;
  const says = upright > 0 ? 'Every score across a blank falls into a groove of the board.' : 'No score has to be set on the board.';
  return [{ id: 'scoreable', check: 'scoreable', severity: 'pass', says }];
};

/** Scores set in a groove. The second score of a spine is set by eye beside the first: no groove pitch is that fine. */
export function setOnBoard(sheet: CutSheet): Score[] {
  return sheet.scores.filter((score) => readsOffRuler(score) && !score.secondOfSpine && liesSquare(score, sheet));
}

/** A blank with straight edges lies square on the board; an odd one only where a score runs from edge to edge of it. */
function liesSquare(score: Score, sheet: CutSheet): boolean {
  return sheet.outline.length === 4 || partOf(score, sheet) === undefined;
}
