import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { nearestGrooveSet, outOfStep, type GuidedReading, type MovableSize } from './groove-set.js';
import { GROOVE_CATCH, nearestGroove } from './ruler.js';

const FIVE = { pitch: 5, length: 300 };
const size = (now: number, given: Partial<MovableSize> = {}): MovableSize => ({ now, least: 1, most: 400, weight: 1, ...given });

/** The least change by trying every quarter millimetre up to 15 mm either way. */
function byTrying(readings: readonly GuidedReading[], sizes: readonly MovableSize[]): number {
  const steps = Array.from({ length: 121 }, (_, i) => (i - 60) / 4);
  let best = Infinity;
  for (const a of steps)
    for (const b of sizes.length > 1 ? steps : [0]) {
      const cost = Math.abs(a) + Math.abs(b);
      const fits = readings.every(({ at, per }) => {
        const x = at + per[0]! * a + (per[1] ?? 0) * b;
        return x > 0 && x <= FIVE.length && Math.abs(nearestGroove(x, FIVE).off) < 1e-9;
      });
      if (fits && cost < best) best = cost;
    }
  return best;
}

describe('the nearest set of sizes on a board', () => {
  it('rounds one size to the groove its score is nearest', () => {
    expect(nearestGrooveSet([{ at: 52, per: [1] }], [size(52)], FIVE)).toEqual([expect.closeTo(-2, 9)]);
    // Scored at half the depth: 148 goes to 150, where the score lies at 75.
    expect(nearestGrooveSet([{ at: 74, per: [0.5] }], [size(148)], FIVE)).toEqual([expect.closeTo(2, 9)]);
  });

  it('rounds sizes together where a score depends on both', () => {
    // A bellows of 16 and a front of 98: scores at 16, 32, 48, 146.
    const readings = [1, 2, 3].map((n): GuidedReading => ({ at: 16 * n, per: [n, 0] })).concat([{ at: 146, per: [3, 1] }]);
    // 15 for the bellows and 100 for the front: 15, 30, 45, 145.
    expect(nearestGrooveSet(readings, [size(16), size(98)], FIVE)).toEqual([-1, 2].map((n) => expect.closeTo(n, 9)));
  });

  it('leaves what lies in grooves already', () => {
    expect(nearestGrooveSet([{ at: 50.05, per: [1] }], [size(50.05)], FIVE)).toEqual([0]);
  });

  it('rather changes what is cheap to change', () => {
    const readings = [{ at: 52, per: [1, 1] }];
    expect(nearestGrooveSet(readings, [size(32, { weight: 3 }), size(20)], FIVE)).toEqual([0, expect.closeTo(-2, 9)]);
  });

  it('finds none beyond the limits of a size, or where two scores move together out of step', () => {
    expect(nearestGrooveSet([{ at: 52, per: [1] }], [size(52, { least: 51, most: 54 })], FIVE)).toBeUndefined();
    const apart = [
      { at: 50, per: [1] },
      { at: 81, per: [1] },
    ];
    expect(nearestGrooveSet(apart, [size(50)], FIVE)).toBeUndefined();
  });

  it('never leaves a score off its groove, and is never dearer than trying every quarter millimetre', () => {
    const quarter = fc.integer({ min: 40, max: 240 }).map((n) => n / 4);
    fc.assert(
      fc.property(quarter, quarter, fc.constantFrom(0, 1, 2), (a, b, n) => {
        const sizes = [size(a), size(b)];
        const readings = [
          { at: a, per: [1, 0] },
          { at: n * a + b, per: [n, 1] },
        ];
        const changes = nearestGrooveSet(readings, sizes, FIVE)!;
        for (const { at, per } of readings) {
          const x = at + per[0]! * changes[0]! + per[1]! * changes[1]!;
          expect(Math.abs(nearestGroove(x, FIVE).off)).toBeLessThanOrEqual(GROOVE_CATCH);
        }
        const cost = Math.abs(changes[0]!) + Math.abs(changes[1]!);
        expect(cost).toBeLessThanOrEqual(byTrying(readings, sizes) + 1e-9);
      }),
      { numRuns: 25 },
    );
  });
});

describe('scores out of step', () => {
  const moving = (at: number, ...per: number[]): GuidedReading => ({ at, per });

  it('are two that always move together and lie no whole number of grooves apart', () => {
    expect([...outOfStep([moving(10, 1), moving(25, 1)], FIVE)]).toEqual([]);
    expect(outOfStep([moving(10, 1), moving(22.3, 1)], FIVE).size).toBe(1);
    expect([...outOfStep([moving(10, 1), moving(22.3, 2)], FIVE)]).toEqual([]);
  });

  it('leaves out the one that is out of step with most', () => {
    expect([...outOfStep([moving(10, 1), moving(22.3, 1), moving(30, 1), moving(45, 1)], FIVE)]).toEqual([1]);
  });
});
