import type { Mm } from '../measure/units.js';
import { boxOf, type Area, type Box } from './outline.js';
import { ScanLines } from './scan-line.js';

/** Curved outlines have more corners than are worth trying: beyond this the places tried are spread evenly. */
const MOST_LINES = 24;
const INSET = 1e-6;

/**
 * The largest upright rectangle inside an area: its sides lie on lines through corners of the area, or, where there are too
 * many corners, on lines spread evenly over it. An estimate from below for slanting and curved edges.
 */
export function plainRectangle(area: Area): Box {
  const corners = [area.outer, ...area.holes].flat();
  const xs = linesOver(corners.map(([x]) => x));
  const ys = linesOver(corners.map(([, y]) => y));
  const isInside = cellsInside(area, ys);
  // How many cells in a row, up to and with this one, are inside.
  const run = new Array<number>(ys.length - 1).fill(0);
  const { minX, minY } = boxOf(area.outer);
  let best: Box = { minX, maxX: minX, minY, maxY: minY };
  for (let column = 0; column < xs.length - 1; column++) {
    for (let row = 0; row < ys.length - 1; row++) {
      run[row] = isInside(xs[column]!, xs[column + 1]!, row) ? run[row]! + 1 : 0;
    }
    for (let low = 0; low < run.length; low++) {
      let width = Infinity;
      for (let high = low; high < run.length && run[high]! > 0; high++) {
        width = Math.min(width, run[high]!);
        const box = { minX: xs[column + 1 - width]!, maxX: xs[column + 1]!, minY: ys[low]!, maxY: ys[high + 1]! };
        if (sizeOf(box) > sizeOf(best)) best = box;
      }
    }
  }
  return best;
}

const sizeOf = ({ minX, maxX, minY, maxY }: Box): number => (maxX - minX) * (maxY - minY);

function linesOver(values: readonly number[]): number[] {
  const sorted = [...values].sort((a, b) => a - b);
  const lines = sorted.filter((value, i) => i === 0 || value - sorted[i - 1]! > 1e-6);
  if (lines.length <= MOST_LINES) return lines;
  const [from, to] = [lines[0]!, lines.at(-1)!];
  return Array.from({ length: MOST_LINES }, (_, i) => from + ((to - from) * i) / (MOST_LINES - 1));
}

/** Tells whether a cell of a row lies inside an area, by three points along each of three level lines through the row. */
function cellsInside(area: Area, ys: readonly Mm[]): (x0: Mm, x1: Mm, row: number) => boolean {
  const scan = new ScanLines(area);
  const lines = ys.slice(1).map((high, row) => [ys[row]! + INSET, (ys[row]! + high) / 2, high - INSET].map((y) => scan.on(y)));
  const within = (line: readonly Mm[], x: Mm): boolean => line.filter((crossing) => crossing < x).length % 2 === 1;
  return (x0, x1, row) => lines[row]!.every((line) => within(line, x0 + INSET) && within(line, (x0 + x1) / 2) && within(line, x1 - INSET));
}
