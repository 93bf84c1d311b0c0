import { describe, expect, it } from 'vitest';
import { dressedBy, dressedOtherwise, linedOver } from '../card/dress-card.js';
import { withOwnSupplies, type CardDocument } from '../card/document.js';
import type { LinedFold } from '../card/dressing.js';
import { benchSteps } from '../plan/bench-steps.js';
import { joinsOfLayer } from '../plan/joins-said.js';
import { materialsOf } from '../plan/materials.js';
import { writeCsv } from '../format/csv.js';
import { CATALOGUE } from '../mechanism/catalogue.js';
import { subtract, totalArea } from '../plane/boolean.js';
import { areaOf, boxOf, movedArea } from '../plane/outline.js';
import { place, undone } from '../plane/placement.js';
import { starterFor } from '../supplies/starter-workshops.js';
import { cardOn, evaluated, stockById } from '../testing/evaluated.js';
import { everySheet } from './every-sheet.js';
import { foldBetween } from './liner.js';

const workshop = starterFor('mm');
const INSIDE: LinedFold = { face: 'up', panels: ['base/front-leaf', 'base/back-leaf'] };

const folded = (sizes = {}): CardDocument =>
  linedOver(dressedBy(cardOn('folded-card', { depth: 105, length: 148, ...sizes }), { border: 3 }, workshop), INSIDE, true);

describe('layers that are one piece over a fold', () => {
  it('are shorter by half a turn of how far inside the fold they lie, and are scored in the middle', () => {
    const card = folded();
    const evaluation = evaluated(card);
    const [first, second] = evaluation.dressed.layers.filter(({ face }) => face === 'up');
    const base = stockById(card.stocks.base);
    // Both leaves less 3 mm at every free edge, less π · (t + t′) / 2.
    const shorter = (Math.PI * (base.caliper + first!.stock.caliper)) / 2;
    expect(first!.sheet).toBe(second!.sheet);
    expect(first!.sheet.width).toBeCloseTo(2 * 105 - 2 * 3 - shorter, 6);
    expect(first!.sheet.height).toBeCloseTo(142, 6);
    expect(first!.sheet.scores).toHaveLength(1);
    expect(first!.sheet.scores[0]!.from[0]).toBeCloseTo((204 - shorter) / 2, 6);
    expect(first!.sheet.scores[0]!.fold).toBe('valley');
    expect([first!.number, second!.number]).toEqual(['L1', 'L1']);
    expect(boxOf(first!.area.outer)).toEqual({ minX: 3, maxX: 105, minY: 3, maxY: 145 });
  });

  it('agree with the liner that the card itself may have', () => {
    const card = cardOn('folded-card', { depth: 105, length: 148, liner: 'one-piece', linerBorder: 3, linerBorderAlong: 3 });
    const own = evaluated(withOwnSupplies({ ...card, stocks: { ...card.stocks, mechanism: 'text-100' } }, workshop));
    const worn = evaluated(dressedBy(folded(), { stock: 'text-100' }, workshop));
    const liner = own.sheets.find(({ piece }) => piece.id === 'liner')!;
    const layer = worn.dressed.layers.find(({ face }) => face === 'up')!;
    expect(layer.sheet.width).toBeCloseTo(liner.width, 6);
    expect(layer.sheet.scores[0]!.from[0]).toBeCloseTo(liner.scores[0]!.from[0], 6);
  });

  it('span a spine with two scores as far apart as its own', () => {
    const evaluation = evaluated(folded({ spine: 'auto', innerThickness: 2 }));
    const [spine] = Object.values(evaluation.closed.spines) as [number];
    const { sheet, liner } = evaluation.dressed.layers.find(({ face }) => face === 'up')!;
    expect(sheet.scores).toHaveLength(2);
    expect(sheet.scores[1]!.from[0] - sheet.scores[0]!.from[0]).toBeCloseTo(spine, 6);
    expect(sheet.width).toBeCloseTo(204 + spine - liner!.folds[0]!.shorter, 6);
  });

  it('are cut once, and glued on every panel by what lies on that', () => {
    const evaluation = evaluated(folded());
    const ids = everySheet(evaluation).map(({ piece }) => piece.id);
    expect(new Set(ids).size).toBe(ids.length);
    const own = evaluation.dressed.layers.filter(({ liner }) => liner);
    const joins = own.flatMap((layer) => joinsOfLayer(evaluation, layer));
    expect(joins.map(({ onto }) => boxOf(onto.outline))).toEqual([
      { minX: 3, maxX: 105, minY: 3, maxY: 145 },
      { minX: 105, maxX: 207, minY: 3, maxY: 145 },
    ]);
    const [sheet] = new Set(own.map((layer) => layer.sheet));
    for (const { glued } of joins) {
      expect(glued.piece).toBe(sheet!.piece.id);
      const box = boxOf(glued.outline);
      expect(box.minX).toBeGreaterThan(-1e-6);
      expect(box.maxX).toBeLessThan(sheet!.width + 1e-6);
    }
    // What is to be had ready has it once, as large as it is cut.
    const ready = materialsOf(evaluation, workshop)
      .map(({ detail }) => detail)
      .join(' ');
    expect(ready.match(/L1 /g)).toHaveLength(1);
    expect(
      writeCsv(evaluation)
        .split('\n')
        .filter((line) => line.includes('L1, across')),
    ).toHaveLength(1);
    const said = benchSteps(evaluation, workshop).flatMap(({ says }) => says);
    expect(said.filter((line) => line.startsWith('L1 on the front leaf and the back leaf, in one piece'))).toHaveLength(1);
    expect(said.some((line) => line.startsWith('Glue L1 on the front leaf alone'))).toBe(true);
  });

  it('carry further layers that stay apart', () => {
    const evaluation = evaluated(dressedBy(folded(), { steps: 2 }, workshop));
    const upper = evaluation.dressed.layers.filter(({ face, step }) => face === 'up' && step === 2);
    expect(upper.map(({ box }) => box.width)).toEqual([expect.closeTo(105 - 12, 6), expect.closeTo(105 - 12, 6)]);
    expect(upper.every(({ liner }) => liner === undefined)).toBe(true);
    const [onto] = joinsOfLayer(evaluation, upper[1]!);
    expect(onto!.onto.piece).toBe(evaluation.dressed.layers.find(({ liner }) => liner)!.sheet.piece.id);
  });

  it('are apart, and told so, where one of them is left bare, and as before when they are parted again', () => {
    const apart = evaluated(dressedOtherwise(folded(), { panel: 'base/back-leaf', face: 'up' }, { bare: true }));
    expect(apart.findings.find(({ id }) => id.endsWith('/liner'))!.says).toContain('the back leaf wears none there');
    expect(apart.dressed.layers.find(({ face }) => face === 'up')!.box.width).toBeCloseTo(99, 6);
    const plain = dressedBy(cardOn('folded-card', { depth: 105, length: 148 }), { border: 3 }, workshop);
    expect(linedOver(folded(), INSIDE, false).dressing).toEqual(plain.dressing);
  });

  it.each(CATALOGUE.filter(({ kind }) => kind === 'base').map(({ id }) => id))(
    'of %s lie on their panels wherever a fold is between two',
    (base) => {
      const plain = dressedBy(cardOn(base), { border: 3 }, workshop);
      const before = evaluated(plain).dressed.layers.filter(({ step, covers }) => step === 1 && !covers);
      const { design } = evaluated(plain);
      const folds = before.flatMap((a, i): LinedFold[] =>
        before
          .slice(i + 1)
          .filter((b) => b.face === a.face && foldBetween(design, [a.panel, b.panel]))
          .map((b) => ({ face: a.face, panels: [a.panel, b.panel] })),
      );
      const { dressed } = evaluated(folds.reduce((card, fold) => linedOver(card, fold, true), plain));
      const lined = dressed.layers.filter(({ liner }) => liner);
      expect(lined.length > 0).toBe(folds.length > 0);
      for (const sheet of new Set(lined.map((layer) => layer.sheet))) {
        const own = lined.filter((layer) => layer.sheet === sheet);
        const paper = { outer: sheet.outline, holes: sheet.windows.map(({ outline }) => outline) };
        for (const layer of own) {
          // As it lies on its panel it is cut: nothing of it is outside its sheet.
          const there = movedArea(layer.area, (point) => place(point, undone(layer.placement)));
          expect(totalArea(subtract([there], [paper]))).toBeLessThan(0.02);
        }
        // Together they are the sheet, but for what the folds take and give.
        const most = own.reduce((sum, { area }) => sum + areaOf(area), 0);
        const folds = own[0]!.liner!.folds.reduce((sum, { shorter }) => sum + Math.abs(shorter), 0);
        expect(Math.abs(areaOf(paper) - most)).toBeLessThan(folds * 2 * (sheet.width + sheet.height) + 0.1);
        expect(sheet.scores.length).toBeGreaterThanOrEqual(own[0]!.liner!.folds.length);
      }
    },
  );
});
