import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { withTopper } from '../card/dress-card.js';
import type { Topper } from '../card/dressing.js';
import { boxOf } from '../plane/outline.js';
import { METRIC_WORKSHOP } from '../supplies/starter-workshops.js';
import { cardOn, envelopeById, evaluated, finding, having } from '../testing/evaluated.js';
import { envelopeLimit } from './envelope-limit.js';

const c6 = envelopeById('c6');
/** A card of 105 × 148 mm that goes into a C6 envelope. */
const card = having(cardOn('folded-card', { depth: 105, length: 148 }, { within: 'envelope' }), { envelope: c6.id });
const put = (change: Partial<Topper>) =>
  evaluated(
    withTopper(
      card,
      {
        ...{
          panel: 'base/front-leaf',
          face: 'down',
          across: 50,
          along: 70,
          outline: 'rectangle',
          height: 30,
          width: 20,
          stock: 'card-250',
        },
        ...change,
      },
      METRIC_WORKSHOP,
    ),
  );

describe('the limit of the envelope round what is moved', () => {
  it('is where the verdict changes: a topper up to it fits, and a hair past it does not', () => {
    const places = fc.record({
      across: fc.double({ min: -20, max: 130, noNaN: true }),
      along: fc.double({ min: -20, max: 170, noNaN: true }),
    });
    let missed = 0;
    fc.assert(
      fc.property(places, (place) => {
        const evaluation = put(place);
        const limit = boxOf(envelopeLimit(evaluation, 'topper-1')!);
        const own = boxOf(evaluation.dressed.toppers[0]!.area.outer);
        const inside = own.minX > limit.minX && own.maxX < limit.maxX && own.minY > limit.minY && own.maxY < limit.maxY;
        const { severity } = finding(evaluation, 'stays-inside/envelope');
        if (!inside) missed++;
        expect(severity).toBe(inside ? 'pass' : 'fail');
      }),
      { seed: 3, numRuns: 60 },
    );
    expect(missed).toBeGreaterThan(5);
  });

  it('lies as far from the card as the envelope has room, the thickness taken off', () => {
    const evaluation = put({});
    const limit = boxOf(envelopeLimit(evaluation, 'topper-1')!);
    const { thickness } = evaluation.closed.thickest;
    // From edge to edge it may reach past either side by all the room there is.
    expect(limit.maxX - limit.minX).toBeCloseTo(2 * (c6.short - thickness) - 105, 6);
    expect(limit.maxY - limit.minY).toBeCloseTo(2 * (c6.long - thickness) - 148, 6);
  });

  it('is not there without an envelope', () => {
    const { envelope: _, ...without } = card;
    expect(envelopeLimit(evaluated(without), 'topper-1')).toBeUndefined();
  });
});
