import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { cardToTry, mechanismById, starterFor, withClosure, withTopper } from '@diptychon/core';
import { describe, expect, it } from 'vitest';
import { diptychon } from './testing/diptychon.js';

interface LayerRecord {
  id: string;
  panel: string;
  face: 'up' | 'down';
  step: number;
  width: number;
  height: number;
  panelWidth: number;
  panelHeight: number;
  outline: [number, number][];
  borders: Record<'left' | 'right' | 'bottom' | 'top', number>;
  twinOf: string | null;
  upWhenOpen: string;
  shows: string[];
}

const doors = [
  'compute',
  '--mechanism',
  'rising-strip-doors',
  '--set',
  'closedWidth=120mm',
  '--set',
  'length=150mm',
  '--set',
  'strip=30mm',
  '--set',
  'gap=0mm',
];
const layersOf = async (...argv: string[]): Promise<LayerRecord[]> =>
  (JSON.parse((await diptychon(...doors, ...argv, '--json')).out) as { layers: LayerRecord[] }).layers;

describe('a card dressed at the command line', () => {
  it('wears a layer on every panel that is seen, smaller by the border each way', async () => {
    const layers = await layersOf('--layers', '3mm');
    const of = (panel: string, face: string): LayerRecord => layers.find((layer) => layer.panel === panel && layer.face === face)!;
    expect(of('base/left-door', 'down')).toMatchObject({
      width: 57,
      height: 144,
      panelWidth: 60,
      panelHeight: 150,
      upWhenOpen: 'top',
      shows: ['closed'],
    });
    expect(of('base/left-door', 'down').borders).toEqual({ left: 0, right: 3, bottom: 3, top: 3 });
    expect(of('base/strip', 'up')).toMatchObject({ width: 24, height: 144, twinOf: null });
    expect(of('base/right-door', 'down').twinOf).toBe(of('base/left-door', 'up').id);
  });

  it('wears several on one another, from a stock of one’s choice', async () => {
    const layers = await layersOf('--layers', '3mm', '--layer-steps', '2', '--layer-step', '5mm', '--layer-stock', 'light-card-160');
    const strip = layers.filter(({ panel }) => panel === 'base/strip');
    expect(strip.map(({ step, width, height }) => [step, width, height])).toEqual([
      [1, 24, 144],
      [2, 14, 134],
    ]);
  });

  it('wears nothing unless it is asked for, and tells each layer with its panel’s size to people', async () => {
    expect(await layersOf()).toEqual([]);
    const { out } = await diptychon(...doors, '--layers', '1/8in', '--notation', 'inch/16');
    // 30 mm less two eighths: 1.1811 − 0.25.
    expect(out).toMatch(/L4 on base\/strip, upper face .*: layer 0\.931 in × .*, panel 1\.181 in ×/);
  });

  it('is told whole to people: toppers with their pads, bands with their folds', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'diptychon-worn-'));
    const file = join(folder, 'card.json');
    const plain = cardToTry(mechanismById('folded-card'), { sizes: { depth: 100, length: 140 } });
    const workshop = starterFor('mm');
    const topper = {
      panel: 'base/front-leaf',
      face: 'down' as const,
      across: 50,
      along: 70,
      outline: 'circle',
      height: 40,
      foam: 2,
      stock: 'card-250',
    };
    const card = withClosure(
      withTopper(plain, topper, workshop),
      { kind: 'band', around: 'across', wide: 30, at: 70, stock: 'light-card-160' },
      workshop,
    );
    writeFileSync(file, JSON.stringify(card));
    const { out } = await diptychon('compute', file);
    expect(out).toMatch(/T1, circle, on base\/front-leaf, back: 40 mm × 40 mm, on \d+ foam pads/);
    // Two leaves and the topper with its foam and two films of glue: 0.62 + 0.31 + 2 + 0.06 mm; 2 · 101 + 2 · 2.99 + 12.
    expect(out).toMatch(
      /B1, band: 220(\.0)? mm × 30 mm, folds at 101 mm, 104 mm, 205 mm, 208 mm; slides off toward the lower end and the upper end/,
    );
    rmSync(folder, { recursive: true });
  });

  it.each([
    [['--layers', '70mm'], /--layers: 70mm does not work; allowed is 0 mm to 60 mm/],
    [['--layers', 'wide'], /--layers: “wide” is not a length/],
    [['--layer-steps', '2'], /--layer-steps: says how the layers are of --layers BORDER/],
    [['--layers', '3mm', '--layer-steps', '4'], /--layer-steps: “4” does not work; allowed is 1 to 3/],
    [['--layers', '3mm', '--layer-stock', 'gold'], /--layer-stock: “gold” is none of my stocks; allowed: text-100/],
  ])('%j is refused in a line', async (argv, says) => {
    const { code, out, err } = await diptychon(...doors, ...argv);
    expect([code, out]).toEqual([2, '']);
    expect(err).toMatch(says);
    expect(err.trim().split('\n')).toHaveLength(1);
  });
});
