import type { Mm, Radians } from '../measure/units.js';

/** Standard gravity, m/s². */
export const GRAVITY = 9.80665;
const GRAMS_PER_KG = 1000;
const MM2_PER_M2 = 1e6;

/** Second moment of a flat strip, mm⁴: width × thickness³ ÷ 12. */
export const secondMoment = (width: Mm, thickness: Mm): number => (width * thickness ** 3) / 12;

/**
 * Load under which a strip standing on one held end buckles, in grams: π²·E·I ÷ (4L²) (Euler, one end free).
 * @param stiffness Young's modulus, N/mm²
 */
export function bucklingLoad(stiffness: number, moment: number, length: Mm): number {
  return (((Math.PI ** 2 * stiffness * moment) / (4 * length ** 2)) * GRAMS_PER_KG) / GRAVITY;
}

/** Of its own weight a standing strip feels this share as if it were at its top. */
export const OWN_SHARE = 0.3;

/** Weight of a strip along it, N/mm. @param perArea g/m² */
export function lineLoad(perArea: number, width: Mm): number {
  return (((perArea / MM2_PER_M2) * width) / GRAMS_PER_KG) * GRAVITY;
}

/** Sag of a strip leaning at `lean` from the table and held at both ends: 5qL⁴·cos(lean) ÷ (384·E·I), mm. */
export function heldSag(q: number, length: Mm, lean: Radians, stiffness: number, moment: number): Mm {
  return (5 * q * length ** 4 * Math.cos(lean)) / (384 * stiffness * moment);
}

/** Bend of a free part above a hinge: qL⁴·cos ÷ (8·E·I) + P·L³·cos ÷ (3·E·I), mm. @param tip N */
export function cantileverBend(q: number, tip: number, length: Mm, lean: Radians, stiffness: number, moment: number): Mm {
  return (q * length ** 4 * Math.cos(lean)) / (8 * stiffness * moment) + (tip * length ** 3 * Math.cos(lean)) / (3 * stiffness * moment);
}

/**
 * Glued layers of the same stock that carry a load: n of them are n³ as stiff and n times as heavy.
 * @param carries whether n layers are enough; the least that are, or undefined beyond eight
 */
export function layersNeeded(carries: (n: number) => boolean): number | undefined {
  return [2, 3, 4, 5, 6, 7, 8].find(carries);
}
