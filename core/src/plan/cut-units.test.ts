import { describe, expect, it } from 'vitest';
import { DEMO_CARDS } from '../card/demo-cards.js';
import type { CardDocument } from '../card/document.js';
import { dressedBy } from '../card/dress-card.js';
import { poseOf } from '../linkage/motion.js';
import { carry } from '../linkage/rigid.js';
import { place } from '../plane/placement.js';
import { distance, type Point } from '../plane/point.js';
import { starterFor } from '../supplies/starter-workshops.js';
import { cardOn, evaluated } from '../testing/evaluated.js';
import { wrongWithCuts } from '../testing/sheet-laws.js';
import { besideWords, rowFrom } from './beside-words.js';
import { asPlaced, cuttingPlan, type PlannedPiece } from './cutting-plan.js';
import { movedByHand } from './moved-by-hand.js';
import { onSheet } from './outline-nesting.js';
import { partsBetween } from './parts-between.js';

const workshop = starterFor('mm');

describe.each(['Doors to the autumn walk', 'Fern and snail, tucked wings', 'Logs at the doors'])(
  'layers over which a picture runs, of %s',
  (name) => {
    const evaluation = evaluated(DEMO_CARDS.find((card) => card.name === name)!);
    const fronts = evaluation.dressed.layers.filter(({ seams, shows }) => seams > 0 && shows.includes('closed'));
    /** A corner of a layer's sheet in the closed card. */
    const closed = (layer: (typeof fronts)[number], corner: Point): Point => {
      const { design, motion } = evaluation;
      const flat = motion.pressed ?? motion;
      const [x, y] = carry(poseOf(flat, flat.frames[0]!)[design.linkage.bodyOf.get(layer.panel)!]!, ...place(corner, layer.placement), 0);
      return [x, y];
    };

    it.each(['trimmer', 'free'] as const)('are cut as they lie in the closed card, by %s', (tool) => {
      expect(fronts).toHaveLength(2);
      const { sheets } = cuttingPlan(evaluation, { copies: 2, tool, sheets: [] }, workshop);
      for (const copy of [1, 2]) {
        const [a, b] = fronts.map(({ id }) => {
          const on = sheets.findIndex(({ pieces }) => pieces.some((piece) => piece.piece === id && piece.copy === copy));
          return { on, piece: sheets[on]!.pieces.find((piece) => piece.piece === id && piece.copy === copy)! };
        }) as [{ on: number; piece: PlannedPiece }, { on: number; piece: PlannedPiece }];
        expect(a.on).toBe(b.on);
        expect([a.piece.beside, b.piece.beside]).toEqual([b.piece.id, a.piece.id]);
        // However far a corner of one is from a corner of the other in the card, it is on the sheet.
        const corners = ({ sheet: { width, height } }: (typeof fronts)[number]): Point[] => [
          [0, 0],
          [width, 0],
          [width, height],
          [0, height],
        ];
        for (const p of corners(fronts[0]!)) {
          for (const q of corners(fronts[1]!)) {
            const there = distance(closed(fronts[0]!, p), closed(fronts[1]!, q));
            expect(distance(onSheet(p, asPlaced(a.piece)), onSheet(q, asPlaced(b.piece)))).toBeCloseTo(there, 6);
          }
        }
      }
      if (tool === 'free') return;
      for (const sheet of sheets) {
        const blanks = sheet.pieces.map(({ id, width, height }) => ({ id, width, height, lies: 'either' as const }));
        const placed = sheet.pieces.map((piece) => {
          const { blank, ...one } = asPlaced(piece);
          return { ...one, turned: false, blank: { ...blank, width: one.width, height: one.height } };
        });
        expect(wrongWithCuts({ sheets: [partsBetween(sheet, placed)!], tooLarge: [] }, blanks, sheet)).toEqual([]);
        expect(sheet.cuts.length).toBeGreaterThan(0);
      }
    });

    it('are moved together by hand, and part when one is turned', () => {
      const { sheets } = cuttingPlan(evaluation, { copies: 1, tool: 'free', sheets: [] }, workshop);
      const sheet = sheets.find(({ pieces }) => pieces.some(({ beside }) => beside))!;
      const piece = sheet.pieces.find(({ beside }) => beside)!;
      const other = sheet.pieces.find(({ id }) => id === piece.beside)!;
      const moved = movedByHand(evaluation, sheet, piece.id, { x: piece.x + 3, y: piece.y + 1 }, 'free').sheet.pieces;
      expect(moved.find(({ id }) => id === other.id)).toMatchObject({ x: other.x + 3, y: other.y + 1, beside: piece.id });
      const turned = movedByHand(evaluation, sheet, piece.id, { x: piece.x, y: piece.y, turned: !piece.turned }, 'free').sheet.pieces;
      expect(turned.some(({ beside }) => beside === piece.id)).toBe(false);
      expect(turned.find(({ id }) => id === other.id)).toMatchObject({ x: other.x, y: other.y });
    });
  },
);

describe('a pattern that runs on over the borders between neighbours', () => {
  const runningOn = (card: CardDocument): CardDocument => dressedBy(card, { border: 3, runsOn: true }, workshop);
  const planOf = (card: CardDocument) => {
    const evaluation = evaluated(runningOn(card));
    return { evaluation, sheets: cuttingPlan(evaluation, { copies: 1, tool: 'trimmer', sheets: [] }, workshop).sheets };
  };

  it('leaves as much between two leaves as their borders take', () => {
    // Leaves of 105 mm with borders of 3: 99 wide each, and 3 + 3 between them.
    const { evaluation, sheets } = planOf(cardOn('folded-card', { depth: 105, length: 148 }));
    const [a, b] = ['base/front-leaf', 'base/back-leaf'].map((panel) => {
      const layer = evaluation.dressed.layers.find((one) => one.panel === panel && one.face === 'up')!;
      return sheets.flatMap(({ pieces }) => pieces).find(({ piece }) => piece === layer.id)!;
    }) as [PlannedPiece, PlannedPiece];
    expect([a.beside, b.beside]).toEqual([b.id, a.id]);
    expect(a.y).toBeCloseTo(b.y, 6);
    expect(b.x - a.x).toBeCloseTo(99 + 6, 6);
    const sheet = sheets.find(({ pieces }) => pieces.includes(a))!;
    expect(besideWords(sheet, 'mm')[0]).toContain('side by side, 6 mm of paper between them');
    expect(besideWords(sheet, 'inch/8')[0]).toContain('0.236 in of paper');
  });

  it('leaves what a spine widens the fold by as well', () => {
    const { evaluation, sheets } = planOf(cardOn('folded-card', { depth: 105, length: 148, spine: 'auto', innerThickness: 2 }));
    const [spine] = Object.values(evaluation.closed.spines) as [number];
    expect(spine).toBeGreaterThan(1);
    const [a, b] = sheets.flatMap(({ pieces }) => pieces.filter(({ beside }) => beside)) as [PlannedPiece, PlannedPiece];
    expect(Math.abs(b.x - a.x)).toBeCloseTo(99 + 6 + spine, 6);
  });

  it('is cut as a whole row where there are several, and moved as one', () => {
    // Bellows lie beside the front on both sides of it.
    const { evaluation, sheets } = planOf(cardOn('bellows-box'));
    const rows = sheets.flatMap((sheet) => sheet.pieces.map((piece) => ({ sheet, row: rowFrom(piece, sheet.pieces) })));
    const { sheet, row } = rows.reduce((most, one) => (one.row.length > most.row.length ? one : most));
    expect(row.length).toBeGreaterThan(2);
    const flat = (piece: PlannedPiece): Point[] => {
      const layer = evaluation.dressed.layers.find(({ id }) => id === piece.piece)!;
      const { width, height } = layer.sheet;
      return (
        [
          [0, 0],
          [width, 0],
          [width, height],
        ] as Point[]
      ).map((corner) => place(corner, layer.placement));
    };
    const lying = (piece: PlannedPiece): Point[] => {
      const { width, height } = evaluation.dressed.layers.find(({ id }) => id === piece.piece)!.sheet;
      return (
        [
          [0, 0],
          [width, 0],
          [width, height],
        ] as Point[]
      ).map((corner) => onSheet(corner, asPlaced(piece)));
    };
    for (const a of row)
      for (const b of row)
        flat(a).forEach((p, i) => flat(b).forEach((q, k) => expect(distance(lying(a)[i]!, lying(b)[k]!)).toBeCloseTo(distance(p, q), 6)));
    const moved = movedByHand(evaluation, sheet, row[0]!.id, { x: row[0]!.x, y: row[0]!.y + 0.5 }, 'trimmer').sheet.pieces;
    for (const piece of row) expect(moved.find(({ id }) => id === piece.id)!.y).toBeCloseTo(piece.y + 0.5, 9);
  });

  it('is not where nobody wishes it', () => {
    const evaluation = evaluated(dressedBy(cardOn('folded-card'), { border: 3 }, workshop));
    const { sheets } = cuttingPlan(evaluation, { copies: 1, tool: 'trimmer', sheets: [] }, workshop);
    expect(sheets.flatMap(({ pieces }) => pieces).every(({ beside }) => beside === undefined)).toBe(true);
  });
});
