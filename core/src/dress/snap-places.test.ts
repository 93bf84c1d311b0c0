import { describe, expect, it } from 'vitest';
import { withClosure, withTopper } from '../card/dress-card.js';
import type { CardDocument } from '../card/document.js';
import type { Topper } from '../card/dressing.js';
import { METRIC_WORKSHOP } from '../supplies/starter-workshops.js';
import { cardOn, evaluated } from '../testing/evaluated.js';
import { evenBorder, snapPlaces } from './snap-places.js';

const put = (card: CardDocument, change: Partial<Topper>): CardDocument =>
  withTopper(
    card,
    { ...{ panel: 'base/front-leaf', face: 'up', across: 30, along: 40, outline: 'rectangle', height: 20, stock: 'card-250' }, ...change },
    METRIC_WORKSHOP,
  );
const folded = cardOn('folded-card', { depth: 100, length: 140 });

describe('places that a topper is drawn to', () => {
  it('are the middle of its panel, other toppers of its face, and what lies there when the card is closed', () => {
    const three = put(put(put(folded, {}), { across: 70, along: 90 }), { panel: 'base/back-leaf', across: 25, along: 60 });
    const card = withClosure(
      three,
      { kind: 'magnet', panel: 'base/back-leaf', face: 'up', across: 88, along: 20, disc: 6, thick: 1, stock: 'card-250' },
      METRIC_WORKSHOP,
    );
    const { across, along } = snapPlaces(evaluated(card), 'topper-1');
    // What is 25 mm from the fold on the back leaf lies 75 mm from the free edge on the front leaf; the disc's other is on it.
    expect(across.map(({ at, says }) => [Number(at.toFixed(6)), says])).toEqual([
      [50, 'in the middle'],
      [70, 'in line with T2'],
      [75, 'where T3 lies when closed'],
      [12, 'where M1 lies when closed'],
    ]);
    expect(along.map(({ at }) => Number(at.toFixed(6)))).toEqual([70, 90, 60, 20]);
  });

  it('are none of a topper that is not there', () => {
    expect(snapPlaces(evaluated(folded), 'topper-1')).toEqual({ across: [], along: [] });
  });

  it('make the border even round a corner', () => {
    // 20 × 10 wide, its middle 15 from the lower edge: 10 are free below, and so they are beside it on either side.
    expect(evenBorder([100, 140], [10, 5], 30, 15)).toBe(20);
    expect(evenBorder([100, 140], [10, 5], 80, 15)).toBe(80);
    expect(evenBorder([100, 140], [10, 5], 30, 125)).toBe(20);
  });
});
