import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { largestBetween, largestFrom, smallestFrom } from './largest.js';

describe('the largest value for which something holds', () => {
  it('is found by halving: the root of two, to a part in 2³⁰', () => {
    expect(Math.abs(largestBetween((x) => x * x <= 2, 1, 2, 30) - Math.SQRT2)).toBeLessThan(2 ** -29);
  });

  it('always holds itself, and nothing holds a little above it, wherever it ends', () => {
    fc.assert(
      fc.property(fc.double({ min: 0, max: 99, noNaN: true }), (end) => {
        const found = largestFrom(0, 100, (x) => x <= end);
        return found <= end && end - found <= 100 / 2 ** 16;
      }),
    );
  });

  it('is the end of the range where all of it holds, and its beginning where nothing above does', () => {
    expect(largestFrom(3, 8, () => true)).toBe(8);
    expect(largestFrom(3, 8, (x) => x <= 3)).toBe(3);
    expect(largestFrom(8, 3, () => true)).toBe(8);
  });

  it('does not leap over a gap that is wider than a step', () => {
    const holds = (x: number): boolean => x <= 4 || x >= 6;
    expect(largestFrom(0, 10, holds)).toBe(10);
    expect(largestFrom(0, 10, holds, { steps: 10 })).toBeCloseTo(4, 3);
  });

  it('turned round is the smallest', () => {
    const found = smallestFrom(0, 10, (x) => x >= 2.5);
    expect(found).toBeGreaterThanOrEqual(2.5);
    expect(found).toBeCloseTo(2.5, 3);
  });
});
