import type { Mm } from '../measure/units.js';
import { between, distance, type Point } from '../plane/point.js';
import type { CutSheet } from '../sheet/cut-sheet.js';

/** One group of lines of a piece in a cutter's drawing. */
export type LayerName = 'cut' | 'score-mountain' | 'score-valley' | 'perforation' | 'draw';

export const LAYERS: readonly LayerName[] = ['cut', 'score-mountain', 'score-valley', 'perforation', 'draw'];

/** How folds are given to a machine: scored, or for one without a score tool cut as dashes. */
export interface CutterOptions {
  folds: 'score' | 'perforation';
}

export interface DrawnLine {
  layer: LayerName;
  id: string;
  points: readonly Point[];
  closed: boolean;
}

/** A dash and the gap behind it. Card of 160 to 300 g folds cleanly and still holds together. */
const DASH: Mm = 3;
const GAP: Mm = 2;
/** A perforation stops this short of its ends, so that edges do not tear. */
const SHORT_OF_EDGE: Mm = 3;

/** All lines of a sheet in its own coordinates, by layer. */
export function linesOf(sheet: CutSheet, { folds }: CutterOptions): DrawnLine[] {
  return [
    { layer: 'cut', id: 'outline', points: sheet.outline, closed: true },
    ...sheet.windows.map((window): DrawnLine => ({ layer: 'cut', id: window.id, points: window.outline, closed: true })),
    ...sheet.cuts.map((cut): DrawnLine => ({ layer: 'cut', id: cut.id, points: [cut.from, cut.to], closed: false })),
    ...sheet.scores.flatMap((score): DrawnLine[] =>
      folds === 'score'
        ? [{ layer: `score-${score.fold}`, id: score.id, points: [score.from, score.to], closed: false }]
        : perforated(score.from, score.to).map((dash, i) => ({
            layer: 'perforation',
            id: `${score.id}-${i + 1}`,
            points: dash,
            closed: false,
          })),
    ),
    ...sheet.marks.map((mark): DrawnLine => ({ layer: 'draw', id: mark.id, points: [mark.from, mark.to], closed: false })),
  ];
}

/** A line as dashes and gaps, evenly spread, stopping short of both ends. A line too short for that is one dash. */
export function perforated(from: Point, to: Point): [Point, Point][] {
  const length = distance(from, to);
  const room = length - 2 * SHORT_OF_EDGE;
  if (room <= DASH) return [[between(from, to, 1 / 3), between(from, to, 2 / 3)]];
  const dashes = Math.max(1, Math.floor((room + GAP) / (DASH + GAP)));
  const stride = dashes === 1 ? 0 : (room - DASH) / (dashes - 1);
  return Array.from({ length: dashes }, (_, i): [Point, Point] => {
    const start = dashes === 1 ? (length - DASH) / 2 : SHORT_OF_EDGE + i * stride;
    return [between(from, to, start / length), between(from, to, (start + DASH) / length)];
  });
}
