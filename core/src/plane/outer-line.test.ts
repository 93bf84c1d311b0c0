import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { crossingsOf } from './crossings.js';
import { outerLine } from './outer-line.js';
import { rectangle, signedArea, type Loop } from './outline.js';
import type { Point } from './point.js';

const circle = (n: number, k = 1): Loop =>
  Array.from({ length: n }, (_, i): Point => [Math.cos((2 * Math.PI * i * k) / n), Math.sin((2 * Math.PI * i * k) / n)]);

describe('the line round what a line encloses', () => {
  it('of a star drawn in one go is its border: ten corners, none of them inside', () => {
    const border = outerLine(circle(5, 2));
    expect(border).toHaveLength(10);
    // The inner corners of a pentagram lie at 1/φ² of its radius; ten triangles from the middle make it up.
    const inner = ((3 - Math.sqrt(5)) / 2) * 1;
    expect(signedArea(border)).toBeCloseTo(10 * 0.5 * inner * Math.sin(Math.PI / 5), 9);
  });

  it('of a bow is its larger half', () => {
    const border = outerLine([
      [0, 0],
      [40, 40],
      [40, 0],
      [0, 30],
    ]);
    // The lines y = x and y = 30 − 3x/4 meet at x = 120/7, 40 − 120/7 away from the longer side.
    expect(signedArea(border)).toBeCloseTo((40 * (40 - 120 / 7)) / 2, 6);
  });

  it('is the same where the line goes round more than once, or turns back on itself', () => {
    const once = circle(36);
    expect(signedArea(outerLine([...once, ...once.slice(0, 27), ...once.slice(0, 27).reverse()]))).toBeCloseTo(signedArea(once), 6);
    expect(
      signedArea(
        outerLine([
          [0, 0],
          [4, 0],
          [9, 0],
          [4, 0],
          [4, 3],
          [0, 3],
        ]),
      ),
    ).toBeCloseTo(12, 9);
  });

  it('leaves a line that goes round once as it is', () => {
    expect(signedArea(outerLine(rectangle(1, 2, 3, 4)))).toBeCloseTo(12, 9);
    expect(
      outerLine([
        [0, 0],
        [1, 0],
        [2, 0],
      ]),
    ).toEqual([]);
  });

  it('never crosses itself, and stays within the drawing', () => {
    const at = fc.integer({ min: 0, max: 30 });
    fc.assert(
      fc.property(fc.array(fc.tuple(at, at) as fc.Arbitrary<Point>, { minLength: 3, maxLength: 12 }), (loop) => {
        const border = outerLine(loop);
        expect(crossingsOf(border, 100)).toBe(0);
        expect(signedArea(border)).toBeGreaterThanOrEqual(0);
        for (const [x, y] of border) {
          expect(x).toBeGreaterThanOrEqual(-1e-6);
          expect(y).toBeLessThanOrEqual(30 + 1e-6);
        }
      }),
    );
  });
});
