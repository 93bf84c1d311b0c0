import { plainMm, sayLength } from '../measure/print.js';
import { GROOVE_CATCH, nearestGroove } from '../measure/ruler.js';
import { partOf, readsOffRuler, type CutSheet, type Score } from '../sheet/cut-sheet.js';
import type { Check, CheckInput, Finding, Fix } from './finding.js';

/** Does every score that is set on the board fall into one of its grooves? */
export const scoreable: Check = (input) => {
  const { card, sheets, board } = input;
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
      if (!readsOffRuler(score) || score.secondOfSpine || !liesSquare(score, sheet)) continue;
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
  const fix = found.length > 0 ? roundedToGrooves(input) : undefined;
  if (found.length > 0) return found.map((finding) => ({ ...finding, ...(fix && { fix }) }));
  const says = upright > 0 ? 'Every score across a blank falls into a groove of the board.' : 'No score has to be set on the board.';
  return [{ id: 'scoreable', check: 'scoreable', severity: 'pass', says }];
};

/** How many grooves to either side are tried. */
const GROOVES_TRIED = 8;

/** A blank with straight edges lies square on the board; an odd one only where a score runs from edge to edge of it. */
function liesSquare(score: Score, sheet: CutSheet): boolean {
  return sheet.outline.length === 4 || partOf(score, sheet) === undefined;
}

/**
 * The nearest value of one free size at which every score falls into a groove: only the free size is
 * rounded, what follows from it follows. A score that stands for a size moves by 1/perMm of its change.
 */
function roundedToGrooves({ card, design, sheets, board }: CheckInput): Fix | undefined {
  const scores = sheets.flatMap((sheet) =>
    sheet.scores.filter((score) => readsOffRuler(score) && !score.secondOfSpine && liesSquare(score, sheet)),
  );
  const leader = scores.find((score) => score.standsFor);
  if (!leader?.standsFor || scores.some((score) => score.standsFor?.size !== leader.standsFor!.size)) return undefined;
  const { size, perMm } = leader.standsFor;
  const now = design.sizes['base']![size] as number;
  const groove = Math.round(leader.from[0] / board.pitch);
  const fits = (value: number): boolean =>
    scores.every((score) => {
      const at = score.from[0] + (value - now) / score.standsFor!.perMm;
      return at > 0 && at <= board.length && Math.abs(nearestGroove(at, board).off) <= GROOVE_CATCH / 2;
    });
  const candidates = Array.from(
    { length: 2 * GROOVES_TRIED + 1 },
    (_, i) => now + ((groove - GROOVES_TRIED + i) * board.pitch - leader.from[0]) * perMm,
  );
  const nearest = candidates.filter(fits).sort((a, b) => Math.abs(a - now) - Math.abs(b - now))[0];
  if (nearest === undefined) return undefined;
  return {
    says: `Round the ${size} to ${sayLength(nearest, card.notation)}: every score falls into a groove.`,
    changes: [{ owner: 'base', size, value: nearest }],
  };
}
