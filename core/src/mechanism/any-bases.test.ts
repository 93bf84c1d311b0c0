import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { evaluate, type Evaluation } from '../evaluate.js';
import { anyCardOn } from '../testing/any-sizes.js';
import { JOINT_SLACK } from '../linkage/motion.js';
import type { Sizes } from './sizes.js';
import { baseSizes, cardOn, evaluated } from '../testing/evaluated.js';
import { CATALOGUE } from './catalogue.js';
import type { Base } from './contract.js';

const BASES = CATALOGUE.filter((mechanism): mechanism is Base => mechanism.kind === 'base');

/** Sizes that only a card which is already cut sets: with them free, what must be equal may not be. */
const AS_CUT: Readonly<Record<string, readonly string[]>> = {
  'rising-strip-doors': ['leftDoor', 'rightDoor'],
  'bellows-box': ['rightBellows'],
  'layered-stage': ['layers.width'],
  'box-card': ['thirdWall', 'fourthWall'],
};

const RUNS = 25;

function numbersOf(value: unknown): number[] {
  if (typeof value === 'number') return [value];
  if (ArrayBuffer.isView(value)) return [...(value as Float64Array)];
  if (Array.isArray(value)) return value.flatMap(numbersOf);
  return value !== null && typeof value === 'object' ? Object.values(value).flatMap(numbersOf) : [];
}

function expectSound({ motion, measures, findings, sheets, closed }: Evaluation): void {
  const numbers = numbersOf([
    motion.frames,
    measures,
    findings,
    sheets.map(({ width, height, scores }) => [width, height, scores]),
    closed.box,
    closed.thickest,
    closed.props,
  ]);
  expect(numbers.every(Number.isFinite)).toBe(true);
  for (const finding of findings) expect(finding.says).toMatch(/^[A-Z“].*[.!]$/s);
}

/** Odd outlines round a middle, as a maker might bring them: spikes, notches, ears. */
const anyOutline = fc
  .array(fc.tuple(fc.double({ min: 0, max: 0.9, noNaN: true }), fc.double({ min: 10, max: 1000, noNaN: true })), {
    minLength: 3,
    maxLength: 32,
  })
  .map((corners) =>
    corners.map(([turn, r], i): [number, number] => {
      const angle = ((i + turn) / corners.length) * 2 * Math.PI;
      return [r * Math.cos(angle), r * Math.sin(angle)];
    }),
  );

describe('an outline of the maker’s own', () => {
  const uses: { mechanism: string; sizes: Sizes }[] = [
    { mechanism: 'easel-shape', sizes: { outline: 'own-shape' } },
    { mechanism: 'bellows-box', sizes: { windowShape: 'own-shape' } },
    { mechanism: 'layered-stage', sizes: { windowShape: 'own-shape' } },
    { mechanism: 'box-card', sizes: { dividers: [{ distance: 20, figure: 'own-shape' }] } },
    { mechanism: 'easel-row', sizes: { form: 'nested', outline: 'own-shape' } },
  ];
  it.each(uses.map((use) => [use.mechanism, use] as const))('in %s closes flat however odd it is', (_, { mechanism, sizes }) => {
    fc.assert(
      fc.property(anyOutline, (points) => {
        const card = cardOn(mechanism, sizes, { outlines: [{ id: 'own-shape', name: 'shape', points }] });
        const { design, motion } = evaluated(card);
        expect(design.faults).toEqual([]);
        expect(motion.closedFlat.holds).toBe(true);
        expect(motion.freedom).toBe(0);
      }),
      { numRuns: RUNS },
    );
  });
});

describe.each(BASES.map((base) => [base.id, base] as const))('%s of any allowed sizes', (id, base) => {
  it('closes flat, every corner of every joint on its partner to a millionth of a mm, and leaves nothing loose', () => {
    fc.assert(
      fc.property(anyCardOn(base, AS_CUT[id]), (card) => {
        const outcome = evaluate(card);
        // Sizes inside the limits are never refused: the limits agree with each other.
        expect(outcome.ok ? '' : outcome.problems.map((p) => p.says).join(' ')).toBe('');
        if (!outcome.ok) return;
        const { evaluation } = outcome;
        expectSound(evaluation);
        expect(evaluation.design.faults).toEqual([]);
        expect(evaluation.motion.closedFlat.misfit).toBeLessThan(1e-6);
        expect(evaluation.motion.closedFlat.holds).toBe(true);
        expect(evaluation.motion.worstMisfit).toBeLessThan(1e-6);
        expect(evaluation.motion.freedom).toBe(0);
        expect(evaluation.motion.wrongWay).toEqual([]);
      }),
      { numRuns: RUNS },
    );
  });

  it('with sizes as a maker may have cut them, closes or has a finding at the root that says why not', () => {
    fc.assert(
      fc.property(anyCardOn(base), (card) => {
        const outcome = evaluate(card);
        if (!outcome.ok) return;
        const { motion, findings } = outcome.evaluation;
        expectSound(outcome.evaluation);
        // Less than the play of a joint is not felt.
        if (motion.worstMisfit <= JOINT_SLACK) return;
        const roots = findings.filter((f) => f.severity === 'fail' && !f.followsFrom).map((f) => f.check);
        expect(roots.some((check) => ['equal-widths', 'meets', 'closes-loop'].includes(check))).toBe(true);
      }),
      { numRuns: RUNS },
    );
  });

  it('is refused outside its limits in a sentence with the field, the value and what is allowed', () => {
    for (const size of base.sizes) {
      if (size.kind !== 'length') continue;
      for (const value of [-1e4, 1e4, Number.NaN]) {
        const outcome = evaluate(baseSizes(cardOn(base.id), { [size.name]: value }));
        expect(outcome.ok).toBe(false);
        if (outcome.ok) continue;
        const problem = outcome.problems.find((p) => p.size === size.name)!;
        expect(problem.says).toContain(size.label);
        expect(problem.says).toMatch(/because|nothing is allowed|is not a number/);
      }
    }
  });
});
