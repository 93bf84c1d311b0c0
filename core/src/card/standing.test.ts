import { describe, expect, it } from 'vitest';
import { stands } from '../check/stands.js';
import { cardOn, checkInputOf, evaluated } from '../testing/evaluated.js';
import { told } from '../measure/sentence.js';
import { toRadians } from '../measure/units.js';
import type { Sizes } from '../mechanism/sizes.js';

describe('how ten cards stand', () => {
  const G = { card: 250, heavy: 300 };
  /** Weight in g of an area in mm² of 250 g card. */
  const grams = (area: number): number => (area * G.card) / 1e6;

  const CASES: [string, string, Sizes, { weight: number; margin: number; height: number }][] = [
    // Flat things: half the shorter side, no height.
    ['a folded card lying open', 'folded-card', { depth: 105, length: 148 }, { weight: grams(210 * 148), margin: 74, height: 0 }],
    ['a small one', 'folded-card', { depth: 40, length: 200 }, { weight: grams(80 * 200), margin: 40, height: 0 }],
    // Two leaves at a right angle on edge: the weight lies a quarter of a leaf off both, and 35 mm off the open side.
    [
      'a folded card standing',
      'folded-card',
      { depth: 100, length: 150, shown: 'standing' },
      { weight: grams(200 * 150), margin: 25, height: 75 },
    ],
    // A box of two walls: half the narrower wall; the open flaps balance, the first and third wall alike.
    [
      'a box without flaps or dividers',
      'box-card',
      { wall: 60, secondWall: 50, height: 90, flaps: [], dividers: [] },
      { weight: grams((220 + 10) * 90 - 30), margin: NaN, height: 45 },
    ],
    // Stage without layers: back, walls and front; a rectangle of 110 × 36.
    [
      'a stage without layers',
      'layered-stage',
      { innerWidth: 110, depth: 36, height: 140, layers: [], windowShape: 'rectangle', windowWidth: 16, windowHeight: 16, windowBorder: 0 },
      { weight: grams((182 + 182) * 140 - 256), margin: NaN, height: 70 },
    ],
    // Bellows box without poke: a rectangle 110 × 36; the tab and the window shift the weight a little.
    [
      'a bellows box',
      'bellows-box',
      { frontWidth: 110, bellows: 18, poke: 0, length: 150, windowShape: 'rectangle', windowWidth: 20, windowHeight: 20 },
      { weight: grams(310 * 150 - 400), margin: NaN, height: NaN },
    ],
    // Half-turn stand: the floor is a half-turn twin of itself, the upright over the middle line: 70 mm to the long sides.
    [
      'a half-turn stand',
      'half-turn-stand',
      { blankLength: 200, blankWidth: 140, inset: 30 },
      { weight: grams(200 * 140), margin: NaN, height: (70 * 140 * 35) / (200 * 140) },
    ],
    // Doors at 50°: symmetrical; strip 30 at the top, slopes half-way.
    [
      'doors with a rising strip',
      'rising-strip-doors',
      { closedWidth: 120, strip: 30, length: 150, displaySlope: toRadians(50) },
      { weight: grams(240 * 150), margin: 75, height: (30 * 45 * Math.sin(toRadians(50)) + 2 * 45 * 22.5 * Math.sin(toRadians(50))) / 240 },
    ],
    // Film stand without a layer: symmetrical about the film.
    [
      'a film stand',
      'film-stand',
      { floor: 30, wall: 20, length: 110, slotMargin: 10, filmHeight: 130, layer: 'none', slotWidth: 1 },
      { weight: grams(200 * 110 - 90) + (130 * 89 * 265) / 1e6, margin: 30, height: NaN },
    ],
    // A swing drawn out flat lies on no foot at all but stands on its edge like a sheet: nothing on either side.
    [
      'a swing card drawn out flat',
      'swing',
      { blankLength: 210, height: 120, displayFold: 0 },
      { weight: grams(210 * 120), margin: 0, height: 60 },
    ],
  ];

  it.each(CASES)('%s has the weight, the margin and the centre that were worked out by hand', (_, mechanism, sizes, expected) => {
    const { standing } = evaluated(cardOn(mechanism, sizes));
    expect(standing.weight).toBeCloseTo(expected.weight, 6);
    if (!Number.isNaN(expected.margin)) expect(standing.margin).toBeCloseTo(expected.margin, 4);
    if (!Number.isNaN(expected.height)) expect(standing.height).toBeCloseTo(expected.height, 4);
    if (expected.margin > 0) expect(Math.tan(standing.tipAngle)).toBeCloseTo(standing.margin / Math.max(standing.height, 0.1), 6);
  });

  it('the box stands in the middle of its walls but for its tab’s weight', () => {
    const { standing } = evaluated(cardOn('box-card', { wall: 60, secondWall: 50, height: 90, flaps: [], dividers: [] }));
    // The tab of 10 × 90 (its ends cut 3 mm back over 10 mm: 15 mm² each) lies inside the first wall near its left edge.
    const [wall, tab] = [90 * 220, 10 * 90 - 30];
    const pull = (tab / (wall + tab)) * 25;
    expect(Math.abs(standing.margin - (25 - pull))).toBeLessThan(0.2);
  });
});

describe('what cannot stand', () => {
  const held = (margin: number, polygon: readonly (readonly [number, number])[]) => {
    const input = checkInputOf(cardOn('folded-card', { shown: 'standing' }));
    const [said] = stands({ ...input, standing: { ...input.standing, margin, polygon } });
    return { ...said!, says: told(said!.says, 'mm') };
  };

  it('is told without “0 mm”: a line is a line, an edge an edge', () => {
    const line = [
      [0, 0],
      [100, 0],
    ] as const;
    expect(held(0, line)).toMatchObject({ severity: 'fail' });
    expect(held(0, line).says).toContain('touches the table along a line only');
    expect(held(-12, line).says).toContain('12 mm off it');
    expect(held(0, [...line, [50, 50]]).says).toContain('on the very edge of what touches the table');
    expect(held(-3, [...line, [50, 50]]).says).toContain('3 mm outside');
    for (const margin of [0, -0.01, -0.04])
      for (const polygon of [line, [...line, [50, 50] as const]]) expect(held(margin, polygon).says).not.toMatch(/\b0 mm/);
  });

  it('is a card whose ground lies on the table with something below it', () => {
    // A panel that hangs below a tread lower than its riser is high reaches through the table.
    const { design, ...input } = checkInputOf(cardOn('step-easel'));
    expect(stands({ ...input, design }).some(({ id }) => id === 'stands/table')).toBe(false);
    const panel = design.panels.find(({ id }) => id === 'panel/panel')!;
    const long = { ...panel, area: { ...panel.area, outer: panel.area.outer.map(([x, y]) => [x, y < 1 ? y - 60 : y] as const) } };
    const deep = { ...design, panels: design.panels.map((own) => (own === panel ? long : own)) };
    const said = stands({ ...input, design: deep }).find(({ id }) => id === 'stands/table')!;
    expect(said).toMatchObject({ severity: 'fail', panels: ['panel/panel'] });
    expect(said.says).toContain('below the table');
  });
});
