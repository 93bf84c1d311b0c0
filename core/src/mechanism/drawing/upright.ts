import type { Mm, Radians } from '../../measure/units.js';
import type { Crease, Fold, StandsFor } from '../../sheet/piece.js';

/** A score straight up a piece at x, as most scores are: read off one ruler. */
export function uprightCrease(
  id: string,
  name: string,
  x: Mm,
  along: readonly [from: Mm, to: Mm],
  fold: Fold,
  closed: Radians,
  standsFor?: StandsFor,
): Crease {
  return { id, name, from: [x, along[0]], to: [x, along[1]], fold, closed, ease: 0, ...(standsFor && { standsFor }) };
}

/** Where panels laid side by side begin and end: 0, then the running sum of their widths. */
export function edgesOf(widths: readonly Mm[]): Mm[] {
  return widths.reduce<Mm[]>((edges, width) => [...edges, edges[edges.length - 1]! + width], [0]);
}
