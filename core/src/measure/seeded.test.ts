import { describe, expect, it } from 'vitest';
import { normals, shareOf, sharesFor } from './seeded.js';

describe('numbers by lot', () => {
  it('are the same for a seed and a number, whatever was asked before', () => {
    const of = (seed: number, nth: number): number[] => {
      const next = sharesFor(seed, nth);
      return [next(), next(), next()];
    };
    const first = of(7, 3);
    of(7, 4);
    expect(of(7, 3)).toEqual(first);
    expect(of(8, 3)).not.toEqual(first);
    expect(of(7, 4)).not.toEqual(first);
  });

  it('have mean 0, deviation 1, and as many within one and two deviations as a normal distribution has', () => {
    const all = Array.from({ length: 5000 }).flatMap((_, i) => {
      const out = new Float64Array(5);
      normals(out, sharesFor(1, i));
      return [...out];
    });
    const mean = all.reduce((sum, x) => sum + x, 0) / all.length;
    const spread = Math.sqrt(all.reduce((sum, x) => sum + (x - mean) ** 2, 0) / all.length);
    expect(Math.abs(mean)).toBeLessThan(0.02);
    expect(Math.abs(spread - 1)).toBeLessThan(0.02);
    const within = (limit: number): number => all.filter((x) => Math.abs(x) < limit).length / all.length;
    expect(within(1)).toBeCloseTo(0.6827, 1.5);
    expect(within(2)).toBeCloseTo(0.9545, 1.8);
  });
});

describe('a share of trials', () => {
  // Wilson’s interval by hand: p = 0.5, n = 100, z = 1.96: (0.5 + 0.0192) ÷ 1.0384 ± 1.96 √(0.0025 + 0.00009604) ÷ 1.0384.
  it('lies where Wilson says', () => {
    const { share, low, high } = shareOf(50, 100);
    expect(share).toBe(0.5);
    expect(low).toBeCloseTo(0.4038, 3);
    expect(high).toBeCloseTo(0.5962, 3);
  });

  it('of none or all leaves room for what was not seen', () => {
    expect(shareOf(0, 50)).toMatchObject({ share: 0, low: 0 });
    expect(shareOf(0, 50).high).toBeGreaterThan(0.05);
    expect(shareOf(50, 50).low).toBeLessThan(0.95);
    expect(shareOf(0, 0)).toEqual({ share: 0, low: 0, high: 1 });
  });
});
