import { describe, expect, it } from 'vitest';
import { poseOf } from '../linkage/motion.js';
import { INCH_WORKSHOP, METRIC_WORKSHOP } from '../supplies/starter-workshops.js';
import { asMade } from '../trial/as-made.js';
import { judgedAsMade } from '../trial/judged-as-made.js';
import { EXERCISES, exerciseOf, type Exercise } from './exercise.js';

const SEEDS = Array.from({ length: 20 }, (_, i) => i + 1);
/** Each is made once: a slip takes many evaluations. */
const MADE = new Map(EXERCISES.map((kind) => [kind, SEEDS.map((seed) => exerciseOf(kind, seed, METRIC_WORKSHOP))]));
const numberIn = (text: string): number => Number(/([\d.]+) mm/.exec(text)![1]);
const numbersIn = (text: string): number[] => [...text.matchAll(/([\d.]+) mm/g)].map(([, mm]) => Number(mm));

describe.each(EXERCISES)('exercises of the kind %s', (kind) => {
  const made = MADE.get(kind)!;

  it('have answers that are told apart, one of them right, wherever it stands', () => {
    for (const { choices, right } of made) {
      expect(new Set(choices).size).toBe(choices.length);
      expect(choices.length).toBe(kind === 'fold' ? 2 : Math.max(3, Math.min(4, choices.length)));
      expect(choices[right]).toBeDefined();
    }
    expect(new Set(made.map(({ right }) => right)).size).toBeGreaterThan(1);
  });

  it('are the same for the same seed, others for another, and in inches for who measures so', () => {
    expect(exerciseOf(kind, 3, METRIC_WORKSHOP).asks).toBe(made[2]!.asks);
    expect(new Set(made.map(({ asks }) => asks)).size).toBeGreaterThan(5);
    expect(exerciseOf(kind, 1, INCH_WORKSHOP).asks).not.toMatch(/\d mm/);
  });
});

describe('what is right', () => {
  const each = (kind: Exercise['kind']): Exercise[] => MADE.get(kind)!;

  it('of a turned ruler is the width less the reading, to its own mark', () => {
    for (const { asks, choices, right } of each('ruler')) {
      const [width, at] = numbersIn(asks);
      expect(Math.abs(numberIn(choices[right]!) - (width! - at!))).toBeLessThan(0.06);
    }
  });

  it('of a fold is what the piece folds to in the closed card', () => {
    for (const { evaluation, points, sheet, choices, right } of each('fold')) {
      const { linkage, panels } = evaluation.design;
      const closed = evaluation.motion.frames[0]!;
      const h = linkage.hinges.findIndex(
        ({ px, left }) =>
          panels[left]!.piece.id === sheet.piece.id &&
          Math.abs(sheet.scores.find((s) => s.from[0] === points[0]![0])!.from[0] - points[0]![0]) < 1e-9 &&
          Math.abs(px - points[0]![0]) < 0.6,
      );
      if (h < 0 || Math.abs(closed.folds[h]!) < 1) continue;
      expect(choices[right]).toContain(closed.folds[h]! > 0 ? 'toward you' : 'away from you');
    }
  });

  it('of a point is where the closed card has it: distances along the piece are kept', () => {
    for (const { evaluation, panels, points, choices, right } of each('closed')) {
      const { design, motion } = evaluation;
      const body = design.linkage.bodyOf.get(panels[0]!)!;
      const pose = poseOf(motion, motion.frames[0]!)[body]!;
      const minX = Math.min(...design.panels[body]!.piece.outline.map(([x]) => x));
      const minY = Math.min(...design.panels[body]!.piece.outline.map(([, y]) => y));
      const [x, y] = [points[0]![0] + minX, points[0]![1] + minY];
      // Row 0 of the rotation and its translation, by hand.
      const there = pose[0]! * x + pose[1]! * y + pose[3]! - minX;
      expect(Math.abs(numberIn(choices[right]!) - there)).toBeLessThan(0.06);
    }
  });

  it('of a slip is the one score whose way back makes the card right', () => {
    for (const { evaluation, sheet, choices, right } of each('slip').slice(0, 8)) {
      const name = choices[right]!.split(', at ')[0]!;
      const score = sheet.scores.find((each) => each.name === name)!;
      const by = numberIn(choices[right]!) - score.from[0];
      expect(Math.abs(Math.abs(by) - 5)).toBeLessThan(0.06);
      const off = (mm: number) =>
        judgedAsMade(
          evaluation.design.card,
          (drawing) => asMade(drawing, [{ piece: sheet.piece.id, line: score.id, by: mm }]),
          METRIC_WORKSHOP,
        );
      const fails = (judged: ReturnType<typeof off>): boolean =>
        !judged.ok || judged.evaluation.findings.some(({ severity }) => severity === 'fail');
      expect([fails(off(Math.sign(by) * 5)), fails(off(0))]).toEqual([true, false]);
    }
  });
});
