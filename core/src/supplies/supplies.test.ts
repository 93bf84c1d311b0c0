import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { offGroove } from './boards.js';
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
