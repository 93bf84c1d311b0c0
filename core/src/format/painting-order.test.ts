import { claimsOf } from '../card/draw.js';
import { describe, expect, it } from 'vitest';
import { DEMO_CARDS } from '../card/demo-cards.js';
import { evaluate, type Evaluation } from '../evaluate.js';
import { frameBetween, poseOf } from '../linkage/motion.js';
import { cardOn, evaluated as evaluatedCard } from '../testing/evaluated.js';
import { paintingOrder } from './painting-order.js';
import { standingPicture } from './standing-picture.js';

function evaluated(i: number): Evaluation {
  const outcome = evaluate(DEMO_CARDS[i]!);
  if (!outcome.ok) throw new Error('sizes refused');
  return outcome.evaluation;
}

function orderOf(evaluation: Evaluation, toward: readonly [number, number, number]): string[] {
  const { design, motion, closed } = evaluation;
  const pose = poseOf(motion, frameBetween(motion, design.base.rest.at));
  return paintingOrder(design, closed.stack, pose, toward).map((body) => design.panels[body]!.id);
}

describe('the painting order of a thumbnail', () => {
  it('paints a figure over the leaves it stands on, seen from above in front', () => {
    const order = orderOf(evaluated(1), [0.2, -0.8, 0.6]);
    for (const leaf of ['base/front-leaf', 'base/back-leaf']) {
      for (const wing of ['figure/first-wing', 'figure/second-wing']) expect(order.indexOf(leaf)).toBeLessThan(order.indexOf(wing));
    }
  });

  it('paints the display over strut and base from the front, and under the strut from behind', () => {
    const front = orderOf(evaluated(0), [0.8, 0.2, 0.5]);
    expect(front.indexOf('base/strut')).toBeLessThan(front.indexOf('display/display'));
    expect(front.indexOf('base/base')).toBeLessThan(front.indexOf('stop/stop'));
    const behind = orderOf(evaluated(0), [-0.9, 0.1, 0.4]);
    expect(behind.indexOf('display/display')).toBeLessThan(behind.indexOf('base/strut'));
  });

  it('paints what lies flat open as it lies there: the strip on the leaves, all of the carrier on the strip', () => {
    const map = evaluated(DEMO_CARDS.findIndex(({ id }) => id === 'the-foray-map'));
    const order = standingPicture(map, 1).facets.map(({ panel }) => panel);
    const last = (of: RegExp): number => order.findLastIndex((panel) => of.test(panel));
    const first = (of: RegExp): number => order.findIndex((panel) => of.test(panel));
    expect(last(/^base/)).toBeLessThan(first(/^map-strip/));
    expect(last(/^map-strip/)).toBeLessThan(first(/^map-carrier/));
  });

  it('paints every panel once, inside its box', () => {
    for (const i of DEMO_CARDS.keys()) {
      for (const s of [0, 0.5, 1]) {
        const evaluation = evaluated(i);
        const { facets, box } = standingPicture(evaluation, s);
        // A panel that bends is painted in pieces on the way, whole at both ends.
        const bent = new Set(s === 0.5 ? claimsOf(evaluation.design, 'bends').flatMap(({ panels }) => panels) : []);
        const whole = evaluation.design.panels.filter(({ id }) => !bent.has(id)).map(({ id }) => id);
        expect(
          facets
            .filter((facet) => !facet.bent && !facet.worn)
            .map(({ panel }) => panel)
            .sort(),
        ).toEqual(whole.sort());
        // What is worn comes right after its panel, or after what that wears already.
        facets.forEach((facet, k) => facet.worn && expect(facets[k - 1]!.panel).toBe(facet.panel));
        expect(new Set(facets.filter((facet) => facet.bent).map(({ panel }) => panel))).toEqual(bent);
        for (const { path } of facets) {
          for (const [, px, py] of path.matchAll(/(-?[\d.]+) (-?[\d.]+)/g)) {
            expect(Number(px)).toBeGreaterThanOrEqual(box.x);
            expect(Number(px)).toBeLessThanOrEqual(box.x + box.width);
            expect(Number(py)).toBeGreaterThanOrEqual(box.y);
            expect(Number(py)).toBeLessThanOrEqual(box.y + box.height);
          }
        }
      }
    }
  });

  it('shows of a closed card what lies on top', () => {
    for (const [mechanism, top, under] of [
      ['tucked-display', 'base/left-door', 'focal/focal'],
      ['box-card', 'base/first-wall', 'divider-1/divider-1'],
      ['bellows-box', 'base/front', 'base/left-front-bellows'],
    ] as const) {
      const evaluation = evaluatedCard(cardOn(mechanism));
      const { facets } = standingPicture(evaluation, 0);
      const place = (id: string): number => facets.findIndex((facet) => facet.panel === id);
      expect(place(under)).toBeLessThan(place(top));
    }
  });

  it('hides what stands in a box behind its front wall', () => {
    const order = orderOf(evaluatedCard(cardOn('box-card', { flaps: [], dividers: [{ distance: 20, figure: 'none' }] })), [0.2, 0.1, 1]);
    expect(order.indexOf('divider-1/divider-1')).toBeLessThan(order.indexOf('base/first-wall'));
    expect(order.indexOf('base/third-wall')).toBeLessThan(order.indexOf('divider-1/divider-1'));
  });
});
