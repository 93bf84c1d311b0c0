import { boardById, type Board } from '../supplies/boards.js';
import type { Mm, Notation } from '../measure/units.js';
import { GROOVE_CATCH, nearestGroove, rulerWords } from '../measure/ruler.js';
import { readsOffRuler, type CutSheet, type Score } from '../sheet/cut-sheet.js';

/** One reading of a run: where to score, said the way it is found. */
export interface ScoreReading {
  score: Score;
  /** from the edge that lies at the board's zero */
  at: Mm;
  words: string;
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
export function scoreRuns(sheet: CutSheet, boardId: string, notation: Notation): ScoreRun[] {
  const board = boardById(boardId);
  const scores = sheet.scores.filter((score) => readsOffRuler(score, sheet));
  const runs: ScoreRun[] = [];
  for (const face of ['up', 'down'] as const) {
    const own = scores.filter((score) => score.fold === (face === 'up' ? 'valley' : 'mountain'));
    for (const turned of [false, true]) {
      const readings = own.flatMap((score) => {
        const near = face === 'up' ? score.from[0] : sheet.width - score.from[0];
        const reachable = near <= board.length;
        if (turned === reachable) return [];
        return [readingOf(score, reachable ? near : sheet.width - near, board, notation)];
      });
      if (readings.length > 0) runs.push({ face, turned, readings: readings.sort((a, b) => a.at - b.at) });
    }
  }
  return runs;
}

function readingOf(score: Score, at: Mm, board: Board, notation: Notation): ScoreReading {
  const off = Math.abs(nearestGroove(at, board).off);
  const misses = !board.free && !score.secondOfSpine && off > GROOVE_CATCH;
  return { score, at, words: rulerWords(at, notation), ...(misses && { offGroove: off }) };
}
