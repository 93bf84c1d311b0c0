import { describe, expect, it } from 'vitest';
import { evaluate } from '../evaluate.js';
import { CATALOGUE } from '../mechanism/catalogue.js';
import { INCH_WORKSHOP, starterFor } from '../supplies/starter-workshops.js';
import { dice } from '../testing/any-tree.js';
import { brokenCard } from '../testing/broken-card.js';
import { withStock } from '../card/choose-supplies.js';
import { withTopper } from '../card/dress-card.js';
import { cardOn, cardWith, evaluated, having } from '../testing/evaluated.js';
import { workingOnGrid } from '../testing/grid-look.js';
import { freeRows } from './changed-sizes.js';
import { repair } from './repair.js';
import { costOf } from './size-search.js';

const workshop = starterFor('mm');

describe('a repair', () => {
  it('is not offered for a card that works', () => {
    expect(repair(cardOn('folded-card'), workshop)).toMatchObject({ offers: [], conflict: [] });
  });

  // The folded front’s foot stands on the stop: the base is depth long, and a stop of 8 mm must lie on it whole.
  it('of a size outside its limits brings it to the limit, and no farther', () => {
    const card = cardOn('easel-folded-front', { depth: 150, stopDistance: 149 });
    const row = freeRows(card).find(({ name }) => name === 'stopDistance')!;
    const { offers } = repair(card, workshop);
    const own = offers.find(({ changes }) => changes.length === 1 && changes[0]!.size === 'stopDistance')!;
    expect(own.changes[0]!.to).toBe(Math.floor(row.range!.max));
    expect(own.says).toContain('149 mm');
    expect(own.leaves.filter(({ severity }) => severity === 'fail')).toEqual([]);
  });

  it('changes a V-fold’s wings back to equal sums, or the other side with them', () => {
    // Closed, each side lies at its ray and wing together: unequal sums cross. Both sums are 105° at first.
    const off = (8 * Math.PI) / 180;
    const plain = cardWith('v-fold');
    const angle = Number(freeRows(plain).find(({ name }) => name === 'wingAngle')!.value);
    const card = cardWith('v-fold', { secondWingAngle: angle + off });
    const { offers } = repair(card, workshop);
    expect(offers.length).toBeGreaterThan(0);
    for (const { card: mended } of offers) {
      const rows = freeRows(mended);
      const value = (name: string): number => Number(rows.find((row) => row.name === name)!.value);
      expect(value('rayAngle') + value('wingAngle')).toBeCloseTo(value('secondRayAngle') + value('secondWingAngle'), 1.5);
    }
  });

  it('draws each size back as far as the others let it, once they are changed too', () => {
    // Of a stage that works, a layer was made 22 mm deeper and 7 mm wider: with 29 mm of change it works again.
    const sizes = { innerWidth: 223, height: 93, depth: 101, windowShape: 'leaf', windowWidth: 160, windowHeight: 38, windowBorder: 6 };
    const others = [
      { depth: 87, window: 'nested', tab: 11 },
      { depth: 65, window: 'nested', tab: 36 },
    ];
    const layers = (first: object): object[] => [{ depth: 83, window: 'none', tab: 6, ...first }, ...others];
    const whole = cardOn('layered-stage', { ...sizes, layers: layers({}) } as never);
    expect(evaluated(whole).findings.filter(({ severity }) => severity === 'fail')).toEqual([]);
    const { offers } = repair(cardOn('layered-stage', { ...sizes, layers: layers({ depth: 105, width: 230 }) } as never), workshop);
    expect(Math.min(...offers.map(({ cost }) => cost))).toBeLessThanOrEqual(29);
  });

  it('of cards broken in one to three sizes is one after which nothing fails, no larger than the break, and tried out', () => {
    const next = dice(20261130);
    for (let i = 0; i < CATALOGUE.length; i++) {
      const broken = brokenCard(i, next);
      if (!broken) continue;
      const { offers } = repair(broken.card, workshop);
      const where = `${CATALOGUE[i]!.id} ${JSON.stringify(broken.changes)}`;
      expect(offers.length, where).toBeGreaterThan(0);
      expect(Math.min(...offers.map(({ cost }) => cost)), where).toBeLessThanOrEqual(costOf(broken.card, broken.changes) + 1e-6);
      for (const { card, changes, cost } of offers) {
        const outcome = evaluate(card, workshop);
        expect(outcome.ok && outcome.evaluation.findings.filter(({ severity }) => severity === 'fail'), where).toEqual([]);
        expect(costOf(broken.card, changes)).toBeCloseTo(cost, 6);
        for (const { owner, size, from } of changes) {
          expect(from).toBeCloseTo(Number(freeRows(broken.card).find((row) => row.owner === owner && row.name === size)!.value), 9);
        }
      }
      const sets = offers.map(({ changes }) =>
        changes
          .map(({ owner, size }) => `${owner}/${size}`)
          .sort()
          .join(),
      );
      expect(new Set(sets).size).toBe(offers.length);
    }
  });

  it('names what cannot be had together where no sizes will do', () => {
    // No easel is so narrow that its picture goes into an envelope of 40 by 40 mm.
    const tiny = { id: 'tiny', name: 'Seed packet', long: 40, short: 40 };
    const card = having({ ...cardOn('step-easel'), supplies: { stocks: [], boards: [], envelopes: [tiny] } }, { envelope: 'tiny' });
    const { offers, conflict } = repair(card, INCH_WORKSHOP);
    expect(offers).toEqual([]);
    expect(conflict).toEqual([{ owner: 'envelope', says: 'that it goes into the envelope Seed packet' }]);
    // Nor does any card on a coarse grid of all its sizes, two by two.
    expect(workingOnGrid(card, INCH_WORKSHOP, 3)).toBeUndefined();
  }, 60_000);

  it('names what it wears among what cannot be had together', () => {
    // A topper 200 mm high goes into no envelope of 150 by 110 mm, however small its card.
    const packet = { id: 'packet', name: 'Packet', long: 150, short: 110 };
    const bare = having(
      { ...cardOn('folded-card', { depth: 100, length: 140 }), supplies: { stocks: [], boards: [], envelopes: [packet] } },
      { envelope: 'packet', within: 'envelope' },
    );
    expect(repair(bare, workshop).conflict).toEqual([]);
    const panel = evaluated(bare).design.panels[0]!.id;
    const topper = { panel, face: 'up', outline: 'circle', across: 50, along: 70, height: 200, stock: 'card-250' } as const;
    const { offers, conflict } = repair(withTopper(bare, topper, workshop), workshop);
    expect(offers).toEqual([]);
    expect(conflict.map(({ owner }) => owner).sort()).toEqual(['envelope', 'topper-1']);
    expect(conflict.map(({ says }) => says)).toContain('the topper circle');
  });

  it('names a stock that was chosen, where the usual one would do', () => {
    const thick = withStock(cardWith('twist-carrier'), 'mechanism', 'board-400', workshop);
    const { offers, conflict } = repair(thick, workshop);
    expect(offers).toEqual([]);
    expect(conflict).toEqual([
      { owner: 'figure', says: 'the twist carrier' },
      { owner: 'stock-mechanism', says: 'Thin board, 400 g for the mechanism stock' },
    ]);
    expect(workingOnGrid(thick, workshop, 3)).toBeUndefined();
    expect(workingOnGrid(withStock(thick, 'mechanism', workshop.usual.stocks.mechanism, workshop), workshop, 3)).toBeDefined();
  }, 60_000);

  it('is needed where a card on a grid works: a look at a grid finds one that a search finds', () => {
    const card = cardOn('easel-folded-front', { depth: 150, stopDistance: 149 });
    expect(repair(card, workshop).offers.length).toBeGreaterThan(0);
    expect(workingOnGrid(card, workshop, 3)).toBeDefined();
  });
});
