import { describe, expect, it } from 'vitest';
import { GLUE_FILM } from '../supplies/limits.js';
import { cardOn, evaluated, stockById } from '../testing/evaluated.js';
import { caliperOf } from './card-stocks.js';
import { layersAt, thicknessAt } from './pile.js';
import { weightOf } from './weight.js';

const CARD = stockById('card-250').caliper;

describe('the pile of a closed card', () => {
  it('lists what lies at a place from the bottom up', () => {
    const { design, closed } = evaluated(cardOn('folded-card', { depth: 100, length: 80, innerThickness: 3, innerFrom: 40 }));
    const pile = closed.pile;
    const names = (x: number): string[] => layersAt(design, pile, [x, 40]).layers.map((layer) => layer.name);
    // The fold is at 100; the block begins 40 from it.
    expect(names(120)).toEqual([...names(120)].filter((name) => name !== 'layers inside'));
    expect(names(120)).toHaveLength(2);
    expect(names(160)).toHaveLength(3);
    expect(names(160)[1]).toBe('layers inside');
    expect(names(99)).toEqual([]);
  });

  it('adds a film of glue for each glued pair that lies there, and only there', () => {
    // A box of two walls: its tab of 10 mm is glued to the first wall.
    const { design, closed } = evaluated(cardOn('box-card', { wall: 60, secondWall: 60, height: 90, flaps: [], dividers: [] }));
    const pile = closed.pile;
    const { minX, maxX } = closed.box;
    const depths = Array.from({ length: 60 }, (_, i) => thicknessAt(design, pile, [minX + ((i + 0.5) / 60) * (maxX - minX), 45]));
    const sheets = new Set(depths.map(({ thickness, bodies }) => Number((thickness - bodies.length * CARD).toFixed(9))));
    expect([...sheets].sort()).toEqual([0, GLUE_FILM]);
    for (const { thickness, bodies } of depths) if (bodies.length === 2) expect(thickness).toBeCloseTo(2 * CARD, 12);
  });

  it('takes a piece’s own thickness before that of its stock', () => {
    const { design } = evaluated(cardOn('easel-folded-front', { stopHeight: 3 }));
    const thickness = (id: string): number =>
      caliperOf(
        design,
        design.pieces.find((piece) => piece.id === id)!,
      );
    expect(thickness('stop')).toBe(3);
    expect(thickness('base')).toBe(CARD);
  });
});

describe('the weight of a card', () => {
  it('is that of the blank less its windows, whatever the folds', () => {
    // Blank 2·110 + 5·18 = 310 by 150, a window of 60 × 80, 250 g/m².
    const window = { windowShape: 'rectangle', windowWidth: 60, windowHeight: 80 };
    const { design } = evaluated(cardOn('bellows-box', { frontWidth: 110, length: 150, bellows: 18, ...window }));
    expect(weightOf(design)).toBeCloseTo(((310 * 150 - 60 * 80) * 250) / 1e6, 6);
  });

  it('grows with the stock by its weight for each area', () => {
    const stocks = cardOn('folded-card').stocks;
    const heavy = stockById('heavy-card-300');
    const on = (base: string): number => weightOf(evaluated(cardOn('folded-card', {}, { stocks: { ...stocks, base } })).design);
    expect(on('heavy-card-300') / on('card-250')).toBeCloseTo(heavy.weight / stockById('card-250').weight, 9);
  });
});
