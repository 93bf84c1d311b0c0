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
