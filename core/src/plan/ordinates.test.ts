import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Loop } from '../plane/outline.js';
import type { Point } from '../plane/point.js';
import { crossings, ordinateWords } from './ordinates.js';

const circle = (r: number, n = 720): Loop =>
  Array.from({ length: n }, (_, i): Point => [r + r * Math.cos((2 * Math.PI * i) / n), r + r * Math.sin((2 * Math.PI * i) / n)]);

describe('drawing an outline by distances', () => {
  it('finds a circle where it is', () => {
    fc.assert(
      fc.property(fc.double({ min: 15, max: 150, noNaN: true }), (r) => {
        for (const { up, across } of crossings(circle(r), 'mm', { minY: 0, maxY: 2 * r })) {
          const half = Math.sqrt(Math.max(0, r * r - (up - r) ** 2));
          // 720 chords leave the arc by at most r (1 − cos ¼°), steeply only where it runs nearly upright.
          if (half > r / 4) expect(across).toEqual([r - half, r + half].map((x) => expect.closeTo(x, 1)));
        }
      }),
    );
  });

  it('tells some eight levels on marks, the lowest and the highest among them', () => {
    const levels = crossings(circle(60), 'mm', { minY: 0, maxY: 120 });
    expect(levels.map(({ up }) => up)).toEqual([0, 15, 30, 45, 60, 75, 90, 105, 120]);
    // At 30 mm up: 60 ± √(60² − 30²) = 60 ± 51.96.
    expect(ordinateWords(circle(60), 'mm', { minY: 0, maxY: 120 })).toContain('30 mm up: 8 mm and 112 mm;');
  });

  it('tells the corners of what has few', () => {
    const words = ordinateWords(
      [
        [0, 0],
        [40, 0],
        [20, 30],
      ],
      'mm',
      { minY: 0, maxY: 30 },
    );
    expect(words).toContain('0 mm across, 0 mm up; 40 mm across, 0 mm up; 20 mm across, 30 mm up.');
  });
});
