import type { Mm } from '../measure/units.js';
import type { Point } from '../plane/point.js';
import { carry, type Rigid, type Vec3 } from '../linkage/rigid.js';

/**
 * Panels of one sheet in a row that bend, with soft folds between them, held along the first and the last edge of the
 * row. Rows of nodes run across, row 0 on the first edge.
 */
export interface SheetRow {
  /** along the held edges */
  width: Mm;
  /** of every panel, from one held edge to the other */
  lengths: readonly Mm[];
  /** cells of each panel: from fold to fold, and across */
  cells: { along: number; across: number };
}

/** What a node may not pass: it stays on the side to which the normal looks. */
export interface Stop {
  at: Vec3;
  normal: Vec3;
}

/** A held edge: its two ends, and the stiff panel beyond it, which the sheet can be folded onto but not through. */
export interface HeldEdge {
  ends: readonly [Vec3, Vec3];
  /** from the edge into the stiff panel, and out of the face that the sheet folds onto; both of length 1 */
  into: Vec3;
  facing: Vec3;
}

/** Where the sheet is held at one opening. */
export interface Hold {
  first: HeldEdge;
  last: HeldEdge;
  stops: readonly Stop[];
}

export const rowCount = ({ lengths, cells }: SheetRow): number => lengths.length * cells.along;

/** How far apart rows lie that begin a step from `row` on. */
export const rowSpacing = ({ lengths, cells }: SheetRow, row: number): Mm => lengths[Math.floor(row / cells.along)]! / cells.along;

/** Whether a row lies on a fold between two panels, or on a held edge. */
export const onFold = ({ cells }: SheetRow, row: number): boolean => row % cells.along === 0;

/** Sets the nodes of both held edges. @param nodes three numbers each, row by row */
export function holdEdges(nodes: Float64Array, sheet: SheetRow, { first, last }: Hold): void {
  const { across } = sheet.cells;
  for (const [row, { ends }] of [
    [0, first],
    [rowCount(sheet), last],
  ] as const) {
    for (let j = 0; j <= across; j++) {
      const share = j / across;
      for (let c = 0; c < 3; c++) nodes[3 * (row * (across + 1) + j) + c] = ends[0][c]! + share * (ends[1][c]! - ends[0][c]!);
    }
  }
}

/** Where a panel of a row begins on its piece, on the fold nearer the first held edge; directions of length 1. */
export interface PanelStart {
  at: Point;
  along: Point;
  across: Point;
}

/** Nodes of the row with every panel flat at its place: where neighbours do not meet, their common nodes lie half-way. */
export function flatPanels(sheet: SheetRow, poses: readonly Rigid[], starts: readonly PanelStart[]): Float64Array {
  const { along: n, across: m } = sheet.cells;
  const nodes = new Float64Array(3 * (rowCount(sheet) + 1) * (m + 1));
  poses.forEach((pose, panel) => {
    const { at, along: u, across: v } = starts[panel]!;
    for (let i = 0; i <= n; i++) {
      const shared = (i === 0 && panel > 0) || (i === n && panel + 1 < poses.length);
      for (let j = 0; j <= m; j++) {
        const [a, b] = [(i / n) * sheet.lengths[panel]!, (j / m) * sheet.width];
        const p = carry(pose, at[0] + a * u[0] + b * v[0], at[1] + a * u[1] + b * v[1], 0);
        for (let c = 0; c < 3; c++) nodes[3 * ((panel * n + i) * (m + 1) + j) + c]! += (shared ? 0.5 : 1) * p[c]!;
      }
    }
  });
  return nodes;
}

export const nodeAt = (nodes: Float64Array, { cells }: SheetRow, row: number, j: number): Vec3 => {
  const o = 3 * (row * (cells.across + 1) + j);
  return [nodes[o]!, nodes[o + 1]!, nodes[o + 2]!];
};
