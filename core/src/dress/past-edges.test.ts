import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { dressedBy, dressedOtherwise } from '../card/dress-card.js';
import type { CardDocument } from '../card/document.js';
import type { OwnDress } from '../card/dressing.js';
import type { Evaluation } from '../evaluate.js';
import { benchSteps } from '../plan/bench-steps.js';
import { joinsOfLayer } from '../plan/joins-said.js';
import { offset, totalArea } from '../plane/boolean.js';
import { areaOf, asArea, boxOf, type Loop } from '../plane/outline.js';
import { inset } from '../plane/inset.js';
import { starterFor } from '../supplies/starter-workshops.js';
import { cardOn, evaluated, finding } from '../testing/evaluated.js';
import type { DressedLayer } from './layer.js';

const workshop = starterFor('mm');

/** A folded card of 105 × 148 mm, borders of 3 mm, one face of which is dressed otherwise. */
function folded(own: Omit<OwnDress, 'panel' | 'face'>, panel = 'base/front-leaf', face: 'up' | 'down' = 'down', given = {}): CardDocument {
  const card = cardOn('folded-card', { depth: 105, length: 148 }, given);
  return dressedOtherwise(dressedBy(card, { border: 3 }, workshop), { panel, face }, own);
}

const layersOn = ({ dressed }: Evaluation, panel: string, face: 'up' | 'down'): DressedLayer[] =>
  dressed.layers.filter((layer) => layer.panel === panel && layer.face === face);

describe('a layer that stands past an edge', () => {
  it('is so much larger, and is glued only as far as its panel goes', () => {
    // From 6 past the free edge on the left to 3 before the fold, 105 from there: 108 wide, 142 up.
    const evaluation = evaluated(folded({ left: -6 }));
    const [layer] = layersOn(evaluation, 'base/front-leaf', 'down') as [DressedLayer];
    expect(boxOf(layer.area.outer)).toEqual({ minX: -6, maxX: 102, minY: 3, maxY: 145 });
    expect([layer.box.width, layer.box.height]).toEqual([108, 142]);
    expect(layer.borders.left).toBe(-6);
    expect(layer.past.map(areaOf).reduce((a, b) => a + b, 0)).toBeCloseTo(6 * 142, 6);
    const [join, ...others] = joinsOfLayer(evaluation, layer);
    expect(others).toEqual([]);
    expect(boxOf(join!.onto.outline)).toEqual({ minX: 0, maxX: 102, minY: 3, maxY: 145 });
  });

  it('sticks out of the closed card by so much, and is told so', () => {
    const found = finding(evaluated(folded({ left: -6 })), 'stays-inside/base/front-leaf/free');
    expect(found).toMatchObject({ severity: 'fail' });
    expect(found.value).toBeCloseTo(6, 6);
  });

  it('may stand past a fold that turns away from it, not past one that turns toward it', () => {
    // The cover's layer reaches 8 over the back, which lies behind it when closed: free. Inside, the leaves fold onto one another.
    const outside = evaluated(folded({ right: -8 }, 'base/front-leaf', 'down', { within: 'envelope' }));
    expect(outside.findings.filter(({ severity }) => severity === 'fail')).toEqual([]);
    const inside = evaluated(folded({ right: -8 }, 'base/front-leaf', 'up'));
    const told = inside.findings.filter(({ check, severity }) => check === 'dressing-placed' && severity === 'fail');
    expect(told).toHaveLength(1);
    expect(told[0]!.value).toBeCloseTo(8, 6);
    expect(told[0]!.panels).toEqual(['base/front-leaf', 'base/back-leaf']);
  });

  it('over the other of two doors has to be opened first', () => {
    const doors = dressedBy(cardOn('rising-strip-doors', { closedWidth: 120, length: 150, strip: 30 }), { border: 3 }, workshop);
    const card = dressedOtherwise(doors, { panel: 'base/left-door', face: 'down' }, { left: -10 });
    const { dressed, findings } = evaluated(card);
    expect(dressed.order).toHaveLength(1);
    expect(dressed.order[0]!.first).toBe('base/left-door');
    expect(dressed.order[0]!.over).toBeCloseTo(10, 6);
    expect(findings.some(({ check }) => check === 'opens')).toBe(true);
  });

  it('has a second layer that lies within it by the step', () => {
    const [lower, upper] = layersOn(evaluated(folded({ left: -6, steps: 2 })), 'base/front-leaf', 'down') as [DressedLayer, DressedLayer];
    expect(upper.borders.left - lower.borders.left).toBeCloseTo(3, 9);
  });

  it('is said to reach past the edge where it is glued on', () => {
    const evaluation = evaluated(folded({ left: -6 }));
    const said = benchSteps(evaluation, workshop).flatMap(({ says }) => says);
    expect(said.some((line) => /6 mm past the left edge/.test(line))).toBe(true);
    expect(said.some((line) => /none goes on what stands past/.test(line))).toBe(true);
  });

  it('changes its width as its borders change, on either side of the edge', () => {
    fc.assert(
      fc.property(fc.double({ min: -40, max: 40, noNaN: true }), fc.double({ min: -40, max: 40, noNaN: true }), (left, right) => {
        fc.pre(left !== 0 && right !== 0);
        const [layer] = layersOn(evaluated(folded({ left, right })), 'base/front-leaf', 'down') as [DressedLayer];
        expect(layer.box.width).toBeCloseTo(105 - left - right, 6);
      }),
      { numRuns: 12 },
    );
  });

  it('of any convex outline is what moving every edge out gives', () => {
    // Corners on an ellipse, so far apart that none is sharp.
    const outline = fc
      .record({
        turns: fc.array(fc.double({ min: 0.3, max: 1, noNaN: true }), { minLength: 5, maxLength: 9 }),
        a: fc.double({ min: 20, max: 60, noNaN: true }),
        b: fc.double({ min: 20, max: 60, noNaN: true }),
      })
      .map(({ turns, a, b }): Loop => {
        const whole = turns.reduce((sum, turn) => sum + turn, 0);
        let at = 0;
        return turns.map((turn) => {
          at += (turn / whole) * 2 * Math.PI;
          return [a * Math.cos(at), b * Math.sin(at)];
        });
      });
    fc.assert(
      fc.property(outline, fc.double({ min: 0.5, max: 15, noNaN: true }), (hull, by) => {
        const [grown] = inset(
          asArea(hull),
          hull.map(() => -by),
          0,
        );
        expect(areaOf(grown!)).toBeCloseTo(totalArea(offset(hull, by)), 2);
      }),
    );
  });
});
