import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { CATALOGUE } from '../mechanism/catalogue.js';
import type { Base } from '../mechanism/contract.js';
import { boxOf, rectangle, type Area, type Loop } from '../plane/outline.js';
import { evaluate } from '../evaluate.js';
import { anyCardOn } from '../testing/any-sizes.js';
import { cardOn, evaluated } from '../testing/evaluated.js';
import type { Design } from './join.js';
import { thicknessAt, type Slab } from './pile.js';
import { thickestPlace } from './thickest-place.js';

const BASES = CATALOGUE.filter((mechanism): mechanism is Base => mechanism.kind === 'base');
const UNGLUED = { linkage: { bonds: [] } } as unknown as Design;
const slab = (thickness: number, outer: Loop, holes: Area['holes'] = []): Slab => ({
  body: -1,
  thickness,
  area: { outer, holes },
  box: boxOf(outer),
});

describe('the thickest place', () => {
  it('is found where three sheets share a square of 2 mm on a card of 200', () => {
    // The first two share x 99…200, the third covers only x 0…101: all three from 99 to 101, and so along the fold.
    const pile = [slab(0.3, rectangle(0, 0, 101, 200)), slab(0.4, rectangle(99, 0, 101, 101)), slab(0.5, rectangle(0, 99, 200, 101))];
    const { thickness, at } = thickestPlace(UNGLUED, pile);
    expect(thickness).toBeCloseTo(1.2, 12);
    expect(at[0]).toBeCloseTo(100, 9);
    expect(at[1]).toBeCloseTo(100, 9);
  });

  it('is found where slanting edges cross, though no corner lies there', () => {
    // Two triangles whose tips reach past each other: they share a kite round (50, 30) only.
    const pile = [
      slab(1, [[0, 0], [100, 0], [50, 32]]),
      slab(2, [[0, 60], [50, 28], [100, 60]]),
    ]; // prettier-ignore
    const { thickness, at } = thickestPlace(UNGLUED, pile);
    expect(thickness).toBeCloseTo(3, 12);
    expect(at[0]).toBeCloseTo(50, 9);
    expect(at[1]).toBeGreaterThan(28);
    expect(at[1]).toBeLessThan(32);
  });

  it('does not count what a window leaves out', () => {
    const pile = [slab(1, rectangle(0, 0, 100, 100), [rectangle(10, 10, 80, 80)]), slab(1, rectangle(20, 20, 60, 60))];
    expect(thickestPlace(UNGLUED, pile).thickness).toBe(1);
  });

  it.each([0.01, 0.04])('takes an overlap of %f mm for an edge on an edge, both ways', (by) => {
    expect(thickestPlace(UNGLUED, [slab(1, rectangle(0, 0, 50, 80)), slab(1, rectangle(50 - by, 0, 50, 80))]).thickness).toBe(1);
    expect(thickestPlace(UNGLUED, [slab(1, rectangle(0, 0, 80, 50)), slab(1, rectangle(0, 50 - by, 80, 50))]).thickness).toBe(1);
  });

  it('of an easel is found as by a search of every tenth of a mm', () => {
    const { design, closed } = evaluated(cardOn('easel-folded-front', { depth: 80, length: 60 }));
    const { minX, maxX, minY, maxY } = closed.box;
    let most = 0;
    for (let x = minX + 0.05; x < maxX; x += 0.1)
      for (let y = minY + 1; y < maxY; y += 2) most = Math.max(most, thicknessAt(design, closed.pile, [x, y]).thickness);
    expect(closed.thickest.thickness).toBeCloseTo(most, 9);
  });

  it.each(BASES.map((base) => [base.id, base] as const))('of any %s is at least as thick as any place tried', (_id, base) => {
    fc.assert(
      fc.property(
        anyCardOn(base),
        fc.array(fc.tuple(fc.double({ min: 0, max: 1, noNaN: true }), fc.double({ min: 0, max: 1, noNaN: true })), {
          minLength: 150,
          maxLength: 150,
        }),
        (card, places) => {
          const outcome = evaluate(card);
          fc.pre(outcome.ok);
          const { design, closed } = outcome.evaluation;
          const { box, pile, thickest } = closed;
          expect(thicknessAt(design, pile, thickest.at).thickness).toBeCloseTo(thickest.thickness, 9);
          for (const [u, v] of places) {
            const at = [box.minX + u * (box.maxX - box.minX), box.minY + v * (box.maxY - box.minY)] as const;
            expect(thicknessAt(design, pile, at).thickness).toBeLessThanOrEqual(thickest.thickness + 1e-9);
          }
        },
      ),
      { numRuns: 6, seed: 9 },
    );
  });
});
