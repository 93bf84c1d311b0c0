import { describe, expect, it } from 'vitest';
import { withClosure, withTopper } from '../card/dress-card.js';
import type { CardDocument } from '../card/document.js';
import { evaluate } from '../evaluate.js';
import { METRIC_WORKSHOP } from '../supplies/starter-workshops.js';
import { baseSizes, cardOn, evaluated, finding, having } from '../testing/evaluated.js';
import { applyFix } from './apply-fix.js';
import { dressingInProportion, wearsSame } from './dressing-in-proportion.js';
import { withOffers } from './offers.js';

/** Two leaves of 120 × 160 mm, with a topper at 90 | 80, 60 high and 50 wide. */
const card = withTopper(
  cardOn('folded-card', { depth: 120, length: 160 }),
  {
    ...{ panel: 'base/front-leaf', face: 'down', across: 90, along: 80, outline: 'rectangle', height: 60, width: 50, stock: 'card-250' },
    greeting: { words: 'Hello', letters: 'serif', capital: 9 },
    glued: { as: 'strip', side: 'left', deep: 20 },
  },
  METRIC_WORKSHOP,
);
const sized = (depth: number, length: number): CardDocument => baseSizes(card, { depth, length });

describe('what a card wears, as its panels change', () => {
  it('goes where it was in proportion, and is as much smaller as its panel is the more so', () => {
    const worn = dressingInProportion(evaluated(card), evaluated(sized(90, 160)))!;
    // Three quarters across, nothing along; sizes by the lesser.
    expect(worn.toppers![0]).toMatchObject({
      across: 68,
      along: 80,
      height: 45,
      width: 37,
      glued: { deep: 15 },
      greeting: { capital: 6.75 },
    });
  });

  it('stays as it is where nothing changes, and is never made larger', () => {
    expect(wearsSame(card, { dressing: dressingInProportion(evaluated(card), evaluated(card))! })).toBe(true);
    expect(dressingInProportion(evaluated(card), evaluated(sized(240, 160)))!.toppers![0]).toMatchObject({
      across: 180,
      height: 60,
      width: 50,
    });
  });

  it('takes closures along: magnets with their panel, bands along the card', () => {
    const banded = withClosure(card, { kind: 'band', around: 'across', wide: 20, at: 120, stock: 'card-250' }, METRIC_WORKSHOP);
    const held = withClosure(
      banded,
      { kind: 'magnet', panel: 'base/front-leaf', face: 'up', across: 12, along: 40, disc: 6, thick: 1, stock: 'card-250' },
      METRIC_WORKSHOP,
    );
    const after = evaluated(baseSizes(held, { depth: 120, length: 120 }));
    expect(dressingInProportion(evaluated(held), after)!.closures).toMatchObject([
      { at: 90, wide: 20 },
      { across: 12, along: 30, disc: 6 },
    ]);
  });

  it('is part of making the card fit its envelope, which it then does with it', () => {
    const large = having(card, { envelope: 'c6' });
    const fix = withOffers(evaluated(large)).find(({ id }) => id === 'stays-inside/envelope')!.fix!;
    expect(fix.says).toContain('what it wears goes along');
    const mended = evaluate(applyFix(large, fix));
    if (!mended.ok) throw new Error('refused');
    expect(finding(mended.evaluation, 'stays-inside/envelope').severity).toBe('pass');
    const failing = mended.evaluation.findings.filter(({ severity }) => severity === 'fail').map(({ id }) => id);
    expect(failing).toEqual([]);
  });
});
