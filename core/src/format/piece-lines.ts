import type { Point } from '../plane/point.js';
import type { Loop } from '../plane/outline.js';
import type { CutSheet } from '../sheet/cut-sheet.js';

/** A line of a flat piece, and what it is for. */
export interface PieceLine {
  from: Point;
  to: Point;
  kind: 'cut' | 'mountain' | 'valley' | 'pencil';
}

/** The edges of a closed line, to be cut. */
export const cutAround = (loop: Loop): PieceLine[] => loop.map((from, i) => ({ from, to: loop[(i + 1) % loop.length]!, kind: 'cut' }));

/** Every line of a piece as it is cut, in its own coordinates: what each page that draws it must show. */
export function pieceLines(sheet: CutSheet): PieceLine[] {
  return [
    ...cutAround(sheet.outline),
    ...sheet.windows.flatMap((window) => cutAround(window.outline)),
    ...sheet.cuts.map(({ from, to }): PieceLine => ({ from, to, kind: 'cut' })),
    ...sheet.scores.map(({ from, to, fold }): PieceLine => ({ from, to, kind: fold })),
    ...sheet.marks.map(({ from, to }): PieceLine => ({ from, to, kind: 'pencil' })),
  ];
}
