import { sayLength } from '../measure/print.js';
import { spoken } from '../measure/sentence.js';
import { GROOVE_CATCH } from '../measure/ruler.js';
import type { Mm, Notation } from '../measure/units.js';
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
  const off: OffGroove[] = [];
  let upright = 0;
  for (const sheet of sheets) {
    const readable = new Set(setOnBoard(sheet));
    const places = scorePlaces(sheet, board.length, workshop.schools.scoring, (score) => readable.has(score));
    for (const { score, fromEnd } of places.flatMap(({ scores, at }) => scores.map((own) => ({ score: own, fromEnd: at })))) {
      upright++;
      const by = offKeptGroove(fromEnd, score.allowed, board);
      const isBeyond = fromEnd > board.length;
      if (isBeyond || by !== undefined) off.push({ sheet, score, by: by ?? fromEnd - board.length, isBeyond });
    }
  }
  if (off.length > 0) return [offGrooves(off, card.notation)];
  const says = upright > 0 ? 'Every score across a blank falls into a groove of the board.' : 'No score has to be set on the board.';
  return [{ id: 'scoreable', check: 'scoreable', severity: 'pass', says }];
};

/** A score that no groove takes, by how much (mm, positive beyond the groove). */
interface OffGroove {
  sheet: CutSheet;
  score: Score;
  by: Mm;
  /** it lies beyond the board from both ends */
  isBeyond: boolean;
}

/** One finding for all of them: they have one cause, sizes that are not on the board. */
function offGrooves(off: readonly OffGroove[], notation: Notation): Verdict {
  const lies = ({ by, isBeyond }: OffGroove): string =>
    `${spoken(Math.abs(by))} ${by > 0 ? 'beyond' : 'short of'} the nearest groove${isBeyond ? ' and beyond the board from both ends' : ''}`;
  const place = ({ sheet, score }: OffGroove): string => `${score.name} of ${sheet.piece.name} at ${sayLength(score.from[0], notation)}`;
  const many = off.map((one) => `${place(one)}, ${lies(one)}`).join('; ');
  return {
    id: 'scoreable',
    check: 'scoreable',
    severity: 'warn',
    value: Math.max(...off.map(({ by }) => Math.abs(by))),
    limit: GROOVE_CATCH,
    unit: 'mm',
    creases: off.map(({ sheet, score }) => `${sheet.piece.id}/${score.id}`),
    says:
      off.length === 1
        ? `The ${place(off[0]!)} lies ${lies(off[0]!)}. Mark it with pencil, or round the size to the board.`
        : `${off.length} scores do not fall into a groove: ${many}. Mark them with pencil, or round the sizes to the board.`,
  };
}

/** Scores set in a groove. The second score of a spine is set by eye beside the first: no groove pitch is that fine. */
export function setOnBoard(sheet: CutSheet): Score[] {
  return sheet.scores.filter((score) => readsOffRuler(score) && !score.secondOfSpine && liesSquare(score, sheet));
}

/** A blank with straight edges lies square on the board; an odd one only where a score runs from edge to edge of it. */
function liesSquare(score: Score, sheet: CutSheet): boolean {
  return sheet.outline.length === 4 || partOf(score, sheet) === undefined;
}
