import type { Mm } from '../measure/units.js';
import type { Area, Loop } from './outline.js';

/** Where level lines cross an area, one line after the other: sorted crossings, in pairs of entering and leaving. */
export class ScanLines {
  private readonly loops: readonly Loop[];

  constructor({ outer, holes }: Area) {
    this.loops = holes.length === 0 ? [outer] : [outer, ...holes];
  }

  /** Fills `out` with the sorted x of all crossings of the line at this y (even-odd). @returns how many there are */
  at(y: Mm, out: Float64Array | number[]): number {
    let count = 0;
    for (const loop of this.loops) {
      for (let i = 0, j = loop.length - 1; i < loop.length; j = i++) {
        const p = loop[i]!;
        const q = loop[j]!;
        if (p[1] > y !== q[1] > y) out[count++] = p[0] + ((y - p[1]) / (q[1] - p[1])) * (q[0] - p[0]);
      }
    }
    // Few crossings: sorting by insertion makes nothing new.
    for (let i = 1; i < count; i++) {
      const x = out[i]!;
      let k = i - 1;
      for (; k >= 0 && out[k]! > x; k--) out[k + 1] = out[k]!;
      out[k + 1] = x;
    }
    return count;
  }
}
