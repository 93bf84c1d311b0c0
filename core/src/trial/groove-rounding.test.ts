import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { CardDocument } from '../card/document.js';
import type { Finding } from '../check/finding.js';
import { sizesForClosed } from '../card/try-out.js';
import { applyFix } from './apply-fix.js';
import { evaluate } from '../evaluate.js';
import { CATALOGUE } from '../mechanism/catalogue.js';
import type { Base } from '../mechanism/contract.js';
import { withOffers } from './offers.js';
import { cardOn, evaluated, finding, having, offered } from '../testing/evaluated.js';

const onBoard = (card: CardDocument): CardDocument => having(card, { board: 'five-mm-300' });
const scoring = (card: CardDocument): Finding[] => offered(card).findings.filter(({ check }) => check === 'scoreable');

describe('rounding to the board', () => {
  it('takes doors, strip and all to grooves together', () => {
    // 127.3 wide with a strip of 38.2: doors 63.65, scores at 63.65, 108.2, 146.4, 190.95.
    const card = onBoard(cardOn('rising-strip-doors', { closedWidth: 127.3, strip: 38.2, length: 100 }));
    const found = finding(offered(card), 'scoreable');
    // Both folds of the strip lie (2 × 127.3 ± strip) ÷ 2 from the end; 130 and 40 bring 65, 110, 150 and 195.
    expect(found.fix!.changes.map(({ size, value }) => [size, value])).toEqual([
      ['closedWidth', expect.closeTo(130, 6)],
      ['strip', expect.closeTo(40, 6)],
    ]);
    expect(found.fix!.says).toBe('Round to the board: closed width 130 mm; strip 40 mm. Every score then falls into a groove.');
  });

  it('says nothing of sizes that follow the ones rounded', () => {
    const card = onBoard(cardOn('swing', { blankLength: 200, height: 100 }));
    for (const found of scoring(card)) {
      for (const { size } of found.fix?.changes ?? []) expect(['panelFrom', 'panelTo', 'trim']).not.toContain(size);
    }
  });

  it('offers nothing that makes something else fail', () => {
    // All folds of this one come to grooves near by, but there its foot no longer reaches the stop.
    const base = CATALOGUE.find((m): m is Base => m.id === 'step-easel')!;
    const found = scoring(onBoard(cardOn('step-easel', sizesForClosed(base, 103, 90))));
    expect(found.map(({ severity }) => severity)).toContain('warn');
    expect(found.every(({ fix }) => fix === undefined)).toBe(true);
  });

  it('looks through allowances for thickness, which the fold takes up', () => {
    // Walls 37 deep and 110 between them: 35 brings the scores of back and front to 35 and 145. The front is a caliper wider.
    const [found] = scoring(onBoard(cardOn('layered-stage')));
    expect(found!.fix!.changes).toEqual([{ owner: 'base', size: 'depth', value: expect.closeTo(35, 6) }]);
  });

  it('rounds what the entries of a list hold by themselves', () => {
    // Hinge at 46.5 and fold at twice that: both in grooves of 5 mm only at a multiple of 5.
    const [found] = scoring(onBoard(cardOn('easel-row')));
    expect(found!.fix!.changes).toEqual([45, 35, 25].map((value) => expect.objectContaining({ value: expect.closeTo(value, 6) })));
  });

  it('is one finding with one button, however many scores are off', () => {
    const found = scoring(having(cardOn('layered-stage'), { board: 'eighths-12' }));
    expect(found).toHaveLength(1);
    // Left wall at 37, layers at 10, front at 37: none a multiple of 3.175. The right ones are told from the far end.
    expect(found[0]!.creases).toEqual(expect.arrayContaining(['base/left-wall', 'layer-1/left', 'layer-2/left', 'front/left']));
    expect(found[0]!.fix).toBeDefined();
  });

  it.each(CATALOGUE.filter((m): m is Base => m.kind === 'base').map((base) => [base.name, base] as const))(
    '%s: what is offered puts as many scores into a groove as it says, and breaks nothing',
    (_, base) => {
      const size = fc.integer({ min: 900, max: 1600 }).map((n) => n / 10);
      fc.assert(
        fc.property(size, size, (across, along) => {
          const card = onBoard(cardOn(base.id, sizesForClosed(base, across, along)));
          const outcome = evaluate(card);
          const offer = outcome.ok ? withOffers(outcome.evaluation).find((f) => f.check === 'scoreable' && f.fix) : undefined;
          if (!outcome.ok || !offer) return;
          const rounded = evaluated(applyFix(card, offer.fix!));
          const left = Number(/All scores but (one|\d+)/.exec(offer.fix!.says)?.[1]?.replace('one', '1') ?? 0);
          expect(rounded.findings.find(({ check }) => check === 'scoreable')!.creases ?? []).toHaveLength(left);
          const failing = (findings: readonly Finding[]): string[] => findings.filter((f) => f.severity === 'fail').map((f) => f.id);
          expect(failing(outcome.evaluation.findings)).toEqual(expect.arrayContaining(failing(rounded.findings)));
        }),
        { numRuns: 8 },
      );
    },
  );
});
