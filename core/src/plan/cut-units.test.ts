import { describe, expect, it } from 'vitest';
import { DEMO_CARDS } from '../card/demo-cards.js';
import { poseOf } from '../linkage/motion.js';
import { carry } from '../linkage/rigid.js';
import { place } from '../plane/placement.js';
import { distance, type Point } from '../plane/point.js';
import { starterFor } from '../supplies/starter-workshops.js';
import { evaluated } from '../testing/evaluated.js';
import { wrongWithCuts } from '../testing/sheet-laws.js';
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
