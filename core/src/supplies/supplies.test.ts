import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { offGroove, type Board } from './boards.js';
import { closestEnvelope, fits } from './envelopes.js';
import { bestSheet, blanksFrom, tooLargeBy } from './sheets.js';
import { INCH_WORKSHOP, KNOWN_SHEETS, METRIC_WORKSHOP } from './starter-workshops.js';
import { stiffnessFromDroop } from './stocks.js';

const WORKSHOPS = [METRIC_WORKSHOP, INCH_WORKSHOP];
const ENVELOPES = WORKSHOPS.flatMap(({ envelopes }) => envelopes);
const BOARDS = WORKSHOPS.flatMap(({ boards }) => boards);

const side = fc.double({ min: 20, max: 400, noNaN: true });

describe('envelopes', () => {
  it('take a card either way round, and lose its thickness from both sides', () => {
    const c6 = ENVELOPES.find((e) => e.id === 'c6')!;
    expect(fits(160, 112, 2, c6)).toBe(true);
    expect(fits(112, 160, 2, c6)).toBe(true);
    expect(fits(160, 112, 2.1, c6)).toBe(false);
    expect(fits(160.1, 112, 2, c6)).toBe(false);
  });

  it('are found by least room to slide about, mine and of my region first', () => {
    fc.assert(
      fc.property(
        side,
        side,
        fc.double({ min: 0, max: 8, noNaN: true }),
        fc.constantFrom('inch', 'metric'),
        (width, height, thickness, region) => {
          const found = closestEnvelope(width, height, thickness, { envelopes: ENVELOPES, region });
          const taking = ENVELOPES.filter((e) => fits(width, height, thickness, e));
          expect(found === undefined).toBe(taking.length === 0);
          if (!found) return;
          const [long, short] = [Math.max(width, height), Math.min(width, height)];
          const room = (e: (typeof ENVELOPES)[number]): number => Math.max(e.long - long, e.short - short);
          const own = taking.filter((e) => e.region === region);
          const among = own.length > 0 ? own : taking;
          expect(among).toContain(found);
          for (const other of among) expect(room(other)).toBeGreaterThanOrEqual(room(found));
        },
      ),
    );
  });

  it('of less area are not taken where the card slides about in them: ease both ways counts', () => {
    // 210 × 100: the long one leaves 10 and 10, the square one of less area 20 and 60.
    const envelopes = [
      { id: 'long', name: 'long', long: 220, short: 110 },
      { id: 'wide', name: 'wide', long: 212, short: 112 },
      { id: 'loose', name: 'loose', long: 240, short: 100.5 },
    ];
    expect(closestEnvelope(210, 100, 0, { envelopes, region: 'metric' })!.id).toBe('long');
    expect(240 * 100.5).toBeLessThan(220 * 110);
  });

  it('are listed longer side first', () => {
    for (const { long, short } of ENVELOPES) expect(long).toBeGreaterThanOrEqual(short);
  });
});

describe('sheets', () => {
  it('are chosen by least waste for each blank, the first of those alike', () => {
    const [a4, a3] = ['a4', 'a3'].map((id) => KNOWN_SHEETS.find((s) => s.id === id)!);
    // Of 140 × 100 A4 gives 4 (156 cm² each), A3 8 (156 cm² each): alike, so the first that I have.
    expect(bestSheet([a4!, a3!], 140, 100)).toEqual({ sheet: a4, count: 4 });
    expect(bestSheet([a3!, a4!], 140, 100)!.sheet).toBe(a3);
    // 200 × 145 comes twice out of A4, but 300 × 150 not once: A3 gives two.
    expect(bestSheet([a4!, a3!], 200, 145)).toEqual({ sheet: a4, count: 2 });
    expect(bestSheet([a4!, a3!], 300, 140)).toEqual({ sheet: a3, count: 2 });
    expect(bestSheet([a4!], 800, 100)).toBeUndefined();
  });

  it('say by how much a blank is too large for the nearest of them', () => {
    const [a4, a3] = ['a4', 'a3'].map((id) => KNOWN_SHEETS.find((s) => s.id === id)!);
    expect(tooLargeBy([a4!, a3!], 420, 297)).toBe(0);
    expect(tooLargeBy([a4!, a3!], 800, 150)).toBe(380);
    expect(tooLargeBy([a4!], 250, 215)).toBe(5);
  });

  it('give as many blanks as fit on paper', () => {
    const a4 = KNOWN_SHEETS.find((s) => s.id === 'a4')!;
    // Two of A5 side by side only when turned; one of 210 × 200 with a strip left over.
    expect(blanksFrom(a4, 148.5, 210)).toEqual({ count: 2, turned: true });
    expect(blanksFrom(a4, 210, 148.5)).toEqual({ count: 2, turned: false });
    expect(blanksFrom(a4, 210, 200)).toEqual({ count: 1, turned: false });
    expect(blanksFrom(a4, 298, 10).count).toBe(0);
  });

  it('never promise more blanks than their area holds, and never fewer than a smaller sheet that fits inside', () => {
    fc.assert(
      fc.property(side, side, (width, height) => {
        const [a4, a3] = ['a4', 'a3'].map((id) => KNOWN_SHEETS.find((s) => s.id === id)!);
        for (const sheet of KNOWN_SHEETS) {
          expect(blanksFrom(sheet, width, height).count * width * height).toBeLessThanOrEqual(sheet.width * sheet.height + 1e-6);
        }
        expect(blanksFrom(a3!, width, height).count).toBeGreaterThanOrEqual(blanksFrom(a4!, width, height).count);
      }),
    );
  });
});

describe('stocks and boards', () => {
  it('have ids of their own, and are as stiff and dense as paper and film can be', () => {
    for (const { stocks, boards } of WORKSHOPS) {
      expect(new Set(stocks.map((s) => s.id)).size).toBe(stocks.length);
      expect(new Set(boards.map((b) => b.id)).size).toBe(boards.length);
    }
    for (const { weight, caliper, stiffness } of METRIC_WORKSHOP.stocks.filter(({ kind }) => kind !== 'foam')) {
      // g/m² ÷ mm = kg/m³: paper from 500 up, film to 1500.
      expect(weight / caliper).toBeGreaterThan(500);
      expect(weight / caliper).toBeLessThan(1500);
      expect(stiffness).toBeGreaterThan(1000);
      expect(stiffness).toBeLessThan(10_000);
    }
  });

  it('have grooves that come out even at a board’s end', () => {
    for (const { pitch, length, free } of BOARDS) if (!free) expect(length / pitch).toBeCloseTo(Math.round(length / pitch), 6);
  });
});

describe('a droop test', () => {
  it('gives the stiffness of a strip that bends under its own weight as a beam held at one end', () => {
    // Per mm of width: q = 250 g/m² · g = 2.4525e-6 N/mm², I = 0.3³/12; E = q·L⁴ ÷ (8·δ·I) for L = 100 and δ = 10.
    expect(stiffnessFromDroop({ length: 100, droop: 10, caliper: 0.3, weight: 250 })).toBeCloseTo(1362.5, 6);
  });

  it('is the less the more it droops, and asks for sizes that are there', () => {
    const strip = { length: 100, caliper: 0.3, weight: 250 };
    expect(stiffnessFromDroop({ ...strip, droop: 5 })).toBeCloseTo(2 * stiffnessFromDroop({ ...strip, droop: 10 }), 9);
    expect(() => stiffnessFromDroop({ ...strip, droop: 0 })).toThrow(/droop: 0 does not work/);
  });
});

describe('a board of the maker’s own', () => {
  const plank: Board = { id: 'plank', name: 'Plank', pitch: 4, length: 120, notation: 'mm' };

  it('has its grooves where it says, from where its scale begins', () => {
    expect(offGroove(40, plank)).toBeUndefined();
    expect(offGroove(41.5, plank)).toBeCloseTo(1.5, 9);
    expect(offGroove(39, plank)).toBeCloseTo(-1, 9);
  });

  it('takes a score in a groove that it has besides', () => {
    expect(offGroove(41.5, { ...plank, extra: [41.5] })).toBeUndefined();
  });

  it('without grooves takes every place', () => {
    fc.assert(fc.property(side, (at) => offGroove(at, { ...plank, free: true }) === undefined));
  });
});
