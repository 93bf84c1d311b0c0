import type { Mm } from '../measure/units.js';
import { between, distance, type Point } from '../plane/point.js';
import type { CutSheet } from '../sheet/cut-sheet.js';
import { isFold, pieceDrawing, type DrawingRole } from '../sheet/piece-drawing.js';

/** One group of lines of a piece in a cutter's drawing. */
export type LayerName = 'draw' | 'score-mountain' | 'score-valley' | 'perforation' | 'cut';

/** In the order in which a machine works: a piece is cut out last, while everything else still holds it. */
export const LAYERS: readonly LayerName[] = ['draw', 'score-mountain', 'score-valley', 'perforation', 'cut'];

/** How folds are given to a machine: scored, or for one without a score tool cut as dashes. */
export interface CutterOptions {
  folds: 'score' | 'perforation';
  /** to be printed first and then cut: with marks by which a machine finds the sheet, and letters as areas of ink */
  printed?: boolean;
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

/** The layer of each part of a flat piece; zones are for people, not for a machine. */
const LAYER_OF: Partial<Record<DrawingRole, LayerName>> = {
  outline: 'cut',
  window: 'cut',
  slit: 'cut',
  mountain: 'score-mountain',
  valley: 'score-valley',
  pencil: 'draw',
  lettering: 'draw',
};

/** All lines of a sheet in its own coordinates, in the order in which a machine makes them: the outline is the very last. */
export function linesOf(sheet: CutSheet, { folds }: CutterOptions): DrawnLine[] {
  const dashes = new Map<string, number>();
  const lines = pieceDrawing(sheet).flatMap((primitive): DrawnLine[] => {
    const layer = LAYER_OF[primitive.role];
    // What is drawn on the back cannot be drawn by a machine that has the front under its pen.
    if (!layer || primitive.face === 'down') return [];
    const { id, points, closed } = primitive;
    if (folds === 'score' || !isFold(primitive)) return [{ layer, id, points, closed }];
    return perforated(points[0]!, points[1]!).map((dash) => {
      const order = (dashes.get(id) ?? 0) + 1;
      dashes.set(id, order);
      return { layer: 'perforation', id: `${id}-${order}`, points: dash, closed: false };
    });
  });
  const rank = ({ layer, id }: DrawnLine): number => LAYERS.indexOf(layer) + (id === 'outline' ? 1 : 0);
  return lines.sort((a, b) => rank(a) - rank(b));
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
