import { printAngle } from '../../measure/print.js';
import { toRadians, type Radians } from '../../measure/units.js';
import type { Range } from '../contract.js';
import { num, type SizeContext } from '../sizes.js';
import type { Side } from './ray-tab.js';

/**
 * The opening at which the wings are pulled taut: there the rays are as far apart as both wing angles
 * together. Undefined when the card lies flat before that.
 */
function tautOpening(a: Side, b: Side): Radians | undefined {
  const spread = a.wing + b.wing;
  if (spread >= a.ray + b.ray) return undefined;
  return openingForSpread(a.ray, b.ray, spread);
}

/**
 * Spherical law of cosines: rays at β1, β2 from the fold are `spread` apart at this opening. Closed where they are farther
 * apart than that at every opening, flat open where they are nearer.
 */
function openingForSpread(ray1: Radians, ray2: Radians, spread: Radians): Radians {
  const cosine = (Math.cos(spread) - Math.cos(ray1) * Math.cos(ray2)) / (Math.sin(ray1) * Math.sin(ray2));
  return Math.acos(Math.min(1, Math.max(-1, cosine)));
}

/** The two sides of a crest as its sizes give them: the first on the second leaf. */
export const sidesOf = ({ sizes }: Pick<SizeContext, 'sizes'>): [Side, Side] => [
  { ray: num(sizes, 'rayAngle'), wing: num(sizes, 'wingAngle') },
  { ray: num(sizes, 'secondRayAngle'), wing: num(sizes, 'secondWingAngle') },
];

/** Limits of a wing angle: wide enough for the card to lie flat, narrow enough for the wing to lie on its leaf. */
export function wingRange(context: SizeContext, which: 1 | 2): Range {
  const [first, second] = sidesOf(context);
  const [own, other] = which === 1 ? [first, second] : [second, first];
  const alike = own.ray === other.ray && own.wing === other.wing;
  const least = alike ? own.ray : own.ray + other.ray - other.wing;
  const taut = tautOpening(own, other);
  return {
    min: Math.max(least, toRadians(5)),
    max: Math.min(Math.PI - own.ray, other.wing + own.ray + other.ray),
    because:
      taut === undefined
        ? 'both angles of a wing together may not pass 180°, and the two wings must span the glue lines'
        : `the wings must be at least as wide as the glue lines they span: these pull taut at ${printAngle(taut)} and never let the card open to ${printAngle(context.site!.opensTo)}`,
  };
}
