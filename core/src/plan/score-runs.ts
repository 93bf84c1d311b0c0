import { sayInWords } from '../measure/sentence.js';
import { sayLength } from '../measure/print.js';
import type { Mm, Notation } from '../measure/units.js';
import { distanceToSegment, type Point } from '../plane/point.js';
import { boardWords, offKeptGroove, type Board } from '../supplies/boards.js';
import type { Schools } from '../supplies/workshop.js';
import type { CutSheet, Score } from '../sheet/cut-sheet.js';
import { stretchesOnPaper } from '../sheet/on-paper.js';
import type { Fold } from '../sheet/piece.js';
import { scorePlaces, type ScorePlace } from '../sheet/score-places.js';
import { readingFrom, type BlankEdge, type LineReading } from './reading.js';

/** One setting of the board: where to score, said the way it is found. */
export interface ScoreReading {
  /** stretches of one line, made at this setting */
  scores: Score[];
  /** made by the same setting after turning the blank end for end */
  again: Score[];
  fold: Fold;
  /** from the edge that lies at the board's zero */
  at: Mm;
  words: string;
  /** where each stretch begins and ends, from the edge nearer the maker as the blank lies; nothing where it runs right across */
  parts: [from: Mm, to: Mm][];
  /** how far the nearest groove is, when it does not fall into one */
  offGroove?: Mm;
  readings: LineReading[];
}

/** Scores that are made with the blank lying one way: same face up, same end at zero. */
export interface ScoreRun {
  face: 'up' | 'down';
  /** the blank's far end lies at the board's zero */
  turned: boolean;
  readings: ScoreReading[];
}

/** Where a score really has to begin and end: to the edge where nothing but waste lies beyond it. */
export interface ScoreExtent {
  low: Mm;
  high: Mm;
  /** it runs from edge to edge of the blank */
  across: boolean;
  /** a cut, not just an edge of the blank, is where it begins or ends */
  stopsAtCut: boolean;
}

/** Groups the scores of a sheet so that the blank is turned and flipped least, read in the lines of a board. */
export function scoreRuns(sheet: CutSheet, board: Board, notation: Notation, scoring: Schools['scoring'] = 'one-face'): ScoreRun[] {
  const runs: ScoreRun[] = [];
  for (const place of scorePlaces(sheet, board.length, scoring)) {
    const { face, turned } = place;
    let run = runs.find((other) => other.face === face && other.turned === turned);
    if (!run) runs.push((run = { face, turned, readings: [] }));
    run.readings.push(readingOf(place, sheet, board, notation));
  }
  return runs;
}

function readingOf(place: ScorePlace, sheet: CutSheet, board: Board, notation: Notation): ScoreReading {
  const { scores, again, at, face, turned } = place;
  const first = scores[0]!;
  const off = first.secondOfSpine ? undefined : offKeptGroove(at, first.allowed, board);
  const extents = scores.map((score) => extentOf(score, sheet));
  const parts = endToEnd(
    extents
      .filter(({ across }) => !across)
      .map(({ low, high }): [Mm, Mm] => (turned ? [sheet.height - high, sheet.height - low] : [low, high])),
    sheet.height,
  );
  const only = parts.map(([from, to]) => `from ${sayLength(from, notation)} to ${sayLength(to, notation)}`).join(' and ');
  const stops = extents.some(({ stopsAtCut }) => stopsAtCut) ? ', no further than the cut' : '';
  const edge: BlankEdge = turned !== (face === 'down') ? 'right edge' : 'left edge';
  const opposite: BlankEdge = edge === 'left edge' ? 'right edge' : 'left edge';
  return {
    scores,
    again,
    fold: first.fold,
    at,
    words:
      placeWords(place, sheet, board, notation) +
      (parts.length > 0 ? `; only ${only} from the edge nearer you${stops}` : '') +
      (again.length > 0 ? `; the same from the ${opposite}` : ''),
    parts,
    ...(off !== undefined && { offGroove: Math.abs(off) }),
    readings: [...scores.map((score) => read(score, edge, sheet)), ...again.map((score) => read(score, opposite, sheet))],
  };
}

/** Stretches that meet end to end are scored in one go; nothing where together they run right across. */
function endToEnd(parts: readonly [Mm, Mm][], height: Mm): [Mm, Mm][] {
  const joined: [Mm, Mm][] = [];
  for (const [from, to] of [...parts].sort((a, b) => a[0] - b[0])) {
    const last = joined[joined.length - 1];
    if (last && from < last[1] + TOUCHES) last[1] = Math.max(last[1], to);
    else joined.push([from, to]);
  }
  return joined.filter(([from, to]) => from > TOUCHES || to < height - TOUCHES);
}

function read(score: Score, edge: BlankEdge, sheet: CutSheet): LineReading {
  const { low, high } = extentOf(score, sheet);
  const x = score.from[0];
  return readingFrom(edge, sheet, { id: score.id, kind: 'score', fold: score.fold, from: [x, low], to: [x, high] });
}

/** The second score of a spine is set by eye beside the first; any other by the lines that the board has. */
function placeWords({ scores, at }: ScorePlace, { scores: all }: CutSheet, board: Board, notation: Notation): string {
  const [score] = scores;
  const first = score!.secondOfSpine && all.find(({ id }) => score!.id === `${id}-2`);
  if (first && !board.free)
    return `${sayInWords(Math.abs(score!.from[0] - first.from[0]), notation)} beside the first score of the spine, by eye`;
  return boardWords(at, board, notation, score!.allowed);
}

const TOUCHES: Mm = 1e-3;

/** How far a score has to run on its blank, before anything is cut away. */
export function extentOf(score: Score, sheet: CutSheet): ScoreExtent {
  const { height } = sheet;
  const x = score.from[0];
  const [low, high] = [Math.max(0, Math.min(score.from[1], score.to[1])), Math.min(height, Math.max(score.from[1], score.to[1]))];
  const paper = stretchesOnPaper(sheet, [x, 0], [x, height]).map(([a, b]): [Mm, Mm] => [a[1], b[1]]);
  const goesOnBelow = paper.some(([from]) => from < low - TOUCHES);
  const goesOnAbove = paper.some(([, to]) => to > high + TOUCHES);
  const atCut = (y: Mm): boolean => insideLines(sheet).some(([a, b]) => distanceToSegment([x, y], a, b) < TOUCHES);
  return {
    low: goesOnBelow ? low : 0,
    high: goesOnAbove ? high : height,
    across: !goesOnBelow && !goesOnAbove,
    stopsAtCut: (goesOnBelow && atCut(low)) || (goesOnAbove && atCut(high)),
  };
}

/** Slits and edges of openings. */
function insideLines({ cuts, windows }: CutSheet): [Point, Point][] {
  return [
    ...cuts.map(({ from, to }): [Point, Point] => [from, to]),
    ...windows.flatMap(({ outline }) => outline.map((from, i): [Point, Point] => [from, outline[(i + 1) % outline.length]!])),
  ];
}
