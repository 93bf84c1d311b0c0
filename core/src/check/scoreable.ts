import { plainMm, sayLength } from '../measure/print.js';
import { GROOVE_CATCH, nearestGroove } from '../measure/ruler.js';
import { partOf, readsOffRuler, type CutSheet, type Score } from '../sheet/cut-sheet.js';
import type { Design } from '../card/compose.js';
import type { Check, Finding } from './finding.js';
import { roundedToGrooves } from './rounded-to-grooves.js';

/** Does every score that is set on the board fall into one of its grooves? */
export const scoreable: Check = (input) => {
  const { card, design, sheets, board } = input;
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
    for (const score of setOnBoard(sheet)) {
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
  if (found.length > 0) {
    const fix = found.every(({ creases }) => ofBase(creases![0]!, design)) ? roundedToGrooves(design, board, setOnBoard) : undefined;
    return found.map((finding) => ({ ...finding, ...(fix && { fix }) }));
  }
  const says = upright > 0 ? 'Every score across a blank falls into a groove of the board.' : 'No score has to be set on the board.';
  return [{ id: 'scoreable', check: 'scoreable', severity: 'pass', says }];
};

/** Scores set in a groove. The second score of a spine is set by eye beside the first: no groove pitch is that fine. */
function setOnBoard(sheet: CutSheet): Score[] {
  return sheet.scores.filter((score) => readsOffRuler(score) && !score.secondOfSpine && liesSquare(score, sheet));
}

const ofBase = (crease: string, { base }: Design): boolean => base.pieces.some(({ id }) => crease.startsWith(`${id}/`));

/** A blank with straight edges lies square on the board; an odd one only where a score runs from edge to edge of it. */
function liesSquare(score: Score, sheet: CutSheet): boolean {
  return sheet.outline.length === 4 || partOf(score, sheet) === undefined;
}
