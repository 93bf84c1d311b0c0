import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { CATALOGUE } from '../mechanism/catalogue.js';
import { evaluate } from '../evaluate.js';
import { toRadians } from '../measure/units.js';
import { DEMO_CARDS } from './demo-cards.js';
import { baseSizes, cardWith, evaluated } from '../testing/evaluated.js';
import { INCH_WORKSHOP, METRIC_WORKSHOP } from '../supplies/starter-workshops.js';
import { movementsOf, newCard, ROOT, rootOf, type CardDocument } from './document.js';
import { cardToTry } from './try-out.js';
import { migrate } from './migrate.js';
import { allowedWords, refusal } from './allowed.js';
import { filledSizes, setSize, unsetSize } from './set-size.js';
import { sizeRows } from './size-rows.js';

const easel = newCard({ id: 'e', name: 'e', base: { mechanism: 'easel-folded-front', sizes: { depth: 150 } } });
const vFold = cardWith('v-fold');

describe('setting a size', () => {
  it('leaves the card before as it was', () => {
    const before = JSON.stringify(easel);
    const after = setSize(easel, 'base', 'depth', 120);
    expect(rootOf(after).sizes['depth']).toBe(120);
    expect(JSON.stringify(easel)).toBe(before);
  });

  it('turns a lean into the stop distance that gives it, and back', () => {
    fc.assert(
      fc.property(fc.double({ min: 110, max: 300, noNaN: true }), fc.double({ min: 25, max: 84, noNaN: true }), (depth, lean) => {
        const card = setSize(setSize(easel, 'base', 'depth', depth), 'base', 'lean', toRadians(lean));
        expect(rootOf(card).sizes['stopDistance']).toBeCloseTo(depth * Math.cos(toRadians(lean)), 9);
        expect(sizeRows(card, 'base').find((row) => row.name === 'lean')!.value).toBeCloseTo(toRadians(lean), 9);
      }),
    );
  });

  it('goes back to following when it is let go', () => {
    const set = setSize(vFold, 'figure', 'wingAngle', toRadians(80));
    expect(filledSizes(unsetSize(set, 'figure', 'wingAngle'), 'figure')['wingAngle']).toBeCloseTo(toRadians(60), 12);
  });

  it('leaves other movements alone', () => {
    const two: CardDocument = { ...vFold, parts: [...vFold.parts, { ...movementsOf(vFold)[0]!, id: 'second' }] };
    const set = setSize(two, 'second', 'crestLength', 30);
    expect(movementsOf(set).map((m) => m.sizes)).toEqual([{}, { crestLength: 30 }]);
  });
});

describe('refusing a size', () => {
  it('gives the reason that holds for the value asked for', () => {
    expect(refusal(vFold, 'figure', 'wingAngle', toRadians(30))).toContain('pull taut at 90°');
    expect(refusal(vFold, 'figure', 'wingAngle', toRadians(70))).toBeUndefined();
    expect(refusal(easel, 'base', 'lean', toRadians(88))).toMatch(/^Lean from the table: 88° does not work; allowed is 20° to 85°/);
  });

  it('agrees with the evaluation, whatever is asked for', () => {
    const names = sizeRows(easel, 'base')
      .filter((row) => row.kind === 'length' && !row.insteadOf)
      .map((row) => row.name);
    fc.assert(
      fc.property(fc.constantFrom(...names), fc.double({ min: -50, max: 400, noNaN: true }), (name, value) => {
        const outcome = evaluate(setSize(easel, 'base', name, value));
        const refused = !outcome.ok && outcome.problems.some((p) => p.size === name);
        expect(refusal(easel, 'base', name, value) !== undefined).toBe(refused);
      }),
      { numRuns: 40 },
    );
  });

  it('says what is allowed for a field that holds nonsense', () => {
    expect(allowedWords(easel, 'base', 'depth')).toBe('Allowed is 40 mm to 320 mm.');
    expect(allowedWords(vFold, 'figure', 'direction')).toBe('Allowed: toward, away.');
    expect(allowedWords(easel, 'base', 'nothing')).toBe('');
  });
});

describe('rows of sizes for a screen', () => {
  it('hide what does not apply', () => {
    const names = (card: CardDocument): string[] => sizeRows(card, 'base').map((row) => row.name);
    expect(names(easel)).not.toContain('innerFrom');
    expect(names(setSize(easel, 'base', 'innerThickness', 2))).toContain('innerFrom');
  });

  it('know which sizes the maker set and which follow others', () => {
    const row = (name: string) => sizeRows(easel, 'base').find((r) => r.name === name)!;
    expect(row('depth')).toMatchObject({ given: true, follows: false });
    expect(row('displayHeight')).toMatchObject({ given: false, follows: true, value: 150 });
  });

  it('name a part that is not there', () => {
    expect(() => sizeRows(easel, 'figure')).toThrow('no part “figure”');
  });
});

describe('every mechanism of the catalogue', () => {
  it.each(CATALOGUE.map((m) => [m.id, m] as const))(
    '%s has defaults within its own limits, and a reason for every limit',
    (_, mechanism) => {
      const card = cardToTry(mechanism);
      expect(evaluate(card).ok).toBe(true);
      for (const { id: owner } of card.parts) {
        for (const row of sizeRows(card, owner)) {
          if (row.range) expect(row.range.because.length).toBeGreaterThan(15);
          expect(row.help).toMatch(/\.$/);
        }
      }
    },
  );

  it.each(CATALOGUE.map((m) => [m.id, m] as const))('%s gives every measure a reason', (_, mechanism) => {
    for (const measure of evaluated(cardToTry(mechanism)).measures) expect(measure.because.length).toBeGreaterThan(10);
  });
});

describe('drawing', () => {
  it('refuses a size that no part has', () => {
    const outcome = evaluate(baseSizes(easel, { girth: 3 }));
    expect(!outcome.ok && outcome.problems[0]!.says).toContain('there is no such size');
  });

  it('says of a fold that is not there whose it is and which there are', () => {
    const lost: CardDocument = { ...vFold, parts: [vFold.parts[0]!, { ...vFold.parts[1]!, on: { part: 'base', site: 'side-fold' } }] };
    expect(evaluate(lost)).toMatchObject({
      ok: false,
      problems: [{ owner: 'figure', says: 'V-fold figure: Folded card has no fold “side-fold” to stand on; it has main-fold.' }],
    });
  });

  it('carries two figures on one fold, each with its own panels', () => {
    const figure = (id: string, apex: number) => ({ ...vFold.parts[1]!, id, sizes: { apex, wingLength: 50, crestLength: 50 } });
    const leaves = baseSizes(vFold, { depth: 120, length: 250 });
    const { motion, design, findings } = evaluated({ ...leaves, parts: [leaves.parts[0]!, figure('near', 40), figure('far', 160)] });
    expect(motion.worstMisfit).toBeLessThan(1e-6);
    expect(motion.freedom).toBe(0);
    expect(design.panels.filter((panel) => panel.id.startsWith('far/'))).toHaveLength(4);
    expect(findings.filter((f) => f.severity === 'fail')).toEqual([]);
  });
});

describe('bringing a document up to date', () => {
  it('leaves a current one as it is', () => {
    const raw = JSON.parse(JSON.stringify(DEMO_CARDS[0])) as Record<string, unknown>;
    expect(migrate(raw)).toEqual(raw);
  });

  it.each([undefined, 'one', 0, 1.5, 4])('refuses the version %j with what is allowed', (version) => {
    expect(() => migrate({ version })).toThrow(/allowed: 1 to 3/);
  });
});

describe('sizes that a maker of inches left out', () => {
  it.each(CATALOGUE.map((mechanism) => [mechanism.id, mechanism] as const))('of %s lie on marks, and the card works', (_id, mechanism) => {
    const card = cardToTry(mechanism, {}, INCH_WORKSHOP);
    expect(card.marks).toBe('inch');
    const outcome = evaluate(card, INCH_WORKSHOP);
    if (!outcome.ok) throw new Error(outcome.problems[0]!.says);
    expect(outcome.evaluation.findings.filter(({ severity }) => severity === 'fail')).toEqual([]);
    for (const { id } of card.parts) {
      for (const row of sizeRows(card, id)) {
        // What is set by thickness and not by a ruler has no marks.
        if (row.kind !== 'length' || row.insteadOf || Number(row.value) < 3) continue;
        const sixteenths = (Number(row.value) / 25.4) * 16;
        expect([row.name, Math.abs(sixteenths - Math.round(sixteenths)) < 1e-6]).toEqual([row.name, true]);
      }
    }
  });

  it('stay as they are when the card is read in another unit', () => {
    const card = cardToTry(CATALOGUE[0]!, {}, INCH_WORKSHOP);
    expect(filledSizes({ ...card, notation: 'mm' }, ROOT)).toEqual(filledSizes(card, ROOT));
    const metric = cardToTry(CATALOGUE[0]!, {}, METRIC_WORKSHOP);
    expect(filledSizes({ ...metric, notation: 'inch/16' }, ROOT)).toEqual(filledSizes(metric, ROOT));
  });
});
