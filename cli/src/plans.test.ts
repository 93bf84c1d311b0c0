import { describe, expect, it } from 'vitest';
import { diptychon } from './testing/diptychon.js';

interface Rectangle {
  x: number;
  y: number;
  width: number;
  height: number;
}
interface PlannedSheet {
  stock: string;
  width: number;
  height: number;
  pieces: (Rectangle & { id: string; piece: string; copy: number; turned: boolean })[];
  cuts: { order: number; fence: number; edge: string; part: Rectangle; from: number[]; to: number[] }[];
  leftovers: (Rectangle & { goodFor: string[] })[];
  waste: number;
}
interface Plan {
  sheets: PlannedSheet[];
  leftOut: { id: string; says: string }[];
  waste: number;
  bound: number;
  leastSheets: number;
}

const record = async (...argv: string[]): Promise<Plan> => {
  const { code, out, err } = await diptychon('plan', ...argv, '--json');
  expect([code, err]).toEqual([0, '']);
  return JSON.parse(out) as Plan;
};
const CARD = ['--mechanism', 'folded-card', '--set', 'depth=105', '--set', 'length=148'];

describe('plan', () => {
  it('says where every piece of every copy lies, how it is cut, and what is left', async () => {
    // Two of 210 × 148 come out of A4, one above the other, 1 mm left.
    const { sheets, waste, bound, leastSheets } = await record(...CARD, '--copies', '4', '--sheet', '210x297');
    expect(sheets).toHaveLength(2);
    expect(leastSheets).toBe(2);
    expect(sheets[0]!.pieces.map(({ piece }) => piece)).toEqual(['base', 'base']);
    expect(new Set(sheets.flatMap(({ pieces }) => pieces.map(({ id }) => id))).size).toBe(4);
    expect(sheets[0]!.cuts.map(({ order, fence, edge }) => [order, fence, edge])).toEqual([
      [1, 148, 'lower'],
      [2, 148, 'lower'],
    ]);
    expect(sheets[0]!.cuts[0]).toMatchObject({ from: [0, 148], to: [210, 148], part: { x: 0, y: 0, width: 210, height: 297 } });
    expect(waste).toBeCloseTo(1 / 297, 9);
    expect(bound).toBeCloseTo(1 / 297, 9);
  });

  it('takes a sheet for each stock, and cuts along outlines where it is told to', async () => {
    const { sheets } = await record(
      '--mechanism',
      'easel-folded-front',
      '--copies',
      '2',
      '--sheet',
      '320x450:card-250',
      '--sheet',
      '100x100:foam',
      '--tool',
      'free',
    );
    expect(sheets.map(({ stock, width, height }) => [stock, width, height])).toEqual([
      ['card-250', 320, 450],
      ['foam', 100, 100],
    ]);
    expect(sheets.every(({ cuts }) => cuts.length === 0)).toBe(true);
  });

  it('reads aloud what to lay against the fence', async () => {
    const { out } = await diptychon('plan', ...CARD, '--copies', '2', '--sheet', '210x297');
    expect(out).toContain('1. the part of 210 mm × 297 mm: its lower edge against the fence, cut at 148 mm');
    expect(out).toContain('One sheet, 0.3 % left over');
    // One of 210 × 148 out of 297.4: 149.4 is left, and told by whole marks.
    const { out: one } = await diptychon('plan', ...CARD, '--sheet', '210x297.4');
    expect(one).toContain('left: 210 mm × 149 mm, good for');
  });

  it('alone may be asked for spares', async () => {
    const { code, err } = await diptychon('compute', '--mechanism', 'folded-card', '--spares');
    expect([code, err]).toEqual([2, expect.stringMatching(/--spares: not an option of compute; it belongs to plan/) as string]);
  });

  it.each([
    [['--copies', '0'], /--copies: “0”.*1 to 100/],
    [['--tool', 'laser'], /--tool: “laser” is not allowed; allowed: trimmer, free/],
    [['--sheet', '210'], /WIDTHxHEIGHT/],
    [['--sheet', '210x297:gold'], /“gold” is no stock of this card; it is cut from .*card-250/],
    [['--closed', '100x100'], /--closed: not an option of plan/],
    [['--anyway'], /--anyway: not an option of plan/],
  ] as const)('refuses %j in a line', async (given, says) => {
    const { code, err } = await diptychon('plan', ...CARD, ...given);
    expect([code, err]).toEqual([2, expect.stringMatching(says) as string]);
  });
});
