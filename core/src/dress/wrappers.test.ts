import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { bandRound } from './band.js';
import { squareEnvelope } from './square-envelope.js';

const side = fc.double({ min: 30, max: 300, noNaN: true });
const thin = fc.double({ min: 0, max: 12, noNaN: true });

describe('an envelope folded from a square', () => {
  it('of a card 148 × 105 mm, 2 mm thick, is worked out by hand', () => {
    // Inside 110 and 153: (110 + 153) ÷ 1.41421356 = 185.9691; with 12 mm 197.9691. 110 ÷ 1.41421356 + 6 = 83.7817.
    const { square, firstFold, pocket } = squareEnvelope({ width: 148, height: 105, thickness: 2 });
    expect(pocket).toEqual([110, 153]);
    expect(square).toBeCloseTo(197.9691, 4);
    expect(firstFold).toBeCloseTo(83.7817, 4);
  });

  it('has its folds as far apart as the pocket, whatever the card: measured between the lines on the flat square', () => {
    fc.assert(
      fc.property(side, side, thin, fc.double({ min: 2, max: 30, noNaN: true }), (width, height, thickness, overlap) => {
        const { square, foldEnds, pocket, firstFold, secondFold, notch } = squareEnvelope({ width, height, thickness }, 3, overlap);
        // A fold cuts a corner off: from (p, 0) to (0, p); its distance from the square's middle is |p − S| ÷ √2.
        const fromMiddle = (p: number): number => Math.abs(p - square) / Math.SQRT2;
        expect(2 * fromMiddle(foldEnds.shorter)).toBeCloseTo(pocket[1], 6);
        expect(2 * fromMiddle(foldEnds.longer)).toBeCloseTo(pocket[0], 6);
        // Two folds beside one edge of the square cross in the pocket's corner: x + y = p and (S − x) + y = q.
        const [x, y] = [(square + foldEnds.shorter - foldEnds.longer) / 2, (foldEnds.shorter + foldEnds.longer - square) / 2];
        expect(firstFold).toBeCloseTo(x, 6);
        expect(square - secondFold).toBeCloseTo(x, 6);
        expect(notch).toBeCloseTo(y, 6);
        expect(pocket).toEqual([Math.min(width, height) + thickness + 3, Math.max(width, height) + thickness + 3]);
      }),
    );
  });

  it('closes: its flaps over the longer sides lap over each other by what is told', () => {
    fc.assert(
      fc.property(side, side, (width, height) => {
        const { square, foldEnds, pocket, seam } = squareEnvelope({ width, height, thickness: 1 });
        // A flap is a triangle of legs p; it is p ÷ √2 high, and two of them lie across the pocket's shorter side.
        expect(seam).toBeCloseTo((2 * foldEnds.longer) / Math.SQRT2 - pocket[0], 6);
        expect(seam).toBeGreaterThan(0);
        expect(square).toBeGreaterThan(pocket[1] / Math.SQRT2);
      }),
    );
  });

  it('does not know which way its card is held', () => {
    fc.assert(
      fc.property(side, side, thin, (width, height, thickness) => {
        expect(squareEnvelope({ width, height, thickness })).toEqual(squareEnvelope({ width: height, height: width, thickness }));
      }),
    );
  });
});

describe('a band round a card', () => {
  it('of a card 150 × 105 mm, 3 mm thick, is worked out by hand', () => {
    // Round the width with 1 mm to slip: 151, 154, 305, 308, and 12 to lap over.
    expect(bandRound({ width: 150, height: 105, thickness: 3, around: 'width' })).toEqual({
      ...{ length: 320, folds: [151, 154, 305, 308], overlap: 12, slip: 1, slidesAlong: 'height' },
    });
    expect(bandRound({ width: 150, height: 105, thickness: 3, around: 'height' })).toMatchObject({ length: 230, slidesAlong: 'width' });
  });

  it('goes once round: what lies between its folds is front, back and two edges, two of each alike', () => {
    fc.assert(
      fc.property(side, side, thin, (width, height, thickness) => {
        const { folds, length, overlap, slip } = bandRound({ width, height, thickness, around: 'height' });
        const [front, back] = [folds[0], folds[2] - folds[1]];
        const [edge, other] = [folds[1] - folds[0], folds[3] - folds[2]];
        expect(front).toBeCloseTo(back, 9);
        expect(edge).toBeCloseTo(other, 9);
        expect(front).toBeCloseTo(height + slip, 9);
        expect(edge).toBeCloseTo(thickness, 9);
        expect(length).toBeCloseTo(2 * (height + slip + thickness) + overlap, 9);
      }),
    );
  });
});
