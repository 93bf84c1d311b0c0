import type { Loop } from '../plane/outline.js';
import type { Point } from '../plane/point.js';

/** What lies apart and is less than this of all that shows is a speck. */
const SPECK = 0.02;

/** The line round what shows, in pixels, y up, and how many other parts lie apart from it. */
export interface Silhouette {
  line: Loop;
  /** parts that are no specks and lie outside it */
  apart: number;
}

/**
 * The outer line round the largest part of what shows, along the edges of its pixels.
 * @param shows one byte a pixel, rows from the top  @param width pixels in a row
 */
export function silhouetteOf(shows: Uint8Array, width: number): Silhouette | undefined {
  const height = shows.length / width;
  const parts = partsOf(shows, width);
  const all = parts.sizes.reduce((sum, size) => sum + size, 0);
  if (all === 0) return undefined;
  const largest = parts.sizes.reduce((best, size, i) => (size > parts.sizes[best]! ? i : best), 0);
  return {
    line: around(parts.of, largest + 1, width, height).map(([x, y]): Point => [x, height - y]),
    apart: parts.sizes.filter((size, i) => i !== largest && size > SPECK * all).length,
  };
}

/** Numbers what hangs together, by sides and corners: 1 for the first part that is met; 0 where nothing shows. */
function partsOf(shows: Uint8Array, width: number): { of: Uint32Array; sizes: number[] } {
  const of = new Uint32Array(shows.length);
  const sizes: number[] = [];
  for (let start = 0; start < shows.length; start++) {
    if (shows[start] === 0 || of[start] !== 0) continue;
    const number = sizes.length + 1;
    const open = [start];
    of[start] = number;
    let size = 0;
    while (open.length > 0) {
      const i = open.pop()!;
      size++;
      const x = i % width;
      for (let dy = -width; dy <= width; dy += width) {
        for (let dx = x > 0 ? -1 : 0; dx <= (x < width - 1 ? 1 : 0); dx++) {
          const next = i + dy + dx;
          if (next < 0 || next >= shows.length || shows[next] === 0 || of[next] !== 0) continue;
          of[next] = number;
          open.push(next);
        }
      }
    }
    sizes.push(size);
  }
  return { of, sizes };
}

/** Directions along the edges of pixels, each turned to the left of the one before as it is seen with y down. */
const WAYS: readonly Point[] = [
  [1, 0],
  [0, -1],
  [-1, 0],
  [0, 1],
];

/** The outer line round one part, from corner to corner of pixels, y down; it goes with its pixels on the right and is then turned round. */
function around(of: Uint32Array, number: number, width: number, height: number): Point[] {
  const isIn = (x: number, y: number): boolean => x >= 0 && y >= 0 && x < width && y < height && of[y * width + x] === number;
  const first = of.indexOf(number);
  // The upper left corner of its uppermost pixel; along the upper edge of that, its pixel lies to the right.
  const start: Point = [first % width, Math.floor(first / width)];
  const line: Point[] = [];
  let [x, y] = start;
  let way = 0;
  do {
    line.push([x, y]);
    [x, y] = [x + WAYS[way]![0], y + WAYS[way]![1]];
    // The two pixels ahead, to the left and to the right of the way that was gone.
    const [ahead, left] = [WAYS[way]!, WAYS[(way + 1) % 4]!];
    const pixel = (side: 1 | -1): boolean => isIn(x + (ahead[0] + side * left[0] - 1) / 2, y + (ahead[1] + side * left[1] - 1) / 2);
    if (pixel(1)) way = (way + 1) % 4;
    else if (!pixel(-1)) way = (way + 3) % 4;
  } while (x !== start[0] || y !== start[1] || way !== 0);
  // It begins at that corner, whichever way it goes.
  return [line[0]!, ...line.slice(1).reverse()];
}
