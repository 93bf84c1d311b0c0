import { describe, expect, it } from 'vitest';
import { setSize } from '../card/set-size.js';
import { CATALOGUE } from '../mechanism/catalogue.js';
import { cardToTry } from '../card/try-out.js';
import { cardOn, evaluated } from '../testing/evaluated.js';
import { compared } from './compare.js';

describe('two cards beside each other', () => {
  const card = cardOn('folded-card', { depth: 105, length: 148 });

  it('says each size that differs, what is closed, and the paper that it takes', () => {
    const { sizes, closed, stocks, pieces } = compared(evaluated(card), evaluated(setSize(card, 'base', 'depth', 100)));
    expect(sizes).toEqual([{ part: 'Folded card', label: 'Depth', before: '105 mm', after: '100 mm' }]);
    expect([closed.before.width, closed.after.width]).toEqual([expect.closeTo(105, 6), expect.closeTo(100, 6)]);
    expect(stocks).toHaveLength(1);
    // One blank of twice the depth.
    expect(stocks[0]).toMatchObject({ before: expect.closeTo(210 * 148, 3) as number, after: expect.closeTo(200 * 148, 3) as number });
    expect(pieces).toEqual({ before: 1, after: 1 });
  });

  it('says what is against one of them only', () => {
    const easel = cardOn('easel-folded-front', { depth: 150 });
    const broken = setSize(easel, 'base', 'displayHeight', 160);
    const [good, bad] = [evaluated(easel), evaluated(broken)];
    const failing = bad.findings.filter(({ severity }) => severity === 'fail').map(({ id }) => id);
    expect(failing.length).toBeGreaterThan(0);
    expect(compared(good, bad).comes.map(({ id }) => id)).toEqual(expect.arrayContaining(failing));
    expect(compared(bad, good).goes.map(({ id }) => id)).toEqual(expect.arrayContaining(failing));
  });

  it('of two mechanisms has the sizes of each on its own side', () => {
    const other = cardOn('half-turn-stand');
    const { sizes } = compared(evaluated(card), evaluated(other));
    expect(sizes.filter(({ before }) => before !== undefined).map(({ part }) => part)).toContain('Folded card');
    expect(sizes.every(({ before, after }) => (before === undefined) !== (after === undefined))).toBe(true);
  });

  it.each(CATALOGUE.map(({ id }) => [id] as const))(
    'of %s with itself says nothing; the other way round it says the same, turned',
    (id) => {
      const mechanism = CATALOGUE.find((one) => one.id === id)!;
      const own = cardToTry(mechanism);
      const evaluation = evaluated(own);
      const same = compared(evaluation, evaluation);
      expect([same.sizes, same.goes, same.comes]).toEqual([[], [], []]);
      expect(same.stocks.every(({ before, after }) => before === after)).toBe(true);
      const there = compared(evaluated(card), evaluation);
      const back = compared(evaluation, evaluated(card));
      const turned = back.sizes.map(({ part, label, before, after }) => [part, label, after, before]);
      expect(there.sizes.map(({ part, label, before, after }) => [part, label, before, after])).toEqual(expect.arrayContaining(turned));
      expect(there.sizes).toHaveLength(turned.length);
      expect(there.comes).toEqual(back.goes);
    },
  );
});
