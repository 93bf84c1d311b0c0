import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { BandedMatrix } from './banded.js';

describe('a banded matrix', () => {
  it('solves what it was multiplied from', () => {
    const entry = fc.double({ min: -1, max: 1, noNaN: true });
    fc.assert(
      fc.property(fc.array(entry, { minLength: 24, maxLength: 24 }), fc.array(entry, { minLength: 8, maxLength: 8 }), (entries, x) => {
        const matrix = new BandedMatrix(8, 3);
        const full = Array.from({ length: 8 }, () => new Array<number>(8).fill(0));
        for (let i = 0; i < 8; i++) {
          for (let k = 0; k < 3 && k <= i; k++) {
            // Its diagonal outweighs the rest: it is positive definite.
            const value = k === 0 ? 5 + entries[3 * i]! : entries[3 * i + k]!;
            matrix.add(i, i - k, value);
            full[i]![i - k] = full[i - k]![i] = value;
          }
        }
        const right = Float64Array.from(full.map((row) => row.reduce((sum, value, j) => sum + value * x[j]!, 0)));
        expect(matrix.factorise(0)).toBe(true);
        const out = new Float64Array(8);
        matrix.solve(out, right);
        out.forEach((value, i) => expect(value).toBeCloseTo(x[i]!, 10));
      }),
    );
  });

  it('is positive definite once its lowest eigenvalue is shifted above nothing', () => {
    // Eigenvalues 1 − 2 and 1 + 2.
    const matrix = new BandedMatrix(2, 2);
    matrix.add(0, 0, 1);
    matrix.add(1, 1, 1);
    matrix.add(1, 0, 2);
    expect(matrix.factorise(0.999)).toBe(false);
    expect(matrix.factorise(1.001)).toBe(true);
  });
});
