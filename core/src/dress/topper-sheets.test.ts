import * as v from 'valibot';
import { describe, expect, it } from 'vitest';
import { withTopper } from '../card/dress-card.js';
import { dressingSchema, type Topper } from '../card/dressing.js';
import type { CardDocument } from '../card/document.js';
import { joinsOfTopper, joinsTogether } from '../plan/joins-said.js';
import { benchSteps } from '../plan/bench-steps.js';
import { materialsOf } from '../plan/materials.js';
import { told } from '../measure/sentence.js';
import { intersect, subtract, totalArea } from '../plane/boolean.js';
import { areaOf, asArea, boxOf, movedArea, type Loop } from '../plane/outline.js';
import { place } from '../plane/placement.js';
import { GLUE_FILM } from '../supplies/limits.js';
import { METRIC_WORKSHOP } from '../supplies/starter-workshops.js';
import { isClear } from '../supplies/stocks.js';
import { cardOn, evaluated, finding, stockById } from '../testing/evaluated.js';
import { filmFoot } from './film-foot.js';

/** Two leaves of 100 × 140 mm. */
const folded = cardOn('folded-card', { depth: 100, length: 140 }, { within: 'envelope' });
const given: Omit<Topper, 'id'> = {
  ...{ panel: 'base/front-leaf', face: 'up', across: 50, along: 70 },
  ...{ outline: 'rectangle', height: 40, width: 30, stock: 'card-250' },
};
const dressedIn = (change: Partial<Topper>, card: CardDocument = folded) =>
  evaluated(withTopper(card, { ...given, ...change }, METRIC_WORKSHOP));
const sizeOf = (loop: Loop): [number, number] => {
  const { minX, maxX, minY, maxY } = boxOf(loop);
  return [maxX - minX, maxY - minY];
};
const close = (...values: number[]) => values.map((value): unknown => expect.closeTo(value, 6));

describe('papers behind a topper', () => {
  const backings = [
    { border: 3, stock: 'text-100' },
    { border: 2, stock: 'heavy-card-300' },
  ];

  it('are each wider than what lies on them by their border all round, the widest lowest', () => {
    const [topper] = dressedIn({ backings }).dressed.toppers;
    expect(topper!.under.map(({ number }) => number)).toEqual(['T1b', 'T1a']);
    // 30 × 40 mm with 3 mm round it, and that with 2 mm more.
    const [second, first] = topper!.under;
    expect(sizeOf(first!.area.outer)).toEqual(close(36, 46));
    expect(sizeOf(second!.area.outer)).toEqual(close(40, 50));
    expect([second!.sheet.width, second!.sheet.height]).toEqual(close(40, 50));
    const { minX, minY } = boxOf(second!.area.outer);
    expect([minX, minY]).toEqual(close(50 - 20, 70 - 25));
  });

  it('count in the closed pile, on the scales and among the pieces', () => {
    const plain = dressedIn({});
    const several = dressedIn({ backings });
    const [thin, heavy] = [stockById('text-100'), stockById('heavy-card-300')];
    expect(several.closed.thickest.thickness - plain.closed.thickest.thickness).toBeCloseTo(
      thin.caliper + heavy.caliper + 2 * GLUE_FILM,
      6,
    );
    // 36 × 46 mm of 100 g/m² and 40 × 50 mm of 300 g/m².
    expect(several.standing.weight - plain.standing.weight).toBeCloseTo((36 * 46 * 100 + 40 * 50 * 300) / 1e6, 6);
    expect(materialsOf(several, METRIC_WORKSHOP).map(({ what }) => what)).toEqual(
      expect.arrayContaining(['T1a, paper behind it', 'T1b, paper behind it']),
    );
    expect(several.design.card.supplies.stocks.map(({ id }) => id)).toEqual(expect.arrayContaining(['text-100', 'heavy-card-300']));
  });

  it('carry the foam and the glue, under the widest of them', () => {
    const [topper] = dressedIn({ backings, foam: 2 }).dressed.toppers;
    const [widest] = topper!.under;
    const card = stockById('card-250').caliper;
    expect(widest!.thickness).toBeCloseTo(stockById('heavy-card-300').caliper + GLUE_FILM + 2 + GLUE_FILM, 9);
    expect(topper!.thickness).toBeCloseTo(card + GLUE_FILM, 9);
    expect(topper!.stands).toBeCloseTo(card + stockById('text-100').caliper + stockById('heavy-card-300').caliper + 2 + 4 * GLUE_FILM, 9);
    // Glue along the lower side, 10 mm deep, is 10 mm of the widest.
    const [strip] = dressedIn({ backings, glued: { as: 'strip', side: 'bottom', deep: 10 } }).dressed.toppers;
    expect(strip!.glue.reduce((sum, area) => sum + areaOf(area), 0)).toBeCloseTo(40 * 10, 6);
  });

  it('are what sticks out and what holds a fold, not only the topper on them', () => {
    // The topper ends 8 mm before the fold of the leaf, at 100 mm; two borders of 5 mm reach 2 mm over it.
    const wide = [
      { border: 5, stock: 'card-250' },
      { border: 5, stock: 'card-250' },
    ];
    const near = { across: 15 + 8, height: 40, width: 30 };
    const fold = (evaluation: ReturnType<typeof evaluated>) =>
      evaluation.findings.find(({ id }) => id.startsWith('dressing-placed/topper-1/base/'));
    expect(fold(dressedIn({ ...near, panel: 'base/back-leaf' }))).toBeUndefined();
    expect(fold(dressedIn({ ...near, panel: 'base/back-leaf', backings: wide }))).toMatchObject({ value: expect.closeTo(2, 6) as number });
  });

  it('are glued on one another in a step of their own, each place of glue on the paper under it', () => {
    const evaluation = dressedIn({ backings });
    const [topper] = evaluation.dressed.toppers;
    const step = benchSteps(evaluation, METRIC_WORKSHOP).find(({ id }) => id === 'together-topper-1')!;
    expect(step.says.join(' ')).toContain('Glue T1 on T1a, its paper showing 3 mm all round.');
    expect(step.says.join(' ')).toContain('Glue T1a on T1b, its paper showing 2 mm all round.');
    const [lower, upper] = joinsTogether(topper!);
    // T1a lies 2 mm inside T1b, T1 lies 3 mm inside T1a, as both are cut.
    expect(boxOf(lower!.onto.outline)).toEqual({ minX: close(2)[0], minY: close(2)[0], maxX: close(38)[0], maxY: close(48)[0] });
    expect(boxOf(upper!.onto.outline)).toEqual({ minX: close(3)[0], minY: close(3)[0], maxX: close(33)[0], maxY: close(43)[0] });
    expect(joinsOfTopper(evaluation, topper!).map(({ glued, onto }) => [glued.piece, onto.piece])).toEqual([['topper-topper-1-b', 'base']]);
  });
});

describe('a topper on film', () => {
  const film = { wide: 10, long: 60, stock: 'film-250' };
  /** Its middle 30 mm over the upper edge, at 140 mm: it begins 10 mm over that. */
  const above = { along: 170, film };

  it('stands on a strip that ends 3 mm under its upper edge and is glued down by what lies on the panel', () => {
    const [topper] = dressedIn(above).dressed.toppers;
    const [strip] = topper!.under;
    // Its upper edge is at 190 mm: film from 187 down to 127, so that 13 mm of it lie on the panel.
    expect(boxOf(strip!.area.outer)).toEqual({ minX: close(45)[0], maxX: close(55)[0], minY: close(127)[0], maxY: close(187)[0] });
    expect(topper!.glue.map(areaOf)).toEqual(close(10 * 13));
    const foot = filmFoot(topper!);
    expect([foot.on, foot.free, foot.toMiddle]).toEqual(close(13, 10, 30));
  });

  it('is told where the film hardly reaches its panel, with what it lacks', () => {
    const short = finding(dressedIn({ ...above, film: { ...film, long: 50 } }), 'dressing-placed/topper-1/film');
    expect(short).toMatchObject({ severity: 'fail', value: expect.closeTo(3, 6) as number, limit: 8 });
    const none = finding(dressedIn({ ...above, film: { ...film, long: 40 } }), 'dressing-placed/topper-1/film');
    expect(none).toMatchObject({ severity: 'fail', value: 0 });
  });

  it('is told where the film would buckle, by Euler, and how wide it would have to be', () => {
    const { caliper, weight, stiffness } = stockById('film-125');
    const load = (wide: number): number => (30 * 40 * 250 + 0.3 * 30 * wide * weight) / 1e6;
    const limit = (wide: number): number => ((Math.PI ** 2 * stiffness * ((wide * caliper ** 3) / 12)) / (4 * 30 ** 2) / 9.80665) * 1000;
    for (const wide of [3, 10]) {
      const found = finding(dressedIn({ ...above, film: { ...film, wide, stock: 'film-125' } }), 'stiff-enough/topper-1')!;
      expect(found.value).toBeCloseTo(load(wide), 6);
      expect(found.limit).toBeCloseTo(limit(wide), 6);
      expect(found.severity).toBe(load(wide) < limit(wide) ? 'pass' : 'warn');
    }
    // A heavy one on the thinnest strip is too much: papers behind it add 0.9 g.
    const backings = [{ border: 5, stock: 'board-400' }];
    const heavy = finding(
      dressedIn({ ...above, along: 220, film: { wide: 3, long: 140, stock: 'film-125' }, backings }),
      'stiff-enough/topper-1',
    )!;
    expect(heavy.severity).toBe('warn');
    const enough = Number(/at least (\d+) mm wide/.exec(told(heavy.says, 'mm'))?.[1]);
    const cured = finding(
      dressedIn({ ...above, along: 220, film: { wide: enough, long: 140, stock: 'film-125' }, backings }),
      'stiff-enough/topper-1',
    )!;
    const thinner = finding(
      dressedIn({ ...above, along: 220, film: { wide: enough - 1, long: 140, stock: 'film-125' }, backings }),
      'stiff-enough/topper-1',
    )!;
    expect([thinner.severity, cured.severity]).toEqual(['warn', 'pass']);
  });

  it('takes neither foam nor glue on a part', () => {
    const reads = (change: Partial<Topper>): boolean =>
      v.safeParse(dressingSchema, { toppers: [{ id: 'a', ...given, film, ...change }] }).success;
    expect(reads({})).toBe(true);
    expect(reads({ foam: 2 })).toBe(false);
    expect(reads({ glued: { as: 'strip', side: 'left', deep: 5 } })).toBe(false);
  });
});

describe('a twin', () => {
  /** A corner with its right angle on the lower left. */
  const card: CardDocument = {
    ...folded,
    outlines: [
      {
        id: 'own-corner',
        name: 'Corner',
        points: [
          [0, 0],
          [1, 0],
          [0, 1],
        ],
      },
    ],
  };
  const corner = { outline: 'own-corner', height: 40, width: 40, along: 140 };

  it('is the mirror image of what stands free, clear of its panel by a millimetre', () => {
    const [topper] = dressedIn({ ...corner, twin: true }, card).dressed.toppers;
    const [twin] = topper!.under;
    // From 120 to 160 mm; the leaf ends at 140. From 141 on the corner is a triangle of 19 mm.
    expect(twin!.number).toBe('T1 twin');
    expect(areaOf(twin!.area)).toBeCloseTo((19 * 19) / 2, 4);
    expect(boxOf(twin!.area.outer).minY).toBeCloseTo(141, 6);
    expect(twin!.placement.flipped).not.toBe(topper!.placement.flipped);
    // Laid down it covers that; as it is cut its right angle is on the right.
    const { outline } = twin!.sheet;
    const laid = movedArea(asArea(outline), (point) => place(point, twin!.placement));
    expect(Math.abs(totalArea(subtract([laid], [twin!.area])))).toBeLessThan(1e-6);
    expect(outline.some(([x, y]) => Math.abs(x - 19) < 1e-4 && Math.abs(y) < 1e-4)).toBe(true);
    expect(outline.some(([x, y]) => Math.abs(x - 19) < 1e-4 && Math.abs(y - 19) < 1e-4)).toBe(true);
    expect(outline.some(([x, y]) => Math.abs(x) < 1e-4 && Math.abs(y - 19) < 1e-4)).toBe(false);
  });

  it('leaves the thickness of what lies on the panel as it is, and is said where it has no place', () => {
    const [plain, twinned] = [dressedIn({ along: 140 }), dressedIn({ along: 140, twin: true })];
    expect(twinned.dressed.toppers[0]!.stands).toBe(plain.dressed.toppers[0]!.stands);
    expect(twinned.closed.thickest.thickness).toBeCloseTo(plain.closed.thickest.thickness, 9);
    // 19 mm of 30 mm of 250 g/m².
    expect(twinned.standing.weight - plain.standing.weight).toBeCloseTo((19 * 30 * 250) / 1e6, 6);
    const inside = dressedIn({ twin: true });
    expect(inside.dressed.toppers[0]!.under).toEqual([]);
    expect(finding(inside, 'dressing-placed/topper-1/twin')).toMatchObject({ severity: 'warn' });
  });

  it('lies on the other face of clear film, where nothing is glued there', () => {
    const stand = cardOn('film-stand');
    const { design } = evaluated(stand);
    const clear = design.panels
      .filter(({ piece }) => isClear(design.stocks[piece.stock]))
      .sort((a, b) => areaOf(b.area) - areaOf(a.area))[0]!;
    const { minX, maxX, minY, maxY } = boxOf(clear.area.outer);
    const on = { panel: clear.id, across: (maxX - minX) / 2, along: (maxY - minY) / 2, height: 12, width: 12, twin: true as const };
    const evaluation = dressedIn(on, stand);
    const [topper] = evaluation.dressed.toppers;
    const [twin] = topper!.under;
    expect(twin!.face).toBe('down');
    expect(Math.abs(totalArea(intersect([twin!.area], [topper!.area])))).toBeCloseTo(144, 4);
    const said = benchSteps(evaluation, METRIC_WORKSHOP).find(({ id }) => id === 'toppers')!;
    expect(said.says.join(' ')).toContain('T1 twin goes behind it on the other side of the film');
    expect(
      joinsOfTopper(evaluation, topper!).some(({ glued, onto }) => glued.piece === 'topper-topper-1-twin' && onto.face === 'down'),
    ).toBe(true);
  });
});
