import type { Mm } from '../measure/units.js';
import type { Area } from './outline.js';

/** Numbers kept of an edge: y and x where it begins, y where it ends, and how far it goes sideways meanwhile. */
const KEPT = 4;

/** Where level lines cross an area, one line after the other: sorted crossings, in pairs of entering and leaving. */
export class ScanLines {
  /** x of the crossings of the line that was asked for last: as many as it was said to have, whatever comes after them */
  readonly xs: Mm[] = [];
  private readonly edges: Float64Array;

  constructor({ outer, holes }: Area) {
    const loops = holes.length === 0 ? [outer] : [outer, ...holes];
    this.edges = new Float64Array(KEPT * loops.reduce((sum, { length }) => sum + length, 0));
    let k = 0;
    for (const loop of loops) {
      for (let i = 0, j = loop.length - 1; i < loop.length; j = i++) {
        const [x, y] = loop[i]!;
        const [farX, farY] = loop[j]!;
        this.edges[k++] = y;
        this.edges[k++] = x;
        this.edges[k++] = farY;
        this.edges[k++] = farX - x;
      }
    }
  }

  /** Puts the sorted x of all crossings of the line at this y (even-odd) into `xs`. @returns how many there are */
  at(y: Mm): number {
    const { edges, xs } = this;
    let count = 0;
    for (let k = 0; k < edges.length; k += KEPT) {
      const from = edges[k]!;
      const to = edges[k + 2]!;
      if (from > y !== to > y) xs[count++] = edges[k + 1]! + ((y - from) / (to - from)) * edges[k + 3]!;
    }
    // Few crossings: sorting by insertion makes nothing new.
    for (let i = 1; i < count; i++) {
      const x = xs[i]!;
      let at = i - 1;
      for (; at >= 0 && xs[at]! > x; at--) xs[at + 1] = xs[at]!;
      xs[at + 1] = x;
    }
    return count;
  }

  /** The crossings of the line at this y, as a list of its own. */
  on(y: Mm): Mm[] {
    return this.xs.slice(0, this.at(y));
  }
}
