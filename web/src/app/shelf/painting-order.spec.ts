import { DEMO_CARDS, evaluate, frameBetween, poseOf, type Evaluation } from '@diptychon/core';
import { paintingOrder } from './painting-order';
import { facetsOf } from './thumbnail';

function evaluated(i: number): Evaluation {
  const outcome = evaluate(DEMO_CARDS[i]!);
  if (!outcome.ok) throw new Error('sizes refused');
  return outcome.evaluation;
}

function orderOf(evaluation: Evaluation, toward: readonly [number, number, number]): string[] {
  const { design, motion } = evaluation;
  const pose = poseOf(motion, frameBetween(motion, design.base.rest.at));
  return paintingOrder(evaluation, pose, toward).map((body) => design.panels[body]!.id);
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

  it('paints every panel once, inside its box', () => {
    for (const i of [0, 1]) {
      const evaluation = evaluated(i);
      const { facets, box } = facetsOf(evaluation);
      expect(facets).toHaveLength(evaluation.design.panels.length);
      const [x, y, width, height] = box.split(' ').map(Number) as [number, number, number, number];
      for (const { path } of facets) {
        for (const [, px, py] of path.matchAll(/(-?[\d.]+) (-?[\d.]+)/g)) {
          expect(Number(px)).toBeGreaterThanOrEqual(x);
          expect(Number(px)).toBeLessThanOrEqual(x + width);
          expect(Number(py)).toBeGreaterThanOrEqual(y);
          expect(Number(py)).toBeLessThanOrEqual(y + height);
        }
      }
    }
  });
});
