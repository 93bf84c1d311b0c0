import { describe, expect, it } from 'vitest';
import { asArea, type Area } from '../plane/outline.js';
import { dice } from '../testing/any-tree.js';
import { anyShapes, apartBy, wrongWithOutlines } from '../testing/nesting-laws.js';
import { CellMap } from './cell-map.js';
import { freeLayout } from './free-layout.js';
import type { Blank } from './guillotine.js';
import { nested, onSheet, type BlankShape } from './outline-nesting.js';

const blank = (id: string, width: number, height: number, lies: Blank['lies'] = 'upright'): Blank => ({ id, width, height, lies });

/** A right triangle: its corner at the lower left. */
const TRIANGLE = asArea([
  [0, 0],
  [100, 0],
  [0, 80],
]);

describe('blanks laid by their outlines', () => {
  it('lie end for end beside each other where their boxes would not', () => {
    const two = [blank('a', 100, 80), blank('b', 100, 80)];
    const sheet = { width: 108, height: 88 };
    const shapes = new Map<string, BlankShape>(two.map(({ id }) => [id, { area: TRIANGLE, mayTurnEnd: true }]));
    expect(freeLayout(two, sheet, 2).sheets).toHaveLength(2);
    const layout = nested(two, sheet, 2, ({ id }) => shapes.get(id)!)!;
    expect(layout.sheets).toHaveLength(1);
    expect(
      wrongWithOutlines(
        layout.sheets.map(({ placed }) => placed),
        two,
        shapes,
        sheet,
        2,
      ),
    ).toEqual([]);
    // Which carries a pattern may not: there it takes two.
    expect(nested(two, sheet, 2, () => ({ area: TRIANGLE, mayTurnEnd: false }))!.sheets).toHaveLength(2);
  });

  it('go into a notch and into a window', () => {
    // A U 100 wide and high, its notch 60 wide and 70 deep from above; and a frame with a window of 60 by 60.
    const notched = asArea([
      [0, 0],
      [100, 0],
      [100, 100],
      [80, 100],
      [80, 30],
      [20, 30],
      [20, 100],
      [0, 100],
    ]);
    const frame: Area = {
      outer: [
        [0, 0],
        [100, 0],
        [100, 100],
        [0, 100],
      ],
      holes: [
        [
          [20, 20],
          [80, 20],
          [80, 80],
          [20, 80],
        ],
      ],
    };
    const plain = asArea([
      [0, 0],
      [54, 0],
      [54, 54],
      [0, 54],
    ]);
    for (const area of [notched, frame]) {
      const blanks = [blank('large', 100, 100), blank('small', 54, 54)];
      const shapes = new Map<string, BlankShape>([
        ['large', { area, mayTurnEnd: false }],
        ['small', { area: plain, mayTurnEnd: false }],
      ]);
      const layout = nested(blanks, { width: 100, height: 100 }, 2, ({ id }) => shapes.get(id)!)!;
      expect(layout.sheets).toHaveLength(1);
      const [[, small]] = layout.sheets.map(({ placed }) => placed) as [[unknown, { x: number; y: number }]];
      expect(small.x).toBeGreaterThanOrEqual(22);
      expect(small.x).toBeLessThanOrEqual(24);
    }
  });

  it('of random shapes never lie nearer than they may, over an edge, or as they may not', () => {
    const next = dice(5);
    for (let i = 0; i < 25; i++) {
      const { blanks, shapes, sheet } = anyShapes(next);
      const { sheets } = nested(blanks, sheet, 2, ({ id }) => shapes.get(id)!)!;
      const places = sheets.map(({ placed }) => placed);
      expect(wrongWithOutlines(places, blanks, shapes, sheet, 2)).toEqual([]);
      for (const { left, placed } of sheets) {
        // What is left lies on the sheet, free of every shape.
        for (const { x, y, width, height } of left) {
          expect(x + width).toBeLessThanOrEqual(sheet.width);
          expect(y + height).toBeLessThanOrEqual(sheet.height);
          const rest = asArea([
            [x + 0.01, y + 0.01],
            [x + width - 0.01, y + 0.01],
            [x + width - 0.01, y + height - 0.01],
            [x + 0.01, y + height - 0.01],
          ]);
          for (const one of placed) {
            const { area } = shapes.get(one.blank.id)!;
            const lying = {
              outer: area.outer.map((p) => onSheet(p, one)),
              holes: area.holes.map((hole) => hole.map((p) => onSheet(p, one))),
            };
            expect(apartBy(rest, lying)).toBeGreaterThan(0);
          }
        }
      }
    }
  });

  it('are given up where they are called off, and left to their boxes where there are too many', () => {
    const many = Array.from({ length: 121 }, (_, i) => blank(String(i), 10, 10));
    const square: BlankShape = { area: TRIANGLE, mayTurnEnd: false };
    expect(nested(many, { width: 200, height: 200 }, 2, () => square)).toBeUndefined();
    expect(
      nested(
        many.slice(0, 3),
        { width: 200, height: 200 },
        2,
        () => square,
        () => false,
      ),
    ).toBeUndefined();
  });
});

describe('an area in cells', () => {
  it('takes every cell it reaches into, and none that it only touches', () => {
    const map = CellMap.of(
      [
        asArea([
          [1, 1],
          [4, 1],
          [4, 2.5],
          [1, 2.5],
        ]),
      ],
      1,
    );
    expect([map.x, map.y, map.columns, map.rows]).toEqual([1, 1, 3, 2]);
    expect([...map.bits]).toEqual([0b111, 0b111]);
  });

  it('finds the largest rectangle that is free', () => {
    const map = new CellMap(70, 40, 1);
    map.takeRectangle({ x: 0, y: 0, width: 40, height: 30 });
    // 30 × 40 beside it is more than 70 × 10 above it.
    expect(map.largestFree()).toEqual({ x: 40, y: 0, width: 30, height: 40 });
  });
});
