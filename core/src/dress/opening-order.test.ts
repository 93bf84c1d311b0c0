import { describe, expect, it } from 'vitest';
import { withTopper } from '../card/dress-card.js';
import type { CardDocument } from '../card/document.js';
import type { Topper } from '../card/dressing.js';
import { benchSteps } from '../plan/bench-steps.js';
import { METRIC_WORKSHOP } from '../supplies/starter-workshops.js';
import { cardOn, evaluated, finding } from '../testing/evaluated.js';

/** Two doors of 60 mm that meet in front at 120 mm: their folds lie at 60 and at 180 mm across the closed card. */
const doors = cardOn('rising-strip-doors');
const DOOR = 60;
const MEETING = 120;

/** A sheet on a door that covers the closed card from one place across it to another, up to 20 mm above and below a height. */
function covering(
  card: CardDocument,
  door: 'left' | 'right',
  from: number,
  to: number,
  along = 75,
  change: Partial<Topper> = {},
): CardDocument {
  const middle = (from + to) / 2;
  return withTopper(
    card,
    {
      panel: `base/${door}-door`,
      face: 'down',
      // Folded over, the left door lies from its free edge at 120 mm back to its fold, the right one from its fold at 180 mm.
      across: door === 'left' ? MEETING - middle : MEETING + DOOR - middle,
      along,
      outline: 'rectangle',
      height: 40,
      width: to - from,
      glued: { as: 'strip', side: door === 'left' ? 'left' : 'right', deep: 5 },
      stock: 'light-card-160',
      ...change,
    },
    METRIC_WORKSHOP,
  );
}
const orderOf = (card: CardDocument) => evaluated(card).dressed.order;

describe('doors whose toppers reach over one another', () => {
  it('have no order where nothing reaches over', () => {
    expect(orderOf(covering(covering(doors, 'left', 70, 119), 'right', 121, 170))).toEqual([]);
  });

  it('open one first or both at once where the one lies over the other at or past the middle', () => {
    // A point past the middle is farther from the left fold than from the right one: it rises faster with the left door.
    expect(orderOf(covering(doors, 'left', 100, 140))).toEqual([
      { panels: ['base/left-door', 'base/right-door'], order: 'first or together', first: 'base/left-door', over: expect.closeTo(20, 6) },
    ]);
    expect(orderOf(covering(doors, 'right', 105, 150))).toEqual([
      { panels: ['base/left-door', 'base/right-door'], order: 'first or together', first: 'base/right-door', over: expect.closeTo(15, 6) },
    ]);
  });

  it('open one first and not at once where what is under would rise faster', () => {
    // Worn inside the left door, it lies under the right one, farther from the left fold than from the right one.
    expect(orderOf(covering(doors, 'left', 100, 140, 75, { face: 'up' }))[0]).toMatchObject({ order: 'first', first: 'base/right-door' });
  });

  it('open only together where each lies over the other side by side', () => {
    const both = orderOf(covering(covering(doors, 'left', 100, 140, 30), 'right', 100, 140, 110));
    expect(both[0]).toMatchObject({ order: 'together', over: expect.closeTo(20, 6) });
    // Both touch the middle, where they rise alike: neither may be faster.
    expect(both[0]!.ratio).toEqual([expect.closeTo(1, 6), expect.closeTo(1, 6)]);
  });

  it('lock where the left holds down what reaches over it, with the narrower overlap and a fix that unlocks them', () => {
    // From the right door a sheet reaches to 90 mm over the left one; on its end another of the left door is glued later.
    const locked = covering(covering(doors, 'right', 90, 150), 'left', 70, 102);
    const told = finding(evaluated(locked), 'opens/base/left-door/base/right-door');
    expect(told).toMatchObject({ severity: 'fail', value: expect.closeTo(12, 6) });
    expect(told.says).toMatch(/lock one another.*narrower of both overlaps is 12 mm/);
    expect(orderOf(covering(covering(doors, 'right', 90, 150), 'left', 58, 90))[0]!.order).toBe('first or together');
    // Glued on first it lies under what reaches over it, and nothing is held down.
    expect(orderOf(covering(covering(doors, 'left', 70, 102), 'right', 90, 150))[0]!.order).toBe('first or together');
  });

  it('go by height before they go by the order of gluing', () => {
    // On foam of 3 mm the earlier one passes over the later one.
    const high = covering(covering(doors, 'right', 90, 150, 75, { foam: 3 }), 'left', 70, 102);
    expect(orderOf(high)[0]).toMatchObject({ order: 'first or together', first: 'base/right-door' });
  });

  it('are the same in a mirror', () => {
    const locked = covering(covering(doors, 'left', 90, 150), 'right', 138, 170);
    expect(orderOf(locked)[0]).toMatchObject({ order: 'locked', over: expect.closeTo(12, 6) });
  });

  it('say in the last steps which to open first', () => {
    const steps = benchSteps(evaluated(covering(doors, 'left', 100, 140)), METRIC_WORKSHOP);
    expect(steps.find(({ id }) => id === 'test')!.says.join(' ')).toContain(
      'Open the left door first, or both at once: it lies over the right door, or over what that carries.',
    );
  });
});
