import { Path, Shape } from 'three';

type Loop = readonly (readonly [number, number])[];

/** A flat thing with its openings, as it is drawn. */
export function shapeOf({ outer, holes }: { outer: Loop; holes: readonly Loop[] }): Shape {
  const along = <P extends Path>(path: P, [first, ...rest]: Loop): P => {
    path.moveTo(first![0], first![1]);
    for (const [x, y] of rest) path.lineTo(x, y);
    path.closePath();
    return path;
  };
  const shape = along(new Shape(), outer);
  shape.holes = holes.map((hole) => along(new Path(), hole));
  return shape;
}
