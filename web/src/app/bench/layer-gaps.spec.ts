import { DEMO_CARDS, evaluate, frameBetween, poseOf, stackOpen, type Evaluation } from '@diptychon/core';
import { LayerGaps } from './layer-gaps';

function evaluated(id: string): Evaluation {
  const outcome = evaluate(DEMO_CARDS.find((card) => card.id === id)!);
  if (!outcome.ok) throw new Error('sizes refused');
  return outcome.evaluation;
}

/** A share of the way in which a card opens by less than 0.002°: a pile of twenty sheets 100 mm from the fold by 0.04 mm. */
const MOMENT = 1e-5;

const offsetsIn = (evaluation: Evaluation, frame: number): Record<string, number> =>
  offsetsAt(evaluation, evaluation.motion.frames[frame]!);

/** Offsets of all panels in a frame, every sheet drawn 1 mm thick. */
function offsetsAt(evaluation: Evaluation, frame: Evaluation['motion']['frames'][number]): Record<string, number> {
  const { motion, design } = evaluation;
  const gaps = new LayerGaps(evaluation, poseOf(motion, motion.frames[0]!), evaluation.closed.stack);
  const found = gaps.offsets(
    poseOf(motion, frame),
    design.panels.map(() => 1),
  );
  return Object.fromEntries(design.panels.map((panel, body) => [panel.id, found[body]!]));
}

describe('LayerGaps', () => {
  it('stacks the panels of a closed bellows box a sheet apart, the back lowest', () => {
    const offsets = offsetsIn(evaluated('lantern-box'), 0);
    const heights = ['back', 'tab', 'left-back-bellows', 'left-front-bellows', 'front'].map((name) => Math.abs(offsets[`base/${name}`]!));
    heights.slice(1).forEach((height, i) => expect(height - heights[i]!).toBeCloseTo(1, 6));
  });

  it('moves nothing that has come apart, and keeps glued sheets a sheet apart', () => {
    const open = offsetsIn(evaluated('lantern-box'), 60);
    const moved = Object.entries(open).filter(([, offset]) => Math.abs(offset) > 1e-9);
    expect(moved.map(([id]) => id).every((id) => id === 'base/tab' || id === 'base/back')).toBe(true);
    expect(Math.abs(Math.abs(open['base/tab']!) - Math.abs(open['base/back']!))).toBeCloseTo(1, 6);
  });

  it('is the same a moment later: no panel jumps as the card opens', () => {
    for (const { id } of DEMO_CARDS) {
      const evaluation = evaluated(id);
      for (const s of [0.005, 0.02, 0.04, 0.1, 0.25, 0.5, 0.75]) {
        const [before, after] = [s, s + MOMENT].map((at) => offsetsAt(evaluation, frameBetween(evaluation.motion, at)));
        for (const panel of Object.keys(before!)) expect(Math.abs(before![panel]! - after![panel]!)).toBeLessThan(0.05);
      }
    }
  });

  it('lays a carrier on its strip and the strip on the leaves of a card that lies flat open, a sheet apart', () => {
    const evaluation = evaluated('the-foray-map');
    const { motion, design } = evaluation;
    const open = poseOf(motion, motion.frames[60]!);
    const gaps = new LayerGaps(evaluation, open, stackOpen(motion)!);
    const offsets = gaps.offsets(
      open,
      design.panels.map(() => 1),
    );
    // Every panel lies inside up here: its offset is its height.
    const height = (panel: RegExp): Set<number> => {
      const bodies = design.panels.flatMap(({ id }, body) => (panel.test(id) ? [body] : []));
      return new Set(bodies.map((body) => Math.round(offsets[body]! * open[body]![10]! * 1e3) / 1e3));
    };
    expect(height(/^base/)).toEqual(new Set([0]));
    expect(height(/^map-strip.*triangle/)).toEqual(new Set([1]));
    const carrier = [...height(/^map-carrier/)];
    for (const leg of height(/^map-strip.*half/)) expect(Math.min(...carrier)).toBeGreaterThan(leg + 1 - 1e-3);
  });
});
