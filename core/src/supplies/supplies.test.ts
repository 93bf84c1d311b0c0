import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { offGroove, type Board } from './boards.js';
import { fits, smallestEnvelope } from './envelopes.js';
import { blanksFrom } from './sheets.js';
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

  it('are found the smallest first: none of less area takes the card', () => {
    fc.assert(
      fc.property(side, side, fc.double({ min: 0, max: 8, noNaN: true }), (width, height, thickness) => {
        const found = smallestEnvelope(width, height, thickness, ENVELOPES);
        const takes = ENVELOPES.filter((e) => fits(width, height, thickness, e));
        expect(found === undefined).toBe(takes.length === 0);
        if (found) expect(takes).toContain(found);
        for (const other of takes) expect(other.long * other.short).toBeGreaterThanOrEqual(found!.long * found!.short);
      }),
    );
  });

  it('are listed longer side first', () => {
    for (const { long, short } of ENVELOPES) expect(long).toBeGreaterThanOrEqual(short);
  });
});

describe('sheets', () => {
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
