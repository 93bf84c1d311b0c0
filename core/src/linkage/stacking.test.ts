import { describe, expect, it } from 'vitest';
import { cardWith, designOf } from '../testing/evaluated.js';
import { areaOf } from '../plane/outline.js';
import { toRadians } from '../measure/units.js';
import { followMotion, frameAt, frameBetween, type Motion } from './motion.js';
import { stackClosed, type ClosedStack } from './stacking.js';

function stacked(sizes: Record<string, number | string>): {
  motion: Motion;
  stack: ClosedStack;
  ids: string[];
  schedule: Parameters<typeof followMotion>[1];
} {
  const { linkage, schedule, panels } = designOf(cardWith('v-fold', sizes));
  const motion = followMotion(linkage, schedule);
  return { motion, stack: stackClosed(motion), ids: panels.map((panel) => panel.id), schedule };
}

describe('the closed pile of a V-fold', () => {
  const lies = ({ stack, ids }: ReturnType<typeof stacked>, lower: string, upper: string): boolean =>
    stack.over.get(ids.indexOf(lower))!.has(ids.indexOf(upper));

  it.each([
    [{ direction: 'toward', tabSide: 'inside' }],
    [{ direction: 'away', tabSide: 'inside' }],
    [{ direction: 'toward', tabSide: 'outside' }],
    [{ direction: 'away', tabSide: 'outside' }],
  ])('has the wings between the leaves and the tabs on theirs: %j', (sizes) => {
    const card = stacked(sizes);
    expect(card.stack.crossings).toEqual([]);
    expect(card.stack.order).toHaveLength(card.ids.length);
    expect(lies(card, 'base/back-leaf', 'base/front-leaf')).toBe(true);
    expect(lies(card, 'base/back-leaf', 'figure/first-wing')).toBe(true);
    expect(lies(card, 'figure/first-wing', 'figure/second-wing')).toBe(true);
    expect(lies(card, 'figure/second-wing', 'base/front-leaf')).toBe(true);
    expect(lies(card, 'base/back-leaf', 'figure/first-tab')).toBe(true);
    expect(lies(card, 'figure/second-tab', 'base/front-leaf')).toBe(true);
  });

  it('puts tabs folded under between wing and leaf', () => {
    const card = stacked({ tabSide: 'outside' });
    expect(lies(card, 'figure/first-tab', 'figure/first-wing')).toBe(true);
    expect(lies(card, 'figure/second-wing', 'figure/second-tab')).toBe(true);
  });

  it('keeps every panel’s area when it is laid flat', () => {
    const { motion, stack } = stacked({});
    stack.layers.forEach((layer, body) => expect(areaOf(layer.area)).toBeCloseTo(areaOf(motion.linkage.panels[body]!.area), 6));
  });
});

describe('places between frames', () => {
  const { motion, schedule } = stacked({ wingAngle: toRadians(65), rayAngle: toRadians(40) });

  it('solved between two frames still close every loop', () => {
    for (const s of [0.011, 0.31, 0.777, 0.995]) expect(frameAt(motion, schedule, s).misfit).toBeLessThan(1e-6);
  });

  it('shown between two frames are near the solved ones', () => {
    for (const s of [0.108, 0.5083, 0.9417]) {
      const [shown, solved] = [frameBetween(motion, s), frameAt(motion, schedule, s)];
      shown.folds.forEach((fold, h) => expect(Math.abs(fold - solved.folds[h]!)).toBeLessThan(0.02));
      expect(shown.opening).toBeCloseTo(solved.opening, 9);
    }
  });

  it('at a frame are that frame', () => {
    expect(frameAt(motion, schedule, motion.frames[30]!.s).folds).toEqual(motion.frames[30]!.folds);
    expect(frameBetween(motion, 1).folds).toEqual(motion.frames[60]!.folds);
  });
});

describe('the motion as a whole', () => {
  const { motion } = stacked({});

  it('opens evenly from closed to flat', () => {
    motion.frames.forEach((frame, i) => expect(frame.opening).toBeCloseTo((i / 60) * Math.PI, 12));
  });

  it('never jumps: neighbouring frames are neighbouring poses', () => {
    for (let i = 1; i < motion.frames.length; i++) {
      motion.frames[i]!.folds.forEach((fold, h) => expect(Math.abs(fold - motion.frames[i - 1]!.folds[h]!)).toBeLessThan(0.25));
    }
  });

  it('keeps every crease folding the way it is scored', () => {
    for (const frame of motion.frames) {
      motion.linkage.hinges.forEach(({ source }, h) => {
        const sign = source.crease.fold === 'valley' ? 1 : -1;
        expect(sign * frame.folds[h]!).toBeGreaterThan(-1e-6);
      });
    }
  });
});
