import { offGroove, type Board } from '../supplies/boards.js';
import type { Mm, Notation } from '../measure/units.js';
import { rulerWords } from '../measure/ruler.js';
import { sayLength } from '../measure/print.js';
import { partOf, readsOffRuler, type CutSheet, type Score } from '../sheet/cut-sheet.js';

/** One reading of a run: where to score, said the way it is found. */
export interface ScoreReading {
  score: Score;
  /** from the edge that lies at the board's zero */
  at: Mm;
  words: string;
  /** where it begins and ends, from the edge nearer you as the blank lies, when it does not run right across */
  part?: [from: Mm, to: Mm];
  /** how far the nearest groove is, when it does not fall into one */
  offGroove?: Mm;
}

/** Scores that are made with the blank lying one way: same face up, same end at zero. */
export interface ScoreRun {
  face: 'up' | 'down';
  /** the blank's far end lies at the board's zero */
  turned: boolean;
  readings: ScoreReading[];
}

/**
 * Groups the scores of a sheet so that the blank is turned and flipped least: all that can be read with
 * the upper face up from the near end, then those beyond the board from the far end, then, face over,
 * the mountains the same way. Face over means turned like a page, so the far end lies at zero.
 */
export function scoreRuns(sheet: CutSheet, board: Board, notation: Notation): ScoreRun[] {
  const scores = sheet.scores.filter((score) => readsOffRuler(score));
  const runs: ScoreRun[] = [];
  for (const face of ['up', 'down'] as const) {
    const own = scores.filter((score) => score.fold === (face === 'up' ? 'valley' : 'mountain'));
    for (const turned of [false, true]) {
      const readings = own.flatMap((score) => {
        const near = face === 'up' ? score.from[0] : sheet.width - score.from[0];
        const reachable = near <= board.length;
        if (turned === reachable) return [];
        // End for end (not face over) the far edge comes near.
        return [readingOf(score, reachable ? near : sheet.width - near, partAsLying(score, sheet, turned), board, notation)];
      });
      if (readings.length > 0) runs.push({ face, turned, readings: readings.sort((a, b) => a.at - b.at) });
    }
  }
  return runs;
}

function partAsLying(score: Score, sheet: CutSheet, turned: boolean): [Mm, Mm] | undefined {
  const part = partOf(score, sheet);
  return part && turned ? [sheet.height - part[1], sheet.height - part[0]] : part;
}

function readingOf(score: Score, at: Mm, part: [Mm, Mm] | undefined, board: Board, notation: Notation): ScoreReading {
  const off = score.secondOfSpine ? undefined : offGroove(at, board);
  const only = part ? `; only from ${sayLength(part[0], notation)} to ${sayLength(part[1], notation)} from the edge nearer you` : '';
  return {
    score,
    at,
    words: rulerWords(at, notation) + only,
    ...(part && { part }),
    ...(off !== undefined && { offGroove: Math.abs(off) }),
  };
}
