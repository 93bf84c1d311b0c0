import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { crossingsOf } from './crossings.js';
import { rectangle, type Loop } from './outline.js';
import type { Point } from './point.js';

/** Every k-th of n points round a circle, joined in turn: each edge crosses 2(k − 1) others, so there are n(k − 1) crossings. */
const star = (n: number, k: number): Loop =>
  Array.from({ length: n }, (_, i): Point => [Math.cos((2 * Math.PI * i * k) / n), Math.sin((2 * Math.PI * i * k) / n)]);

describe('how often a line crosses itself', () => {
  it.each([
    ['a rectangle', rectangle(0, 0, 3, 2), 0],
    [
      'a bow',
      [
        [0, 0],
        [2, 2],
        [2, 0],
        [0, 2],
      ] as Loop,
      1,
    ],
    ['a five-pointed star drawn in one go', star(5, 2), 5],
    ['a seven-pointed one', star(7, 3), 14],
    [
      'a line that only touches itself',
      [
        [0, 0],
        [4, 0],
        [4, 4],
        [2, 0],
        [0, 4],
      ] as Loop,
      0,
    ],
  ])('%s', (_, loop, count) => expect(crossingsOf(loop, 100)).toBe(count));

  it('stops counting where told', () => expect(crossingsOf(star(51, 25), 10)).toBe(10));

  it('is the same turned, mirrored, scaled, and begun elsewhere', () => {
    const point = fc.tuple(fc.integer({ min: -50, max: 50 }), fc.integer({ min: -50, max: 50 })) as fc.Arbitrary<Point>;
    fc.assert(
      fc.property(fc.array(point, { minLength: 4, maxLength: 20 }), fc.nat(19), (loop, begin) => {
        const count = crossingsOf(loop, 1000);
        const at = begin % loop.length;
        expect(crossingsOf([...loop.slice(at), ...loop.slice(0, at)], 1000)).toBe(count);
        expect(
          crossingsOf(
            loop.map(([x, y]) => [-y, x]),
            1000,
          ),
        ).toBe(count);
        expect(
          crossingsOf(
            loop.map(([x, y]) => [3 * x, -3 * y]),
            1000,
          ),
        ).toBe(count);
        expect(crossingsOf([...loop].reverse(), 1000)).toBe(count);
      }),
    );
  });
});
