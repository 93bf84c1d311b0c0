import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { CardDocument } from '../card/document.js';
import { setSize } from '../card/set-size.js';
import { sizesForClosed } from '../card/try-out.js';
import type { Finding } from '../check/finding.js';
import { evaluate } from '../evaluate.js';
import { CATALOGUE } from '../mechanism/catalogue.js';
import type { Base } from '../mechanism/contract.js';
import { cardOn, cardWith, envelopeById, evaluated, finding, having } from '../testing/evaluated.js';
import { applyFix } from './apply-fix.js';
import { begunOnBoard, withOffers } from './offers.js';
import { INCH_WORKSHOP } from '../supplies/starter-workshops.js';

const fixOf = (card: CardDocument) => withOffers(evaluated(card)).find(({ id }) => id === 'stays-inside/envelope')!.fix;
const failing = (findings: readonly Finding[]): string[] => findings.filter((f) => f.severity === 'fail').map((f) => f.id);

describe('making a card fit its envelope', () => {
  it('shortens the side that is too long, and that alone, down to a mark', () => {
    // Inside 162 × 114. Two leaves of 0.31 are 0.62 thick: 114 − 0.62 − 3 of ease leaves 110.38, so 110 by the millimetre.
    const card = having(cardOn('folded-card', { depth: 150, length: 120 }), { envelope: 'c6' });
    expect(fixOf(card)!.changes).toEqual([{ owner: 'base', size: 'length', value: 110 }]);
    expect(fixOf(card)!.says).toBe('Make it fit this envelope: length of fold 110 mm.');
  });

  it('is offered neither without an envelope nor where the card slips in', () => {
    expect(fixOf(cardOn('folded-card', { depth: 150, length: 120 }))).toBeUndefined();
    expect(fixOf(having(cardOn('folded-card', { depth: 150, length: 113 }), { envelope: 'c6' }))).toBeUndefined();
  });

  it('makes what stands on the base smaller with it where it must', () => {
    const tall = cardWith('v-fold', { crestLength: 60 }, { depth: 150, length: 120 }, { envelope: 'c7' });
    const outcome = evaluate(tall);
    if (!outcome.ok) throw new Error(outcome.problems[0]!.says);
    const fix = fixOf(tall);
    const mended = evaluated(applyFix(tall, fix!));
    expect(finding(mended, 'stays-inside/envelope').severity).toBe('pass');
    expect(failing(mended.findings).filter((id) => !failing(outcome.evaluation.findings).includes(id))).toEqual([]);
  });

  it.each(CATALOGUE.filter((m): m is Base => m.kind === 'base').map((base) => [base.name, base] as const))(
    '%s: what is offered fits, and nothing fails that did not',
    (_, base) => {
      const { long, short } = envelopeById('c6');
      let tried = 0;
      fc.assert(
        fc.property(fc.double({ min: 1, max: 30, noNaN: true }), fc.double({ min: 1, max: 30, noNaN: true }), (across, along) => {
          const sized = cardOn(base.id, sizesForClosed(base, short + across, long + along), { envelope: 'c6' });
          const outcome = evaluate(sized);
          if (!outcome.ok) return;
          const fix = fixOf(sized);
          if (!fix) return;
          tried++;
          const mended = evaluated(applyFix(sized, fix));
          expect(finding(mended, 'stays-inside/envelope').severity).toBe('pass');
          expect(failing(outcome.evaluation.findings)).toEqual(expect.arrayContaining(failing(mended.findings)));
        }),
        { numRuns: 4, seed: 11 },
      );
      expect(tried).toBeGreaterThan(0);
    },
  );
});

describe('a card that is begun', () => {
  it('has its scores in grooves where its sizes can be brought there', () => {
    const { card: begun } = begunOnBoard(setSize(having(cardOn('swing'), { board: 'eighths-12' }), 'base', 'height', 100), INCH_WORKSHOP);
    expect(finding(evaluated(begun), 'scoreable').severity).toBe('pass');
    const { card: easel } = begunOnBoard(having(cardOn('easel-folded-front', { depth: 150 }), { board: 'eighths-12' }), INCH_WORKSHOP);
    expect(easel.parts[0]!.sizes['depth']).toBeCloseTo(152.4, 9);
  });
});
