import { describe, expect, it } from 'vitest';
import { cardOn, evaluated, stockById } from '../testing/evaluated.js';
import { thicknessMap } from './thickness-map.js';

const CARD = stockById('card-250').caliper;

describe('the thickness map', () => {
  it('adds up calipers: two leaves, and a block where it lies', () => {
    const { design, closed } = evaluated(cardOn('folded-card', { depth: 100, length: 80, innerThickness: 2, innerFrom: 40 }));
    const map = thicknessMap(design, closed, 2);
    const at = (x: number, y: number): number => {
      const column = Math.floor(((x - map.box.minX) / (map.box.maxX - map.box.minX)) * map.columns);
      const row = Math.floor(((y - map.box.minY) / (map.box.maxY - map.box.minY)) * map.rows);
      return map.values[row * map.columns + column]!;
    };
    // The block lies from 40 to 97 from the fold (which is at 100), 3 mm inside the ends.
    expect(at(120, 40)).toBeCloseTo(2 * CARD, 9);
    expect(at(160, 40)).toBeCloseTo(2 * CARD + 2, 9);
    expect(at(160, 1)).toBeCloseTo(2 * CARD, 9);
    expect(map.most).toBeCloseTo(2 * CARD + 2, 9);
  });

  it('has the volume of all paper: area × caliper of every panel, and glue films', () => {
    const { design, closed } = evaluated(
      cardOn('bellows-box', { frontWidth: 110, length: 150, bellows: 18, windowShape: 'rectangle', windowWidth: 60, windowHeight: 80 }),
    );
    const map = thicknessMap(design, closed, 0.5);
    const cell = ((map.box.maxX - map.box.minX) / map.columns) * ((map.box.maxY - map.box.minY) / map.rows);
    const volume = map.values.reduce((sum, t) => sum + t, 0) * cell;
    // Blank of 310 × 150 less the window; the glued tab of 18 × 150 adds one film of 0.03.
    const paper = (310 * 150 - 60 * 80) * CARD + 18 * 150 * 0.03;
    expect(volume / paper).toBeGreaterThan(0.99);
    expect(volume / paper).toBeLessThan(1.01);
  });

  it('stays small for a large card', () => {
    const { design, closed } = evaluated(cardOn('folded-card', { depth: 320, length: 320 }));
    const map = thicknessMap(design, closed, 0.1);
    expect(map.values.length).toBeLessThanOrEqual(21_000);
    expect(map.cell).toBeGreaterThan(2);
  });
});
