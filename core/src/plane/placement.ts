import type { Radians } from '../measure/units.js';
import type { Point } from './point.js';

/**
 * How one flat sheet lies on another: turned by `turn` about its own origin, face over first
 * when `flipped` (x changes sign), then moved so that the origin falls on `to`.
 */
export interface Placement {
  to: Point;
  turn: Radians;
  flipped: boolean;
}

export function place(p: Point, { to, turn, flipped }: Placement): Point {
  const x = flipped ? -p[0] : p[0];
  const c = Math.cos(turn);
  const s = Math.sin(turn);
  return [to[0] + c * x - s * p[1], to[1] + s * x + c * p[1]];
}

/** Where a sheet lies that is placed on another which is itself placed: first `inner`, then `outer`. */
export function composed(outer: Placement, inner: Placement): Placement {
  // A mirror before a turn is a turn the other way before the mirror.
  const turn = outer.turn + (outer.flipped ? -inner.turn : inner.turn);
  return { to: place(inner.to, outer), turn, flipped: outer.flipped !== inner.flipped };
}

/** The placement that undoes another. */
export function undone({ to, turn, flipped }: Placement): Placement {
  const back: Placement = { to: [0, 0], turn: flipped ? turn : -turn, flipped };
  const [x, y] = place(to, back);
  return { ...back, to: [-x, -y] };
}

/** Laid as drawn, its origin on a point. */
export const shifted = (to: Point): Placement => ({ to, turn: 0, flipped: false });

export const UNMOVED: Placement = { to: [0, 0], turn: 0, flipped: false };
