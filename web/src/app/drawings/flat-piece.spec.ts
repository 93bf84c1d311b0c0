import { DEMO_CARDS, evaluate, type CutSheet } from '@diptychon/core';
import { apart, fitSheet, reading, rulerTicks, spread, toScreen } from './flat-piece';

function easelSheet(): CutSheet {
  const outcome = evaluate(DEMO_CARDS[0]!);
  if (!outcome.ok) throw new Error('demo refused');
  return outcome.evaluation.sheets[0]!;
}

describe('a flat piece on screen', () => {
  const sheet = easelSheet();

  it('starts at the ruler’s zero and keeps its proportions', () => {
    const fit = fitSheet(sheet, { width: 900, height: 400, readings: 290 }, false);
    const [x0, y0] = toScreen([0, 0], fit);
    const [x1, y1] = toScreen([sheet.width, sheet.height], fit);
    expect((x1 - x0) / (y0 - y1)).toBeCloseTo(sheet.width / sheet.height, 9);
    expect(rulerTicks(fit, 'mm')[0]).toMatchObject({ x: x0, label: '0' });
  });

  it('reads mirrored positions from the other end when turned', () => {
    const fit = fitSheet(sheet, { width: 900, height: 400, readings: 290 }, true);
    const front = sheet.scores[0]!;
    expect(reading(front, fit)).toBeCloseTo(sheet.width - 75, 9);
    expect(toScreen([0, 0], fit)).toEqual(toScreen([sheet.width, sheet.height], { ...fit, turned: false }));
  });

  it('leaves room for what stands out past the edges, whichever way the piece lies', () => {
    const space = { width: 900, height: 400, readings: 290 };
    const drawn = { minX: -40, minY: -10, maxX: sheet.width + 5, maxY: sheet.height };
    for (const turned of [false, true]) {
      const fit = fitSheet(sheet, space, turned, drawn);
      const ends = [toScreen([drawn.minX, drawn.minY], fit)[0], toScreen([drawn.maxX, drawn.minY], fit)[0]];
      expect(Math.min(...ends)).toBeGreaterThanOrEqual(18 - 1e-9);
      expect(Math.max(...ends)).toBeLessThanOrEqual(900 - 290 - 18 + 1e-9);
    }
    expect(toScreen([0, -10], fitSheet(sheet, space, false, drawn))[1]).toBeLessThanOrEqual(400);
  });

  it('puts an inch label every inch', () => {
    const fit = fitSheet(sheet, { width: 2400, height: 1600, readings: 290 }, false);
    const labels = rulerTicks(fit, 'inch/16').filter((tick) => tick.label);
    expect(labels.map((tick) => tick.label)).toEqual(Array.from({ length: 12 }, (_, i) => String(i)));
    expect((labels[1]!.x - labels[0]!.x) / fit.scale).toBeCloseTo(25.4, 9);
  });

  it('moves labels apart only where they would cover each other', () => {
    const placed = spread([10, 100, 104], 20);
    expect(placed[0]).toBe(10);
    expect(placed[2]! - placed[1]!).toBeGreaterThanOrEqual(19.9);
    expect((placed[1]! + placed[2]!) / 2).toBeCloseTo(102, 6);
  });
});

describe('round labels', () => {
  const PICTURE = { width: 700, height: 460 };
  const gaps = (placed: readonly (readonly [number, number])[]): number[] =>
    placed.flatMap(([x, y], i) => placed.slice(i + 1).map(([u, v]) => Math.hypot(x - u, y - v)));

  it('stay where they are wanted when nothing is in their way', () => {
    const wanted = [
      [100, 100],
      [200, 100],
    ] as const;
    expect(apart(wanted, 36, PICTURE)).toEqual(wanted);
  });

  it('never cover each other, nor leave the picture, however many are wanted at one place', () => {
    for (const at of [
      [350, 230],
      [10, 10],
    ] as const) {
      const placed = apart(
        Array.from({ length: 15 }, () => at),
        36,
        PICTURE,
      );
      expect(Math.min(...gaps(placed))).toBeGreaterThan(35.9);
      for (const [x, y] of placed) expect(Math.min(x, y, PICTURE.width - x, PICTURE.height - y)).toBeGreaterThanOrEqual(18);
    }
  });
});
