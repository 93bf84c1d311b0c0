import type { Mm, Radians } from '../measure/units.js';

/** Standard gravity, m/s². */
export const GRAVITY = 9.80665;
const GRAMS_PER_KG = 1000;
export const MM2_PER_M2 = 1e6;

/** Second moment of a flat strip, mm⁴: width × thickness³ ÷ 12. */
export const secondMoment = (width: Mm, thickness: Mm): number => (width * thickness ** 3) / 12;

/**
 * Load under which a strip standing on one held end buckles, in grams: π²·E·I ÷ (4L²) (Euler, one end free).
 * @param rigidity E·I, N·mm²
 */
export function bucklingLoad(rigidity: number, length: Mm): number {
  return (((Math.PI ** 2 * rigidity) / (4 * length ** 2)) * GRAMS_PER_KG) / GRAVITY;
}

/** Of its own weight a standing strip feels this share as if it were at its top. */
export const OWN_SHARE = 0.3;

/** Weight of a strip along it, N/mm. @param perArea g/m² */
export function lineLoad(perArea: number, width: Mm): number {
  return (((perArea / MM2_PER_M2) * width) / GRAMS_PER_KG) * GRAVITY;
}

/** Sag of a strip leaning at `lean` from the table and held at both ends: 5qL⁴·cos(lean) ÷ (384·E·I), mm. */
export function heldSag(q: number, length: Mm, lean: Radians, rigidity: number): Mm {
  return (5 * q * length ** 4 * Math.cos(lean)) / (384 * rigidity);
}

/** Bend of a free part above a hinge: qL⁴·cos ÷ (8·E·I) + P·L³·cos ÷ (3·E·I), mm. @param tip N */
export function cantileverBend(q: number, tip: number, length: Mm, lean: Radians, rigidity: number): Mm {
  return (q * length ** 4 * Math.cos(lean)) / (8 * rigidity) + (tip * length ** 3 * Math.cos(lean)) / (3 * rigidity);
}

/**
 * Glued layers of the same stock that carry a load: n of them are n³ as stiff and n times as heavy.
 * @param carries whether n layers are enough; the least that are, or undefined beyond eight
 */
export function layersNeeded(carries: (n: number) => boolean): number | undefined {
  return [2, 3, 4, 5, 6, 7, 8].find(carries);
}

/** One of several sheets glued on one another. */
export interface GluedSheet {
  caliper: Mm;
  /** Young's modulus, N/mm² */
  stiffness: number;
  width: Mm;
}

/**
 * Rigidity E·I of sheets glued on one another, from one face to the other, N·mm²: each about the common neutral line,
 * Σ E·w·(t³ ÷ 12 + t·d²). n alike are n³ as rigid as one.
 */
export function gluedRigidity(sheets: readonly GluedSheet[]): number {
  let low = 0;
  const placed = sheets.map((sheet) => {
    const middle = low + sheet.caliper / 2;
    low += sheet.caliper;
    return { ...sheet, middle, pull: sheet.stiffness * sheet.width * sheet.caliper };
  });
  const pull = placed.reduce((sum, each) => sum + each.pull, 0);
  const neutral = placed.reduce((sum, each) => sum + each.pull * each.middle, 0) / pull;
  return placed.reduce(
    (sum, { stiffness, width, caliper, middle, pull: own }) =>
      sum + stiffness * secondMoment(width, caliper) + own * (middle - neutral) ** 2,
    0,
  );
}
