import type { Mm, Radians } from '../measure/units.js';

/**
 * Least width of a slot for a strip of thickness ts through a sheet of thickness t at angle θ between them:
 * ts ÷ sin θ + t ÷ |tan θ| + clearance.
 */
export function leastSlot(strip: Mm, sheet: Mm, angle: Radians, clearance: Mm): Mm {
  return strip / Math.sin(angle) + sheet / Math.abs(Math.tan(angle)) + clearance;
}
