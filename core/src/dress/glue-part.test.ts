import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { withTopper } from '../card/dress-card.js';
import { SIDES, type Topper } from '../card/dressing.js';
import { unite, totalArea } from '../plane/boolean.js';
import { areaOf, boxOf, rectangle } from '../plane/outline.js';
import { METRIC_WORKSHOP } from '../supplies/starter-workshops.js';
import { CLOSING_PLAY } from '../supplies/limits.js';
import { benchSteps } from '../plan/bench-steps.js';
import { cardOn, evaluated } from '../testing/evaluated.js';
import { gluePart, tagFor, TAG_PLAY } from './glue-part.js';

const sheet = rectangle(0, 0, 60, 40);

describe('glue on a part of a topper', () => {
  it('along one side is a strip there, and no more than the outline', () => {
    const strip = (side: (typeof SIDES)[number]) => boxOf(gluePart(sheet, { as: 'strip', side, deep: 15 })[0]!.outer);
    expect(strip('left')).toEqual({ minX: 0, maxX: 15, minY: 0, maxY: 40 });
    expect(strip('right')).toEqual({ minX: 45, maxX: 60, minY: 0, maxY: 40 });
    expect(strip('bottom')).toEqual({ minX: 0, maxX: 60, minY: 0, maxY: 15 });
    expect(strip('top')).toEqual({ minX: 0, maxX: 60, minY: 25, maxY: 40 });
    expect(areaOf(gluePart(sheet, { as: 'strip', side: 'top', deep: 300 })[0]!)).toBeCloseTo(2400, 6);
  });

  it('along three sides leaves a pocket: what is glued and what is free make up the outline', () => {
    for (const side of SIDES) {
      const upright = side === 'left' || side === 'right';
      const glue = gluePart(sheet, { as: 'pocket', side, deep: 6 });
      const free = upright ? (60 - 6) * (40 - 12) : (60 - 12) * (40 - 6);
      expect(totalArea(unite(glue))).toBeCloseTo(2400 - free, 4);
      expect(tagFor(sheet, { as: 'pocket', side, deep: 6 })).toEqual({
        width: expect.closeTo((upright ? 28 : 48) - TAG_PLAY, 6),
        deep: expect.closeTo(upright ? 54 : 34, 6),
      });
    }
  });

  it('takes the largest tag that a half disc holds, which is √2 · r wide and r ÷ √2 deep', () => {
    const round = Array.from({ length: 181 }, (_, i) => {
      const a = Math.PI + (i / 180) * Math.PI;
      return [50 * Math.cos(a), 50 * Math.sin(a)] as const;
    });
    const tag = tagFor(round, { as: 'pocket', side: 'top', deep: 2 })!;
    // What is free is a half disc of 48 mm: the rectangle in it of the largest face covers r².
    expect((tag.width + TAG_PLAY) * tag.deep).toBeGreaterThan(0.97 * 48 ** 2);
    expect((tag.width + TAG_PLAY) * tag.deep).toBeLessThan(1.01 * 48 ** 2);
  });

  it('has no tag where the glued edges meet', () => {
    expect(tagFor(sheet, { as: 'pocket', side: 'top', deep: 30 })).toBeUndefined();
  });
});

/** A card whose two doors, each half as wide as the card, meet in front. */
const doors = cardOn('rising-strip-doors');
const onDoor = (change: Partial<Topper>) =>
  withTopper(
    doors,
    {
      ...{ panel: 'base/left-door', face: 'down', across: 0, along: 75, outline: 'rectangle', height: 40, width: 60, stock: 'card-250' },
      ...change,
    },
    METRIC_WORKSHOP,
  );
const shut = (change: Partial<Topper>) => evaluated(onDoor(change)).findings.find(({ id }) => id === 'dressing-placed/topper-1/shut');

describe('a front that hangs over the other door', () => {
  it('is glued to both doors where it is glued all over, and told with how far and how wide its glue may be', () => {
    const told = shut({});
    // Its middle lies on the free edge of the left door: half of its 60 mm are on the right one.
    expect(told).toMatchObject({ severity: 'fail', value: expect.closeTo(30, 6), panels: ['base/left-door', 'base/right-door'] });
    expect(told!.says).toMatch(/reaches 30 mm onto the right door.*only along its left side, 29 mm wide at most/);
  });

  it('is told exactly where its glue reaches the other door, whatever its width and its glue', () => {
    const sizes = fc.record({ width: fc.integer({ min: 20, max: 90 }), deep: fc.integer({ min: 2, max: 90 }) });
    fc.assert(
      fc.property(sizes, ({ width, deep }) => {
        const told = shut({ width, glued: { as: 'strip', side: 'left', deep } });
        const over = Math.min(deep, width) - width / 2;
        if (over <= CLOSING_PLAY) expect(told).toBeUndefined();
        else expect(told?.value).toBeCloseTo(Math.min(over, 40), 6);
      }),
      { numRuns: 25, seed: 7 },
    );
  });

  it('is mended by the glue that the sentence names, and by foam, whose pads stay on their own door', () => {
    expect(shut({ glued: { as: 'strip', side: 'left', deep: 29 } })).toBeUndefined();
    expect(shut({ foam: 2 })).toBeUndefined();
  });

  it('from the other side is the same in a mirror', () => {
    const across = 60;
    const told = shut({ panel: 'base/right-door', across });
    expect(told).toMatchObject({ value: expect.closeTo(30, 6) });
    expect(told!.says).toMatch(/onto the left door.*only along its right side, 29 mm wide at most/);
  });

  it('is glued so in the steps, and a pocket names its tag', () => {
    const says = (change: Partial<Topper>): string =>
      benchSteps(evaluated(onDoor(change)), METRIC_WORKSHOP)
        .find(({ id }) => id === 'toppers')!
        .says.join(' ');
    expect(says({ glued: { as: 'strip', side: 'left', deep: 20 } })).toContain('glued flat, only along its left side, 20 mm wide.');
    expect(says({ across: 30, width: 40, glued: { as: 'pocket', side: 'top', deep: 5 }, removable: true })).toContain(
      'its upper side left open: a pocket for a tag 29 mm wide that goes in 35 mm, with glue that lets go again.',
    );
  });
});
