import { areaContains, boxOf, type Area, type Box } from './outline.js';

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
  // How many cells in a row, up to and with this one, are inside.
  const run = new Array<number>(ys.length - 1).fill(0);
  const { minX, minY } = boxOf(area.outer);
  let best: Box = { minX, maxX: minX, minY, maxY: minY };
  for (let column = 0; column < xs.length - 1; column++) {
    for (let row = 0; row < ys.length - 1; row++) {
      const inside = cellInside(area, xs[column]!, xs[column + 1]!, ys[row]!, ys[row + 1]!);
      run[row] = inside ? run[row]! + 1 : 0;
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

function cellInside(area: Area, x0: number, x1: number, y0: number, y1: number): boolean {
  return [x0 + INSET, (x0 + x1) / 2, x1 - INSET].every((x) =>
    [y0 + INSET, (y0 + y1) / 2, y1 - INSET].every((y) => areaContains(area, [x, y])),
  );
}
