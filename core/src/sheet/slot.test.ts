import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { toRadians } from '../measure/units.js';
import { leastSlot } from './slot.js';

/**
 * How wide a hole in a sheet of thickness t must be for a strip of thickness s through it at an angle, by looking:
 * the strip is the band between two parallel lines; what it covers of the sheet's two faces and all between.
 */
function coveredWidth(s: number, t: number, angle: number): number {
  const direction = [Math.cos(angle), Math.sin(angle)] as const;
  const across = [-direction[1], direction[0]] as const;
  const crossings: number[] = [];
  for (const side of [-s / 2, s / 2]) {
    for (const y of [-t / 2, t / 2]) {
      const along = (y - side * across[1]) / direction[1];
      crossings.push(side * across[0] + along * direction[0]);
    }
  }
  return Math.max(...crossings) - Math.min(...crossings);
}

describe('the least width of a slot', () => {
  it('is what a slanting strip covers of both faces of the sheet, and the clearance', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.05, max: 2, noNaN: true }),
        fc.double({ min: 0.1, max: 1, noNaN: true }),
        fc.double({ min: 15, max: 90, noNaN: true }),
        (strip, sheet, degrees) => {
          const angle = toRadians(degrees);
          expect(leastSlot(strip, sheet, angle, 0.3)).toBeCloseTo(coveredWidth(strip, sheet, angle) + 0.3, 9);
        },
      ),
    );
  });

  it('is the strip and the clearance for one that stands square', () => {
    expect(leastSlot(0.19, 0.31, Math.PI / 2, 0.2)).toBeCloseTo(0.39, 12);
  });

  it('is the same from either side', () => {
    expect(leastSlot(0.2, 0.3, toRadians(120), 0)).toBeCloseTo(leastSlot(0.2, 0.3, toRadians(60), 0), 12);
  });
});
