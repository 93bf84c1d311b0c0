import { describe, expect, it } from 'vitest';
import { toRadians } from '../measure/units.js';
import { dressedBy, dressedOtherwise } from '../card/dress-card.js';
import { claimsOf } from '../card/draw.js';
import type { Evaluation } from '../evaluate.js';
import { areaOf } from '../plane/outline.js';
import { METRIC_WORKSHOP } from '../supplies/starter-workshops.js';
import { cardOn, evaluated, finding, having, stockById } from '../testing/evaluated.js';
import { bucklingLoad, cantileverBend, gluedRigidity, GRAVITY, heldSag, layersNeeded, lineLoad, secondMoment } from './stiffness.js';

/** A strip of card, 60 mm wide: E in N/mm², lengths in mm. */
const E = 3000;
const WIDTH = 60;
const THICK = 0.4;
const I = secondMoment(WIDTH, THICK);

/** Second moment by adding up thin slices, each its area times the square of its distance from the middle. */
function momentBySlices(width: number, thickness: number, slices: number): number {
  const h = thickness / slices;
  let sum = 0;
  for (let i = 0; i < slices; i++) sum += width * h * (-thickness / 2 + (i + 0.5) * h) ** 2;
  return sum;
}

/** Deflection of a beam held fast at 0: curvature M/EI summed twice along it. */
function bentEnd(moment: (x: number) => number, length: number, steps = 4000): number {
  const h = length / steps;
  let [slope, deflection] = [0, 0];
  for (let i = 0; i < steps; i++) {
    const curvature = moment((i + 0.5) * h) / (E * I);
    deflection += slope * h + (curvature * h * h) / 2;
    slope += curvature * h;
  }
  return deflection;
}

/** Middle of a beam resting at both ends: by symmetry half of it is a cantilever from the middle, its end lifted. */
function saggedMiddle(q: number, length: number): number {
  const reaction = (q * length) / 2;
  const half = length / 2;
  return bentEnd((x) => reaction * (half - x) - (q * (half - x) ** 2) / 2, half);
}

/**
 * Least load at which a column fast at its foot can stay bent: y″ = −(P/EI)·(y − tip). Shooting from the foot, the
 * load is right when the bent end comes out where it was assumed.
 */
function bucklingByShooting(length: number): number {
  const end = (P: number): number => {
    const steps = 4000;
    const h = length / steps;
    let [y, slope] = [0, 0];
    for (let i = 0; i < steps; i++) {
      slope += (P / (E * I)) * (1 - y) * h;
      y += slope * h;
    }
    return y - 1;
  };
  let [low, high] = [0, (6 * E * I) / length ** 2];
  for (let i = 0; i < 60; i++) {
    const middle = (low + high) / 2;
    if (end(middle) < 0) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}

describe('stiffness of strips', () => {
  it('has the second moment that thin slices add up to', () => {
    expect(secondMoment(WIDTH, THICK)).toBeCloseTo(momentBySlices(WIDTH, THICK, 2000), 6);
    // 60 × 0.4³ ÷ 12.
    expect(I).toBeCloseTo(0.32, 12);
  });

  it('weighs a strip by its area', () => {
    // 250 g/m², 60 mm wide: 15 g a metre, 0.147 N a metre.
    expect(lineLoad(250, WIDTH) * 1000).toBeCloseTo(0.015 * GRAVITY, 9);
  });

  it.each([50, 90, 140])('buckles, %d mm high, at the load that shooting finds', (length) => {
    const newtons = (bucklingLoad(E * I, length) / 1000) * GRAVITY;
    expect(newtons / bucklingByShooting(length)).toBeCloseTo(1, 2);
  });

  it.each([0, 30, 60])('sags, leaning at %d°, as curvature summed along it says', (degrees) => {
    const [lean, length, q] = [toRadians(degrees), 120, 2e-4];
    expect(heldSag(q, length, lean, E * I)).toBeCloseTo(saggedMiddle(q * Math.cos(lean), length), 4);
  });

  it.each([
    [2e-4, 0, 45],
    [0, 0.05, 45],
    [2e-4, 0.05, 80],
  ])('bends above a hinge under %d N/mm and %d N at its end, leaning at %d°', (q, tip, degrees) => {
    const [lean, length] = [toRadians(degrees), 100];
    const across = Math.cos(lean);
    const summed = bentEnd((x) => (q * across * (length - x) ** 2) / 2 + tip * across * (length - x), length);
    expect(cantileverBend(q, tip, length, lean, E * I)).toBeCloseTo(summed, 4);
  });

  it('does not bend at all standing upright', () => {
    expect(cantileverBend(2e-4, 0.05, 100, Math.PI / 2, E * I)).toBeCloseTo(0, 12);
  });

  it('asks for the fewest layers that carry, and for none beyond eight', () => {
    expect(layersNeeded((n) => n ** 3 >= 20)).toBe(3);
    expect(layersNeeded((n) => n >= 8)).toBe(8);
    expect(layersNeeded((n) => n > 8)).toBeUndefined();
  });
});

describe('thin parts that push or stand', () => {
  const onPaper = (mechanism: string, base: string, sizes = {}) =>
    evaluated(having(cardOn(mechanism, sizes), { stocks: { ...cardOn(mechanism).stocks, base } }));
  const PARTS: readonly (readonly [string, string])[] = [
    ['swing', 'arms'],
    ['half-turn-stand', 'upright'],
    ['tucked-display', 'wings'],
    ['step-easel', 'rails'],
  ];

  it.each(PARTS)('of %s are told of paper of 120 g (%s), not of card of 250 g', (mechanism, part) => {
    const said = finding(onPaper(mechanism, 'patterned-120'), `stiff-enough/${part}`);
    expect(said).toMatchObject({ severity: 'warn', unit: 'mm' });
    expect(said.says).toContain('pushed, it gives');
    expect(finding(onPaper(mechanism, 'card-250'), `stiff-enough/${part}`).severity).toBe('pass');
  });

  it('bend as a strip held level by its fold does', () => {
    // Wings of 60 mm in paper of 120 g, 0.16 mm, 3500 N/mm²: qL⁴/8EI for each mm of width.
    const said = finding(onPaper('tucked-display', 'patterned-120', { wing: 60 }), 'stiff-enough/wings');
    const q = (120e-6 * 9.80665) / 1000;
    expect(said.value).toBeCloseTo((q * 60 ** 4) / (8 * 3500 * (0.16 ** 3 / 12)), 6);
    expect(said.shortfall).toBeCloseTo(said.value! - 60 / 50, 6);
  });

  it('are stiffened by frames: two layers are eight times as stiff and twice as heavy', () => {
    const [bare, framed] = ['none', 'outer'].map((frames) => finding(onPaper('swing', 'patterned-120', { frames }), 'stiff-enough/arms'));
    expect(framed!.value).toBeCloseTo(bare!.value! / 4, 9);
  });
});

describe('sheets glued on one another', () => {
  it('are as stiff as the sum of their thin slices about the line that is neither stretched nor pressed', () => {
    const sheets = [
      { caliper: 0.2, stiffness: 2000, width: 50 },
      { caliper: 0.4, stiffness: 3000, width: 60 },
      { caliper: 0.3, stiffness: 5000, width: 40 },
    ];
    const slices = sheets.flatMap(({ caliper, stiffness, width }, k) => {
      const low = sheets.slice(0, k).reduce((sum, each) => sum + each.caliper, 0);
      return Array.from({ length: 2000 }, (_, i) => ({
        z: low + ((i + 0.5) * caliper) / 2000,
        pull: (stiffness * width * caliper) / 2000,
      }));
    });
    const neutral = slices.reduce((sum, { z, pull }) => sum + z * pull, 0) / slices.reduce((sum, { pull }) => sum + pull, 0);
    const summed = slices.reduce((sum, { z, pull }) => sum + pull * (z - neutral) ** 2, 0);
    expect(gluedRigidity(sheets) / summed).toBeCloseTo(1, 5);
  });

  it('alike are n³ as stiff as one, and as stiff in whichever order they lie', () => {
    const one = { caliper: 0.3, stiffness: 3000, width: 60 };
    for (const n of [1, 2, 3, 5]) expect(gluedRigidity(Array.from({ length: n }, () => one)) / gluedRigidity([one])).toBeCloseTo(n ** 3, 9);
    const other = { caliper: 0.1, stiffness: 4000, width: 50 };
    expect(gluedRigidity([one, other])).toBeCloseTo(gluedRigidity([other, one]), 9);
  });

  it('stiffen a part by the layers that it wears, whose weight it carries', () => {
    const bare = cardOn('half-turn-stand');
    const [part] = claimsOf(evaluated(bare).design, 'stiff');
    const onBoth = dressedBy(bare, { border: 3 }, METRIC_WORKSHOP);
    // One of its faces is left bare, so that two sheets lie on one another.
    const dressed = evaluated(dressedOtherwise(onBoth, { panel: part!.panel, face: 'down' }, { bare: true }));
    const worn = dressed.dressed.layers.filter(({ panel }) => panel === part!.panel);
    expect(worn).toHaveLength(1);
    const [layer] = worn;
    const own = stockById('card-250');
    const area = areaOf(layer!.area);
    const [pullA, pullB] = [
      own.stiffness * part!.width * own.caliper,
      (layer!.stock.stiffness * area * layer!.stock.caliper) / part!.length,
    ];
    // Of two sheets: each about itself, and both pulls as if in series half their thickness apart.
    const single = (pull: number, caliper: number): number => (pull * caliper ** 2) / 12;
    const both =
      single(pullA, own.caliper) +
      single(pullB, layer!.stock.caliper) +
      ((pullA * pullB) / (pullA + pullB)) * ((own.caliper + layer!.stock.caliper) / 2) ** 2;
    const weight = (own.weight * part!.width * part!.length + layer!.stock.weight * area) / (own.weight * part!.width * part!.length);
    const value = (evaluation: Evaluation): number => finding(evaluation, `stiff-enough/${part!.id}`).value!;
    expect(value(dressed) / value(evaluated(bare))).toBeCloseTo((weight * single(pullA, own.caliper)) / both, 6);
  });
});
