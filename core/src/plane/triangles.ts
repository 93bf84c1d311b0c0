import earcut from 'earcut';
import type { Area } from './outline.js';
import type { Point } from './point.js';

/** A flat shape as triangles: its corner points and three indices a triangle. */
export interface Triangles {
  points: Point[];
  corners: number[];
}

export function triangulate(area: Area): Triangles {
  const points: Point[] = [...area.outer];
  const holeStarts: number[] = [];
  for (const hole of area.holes) {
    holeStarts.push(points.length);
    points.push(...hole);
  }
  return { points, corners: earcut(points.flat(), holeStarts) };
}
