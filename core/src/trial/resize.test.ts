import { describe, expect, it } from 'vitest';
import { DEMO_CARDS } from '../card/demo-cards.js';
import { CATALOGUE } from '../mechanism/catalogue.js';
import { cardToTry } from '../card/try-out.js';
import { fits } from '../supplies/envelopes.js';
import { METRIC_WORKSHOP, starterFor } from '../supplies/starter-workshops.js';
import { cardOn, cardWith, evaluated } from '../testing/evaluated.js';
import { freeRows } from './changed-sizes.js';
import { resized, type Resized } from './resize.js';
import type { CardDocument } from '../card/document.js';

const workshop = starterFor('mm');
function made(card: CardDocument, wanted: Parameters<typeof resized>[1], onMarks = true): Resized {
  const found = resized(card, wanted, workshop, onMarks);
  if ('says' in found) throw new Error(found.says);
  return found;
}
const valuesOf = (card: CardDocument): Record<string, number> =>
  Object.fromEntries(
    freeRows(card).flatMap(({ owner, name, value, insteadOf }) =>
      typeof value === 'number' && !insteadOf ? [[`${owner}.${name}`, value]] : [],
    ),
  );

describe('the same card for another size', () => {
  it('is as large closed as it was wanted, both ways on their own', () => {
    const { closed, card } = made(cardOn('easel-folded-front', { depth: 150, stopDistance: 75 }), { width: 120, height: 90 });
    expect([closed.width, closed.height]).toEqual([expect.closeTo(120, 6), expect.closeTo(90, 6)]);
    // Half the depth before, half the depth after.
    expect(valuesOf(card)['base.stopDistance']).toBeCloseTo(60, 6);
  });

  it('takes what a card wears along, so that nothing sticks out of it', () => {
    const card = DEMO_CARDS.find(({ id }) => id === 'thank-you-easel') ?? DEMO_CARDS[0]!;
    const { closed, card: smaller } = made(card, { width: 120, height: 130 });
    expect([closed.width, closed.height]).toEqual([expect.closeTo(120, 6), expect.closeTo(130, 6)]);
    expect(smaller.dressing!.toppers!.length).toBe(card.dressing!.toppers!.length);
  });

  it('keeps tabs, clearances and borders', () => {
    const before = cardWith('v-fold', { tabWidth: 9 });
    const { card } = made(before, { width: 150, height: 200 });
    expect(valuesOf(card)['figure.tabWidth']).toBe(9);
    expect(valuesOf(card)['figure.wingLength']).not.toBe(valuesOf(before)['figure.wingLength']);
  });

  it('slips into the envelope that it is for, and one mark more would not', () => {
    for (const envelope of METRIC_WORKSHOP.envelopes) {
      const found = resized(cardOn('folded-card', { depth: 105, length: 148 }), { envelope }, workshop);
      if ('says' in found) continue;
      const { width, height, thickness } = found.closed;
      expect(fits(width, height, thickness, envelope)).toBe(true);
      expect(found.card.envelope).toBe(envelope.id);
      // 3 mm of ease: four marks more is too much one way or the other.
      expect(fits(width + 4.1, height + 4.1, thickness, envelope)).toBe(false);
    }
  });

  it('too large for its envelope by then goes into the closest that takes it, or none is said of it', () => {
    const card = made(cardOn('folded-card', { depth: 105, length: 148 }), {
      envelope: workshop.envelopes.find(({ id }) => id === 'c6')!,
    }).card;
    const larger = made(card, { width: 140, height: 200 });
    const envelope = workshop.envelopes.find(({ id }) => id === larger.card.envelope)!;
    expect(fits(140, 200, larger.closed.thickness, envelope)).toBe(true);
    // Of all that take it none is smaller.
    const taking = workshop.envelopes.filter((one) => fits(140, 200, larger.closed.thickness, one));
    expect(Math.min(...taking.map(({ long, short }) => long * short))).toBe(envelope.long * envelope.short);
    expect(made(card, { width: 240, height: 330 }).card.envelope).toBeUndefined();
    // What it fits still it keeps.
    expect(made(card, { width: 80, height: 110 }).card.envelope).toBe('c6');
  });

  it.each(CATALOGUE.map(({ id }) => [id] as const))('of %s there and back is the same card', (id) => {
    const card = cardToTry(CATALOGUE.find((mechanism) => mechanism.id === id)!);
    const { box } = evaluated(card).closed;
    const [width, height] = [box.maxX - box.minX, box.maxY - box.minY];
    const there = resized(card, { width: 1.06 * width, height: 1.04 * height }, workshop, false);
    if ('says' in there || there.repaired) return;
    const back = made(there.card, { width, height }, false);
    if (back.repaired) return;
    const [before, after] = [valuesOf(card), valuesOf(back.card)];
    // What follows in a swing card is rounded to whole millimetres, on the way there and on the way back.
    const play = id === 'swing' ? 2.1 : 0.5;
    for (const [name, value] of Object.entries(before)) {
      expect(Math.abs(after[name]! - value), name).toBeLessThan(Math.max(play, 0.01 * Math.abs(value)));
    }
  });
});

describe('a card that is not to be had', () => {
  it('is told', () => {
    expect(resized(cardOn('folded-card'), { width: 20, height: 2000 }, workshop)).toMatchObject({ says: expect.any(String) as string });
  });
});
