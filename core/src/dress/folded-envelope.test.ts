import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { withOwnEnvelope } from '../card/dress-card.js';
import { NOTATIONS, rulerStep } from '../measure/units.js';
import { benchSteps } from '../plan/bench-steps.js';
import { intersect, subtract, totalArea, unite, areasOf } from '../plane/boolean.js';
import { areaOf, asArea, boxOf, movedArea, type Area, type Loop } from '../plane/outline.js';
import type { Point } from '../plane/point.js';
import { METRIC_WORKSHOP } from '../supplies/starter-workshops.js';
import { cardOn, evaluated, finding } from '../testing/evaluated.js';
import { envelopeOutline, squareEnvelopeOnMarks, type EnvelopeOnMarks } from './folded-envelope.js';
import { squareEnvelope } from './square-envelope.js';

const side = fc.double({ min: 40, max: 300, noNaN: true });
const cards = fc.record({ width: side, height: side, thickness: fc.double({ min: 0, max: 10, noNaN: true }) });
const notations = fc.constantFrom(...NOTATIONS.map(({ id }) => id));

const cornersOf = ({ square: s, firstFold: f, notch: n }: EnvelopeOnMarks): Loop => [
  [f, n],
  [s - n, s - f],
  [s - f, s - n],
  [n, f],
];

/** The flaps of the flat square, each turned over at its fold. */
function foldedIn(made: EnvelopeOnMarks): Area[][] {
  const corners = cornersOf(made);
  const whole = asArea(envelopeOutline(made));
  return corners.map((a, i) => {
    const b = corners[(i + 1) % 4]!;
    const [ux, uy] = [b[0] - a[0], b[1] - a[1]];
    // All of the square on the far side of a fold: the notches end in the pocket's corners.
    const far = (k: number, out: number): Point => [a[0] + k * ux + out * uy, a[1] + k * uy - out * ux];
    const own = areasOf(intersect([whole], [asArea([far(-20, 0), far(-20, 20), far(20, 20), far(20, 0)])]));
    expect(own).toHaveLength(1);
    const over = ([x, y]: Point): Point => {
      const t = ((x - a[0]) * ux + (y - a[1]) * uy) / (ux * ux + uy * uy);
      return [2 * (a[0] + t * ux) - x, 2 * (a[1] + t * uy) - y];
    };
    return own.map((flap) => movedArea(flap, over));
  });
}

describe('an envelope folded from a square', () => {
  it('folds up: every flap lies inside the pocket, all together cover it, and the last two lap over each other', () => {
    fc.assert(
      fc.property(cards, notations, fc.double({ min: 6, max: 40, noNaN: true }), (card, notation, overlap) => {
        const made = squareEnvelopeOnMarks(card, notation, { overlap });
        const pocket = asArea(cornersOf(made));
        const flaps = foldedIn(made);
        for (const flap of flaps) expect(totalArea(subtract(flap, [pocket]))).toBeLessThan(0.01);
        expect(totalArea(subtract([pocket], areasOf(unite(flaps.flat()))))).toBeLessThan(0.01);
        // Along the longer fold's direction both flaps B reach past the middle: measured across the pocket.
        const [a, b] = [cornersOf(made)[0]!, cornersOf(made)[1]!];
        const long = Math.hypot(b[0] - a[0], b[1] - a[1]);
        const across = ([x, y]: Point): number => ((b[0] - a[0]) * (y - a[1]) - (b[1] - a[1]) * (x - a[0])) / long;
        const first = Math.max(...flaps[0]![0]!.outer.map(across));
        const last = Math.min(...flaps[2]![0]!.outer.map(across));
        expect(first - last).toBeCloseTo(made.seam, 5);
        expect(made.seam).toBeGreaterThan(0);
      }),
      { seed: 13 },
    );
  });

  it('lies with every place on a mark, is no smaller than the card asks, and hardly larger', () => {
    fc.assert(
      fc.property(cards, notations, (card, notation) => {
        const made = squareEnvelopeOnMarks(card, notation);
        const exact = squareEnvelope(card);
        const step = rulerStep(notation);
        for (const mm of [made.square, made.firstFold, made.notch, ...made.tips])
          expect(Math.abs(mm / step - Math.round(mm / step))).toBeLessThan(1e-6);
        expect(made.pocket[0]).toBeGreaterThanOrEqual(exact.pocket[0] - 1e-6);
        expect(made.pocket[1]).toBeGreaterThanOrEqual(exact.pocket[1] - 1e-6);
        expect(made.square - exact.square).toBeLessThan(4 * step);
      }),
    );
  });

  it('has tips cut off only where they would reach the fold opposite', () => {
    // 200 × 60 mm: a flap over the long side would be 100 + 3 + 8.5 mm high over a pocket of 63 mm.
    expect(squareEnvelopeOnMarks({ width: 200, height: 60, thickness: 0 }, 'mm').tips[1]).toBeGreaterThan(0);
    expect(squareEnvelopeOnMarks({ width: 148, height: 105, thickness: 1 }, 'mm').tips).toEqual([0, 0]);
  });

  it('is pieces of the card: cut, scored, lined and glued in the steps, and its liner keeps clear of the gum', () => {
    const card = withOwnEnvelope(
      cardOn('folded-card', { depth: 105, length: 148 }),
      { stock: 'light-card-160', liner: 'patterned-120' },
      METRIC_WORKSHOP,
    );
    const evaluation = evaluated(card);
    const { made, sheet, liner } = evaluation.dressed.envelope!;
    expect(sheet.width).toBeCloseTo(made.square, 9);
    expect(sheet.scores).toHaveLength(4);
    // Beside the folds a liner is 1.5 mm smaller on either side: across both flaps' direction its width says so.
    const { minX, maxX, minY, maxY } = boxOf(liner!.sheet.outline.map(([x, y]): Point => [(x + y) / Math.SQRT2, (y - x) / Math.SQRT2]));
    expect(maxX - minX).toBeCloseTo(made.pocket[1] - 3, 4);
    expect(maxY - minY).toBeLessThan(2 * made.pocket[0]);
    // It covers the pocket but for its play, and the closing flap but for its gum.
    expect(areaOf(asArea(liner!.sheet.outline))).toBeGreaterThan((made.pocket[0] - 3) * (made.pocket[1] - 3));
    const says = benchSteps(evaluation, METRIC_WORKSHOP)
      .filter(({ id }) => id.startsWith('envelope-'))
      .flatMap((step) => step.says)
      .join(' ');
    expect(says).toContain(`Cut a square of ${made.square} mm`);
    expect(says).toContain(
      `make marks ${made.firstFold - made.notch} mm, ${made.firstFold} mm and ${made.firstFold + made.notch} mm from its corner A`,
    );
    expect(finding(evaluation, 'stays-inside/envelope').says).toMatch(/folded for it takes it/);
  });
});
