import type { Mm, Radians } from '../measure/units.js';
import { along, cross, dot, minus, norm, type Vec3 } from '../linkage/rigid.js';
import { nodeAt, onFold, rowCount, rowSpacing, type SheetRow } from './sheet.js';

/** How much a panel of a row is bent: the largest angle between two places of it, and the least radius. */
export interface Bend {
  angle: Radians;
  radius: Mm;
}

/** The most that any panel of the row is bent. */
export function bendOf(nodes: Float64Array, sheet: SheetRow): Bend {
  const { along: n } = sheet.cells;
  let angle = 0;
  for (let panel = 0; panel < sheet.lengths.length; panel++) {
    const normals = Array.from({ length: n }, (_, i) => rowNormals(nodes, sheet, panel * n + i)).flat();
    for (const a of normals) for (const b of normals) angle = Math.max(angle, Math.acos(Math.min(1, Math.max(-1, dot(a, b)))));
  }
  return { angle, radius: 1 / Math.max(sharpest(nodes, sheet), 1e-9) };
}

/** Out of the face of every cell between two rows. */
function rowNormals(nodes: Float64Array, sheet: SheetRow, row: number): Vec3[] {
  return Array.from({ length: sheet.cells.across }, (_, j) => {
    const [a, b, c, d] = [
      nodeAt(nodes, sheet, row, j),
      nodeAt(nodes, sheet, row, j + 1),
      nodeAt(nodes, sheet, row + 1, j),
      nodeAt(nodes, sheet, row + 1, j + 1),
    ];
    const n = cross(minus(d, a), minus(b, c));
    const length = norm(n);
    return [n[0] / length, n[1] / length, n[2] / length];
  });
}

/** The greatest mean curvature at a node inside a panel, doubled: of a sheet that does not stretch, its one curvature. */
function sharpest(nodes: Float64Array, sheet: SheetRow): number {
  const dv = sheet.width / sheet.cells.across;
  let most = 0;
  for (let row = 1; row < rowCount(sheet); row++) {
    if (onFold(sheet, row)) continue;
    const du = rowSpacing(sheet, row);
    for (let j = 1; j < sheet.cells.across; j++) {
      const middle = nodeAt(nodes, sheet, row, j);
      const second = (a: Vec3, b: Vec3, d: number): Vec3 => {
        const sum = along(minus(a, middle), minus(b, middle), 1);
        return [sum[0] / d ** 2, sum[1] / d ** 2, sum[2] / d ** 2];
      };
      const u = second(nodeAt(nodes, sheet, row - 1, j), nodeAt(nodes, sheet, row + 1, j), du);
      const v = second(nodeAt(nodes, sheet, row, j - 1), nodeAt(nodes, sheet, row, j + 1), dv);
      most = Math.max(most, norm(along(u, v, 1)));
    }
  }
  return most;
}
