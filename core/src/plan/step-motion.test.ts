import { describe, expect, it } from 'vitest';
import { DEMO_CARDS } from '../card/demo-cards.js';
import { cardToTry } from '../card/try-out.js';
import { foldInPose } from '../linkage/kinematics.js';
import { carry, carryFlat, type Vec3 } from '../linkage/rigid.js';
import { CATALOGUE } from '../mechanism/catalogue.js';
import { evaluated } from '../testing/evaluated.js';
import { benchSteps } from './bench-steps.js';
import { stepMotion } from './step-motion.js';

const CARDS = [...CATALOGUE.map((mechanism) => cardToTry(mechanism)), ...DEMO_CARDS.slice(0, 6)];
const apart = (a: Vec3, b: Vec3): number => Math.hypot(...a.map((mm, i) => mm - b[i]!));

describe.each(CARDS.map((card) => [card.name, card] as const))('the steps of %s in the round', (_name, card) => {
  const evaluation = evaluated(card);
  const { linkage, panels } = evaluation.design;
  const steps = benchSteps(evaluation);
  const moved = steps.map((step) => ({ step, motion: stepMotion(evaluation, steps, step) }));

  it('fold a piece by a third of a half turn, each score its own way, and tear nothing', () => {
    for (const { step, motion } of moved) {
      if (step.kind !== 'fold' || !motion?.poses) continue;
      for (const share of [0, 0.5, 1]) {
        const pose = motion.poses(share);
        linkage.hinges.forEach((hinge, h) => {
          if (!motion.panels!.includes(panels[hinge.left]!.id)) return;
          const way = hinge.source.crease.fold === 'valley' ? 1 : -1;
          expect(foldInPose(pose, linkage, h)).toBeCloseTo((way * share * Math.PI) / 3, 9);
          for (const [x, y] of [hinge.source.from, hinge.source.to]) {
            expect(apart(carry(pose[hinge.left]!, x, y, 0), carry(pose[hinge.right]!, x, y, 0))).toBeLessThan(1e-6);
          }
        });
      }
    }
  });

  it('bring a part that is glued from 40 mm off to its place, and nothing else', () => {
    for (const { step, motion } of moved) {
      if (step.kind !== 'glue' || !motion?.poses) continue;
      const bonds = linkage.bonds.filter(({ id }) => step.glues!.includes(id));
      const [before, after] = [motion.poses(0), motion.poses(1)];
      for (const { a, b, corners, fixed } of bonds) {
        expect(motion.panels).toContain(panels[a]!.id);
        expect(motion.panels).toContain(panels[b]!.id);
        for (const [x, y] of corners) {
          const [u, v] = carryFlat(fixed, [x, y]);
          const there = carry(after[b]!, u, v, 0);
          expect(apart(carry(after[a]!, x, y, 0), there)).toBeLessThan(0.3);
          expect(Math.abs(apart(carry(before[a]!, x, y, 0), there) - 40)).toBeLessThan(0.3);
        }
        expect(before[b]).toEqual(after[b]);
      }
    }
  });

  it('show every part once it has come in, and the whole card in the end', () => {
    const glued = moved.filter(({ step }) => step.kind === 'glue');
    const last = glued.at(-1)?.motion;
    if (last) {
      const joined = new Set(linkage.bonds.flatMap(({ a, b }) => [panels[a]!.piece.id, panels[b]!.piece.id]));
      const shown = new Set(panels.filter(({ id }) => last.panels!.includes(id)).map(({ piece }) => piece.id));
      expect([...joined].filter((piece) => !shown.has(piece))).toEqual([]);
    }
    const test = moved.find(({ step }) => step.kind === 'test')!.motion!;
    expect([test.drive!(0), test.drive!(1)]).toEqual([0, evaluation.design.base.rest.at]);
  });
});
