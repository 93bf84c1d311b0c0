import type { Mm, Radians } from '../measure/units.js';

/**
 * What a one-piece liner is shorter by across a fold: it lies a distance z inside the neutral layer of a
 * fold through θ, and the way round is shorter by θ·z. Outside a fold it is longer by as much.
 */
export function linerAllowance(foldAngle: Radians, baseCaliper: Mm, linerCaliper: Mm): Mm {
  return (foldAngle * (baseCaliper + linerCaliper)) / 2;
}
