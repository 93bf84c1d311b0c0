import { describe, expect, it } from 'vitest';
import { evaluate } from '../evaluate.js';
import { starterFor } from '../supplies/starter-workshops.js';
import { DEMO_CARDS } from './demo-cards.js';
import { undressed } from './dress-card.js';
import type { CardDocument } from './document.js';
import { KeptGeometry } from './kept-geometry.js';

const judged = (card: CardDocument, kept?: KeptGeometry) => {
  const outcome = evaluate(card, starterFor(card.notation), kept);
  if (!outcome.ok) throw new Error(outcome.problems[0]!.says);
  return outcome.evaluation;
};

describe('the geometry that is kept of the last card', () => {
  it.each(DEMO_CARDS.map((card) => [card.name, card] as const))('of “%s” gives the verdicts that are worked out anew', (_, card) => {
    const kept = new KeptGeometry();
    const bare = undressed(card);
    judged(bare, kept);
    const dressed = judged(card, kept);
    expect(dressed.motion).toBe(kept.of(card)!.motion);
    const anew = judged(card);
    expect(dressed.findings).toEqual(anew.findings);
    expect(dressed.measures).toEqual(anew.measures);
    expect(dressed.dressed).toEqual(anew.dressed);
    // And back: nothing of what was worn is left behind.
    expect(judged(bare, kept).findings).toEqual(judged(bare).findings);
  });

  it('is none for a card of other sizes, supplies, or ways of reading', () => {
    const [card] = DEMO_CARDS as readonly [CardDocument];
    const kept = new KeptGeometry();
    expect(kept.of(card)).toBeUndefined();
    judged(card, kept);
    expect(kept.of({ ...card, name: 'Another', note: 'Mind the grain.', state: 'made' })).toBeDefined();
    const [base, ...others] = card.parts as [CardDocument['parts'][number], ...CardDocument['parts']];
    expect(kept.of({ ...card, parts: [{ ...base, sizes: { ...base.sizes, length: 123 } }, ...others] })).toBeUndefined();
    expect(kept.of({ ...card, foldEdge: card.foldEdge === 'side' ? 'top' : 'side' })).toBeUndefined();
    expect(kept.of({ ...card, notation: card.notation === 'cm' ? 'mm' : 'cm' })).toBeUndefined();
    const stocks = card.supplies.stocks.map((stock) => ({ ...stock, caliper: stock.caliper + 0.1 }));
    expect(kept.of({ ...card, supplies: { ...card.supplies, stocks } })).toBeUndefined();
  });
});
