import { describe, expect, it } from 'vitest';
import { withTopper } from '../card/dress-card.js';
import type { Topper } from '../card/dressing.js';
import { boxOf } from '../plane/outline.js';
import { METRIC_WORKSHOP } from '../supplies/starter-workshops.js';
import { cardOn, evaluated } from '../testing/evaluated.js';
import { arrangementOf } from './pdf-arrangement.js';

const folded = cardOn('folded-card', { depth: 100, length: 140 });
const sheet = (...toppers: Partial<Topper>[]) =>
  arrangementOf(
    evaluated(
      toppers.reduce<typeof folded>(
        (card, change) =>
          withTopper(
            card,
            {
              ...{
                panel: 'base/front-leaf',
                face: 'down',
                across: 30,
                along: 50,
                outline: 'rectangle',
                height: 20,
                width: 40,
                stock: 'card-250',
              },
              ...change,
            },
            METRIC_WORKSHOP,
          ),
        folded,
      ),
    ),
  );

describe('the sheet of where the toppers go', () => {
  it('shows each face at its true size, as it is looked at: a back is the other way round', () => {
    const [front] = sheet({});
    expect([front!.width, front!.height]).toEqual([expect.closeTo(100, 6), expect.closeTo(140, 6)]);
    const of = (drawing: typeof front, role: string) =>
      boxOf(drawing!.piece.filter((each) => each.role === role).flatMap(({ points }) => points));
    // 30 mm from the left edge as it is drawn is 30 mm from the right one for who looks at its back.
    expect(of(front, 'pencil')).toEqual({
      minX: expect.closeTo(50, 6),
      maxX: expect.closeTo(90, 6),
      minY: expect.closeTo(40, 6),
      maxY: expect.closeTo(60, 6),
    });
    const [inside] = sheet({ face: 'up' });
    expect(of(inside, 'pencil')).toMatchObject({ minX: expect.closeTo(10, 6), maxX: expect.closeTo(50, 6) });
  });

  it('numbers them in the order of gluing, and shows glue where it is only a part', () => {
    const [front] = sheet({}, { along: 100, glued: { as: 'strip', side: 'left', deep: 10 } });
    expect(front!.notes.map(({ words }) => words)).toEqual(['T1: rectangle', 'T2: rectangle']);
    const glue = front!.piece.filter(({ role }) => role === 'glue');
    expect(glue).toHaveLength(1);
    // Its left side as it is looked at.
    const { minX, maxX } = boxOf(glue[0]!.points);
    expect([minX, maxX]).toEqual([expect.closeTo(50, 6), expect.closeTo(60, 6)]);
  });

  it('has a sheet for every face, room for what stands past an edge, and none of a card without toppers', () => {
    const all = sheet({ across: 90 }, { panel: 'base/back-leaf', face: 'up' });
    expect(all.map(({ title }) => title)).toEqual(['Front leaf, its back: where the toppers go', 'Back leaf: where the toppers go']);
    expect(all[0]!.width).toBeCloseTo(110, 6);
    expect(sheet()).toEqual([]);
  });
});
