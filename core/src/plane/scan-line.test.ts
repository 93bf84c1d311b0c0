import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { areaContains, type Area } from './outline.js';
import type { Point } from './point.js';
import { ScanLines } from './scan-line.js';

/** A frame 10 wide and 8 high with a window from (2, 3) to (6, 7). */
const FRAME: Area = {
  outer: [
    [0, 0],
    [10, 0],
    [10, 8],
    [0, 8],
  ],
  holes: [
    [
      [2, 3],
      [6, 3],
      [6, 7],
      [2, 7],
    ],
  ],
};

describe('level lines over an area', () => {
  it('enter and leave a frame and its window', () => {
    const lines = new ScanLines(FRAME);
    expect(lines.on(1)).toEqual([0, 10]);
    expect(lines.on(5)).toEqual([0, 2, 6, 10]);
    expect(lines.on(9)).toEqual([]);
  });

  it('meet a slanting edge where it is at that height', () => {
    const triangle: Area = {
      outer: [
        [0, 0],
        [8, 0],
        [0, 4],
      ],
      holes: [],
    };
    expect(new ScanLines(triangle).on(1)).toEqual([0, 6]);
  });

  it('give each line anew, however many the one before it crossed', () => {
    const lines = new ScanLines(FRAME);
    expect(lines.at(5)).toBe(4);
    expect(lines.at(1)).toBe(2);
    expect(lines.xs.slice(0, 2)).toEqual([0, 10]);
  });

  it('agree with asking for each point, through corners too', () => {
    const corner = fc.tuple(fc.integer({ min: 0, max: 40 }), fc.integer({ min: 0, max: 40 })).map(([x, y]): Point => [x / 4, y / 4]);
    fc.assert(
      fc.property(fc.array(corner, { minLength: 3, maxLength: 9 }), corner, (outer, [x, y]) => {
        const area: Area = { outer, holes: [] };
        const crossed = new ScanLines(area).on(y);
        expect(crossed.length % 2).toBe(0);
        expect(crossed).toEqual([...crossed].sort((a, b) => a - b));
        // A point on an edge may count as either.
        fc.pre(crossed.every((at) => Math.abs(at - x) > 1e-9));
        expect(crossed.filter((at) => at < x).length % 2 === 1).toBe(areaContains(area, [x, y]));
      }),
    );
  });
});
