import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { fewestSlips, leastSlips } from './least-slips.js';

/** Two lengths, each said twice, and their sum and difference said too: whichever one is off, the others outvote it. */
const ROWS = [
  [1, 0],
  [0, 1],
  [1, 1],
  [1, -1],
  [1, 0],
  [0, 1],
] as const;

describe('the unknowns with which most numbers agree', () => {
  it('are found, and one number that is off stands out whole', () => {
    const length = fc.integer({ min: -80, max: 80 });
    fc.assert(
      fc.property(length, length, fc.integer({ min: 0, max: 5 }), fc.constantFrom(-5, -1, 1, 3), (a, b, off, by) => {
        const wanted = ROWS.map(([p, q], i) => p * a + q * b + (i === off ? by : 0));
        const { x, left } = leastSlips({ rows: ROWS, wanted });
        expect(x[0]!).toBeCloseTo(a, 2);
        expect(x[1]!).toBeCloseTo(b, 2);
        left.forEach((rest, i) => expect(rest).toBeCloseTo(i === off ? by : 0, 2));
      }),
    );
  });

  it('move as few as will do, where several ways are as good', () => {
    // One number that either the first unknown alone makes, or the second and third together.
    const { x, left } = leastSlips({ rows: [[1, 0.5, 0.5]], wanted: [4] });
    expect(left[0]!).toBeCloseTo(0, 2);
    expect(x[0]!).toBeCloseTo(4, 1);
    expect(Math.abs(x[1]!) + Math.abs(x[2]!)).toBeLessThan(0.1);
  });

  it('leave one number off by much rather than several by little, where that costs no more', () => {
    // One unknown, said five times: four numbers want 0, and the fifth that four times it is 5. Off by 1 each, or the last by 5.
    const system = { rows: [[1], [1], [1], [1], [-4]], wanted: [0, 0, 0, 0, 5] };
    const { x, left } = fewestSlips(system);
    expect(x[0]!).toBeCloseTo(0, 2);
    left.forEach((rest, i) => expect(rest).toBeCloseTo(i === 4 ? 5 : 0, 2));
    // As good as any in the sum of what is left over.
    const sum = (all: readonly number[]): number => all.reduce((total, rest) => total + Math.abs(rest), 0);
    expect(sum(left)).toBeCloseTo(sum(leastSlips(system).left), 1);
  });

  it('stay where they are where nothing is said of them', () => {
    expect(leastSlips({ rows: [[1, 0]], wanted: [2] }).x[1]).toBe(0);
    expect(leastSlips({ rows: [], wanted: [] })).toEqual({ x: [], left: [] });
  });
});
