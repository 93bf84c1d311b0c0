import type { Mm } from '../measure/units.js';
import type { Point } from '../plane/point.js';
import { isSquare, type CutKind, type StraightCut, type TracedCut } from '../sheet/cut-lines.js';
import type { CutSheet } from '../sheet/cut-sheet.js';
import type { Fold } from '../sheet/piece.js';

/** An edge of a blank as it lies with its upper face up, lower left corner toward the maker. */
export type BlankEdge = 'left edge' | 'right edge' | 'lower edge' | 'upper edge';

/**
 * One line that a step makes, said from an edge of the blank, in mm: how far from the edge, and where it begins and ends
 * along it, from the lower edge for those at the left and right, from the left edge for the others.
 */
export interface LineReading {
  /** id of the flat piece */
  piece: string;
  kind: 'score' | CutKind;
  /** id of the score, slit or edge */
  line: string;
  edge: BlankEdge;
  at: Mm;
  from: Mm;
  to: Mm;
  /** of a slanted line, how far from the edge its end is; of a traced one, how far its far side */
  atEnd?: Mm;
  /** of a score: toward you, or away from you, with the upper face up */
  fold?: Fold;
  /** it is traced from the template, not cut along a rule: `at` to `atEnd` and `from` to `to` is the box it lies in */
  traced?: true;
  /** the line of the template, each point from the left and the lower edge of the blank */
  points?: readonly Point[];
}

/** A straight line that a step makes. */
type Line = Pick<LineReading, 'kind' | 'fold'> & Pick<StraightCut, 'id' | 'from' | 'to'>;

/** A straight line as it is read from one edge. */
export function readingFrom(edge: BlankEdge, { piece, width, height }: CutSheet, line: Line): LineReading {
  const sideways = edge === 'left edge' || edge === 'right edge';
  const from = (p: Point): Mm => {
    const [x, y] = p;
    return { 'left edge': x, 'right edge': width - x, 'lower edge': y, 'upper edge': height - y }[edge];
  };
  const along = (p: Point): Mm => (sideways ? p[1] : p[0]);
  const [start, end] = along(line.from) <= along(line.to) ? [line.from, line.to] : [line.to, line.from];
  const reading: LineReading = {
    piece: piece.id,
    kind: line.kind,
    line: line.id,
    edge,
    at: from(start),
    from: along(start),
    to: along(end),
    ...(line.fold && { fold: line.fold }),
  };
  return isSquare(line.from, line.to) ? reading : { ...reading, atEnd: from(end) };
}

/** A traced line by the box it lies in. */
export function readingOfTraced({ piece }: CutSheet, { id, kind, box, points }: TracedCut): LineReading {
  const { minX: at, maxX: atEnd, minY: from, maxY: to } = box;
  return { piece: piece.id, kind, line: id, edge: 'left edge', at, atEnd, from, to, traced: true, points };
}
