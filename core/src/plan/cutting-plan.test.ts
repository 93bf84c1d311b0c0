import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { setSize } from '../card/set-size.js';
import { cardToTry } from '../card/try-out.js';
import { DEMO_CARDS } from '../card/demo-cards.js';
import { withTopperChanged } from '../card/dress-card.js';
import { everySheet } from '../dress/every-sheet.js';
import { CATALOGUE } from '../mechanism/catalogue.js';
import { starterFor } from '../supplies/starter-workshops.js';
import { dice } from '../testing/any-tree.js';
import { cardOn, evaluated } from '../testing/evaluated.js';
import { judgedJob, wrongWithCuts, wrongWithPlaces } from '../testing/sheet-laws.js';
import { grainOn } from './cut-job.js';
import { cuttingPlan, type CuttingPlan, type PlanAsked } from './cutting-plan.js';
import { fenceCuts } from './fence-cuts.js';
import { freeLayout } from './free-layout.js';
import { guillotine, leftOf, placedOn, THIN, usedOf, type Blank } from './guillotine.js';
import { leastSheets } from './least-sheets.js';

const workshop = starterFor('mm');
const alike = (count: number, width: number, height: number, lies: Blank['lies'] = 'either'): Blank[] =>
  Array.from({ length: count }, (_, i) => ({ id: `${width}x${height}#${i}`, width, height, lies }));
const A4 = { width: 210, height: 297 };

describe('blanks cut edge to edge', () => {
  it('that fill a sheet leave nothing of it, with as many cuts as there are blanks less one', () => {
    // Eight of a quarter by a half: 52.5 × 148.5 of 210 × 297.
    const blanks = alike(8, 52.5, 148.5);
    const layout = guillotine(blanks, A4, 1);
    expect(layout.sheets).toHaveLength(1);
    expect(leftOf(layout.sheets[0]!)).toEqual([]);
    expect(fenceCuts(layout.sheets[0]!)).toHaveLength(7);
    expect(wrongWithCuts(layout, blanks, A4)).toEqual([]);
    // Two settings: half the height, and a quarter of the width.
    expect(new Set(fenceCuts(layout.sheets[0]!).map(({ fence }) => fence)).size).toBeLessThanOrEqual(3);
  });

  it('of which no two lie on one sheet take a sheet each', () => {
    const layout = guillotine(alike(5, 150, 200, 'upright'), A4, 5);
    expect(layout.sheets).toHaveLength(5);
    expect(layout.sheets.every((sheet) => placedOn(sheet).length === 1)).toBe(true);
  });

  it('turned only where they may be', () => {
    const on = { width: 100, height: 200 };
    expect(guillotine(alike(1, 150, 90, 'upright'), on, 1).tooLarge).toHaveLength(1);
    const turned = guillotine(alike(1, 150, 90), on, 1);
    expect(placedOn(turned.sheets[0]!)[0]).toMatchObject({ turned: true, width: 90, height: 150 });
  });

  it('say so when one is larger than the sheet, and cut the others', () => {
    const layout = guillotine([...alike(1, 400, 20), ...alike(2, 50, 50)], A4, 1);
    expect(layout.tooLarge.map(({ width }) => width)).toEqual([400]);
    expect(usedOf(layout.sheets[0])).toBe(2 * 50 * 50);
  });

  it('hold the wide side where a thin strip falls off', () => {
    const layout = guillotine(alike(1, 8, 297, 'upright'), A4, 1);
    const [cut] = fenceCuts(layout.sheets[0]!);
    expect(8).toBeLessThan(THIN);
    expect(cut).toMatchObject({ edge: 'right', fence: 202, thin: true, from: [8, 0], to: [8, 297] });
  });

  it('that are thin are cut off last, each from a part that can be held', () => {
    const layout = guillotine(alike(6, 36, 8), A4, 1);
    const cuts = fenceCuts(layout.sheets[0]!);
    expect(cuts.length).toBeGreaterThan(5);
    for (const { part } of cuts) expect(Math.min(part.width, part.height)).toBeGreaterThanOrEqual(THIN);
  });

  it('are the same for the same seed, and stop when they are told to', () => {
    const blanks = [...alike(7, 80, 60), ...alike(5, 47, 110), ...alike(9, 33, 31)];
    expect(guillotine(blanks, A4, 1, 5)).toEqual(guillotine(blanks, A4, 1, 5));
    let asked = 0;
    const stopped = guillotine(blanks, A4, 1, 5, () => ++asked < 3);
    expect(asked).toBe(3);
    expect(wrongWithCuts(stopped, blanks, A4)).toEqual([]);
  });

  it('of random jobs are cut as the cuts say, on no more sheets than a general packer takes', () => {
    const next = dice(11);
    for (let i = 0; i < 40; i++) expect(judgedJob(next).wrong).toEqual([]);
  });
});

describe('the least number of sheets', () => {
  it('is one more than half as many sheets as large squares, and the area of small ones', () => {
    // Squares of more than half a side: one on a sheet.
    expect(leastSheets(alike(7, 160, 160), { width: 300, height: 300 })).toBe(7);
    expect(leastSheets(alike(16, 75, 75), { width: 300, height: 300 })).toBe(1);
    expect(leastSheets(alike(17, 75, 75), { width: 300, height: 300 })).toBe(2);
    expect(leastSheets([], A4)).toBe(0);
    // Strips of a third lie beside one of two thirds, but not two of two thirds.
    expect(leastSheets([...alike(2, 200, 300, 'upright'), ...alike(2, 100, 300, 'upright')], { width: 300, height: 300 })).toBe(2);
  });

  it('never is more than a layout that is there', () => {
    // A sheet cut up at random holds its own pieces on one sheet.
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.nat(20), fc.boolean(), fc.double({ min: 0.1, max: 0.9, noNaN: true })), { maxLength: 12 }),
        (cuts) => {
          let parts = [{ width: 200, height: 300 }];
          for (const [which, upright, share] of cuts) {
            const { width, height } = parts[which % parts.length]!;
            const halves = upright
              ? [
                  { width: width * share, height },
                  { width: width * (1 - share), height },
                ]
              : [
                  { width, height: height * share },
                  { width, height: height * (1 - share) },
                ];
            parts = [...parts.filter((_, i) => i !== which % parts.length), ...halves];
          }
          const blanks = parts.map((part, i): Blank => ({ id: String(i), ...part, lies: 'either' }));
          return leastSheets(blanks, { width: 200, height: 300 }) === 1;
        },
      ),
    );
  });
});

describe('blanks cut along their outlines', () => {
  it('keep room between them, and are cut from what others leave open', () => {
    const frame: Blank = { id: 'frame', width: 200, height: 280, lies: 'upright' };
    const small = alike(2, 90, 120);
    // Beside the frame there is nothing: its opening of 190 × 250 holds both, less 2 mm along every edge.
    const layout = freeLayout([frame, ...small], A4, 2, ({ id }) => (id === 'frame' ? [{ x: 5, y: 15, width: 190, height: 250 }] : []));
    expect(layout.sheets).toHaveLength(1);
    const inside = layout.sheets[0]!.placed.filter(({ blank }) => blank !== frame);
    const at = layout.sheets[0]!.placed.find(({ blank }) => blank === frame)!;
    expect(inside).toHaveLength(2);
    for (const { x, y, width, height } of inside) {
      expect(x - at.x).toBeGreaterThanOrEqual(7 - 1e-6);
      expect(y - at.y).toBeGreaterThanOrEqual(17 - 1e-6);
      expect(x - at.x + width).toBeLessThanOrEqual(193 + 1e-6);
      expect(y - at.y + height).toBeLessThanOrEqual(263 + 1e-6);
    }
    expect(wrongWithPlaces([inside], small, A4, 2)).toEqual([]);
    expect(freeLayout([frame, ...small], A4, 2).sheets).toHaveLength(2);
  });
});

describe('the cutting plan of a card', () => {
  const plan = (card: Parameters<typeof evaluated>[0], asked: Partial<PlanAsked> = {}): CuttingPlan =>
    cuttingPlan(evaluated(card), { copies: 1, tool: 'trimmer', sheets: [], ...asked }, workshop);

  it('of two plain leaves of A6 is half an A5 sheet and nothing left', () => {
    const card = cardOn('folded-card', { depth: 105, length: 148 });
    const { sheets, waste, bound } = plan(card, { sheets: [{ width: 210, height: 148 }] });
    expect(sheets[0]!.pieces).toMatchObject([{ id: 'base', x: 0, y: 0, width: 210, height: 148, turned: false }]);
    expect([sheets[0]!.cuts, sheets[0]!.leftovers, waste, bound]).toEqual([[], [], 0, 0]);
  });

  it('lays main scores along the grain, or says that they run across it where the card comes out no other way', () => {
    const card = cardOn('folded-card', { depth: 105, length: 148 });
    // On a sheet that is higher than wide a long grain runs up, as the scores do.
    expect(grainOn(evaluated(card).design.stocks.base, A4)).toBe('up');
    expect(plan(card, { sheets: [A4] }).sheets[0]!.pieces[0]).toMatchObject({ turned: false });
    expect(plan(card, { sheets: [{ width: 297, height: 210 }] }).sheets[0]!.pieces[0]).toMatchObject({ turned: true });
    const wide = setSize(card, 'base', 'depth', 145);
    expect(plan(wide, { sheets: [A4] }).sheets[0]!.pieces[0]).toMatchObject({ turned: true, acrossGrain: true });
  });

  it('leaves out what comes out of no sheet, and says so', () => {
    const { leftOut, sheets } = plan(cardOn('folded-card', { depth: 150, length: 148 }), { sheets: [{ width: 200, height: 200 }] });
    expect(sheets).toEqual([]);
    expect(leftOut).toMatchObject([{ id: 'base', says: expect.stringContaining('300 mm × 148 mm, comes out of no sheet') as string }]);
  });

  it('takes the smaller of two sheets at hand where that does, and says what is left over for', () => {
    const card = cardOn('folded-card', { depth: 105, length: 148 });
    const { sheets } = plan(card, { copies: 3, sheets: [{ width: 297, height: 420 }, A4] });
    // Two come out of A4, three out of A3: an A3 is as much as two A4.
    expect(sheets.reduce((sum, { width, height }) => sum + width * height, 0)).toBeCloseTo(2 * 210 * 297, 0);
    const left = plan(card, { sheets: [A4] }).sheets[0]!.leftovers[0]!;
    // 210 × 149 is left of 210 × 297: another card.
    expect(left).toMatchObject({ width: 210, height: 149, goodFor: ['Card'] });
  });

  it.each(CATALOGUE.map(({ id }) => [id] as const))('of %s, three times, holds every piece, each cut as it is', (id) => {
    const card = cardToTry(CATALOGUE.find((mechanism) => mechanism.id === id)!);
    const evaluation = evaluated(card);
    const expected = everySheet(evaluation);
    for (const tool of ['trimmer', 'free'] as const) {
      const { sheets, leftOut, waste, bound, leastSheets: least } = cuttingPlan(evaluation, { copies: 3, tool, sheets: [] }, workshop);
      const pieces = sheets.flatMap((sheet) => sheet.pieces);
      expect(pieces.length + leftOut.length).toBe(3 * expected.length);
      for (const { piece, width, height, turned } of pieces) {
        const sheet = expected.find((one) => one.piece.id === piece)!;
        expect([width, height]).toEqual(turned ? [sheet.height, sheet.width] : [sheet.width, sheet.height]);
      }
      expect(new Set(pieces.map((piece) => piece.id)).size).toBe(pieces.length);
      expect(sheets.length).toBeGreaterThanOrEqual(least);
      expect(waste).toBeGreaterThanOrEqual(bound - 1e-9);
    }
  });

  it('of a dressed card has its layers and toppers, patterned paper upright', () => {
    const card = DEMO_CARDS.find(({ dressing }) => (dressing?.toppers ?? []).length > 0)!;
    const evaluation = evaluated(card);
    const { sheets, leftOut } = cuttingPlan(evaluation, { copies: 2, tool: 'trimmer', sheets: [] }, workshop);
    const pieces = sheets.flatMap(({ stock, pieces: own }) => own.map((piece) => ({ stock, piece })));
    expect(pieces.length + leftOut.length).toBe(2 * everySheet(evaluation).length);
    const patterned = pieces.filter(({ stock }) => stock.goodSides === 1 && stock.kind === 'paper');
    expect(patterned.length).toBeGreaterThan(0);
    const scored = new Set(everySheet(evaluation).flatMap((sheet) => (sheet.scores.length > 0 ? [sheet.piece.id] : [])));
    expect(patterned.filter(({ piece }) => !scored.has(piece.piece)).every(({ piece }) => !piece.turned)).toBe(true);
  });
});

describe('spares', () => {
  const worn = DEMO_CARDS.find((card) => (card.dressing?.toppers?.length ?? 0) > 0)!;

  it('are one more of each topper and of the papers behind it, whatever the number of cards, and of nothing else', () => {
    const first = worn.dressing!.toppers![0]!;
    const evaluation = evaluated(
      withTopperChanged(worn, first.id, { backings: [{ border: 3, stock: first.stock }], twin: undefined }, workshop),
    );
    const pieces = (copies: number, spares: boolean) =>
      cuttingPlan(evaluation, { copies, tool: 'free', sheets: [{ width: 320, height: 450 }], spares }, workshop).sheets.flatMap(
        (sheet) => sheet.pieces,
      );
    const toppers = evaluation.dressed.toppers.flatMap(({ id, under }) => [id, ...under.map((each) => each.id)]).sort();
    expect(toppers).toContain(`topper-${first.id}-a`);
    for (const copies of [1, 3]) {
      const [without, having] = [pieces(copies, false), pieces(copies, true)];
      const more = having.filter(({ spare }) => spare);
      expect(more.map(({ piece }) => piece).sort()).toEqual(toppers);
      expect(more.every(({ name }) => name.endsWith(', spare'))).toBe(true);
      expect(having.length - more.length).toBe(without.length);
      expect(new Set(having.map(({ id }) => id)).size).toBe(having.length);
    }
  });

  it('stay one, where a topper is cut thrice and glued together for every card', () => {
    const { id } = worn.dressing!.toppers![0]!;
    const evaluation = evaluated(withTopperChanged(worn, id, { times: 3 }, workshop));
    const own = (copies: number) =>
      cuttingPlan(evaluation, { copies, tool: 'free', sheets: [{ width: 320, height: 450 }], spares: true }, workshop).sheets.flatMap(
        (sheet) => sheet.pieces.filter(({ piece }) => piece === `topper-${id}`),
      );
    for (const copies of [1, 2]) {
      const pieces = own(copies);
      expect(pieces.filter(({ spare }) => !spare).length).toBe(3 * copies);
      expect(pieces.filter(({ spare }) => spare).length).toBe(1);
      expect(new Set(pieces.map((each) => each.id)).size).toBe(pieces.length);
    }
  });

  it('of a card without toppers are none', () => {
    const plan = (spares: boolean) =>
      cuttingPlan(evaluated(cardOn('folded-card')), { copies: 2, tool: 'trimmer', sheets: [A4], spares }, workshop);
    expect(plan(true)).toEqual(plan(false));
  });
});
