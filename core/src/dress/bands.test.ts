import { describe, expect, it } from 'vitest';
import { withClosure, withClosureChanged, withoutClosure, withTopper } from '../card/dress-card.js';
import type { CardDocument } from '../card/document.js';
import { postedCard } from './posted-card.js';
import { benchSteps } from '../plan/bench-steps.js';
import { materialsOf } from '../plan/materials.js';
import { METRIC_WORKSHOP } from '../supplies/starter-workshops.js';
import { cardOn, evaluated, finding, stockById } from '../testing/evaluated.js';

/** A card of 100 × 140 mm closed: two leaves of 0.31 mm. */
const folded = cardOn('folded-card', { depth: 100, length: 140 });
const banded = (card: CardDocument = folded, around: 'across' | 'along' = 'across', at = 70): CardDocument =>
  withClosure(card, { kind: 'band', around, wide: 30, at, stock: 'light-card-160' }, METRIC_WORKSHOP);
/** A block on the front of the closed card, its middle so far up. */
const block = (card: CardDocument, along: number): CardDocument =>
  withTopper(
    card,
    { panel: 'base/front-leaf', face: 'down', across: 50, along, outline: 'rectangle', height: 20, foam: 3, stock: 'card-250' },
    METRIC_WORKSHOP,
  );

describe('a band round a card', () => {
  it('is as long as it is round, twice what it goes round and twice as thick as the card, and the overlap', () => {
    const thick = 2 * stockById('card-250').caliper;
    const [across] = evaluated(banded()).dressed.bands;
    expect(across!.thickness).toBeCloseTo(thick, 6);
    expect(across!.band.length).toBeCloseTo(2 * (100 + 1) + 2 * thick + 12, 6);
    expect(across!.sheet.width).toBeCloseTo(across!.band.length, 6);
    expect(across!.sheet.scores).toHaveLength(4);
    const [along] = evaluated(banded(folded, 'along', 50)).dressed.bands;
    expect(along!.band.length).toBeCloseTo(2 * (140 + 1) + 2 * thick + 12, 6);
  });

  it('slides off both ways where nothing is raised, and one way past what is', () => {
    expect(finding(evaluated(banded()), 'opens/band-1').says).toBe('The band B1 slides off toward the lower end and toward the upper end.');
    const oneWay = finding(evaluated(banded(block(folded, 115))), 'opens/band-1');
    expect(oneWay).toMatchObject({ severity: 'pass', says: 'The band B1 slides off toward the lower end.' });
  });

  it('that cannot slide off is told, with how much is in either way', () => {
    const told = finding(evaluated(banded(block(block(folded, 115), 25))), 'opens/band-1');
    expect(told.severity).toBe('fail');
    // Foam of 3 mm, a sheet of 0.31 and two films of glue of 0.03 are in the way on both sides.
    expect(told.value).toBeCloseTo(3 + stockById('card-250').caliper + 0.06, 6);
    expect(told.says).toMatch(
      /cannot slide off: toward the lower end .* 3\.\d+ mm thicker or wider, toward the upper end .* and it has 1 mm to slip/,
    );
    // With as much to slip it comes off: the root of the matter is its length.
    const looser = withClosureChanged(banded(block(block(folded, 115), 25)), 'band-1', { slip: 4 }, METRIC_WORKSHOP);
    expect(finding(evaluated(looser), 'opens/band-1').severity).toBe('pass');
  });

  it('goes over what is raised under it, and then past it', () => {
    const [over] = evaluated(banded(block(folded, 70))).dressed.bands;
    expect(over!.thickness).toBeCloseTo(2 * stockById('card-250').caliper + 3 + stockById('card-250').caliper + 0.06, 6);
    expect(over!.ways.map(({ free }) => free)).toEqual([true, true]);
  });

  it('counts in what goes into the envelope: two sheets and its lapped end over the card, a sheet at either edge', () => {
    const { closed, dressed } = evaluated(banded());
    const { caliper } = stockById('light-card-160');
    expect(postedCard(closed, dressed)).toEqual({
      width: expect.closeTo(100 + 2 * caliper, 6),
      height: expect.closeTo(140, 6),
      thickness: expect.closeTo(2 * stockById('card-250').caliper + 3 * caliper, 6),
    });
  });

  it('counts its fastener and what is dotted on it, in thickness and in weight', () => {
    const limits = { thickness: 6, weight: 40 };
    const plain: CardDocument = { ...banded(), post: limits };
    const laden = withClosureChanged(plain, 'band-1', { fastener: 1.5, gift: { thick: 4, grams: 12 } }, METRIC_WORKSHOP);
    const [before, after] = [evaluated(plain), evaluated(laden)];
    const { caliper, weight } = stockById('light-card-160');
    const thick = 2 * stockById('card-250').caliper + 3 * caliper;
    expect(postedCard(after.closed, after.dressed).thickness).toBeCloseTo(thick + 1.5 + 4, 6);
    expect(finding(before, 'bulk/post-thickness')).toMatchObject({ severity: 'pass', value: expect.closeTo(thick, 6) as number });
    expect(finding(after, 'bulk/post-thickness').severity).toBe('fail');
    // Two leaves of 100 × 140 mm, the strip, and the gift.
    const strip = ((2 * 101 + 4 * stockById('card-250').caliper + 12) * 30 * weight) / 1e6;
    const leaves = (200 * 140 * stockById('card-250').weight) / 1e6;
    expect(finding(before, 'bulk/post-weight').value).toBeCloseTo(leaves + strip, 6);
    expect(finding(after, 'bulk/post-weight').value).toBeCloseTo(leaves + strip + 12, 6);
    const said = benchSteps(after, METRIC_WORKSHOP)
      .find(({ id }) => id === 'wrap-band-1')!
      .says.join(' ');
    expect(said).toMatch(/fix the fastener, 1\.5 mm thick, between them.*Dot the gift on it last, 4 mm high/);
    expect(said).not.toContain('glue it to itself');
    expect(materialsOf(after, METRIC_WORKSHOP).map(({ what }) => what)).toEqual(
      expect.arrayContaining(['Fastener for B1, band', 'Gift on B1, band']),
    );
  });

  it('beside the card is left out and told; taken away it leaves no trace', () => {
    const beside = evaluated(banded(folded, 'across', 400));
    expect(beside.dressed.bands).toEqual([]);
    expect(finding(beside, 'opens/band-1').severity).toBe('warn');
    expect(withoutClosure(banded(), 'band-1')).toEqual(folded);
  });

  it('is cut, scored and wrapped round in the steps, and stands in the list of materials', () => {
    const evaluation = evaluated(banded());
    const steps = benchSteps(evaluation, METRIC_WORKSHOP);
    const scored = steps.filter(({ kind, picture }) => kind === 'score' && picture?.kind === 'flat' && picture.piece === 'band-band-1');
    expect(
      scored
        .flatMap(({ readings }) => readings)
        .map(({ at }) => Number(at.toFixed(3)))
        .sort((a, b) => a - b),
    ).toEqual([101, 101.62, 202.62, 203.24]);
    const last = steps.find(({ id }) => id === 'wrap-band-1')!;
    expect(last.says.join(' ')).toMatch(/its middle 70 mm from the lower end.*never to the card.*slides off toward the lower end/);
    expect(materialsOf(evaluation, METRIC_WORKSHOP).find(({ what }) => what === 'B1, band')!.detail).toMatch(
      /^Light card, 160 g, 215\.2\d* mm across × 30 mm along/,
    );
  });
});
