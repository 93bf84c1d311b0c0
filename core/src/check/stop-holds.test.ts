import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { dressedBy, dressedOtherwise, withTopper, withTopperChanged } from '../card/dress-card.js';
import type { CardDocument } from '../card/document.js';
import type { Topper } from '../card/dressing.js';
import { GLUE_FILM, STOP_CALIPERS } from '../supplies/limits.js';
import { starterFor } from '../supplies/starter-workshops.js';
import { cardOn, evaluated, finding, stockById } from '../testing/evaluated.js';

const workshop = starterFor('mm');
const { caliper } = stockById('card-250');
/** Base and display of one stock: the foot is two sheets thick. */
const FOOT = 2 * caliper;

/** An easel of 150 mm whose foot stands 75 mm from the main fold, which is the left edge of its base. */
const easel = (sizes = {}): CardDocument =>
  cardOn(
    'easel-folded-front',
    { depth: 150, length: 150, stopDistance: 75, ...sizes },
    { stocks: { base: 'card-250', display: 'card-250' } },
  );
/** A bar 60 × 10 mm on the base, its long sides along the foot, its middle so far from the fold. */
const bar: Omit<Topper, 'id'> = {
  ...{ panel: 'base/base', face: 'up', across: 80, along: 75, outline: 'rectangle', height: 10, width: 60, stock: 'card-250' },
};
const stoppedBy = (change: Partial<Topper> = {}): CardDocument => withTopper(easel({ stop: 'topper' }), { ...bar, ...change }, workshop);

describe('a topper as the stop of an easel', () => {
  it('takes the place of the strip, which is not cut then', () => {
    const pieces = (card: CardDocument): string[] => evaluated(card).design.pieces.map(({ id }) => id);
    expect(pieces(easel())).toContain('stop');
    expect(pieces(stoppedBy())).not.toContain('stop');
    expect(finding(evaluated(easel({ stop: 'topper' })), 'stands/foot')).toMatchObject({ severity: 'fail' });
  });

  it('must have its edge where the foot stands', () => {
    // Its near edge lies 5 mm before its middle.
    const foot = (across: number) => finding(evaluated(stoppedBy({ across })), 'stands/foot');
    expect(foot(80)).toMatchObject({ severity: 'pass', says: 'The foot stands against T1 (rectangle), which is its stop.' });
    expect(foot(92.5)).toMatchObject({ severity: 'fail', value: expect.closeTo(12.5, 4) as number });
    expect(foot(77).says).toContain('lies 3 mm under the foot');
    // A pointed one holds the foot at a point.
    const leaf = finding(evaluated(stoppedBy({ outline: 'star', height: 30, width: undefined, across: 90 })), 'stands/foot');
    expect(leaf.severity).not.toBe('pass');
  });

  it('is told continuously how far it is from the foot', () => {
    fc.assert(
      fc.property(fc.double({ min: 76, max: 120, noNaN: true }), (across) => {
        const { value, severity } = finding(evaluated(stoppedBy({ across })), 'stands/foot');
        expect(value).toBeCloseTo(Math.abs(across - 80), 4);
        expect(severity === 'pass').toBe(Math.abs(across - 80) <= 0.5);
      }),
      { numRuns: 15 },
    );
  });

  it('must be as high as the foot asks: the least number of sheets is said, and is the least', () => {
    const least = Math.ceil((STOP_CALIPERS * FOOT) / (caliper + GLUE_FILM));
    const once = finding(evaluated(stoppedBy()), 'stands/stop');
    expect(once.severity).toBe('fail');
    expect(once.says).toContain(`Cut it at least ${least} times`);
    const cut = (times: number) => finding(evaluated(withTopperChanged(stoppedBy(), 'topper-1', { times }, workshop)), 'stands/stop');
    expect(cut(least).severity).toBe('pass');
    expect(cut(least - 1).severity).not.toBe('pass');
    expect(finding(evaluated(stoppedBy({ foam: 2 })), 'stands/stop')).toMatchObject({
      severity: 'pass',
      value: expect.closeTo(2 + caliper + 2 * GLUE_FILM, 6) as number,
    });
  });

  it.each(['easel-strip', 'easel-shape', 'step-easel'])('leaves the strip of %s out and all else as it is', (base) => {
    const [strip, topper] = [evaluated(cardOn(base)), evaluated(cardOn(base, { stop: 'topper' }))];
    expect(strip.design.pieces.map(({ id }) => id)).toEqual([...topper.design.pieces.map(({ id }) => id), 'stop']);
    expect(topper.resting.s).toBe(strip.resting.s);
  });
});

describe('a foot with what it wears', () => {
  it('is as thick as its papers and their mount make it', () => {
    const least = (card: CardDocument): number => finding(evaluated(card), 'stands/stop').limit!;
    expect(least(easel())).toBeCloseTo(STOP_CALIPERS * FOOT, 6);
    // A layer down to the foot counts, one that ends 3 mm over it does not reach a stop of 2 mm.
    const layered = dressedBy(easel({ stopHeight: 2 }), { border: 3, stock: 'text-100' }, workshop);
    expect(least(layered)).toBeCloseTo(STOP_CALIPERS * FOOT, 6);
    const flush = dressedOtherwise(layered, { panel: 'display/display', face: 'up' }, { bottom: 0 });
    expect(least(flush)).toBeCloseTo(STOP_CALIPERS * (FOOT + stockById('text-100').caliper + GLUE_FILM), 6);
    // On foam at the foot it slips over the stop.
    const foamed = withTopper(
      easel({ stopHeight: 2 }),
      { panel: 'display/display', face: 'up', across: 75, along: 15, outline: 'rectangle', height: 30, foam: 2, stock: 'card-250' },
      workshop,
    );
    const told = finding(evaluated(foamed), 'stands/stop');
    expect(told.severity).toBe('fail');
    expect(told.limit).toBeCloseTo(STOP_CALIPERS * (FOOT + caliper + 2 + 2 * GLUE_FILM), 6);
    expect(told.says).toContain('thick with what it wears');
  });
});
