import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { areaContains, rectangle } from './outline.js';
import { plainRectangle } from './plain-rectangle.js';
import type { Point } from './point.js';

describe('the largest plain rectangle', () => {
  it('of a rectangle is all of it', () => {
    expect(plainRectangle({ outer: rectangle(3, 4, 50, 60), holes: [] })).toEqual({ minX: 3, maxX: 53, minY: 4, maxY: 64 });
  });

  it('of a leaf with a notch at its fold is what lies beside the notch', () => {
    // 100 × 150, and 32 × 70 taken from the middle of the right edge: 68 × 150 = 10200 beats 100 × 40.
    const outer: Point[] = [
      [0, 0],
      [100, 0],
      [100, 40],
      [68, 40],
      [68, 110],
      [100, 110],
      [100, 150],
      [0, 150],
    ];
    expect(plainRectangle({ outer, holes: [] })).toEqual({ minX: 0, maxX: 68, minY: 0, maxY: 150 });
  });

  it('of a frame is its widest side', () => {
    // Round a window from (20, 30) to (60, 80) in 100 × 100 the right side is 40 × 100, the largest.
    const box = plainRectangle({ outer: rectangle(0, 0, 100, 100), holes: [rectangle(20, 30, 40, 50)] });
    expect(box).toEqual({ minX: 60, maxX: 100, minY: 0, maxY: 100 });
  });

  it('lies inside, for any polygon round a point', () => {
    const radii = fc.array(fc.double({ min: 10, max: 50, noNaN: true }), { minLength: 3, maxLength: 40 });
    fc.assert(
      fc.property(radii, fc.double({ min: 0.01, max: 0.99, noNaN: true }), fc.double({ min: 0.01, max: 0.99, noNaN: true }), (rs, u, v) => {
        const outer = rs.map((r, i): Point => [r * Math.cos((2 * Math.PI * i) / rs.length), r * Math.sin((2 * Math.PI * i) / rs.length)]);
        const area = { outer, holes: [] };
        const { minX, maxX, minY, maxY } = plainRectangle(area);
        if (maxX === minX) return true;
        return areaContains(area, [minX + u * (maxX - minX), minY + v * (maxY - minY)]);
      }),
      { seed: 3 },
    );
  });
});
