import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Notation } from '../measure/units.js';
import type { Point } from '../plane/point.js';
import { cutSheet, type CutSheet } from '../sheet/cut-sheet.js';
import { blankPiece } from '../sheet/piece.js';
import { rectangle } from '../plane/outline.js';
import { cardToTry } from '../card/try-out.js';
import { CATALOGUE } from '../mechanism/catalogue.js';
import { cardOn, evaluated } from '../testing/evaluated.js';
import { benchSteps } from './bench-steps.js';
import { innerCuts, type InnerCut } from './cut-runs.js';
import { inner } from '../sheet/cut-lines.js';

const [WIDE, HIGH] = [120, 80];
type Cut = { id: string; from: Point; to: Point };

/** A blank of 120 × 80 mm with some cuts inside. */
function blank(cuts: readonly Cut[]): CutSheet {
  const piece = blankPiece({
    id: 'base',
    name: 'Card',
    stock: 'base',
    faceUp: 'inside up',
    outline: rectangle(0, 0, WIDE, HIGH),
    because: 'test',
    cuts: [...cuts],
    anchors: [{ panel: 'card', name: 'card', at: [1, 1] }],
  });
  return { ...cutSheet(piece), cuts: [...cuts] };
}

/** The cuts that the readings and their turns make, worked out as a maker would with a trimmer. */
function made(readings: readonly InnerCut[], [wide, high] = [WIDE, HIGH]): string[] {
  return readings.flatMap(({ fence, distance, start, stop, again }) => {
    const own: [Point, Point] =
      fence === 'lower edge'
        ? [
            [start, distance],
            [stop, distance],
          ]
        : [
            [distance, start],
            [distance, stop],
          ];
    const turned = again.map(({ turn }) =>
      own.map(([x, y]): Point => [turn === 'turned over away from you' ? x : wide - x, turn === 'turned over like a page' ? y : high - y]),
    );
    return [own, ...turned].map((ends) => line(ends[0]!, ends[1]!));
  });
}

function line(a: Point, b: Point): string {
  const [p, q] = [a, b].sort((m, n) => m[0] - n[0] || m[1] - n[1]);
  return [p!, q!].map(([x, y]) => `${x.toFixed(3)},${y.toFixed(3)}`).join(' – ');
}

describe('cuts inside a blank', () => {
  it('are read once where a turn makes the others', () => {
    // Four sides of a window in the middle: two readings, each again after a turn.
    const [l, r, b, t] = [20, 100, 15, 65];
    const window: Cut[] = [
      { id: 'lower', from: [l, b], to: [r, b] },
      { id: 'right', from: [r, b], to: [r, t] },
      { id: 'upper', from: [r, t], to: [l, t] },
      { id: 'left', from: [l, t], to: [l, b] },
    ];
    const readings = innerCuts(blank(window), 'mm');
    expect(readings).toHaveLength(2);
    expect(readings[0]).toMatchObject({ fence: 'lower edge', distance: 15, start: 20, stop: 100 });
    expect(readings[0]!.words).toBe('15 mm from the lower edge: drop the blade at 20 mm, stop at 100 mm');
    expect(made(readings).sort()).toEqual(window.map(({ from, to }) => line(from, to)).sort());
  });

  it('are read one by one where no turn maps them onto each other', () => {
    const two: Cut[] = [
      { id: 'a', from: [20, 15], to: [60, 15] },
      { id: 'b', from: [30, 65], to: [100, 65] },
    ];
    expect(innerCuts(blank(two), 'mm').map(({ again }) => again)).toEqual([[], []]);
  });

  it('leave slanting ones to the template', () => {
    expect(innerCuts(blank([{ id: 'slant', from: [20, 15], to: [60, 20] }]), 'mm')).toEqual([]);
  });

  it('come out of the readings whole, each once, whatever they are', () => {
    const x = fc.integer({ min: 5, max: WIDE - 5 });
    const y = fc.integer({ min: 5, max: HIGH - 5 });
    const across = fc.tuple(x, x, y).map(([x1, x2, at]): [Point, Point] => [
      [Math.min(x1, x2), at],
      [Math.max(x1, x2) + 1, at],
    ]);
    const upright = fc.tuple(y, y, x).map(([y1, y2, at]): [Point, Point] => [
      [at, Math.min(y1, y2)],
      [at, Math.max(y1, y2) + 1],
    ]);
    const mirrored = fc.boolean();
    fc.assert(
      fc.property(fc.array(fc.oneof(across, upright), { minLength: 1, maxLength: 4 }), mirrored, mirrored, (ends, page, away) => {
        let all = ends;
        if (page) all = [...all, ...all.map((cut) => cut.map(([px, py]): Point => [WIDE - px, py]) as [Point, Point])];
        if (away) all = [...all, ...all.map((cut) => cut.map(([px, py]): Point => [px, HIGH - py]) as [Point, Point])];
        const unique = [...new Map(all.map(([from, to]) => [line(from, to), { from, to }])).values()];
        const cuts = unique.map((cut, i): Cut => ({ id: `cut-${i}`, ...cut }));
        const readings = innerCuts(blank(cuts), 'mm');
        expect(made(readings).sort()).toEqual(cuts.map(({ from, to }) => line(from, to)).sort());
      }),
    );
  });
});

describe.each(CATALOGUE.map((mechanism) => [mechanism.id, mechanism] as const))('cuts inside the pieces of %s', (_id, mechanism) => {
  it('are each made by one reading: slits, and every straight edge of every opening', () => {
    for (const sheet of evaluated(cardToTry(mechanism)).sheets) {
      const straight = ([a, b]: readonly [Point, Point]): boolean => Math.abs(a[0] - b[0]) < 1e-4 || Math.abs(a[1] - b[1]) < 1e-4;
      const edges = sheet.windows.flatMap(({ outline }) => {
        const all = outline.map((from, i) => [from, outline[(i + 1) % outline.length]!] as const);
        const read = all.filter(straight);
        return read.length === all.length ? read : read.filter(([a, b]) => Math.hypot(a[0] - b[0], a[1] - b[1]) >= 5);
      });
      const wanted = [...sheet.cuts.map(({ from, to }) => [from, to] as const).filter(straight), ...edges].map(([a, b]) => line(a, b));
      expect(made(innerCuts(sheet, 'mm'), [sheet.width, sheet.height]).sort()).toEqual(wanted.sort());
    }
  });
});

describe('the words of a cut', () => {
  it('are a tenth of a mm at the most; between marks an inch is told in decimals', () => {
    const words = (notation: Notation): string => innerCuts(blank([{ id: 'slit', from: [12.34, 20], to: [50.8, 20] }]), notation)[0]!.words;
    expect(words('mm')).toBe('20 mm from the lower edge: drop the blade at 12.3 mm, stop at 50.8 mm');
    // 20 ÷ 25.4 = 0.7874; 12.34 ÷ 25.4 = 0.4858.
    expect(words('inch/16')).toBe('0.787 in from the lower edge: drop the blade at 0.486 in, stop at 2 in');
  });
});

describe('an opening with a curved edge', () => {
  it('is traced, and where it lies is said', () => {
    const round = evaluated(
      cardOn('bellows-box', { frontWidth: 110, length: 150, bellows: 18, windowShape: 'circle', windowWidth: 60, windowHeight: 60 }),
    );
    const [opening] = inner(round.sheets[0]!).traced;
    // Tab and bellows are 3 × 18 mm before the front; a window of 60 in the middle of 110 × 150.
    expect(opening!.box.minX).toBeCloseTo(54 + 25, 6);
    expect(opening!.box.maxX).toBeCloseTo(54 + 85, 6);
    expect([opening!.box.minY, opening!.box.maxY].map((n) => Number(n.toFixed(6)))).toEqual([45, 105]);
    const step = benchSteps(round).find(({ id }) => id === 'cut-base')!;
    expect(step.says.join(' ')).toContain('from 79 mm to 139 mm across and from 45 mm to 105 mm up');
  });
});
