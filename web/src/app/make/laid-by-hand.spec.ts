import { METRIC_WORKSHOP, type PlannedSheet } from '@diptychon/core';
import { describe, expect, it } from 'vitest';
import { snapped } from './laid-by-hand';

const piece = (id: string, x: number, y: number) => ({ id, piece: id, copy: 1, name: id, x, y, width: 50, height: 40, turned: false });
const SHEET: PlannedSheet = {
  stock: METRIC_WORKSHOP.stocks[0]!,
  ...{ width: 300, height: 200, cuts: [], leftovers: [], waste: 0 },
  pieces: [piece('a', 0, 0), piece('b', 100, 80)],
};

describe('a piece that is brought near an edge', () => {
  it('comes onto the edge of the sheet, and in line with another piece', () => {
    expect(snapped(SHEET, 0, { x: 2, y: 81.5 }, 'trimmer')).toEqual({ x: 0, y: 80 });
    // Its right side onto the left side of the other: 100 less its own 50.
    expect(snapped(SHEET, 0, { x: 52.5, y: 30 }, 'trimmer')).toEqual({ x: 50, y: 30 });
    expect(snapped(SHEET, 0, { x: 248, y: 161 }, 'trimmer')).toEqual({ x: 250, y: 160 });
  });

  it('keeps the room that scissors need, and lies where it is put further off', () => {
    expect(snapped(SHEET, 0, { x: 48.5, y: 80 }, 'free')).toEqual({ x: 48, y: 80 });
    expect(snapped(SHEET, 0, { x: 70, y: 30 }, 'trimmer')).toEqual({ x: 70, y: 30 });
  });

  it('is not led onto what lies side by side with it and goes with it', () => {
    const [a, b] = [
      { ...piece('a', 40, 60), beside: 'b' },
      { ...piece('b', 90, 60), beside: 'a' },
    ];
    expect(snapped({ ...SHEET, pieces: [a, b] }, 0, { x: 41, y: 61 }, 'trimmer')).toEqual({ x: 41, y: 61 });
  });
});
