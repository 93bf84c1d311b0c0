import { nodesBetween, type QuickRow } from '../card/bent-rows.js';
import { nodeAt } from '../bending/sheet.js';
import { cross, dot, minus, type Vec3 } from '../linkage/rigid.js';

/** A cell of a bent panel in space: its corners in turn, and out of its panel’s upper face. */
export interface BentCell {
  panel: string;
  corners: readonly Vec3[];
  normal: Vec3;
}

/** The cells of a row at a point of the drive, as it opens. */
export function bentCells({ claim, sheet, opening, handed }: QuickRow, s: number): BentCell[] {
  const nodes = nodesBetween(opening, s);
  const { along, across } = sheet.cells;
  return claim.panels.flatMap((panel, p) =>
    Array.from({ length: along * across }, (_, k): BentCell => {
      const [row, j] = [p * along + Math.floor(k / across), k % across];
      const corners = [
        nodeAt(nodes, sheet, row, j),
        nodeAt(nodes, sheet, row, j + 1),
        nodeAt(nodes, sheet, row + 1, j + 1),
        nodeAt(nodes, sheet, row + 1, j),
      ];
      const n = cross(minus(corners[3]!, corners[1]!), minus(corners[2]!, corners[0]!));
      const length = handed * Math.hypot(...n);
      return { panel, corners, normal: [n[0] / length, n[1] / length, n[2] / length] };
    }),
  );
}

/** How near the middle of a cell is to the viewer. */
export const depthOf = ({ corners }: BentCell, toward: Vec3): number =>
  corners.reduce((sum, corner) => sum + dot(corner, toward), 0) / corners.length;

/**
 * Stiff panels in their order of painting, and cells among them: each before the first stiff panel that is nearer than it,
 * but never before what the row stays in front of.
 * @param behind how many of the stiff panels, from the first, are painted before any cell
 */
export function paintedAmong<T>(
  stiff: readonly { item: T; depth: number }[],
  cells: readonly { item: T; depth: number }[],
  behind: number,
): T[] {
  const waiting = [...cells].sort((a, b) => a.depth - b.depth);
  const order: T[] = [];
  stiff.forEach(({ item, depth }, i) => {
    while (i >= behind && waiting.length > 0 && waiting[0]!.depth < depth) order.push(waiting.shift()!.item);
    order.push(item);
  });
  return [...order, ...waiting.map(({ item }) => item)];
}
