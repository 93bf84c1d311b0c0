import { evaluate, newCard, starterFor, withTopper, type CardDocument, type Evaluation } from '@diptychon/core';
import { HeldTopper, topperMoved } from './held-topper';

const workshop = starterFor('mm');

/** A card of two leaves of 100 × 140 mm with a disc of 40 mm on the front, 31 mm from the left and 52 mm up. */
const card: CardDocument = withTopper(
  newCard({ id: 'card', name: 'card', base: { mechanism: 'folded-card', sizes: { depth: 100, length: 140 } } }),
  { panel: 'base/front-leaf', face: 'down', across: 31, along: 52, outline: 'circle', height: 40, stock: 'card-250' },
  workshop,
);

function evaluated(of: CardDocument): Evaluation {
  const outcome = evaluate(of, workshop);
  if (!outcome.ok) throw new Error(outcome.problems[0]!.says);
  return outcome.evaluation;
}

describe('a topper that is held', () => {
  const evaluation = evaluated(card);
  const [placed] = evaluation.dressed.toppers;
  const held = new HeldTopper(evaluation, placed!);

  it('begins where it is', () => {
    expect(held.from).toEqual([31, 52]);
  });

  it('goes to the marks of the ruler', () => {
    expect(held.ledTo([38.4, 61.6])).toEqual({ across: 38, along: 62, says: 'T1: 38 mm across, 62 mm up' });
  });

  it('is drawn to the middle of its panel from near by, and says so', () => {
    expect(held.ledTo([51.2, 68.9])).toMatchObject({ across: 50, along: 70, says: 'T1: in the middle across, in the middle up' });
  });

  it('is drawn to where its borders are even', () => {
    // 28 mm up it ends 8 mm from below: as far from the left edge it ends with its middle at 28 mm.
    const place = held.ledTo([28.9, 28]);
    expect(place.across).toBeCloseTo(28, 6);
    expect(place.says).toContain('as far from both edges');
  });

  it('is moved in one change that belongs to its drag', () => {
    const { what, apply, typed } = topperMoved(placed!, { across: 40, along: 60 }, workshop, 'drag-1');
    expect([what, typed]).toEqual(['Place of T1', 'drag-1']);
    expect(apply(card).dressing!.toppers![0]).toMatchObject({ across: 40, along: 60, outline: 'circle' });
  });
});
