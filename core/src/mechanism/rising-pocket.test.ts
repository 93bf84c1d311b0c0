import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { benchSteps } from '../plan/bench-steps.js';
import { at, cardOn, evaluated, failing, finding, folded, boxIn, measure, refused, scoresOf } from '../testing/evaluated.js';
import { toDegrees, toRadians } from '../measure/units.js';
import { platformHeight, runFor, tautAt } from './pocketed/pocket-sizes.js';

/** Metric; in inches (1 1/2, 1 1/8, 3 3/4, a strip of 4 and a tab of 3/8); flat legs that hardly fold. */
const SETS = [
  { glueAt: 40, run: 30, backHeight: 96, stripWidth: 100, length: 120, tabWidth: 15 },
  { glueAt: 38.1, run: 28.575, backHeight: 95.25, stripWidth: 101.6, length: 127, tabWidth: 9.525 },
  { glueAt: 60, run: 6, backHeight: 190, stripWidth: 100, length: 300, tabWidth: 20 },
];

describe('a rising pocket', () => {
  it.each(SETS)('glued $glueAt from its hinges on legs of $run lifts its platform as its legs ask', (sizes) => {
    const { glueAt: u, run: p, backHeight, tabWidth, stripWidth } = sizes;
    const evaluation = evaluated(cardOn('rising-pocket', sizes));
    expect(failing(evaluation)).toEqual([]);
    expect(measure(evaluation, 'platform')).toBeCloseTo(backHeight - 2 * u + 2 * p, 9);
    const mid = tabWidth + p + measure(evaluation, 'platform') / 2;
    for (const frame of evaluation.motion.frames) {
      const phi = frame.opening;
      const slack = 1 - Math.cos(phi);
      const height = u * Math.sin(phi) - Math.sqrt(2 * p * u * slack - u * u * slack * slack);
      const middle = at(evaluation, 'strip/platform', [mid, stripWidth / 2], frame);
      expect(middle[2]).toBeCloseTo(height, 6);
      // Level, and over the middle of the back.
      expect(at(evaluation, 'strip/platform', [tabWidth + p, 0], frame)[2]).toBeCloseTo(height, 6);
      expect(middle[0]).toBeCloseTo(evaluation.design.base.closedOutline[0]![0] + backHeight / 2, 6);
    }
  });

  it.each(SETS)('glued $glueAt from its hinges is taut where its legs lie in line with the platform', ({ glueAt: u, run: p, ...sizes }) => {
    const evaluation = evaluated(cardOn('rising-pocket', { glueAt: u, run: p, ...sizes }));
    // From glue line to glue line there is then just the strip: K − 2u·cos φ = q + 2p.
    const across = sizes.backHeight - 2 * u * Math.cos(measure(evaluation, 'tautAt'));
    expect(across).toBeCloseTo(measure(evaluation, 'platform') + 2 * p, 6);
    expect(measure(evaluation, 'tautHeight')).toBeCloseTo(u * Math.sin(measure(evaluation, 'tautAt')), 9);
    expect(finding(evaluation, 'closes-loop').value).toBeLessThan(1e-6);
  });

  it.each(SETS)('glued $glueAt from its hinges lies closed as its panels folded over each other', (sizes) => {
    const { glueAt: u, run: p, backHeight, tabWidth } = sizes;
    const evaluation = evaluated(cardOn('rising-pocket', sizes));
    const q = backHeight - 2 * u + 2 * p;
    const widths = [tabWidth, p, q, p, tabWidth];
    const lying = folded(widths, [true, true, true, true], 2);
    // The strip's platform begins where its turned crease lies: u − p inside the left hinge.
    const hinge = evaluation.design.base.closedOutline[0]![0];
    const shift = hinge + u - p - (tabWidth + p);
    ['left-tab', 'left-leg', 'platform', 'right-leg', 'right-tab'].forEach((panel, i) => {
      const { minX, maxX } = boxIn(evaluation, `strip/${panel}`, evaluation.motion.frames[0]!);
      expect([panel, minX, maxX]).toEqual([panel, expect.closeTo(lying[i]![0] + shift, 6), expect.closeTo(lying[i]![1] + shift, 6)]);
    });
    // Its tabs come up to the hinges without touching them.
    expect(boxIn(evaluation, 'strip/left-tab', evaluation.motion.frames[0]!).minX).toBeGreaterThan(hinge);
  });

  it('is scored where its panels end: a strip of tab, leg, platform, leg, tab', () => {
    const evaluation = evaluated(cardOn('rising-pocket', SETS[0]));
    // Platform 96 − 80 + 60 = 76.
    expect(scoresOf(evaluation, 'strip')).toEqual([
      [15, 'mountain'],
      [45, 'valley'],
      [121, 'valley'],
      [151, 'mountain'],
    ]);
  });

  it('may follow from its insert alone', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 12, max: 110, noNaN: true }),
        fc.double({ min: 12, max: 150, noNaN: true }),
        (insertHeight, insertWidth) => {
          const evaluation = evaluated(cardOn('rising-pocket', { insertHeight, insertWidth }));
          expect(failing(evaluation)).toEqual([]);
          expect(measure(evaluation, 'insideAcross')).toBeGreaterThan(insertHeight + 4 - 0.051);
          expect(measure(evaluation, 'insideAlong')).toBeGreaterThan(insertWidth + 4 - 0.051);
        },
      ),
      { numRuns: 15, seed: 12 },
    );
  });

  it('whose pocket is 1 mm too narrow for its insert says so by as much, and the fix widens it', () => {
    const right = { insertHeight: 54, glueAt: 40, run: 30 };
    // Insert 54, 2 of room on both sides, edges of 6 and 2 clear of both creases: 74; the back 20 more.
    const tight = { ...right, backHeight: 93 };
    const evaluation = evaluated(cardOn('rising-pocket', tight));
    const found = finding(evaluation, 'agrees/insert-across');
    expect(found).toMatchObject({ severity: 'fail', value: expect.closeTo(1, 6) });
    expect(found.fix!.changes).toEqual([{ owner: 'base', size: 'backHeight', value: expect.closeTo(94, 6) }]);
    expect(failing(evaluated(cardOn('rising-pocket', { ...right, backHeight: 94 })))).toEqual([]);
  });

  it('counts its insert in the thickness', () => {
    const thick = (insertThickness: number): number =>
      evaluated(cardOn('rising-pocket', { ...SETS[0], insertThickness })).closed.thickest.thickness;
    expect(thick(3) - thick(1)).toBeCloseTo(2, 6);
  });

  it.each([
    ['legs longer than the glue lines are from their hinges', { glueAt: 40, run: 41 }, /^Leg of the strip:.*38 mm.*turned creases/],
    ['a tab that touches the hinge', { glueAt: 40, tabWidth: 40 }, /^Tab width:.*touches the hinge/],
    ['opened farther than the strip allows', { glueAt: 40, run: 20, openTo: toRadians(95) }, /^Opens to:.*taut/],
    ['a back that its flaps do not lie on', { glueAt: 80, run: 78, backHeight: 60 }, /^Back:/],
  ])('with %s is refused with the reason', (_, sizes, says) => {
    expect(refused(cardOn('rising-pocket', sizes))).toMatch(says);
  });

  it('hangs a front panel on one flap, and says how much of it is glued', () => {
    const evaluation = evaluated(cardOn('rising-pocket', { ...SETS[0], front: 'left' }));
    expect(failing(evaluation)).toEqual([]);
    expect(measure(evaluation, 'frontGlued')).toBeCloseTo(48, 9);
    // Closed it covers the back from hinge to hinge.
    const { minX, maxX } = boxIn(evaluation, 'front/front', evaluation.motion.frames[0]!);
    expect(maxX - minX).toBeCloseTo(96, 6);
    expect(minX).toBeCloseTo(48, 6);
  });

  it('puts the insert in last, when all glue has set', () => {
    const steps = benchSteps(evaluated(cardOn('rising-pocket')));
    const glued = steps.findLastIndex(({ kind }) => kind === 'glue');
    const filled = steps.findIndex(({ says }) => says.some((words) => /slide the insert into its pocket from the upper end/.test(words)));
    expect(filled).toBeGreaterThan(glued);
  });
});

describe('legs and the opening at which they are taut', () => {
  it('follow from each other', () => {
    fc.assert(
      fc.property(fc.double({ min: 15, max: 120, noNaN: true }), fc.double({ min: 0.2, max: 3, noNaN: true }), (glueAt, opening) => {
        const taut = tautAt(glueAt, runFor(glueAt, opening));
        expect(toDegrees(taut)).toBeCloseTo(toDegrees(opening), 6);
        expect(platformHeight(glueAt, runFor(glueAt, opening), opening)).toBeCloseTo(glueAt * Math.sin(opening), 4);
      }),
    );
  });

  it('lift the platform, just after closing, by the opening × (glue line − √(glue line × leg))', () => {
    const [u, p] = [40, 30];
    expect(platformHeight(u, p, 1e-5) / 1e-5).toBeCloseTo(u - Math.sqrt(u * p), 3);
    // Opened by 10° that is still right within a few hundredths of a mm.
    expect(measure(evaluated(cardOn('rising-pocket', SETS[0])), 'firstLift')).toBeCloseTo(toRadians(10) * (u - Math.sqrt(u * p)), 1);
  });
});
