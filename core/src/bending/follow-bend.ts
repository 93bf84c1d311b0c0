import { bendOf, type Bend } from './bend-measures.js';
import { relax } from './relax.js';
import { SheetEnergy } from './sheet-energy.js';
import { holdEdges, rowCount, type Hold, type SheetRow } from './sheet.js';

/** The sheet in one of the holds that it was led through. */
export interface BentShape extends Bend {
  /** three numbers for each node, row by row */
  nodes: Float64Array;
  /** for a bending stiffness of 1 N·mm, in mJ */
  energy: number;
  /** whether it came to rest there */
  atRest: boolean;
}

/** Where a sheet jumps to another shape: between two holds, by their numbers in the order they are led through. */
export interface Snap {
  after: number;
  before: number;
}

export interface BendPath {
  shapes: BentShape[];
  snaps: Snap[];
}

/** A nudge, in widths: a shape that only balances, as an egg on its end, is left by it. */
const NUDGE = 0.0125;
/** A node that goes farther than this from one hold to the next, in widths, … */
const FAR = 0.25;
/** … while so much of the energy is let go, did not follow but jump. */
const LET_GO = 0.3;

/**
 * Leads a bent row of panels through its holds, one after the other, always at rest and held exactly.
 * @param start its nodes in the first hold, near enough to rest
 * @param done told after every hold how many there have been
 */
export function followBend(sheet: SheetRow, holds: readonly Hold[], start: Float64Array, done?: (count: number) => void): BendPath {
  const energy = new SheetEnergy(sheet);
  const nodes = start.slice();
  const shapes: BentShape[] = [];
  const snaps: Snap[] = [];
  holds.forEach((hold, i) => {
    holdEdges(nodes, sheet, hold);
    if (i > 0) nudge(nodes, sheet);
    const atRest = relax(energy, nodes, hold);
    const shape: BentShape = { nodes: nodes.slice(), energy: energy.bending, atRest, ...bendOf(nodes, sheet) };
    if (i > 0 && hasJumped(sheet, shapes[i - 1]!, shape)) snaps.push({ after: i - 1, before: i });
    shapes.push(shape);
    done?.(i + 1);
  });
  return { shapes, snaps };
}

/** Aslant to everything, least at the held edges. */
function nudge(nodes: Float64Array, sheet: SheetRow): void {
  const rows = rowCount(sheet);
  const perRow = 3 * (sheet.cells.across + 1);
  for (let row = 1; row < rows; row++) {
    const size = NUDGE * sheet.width * Math.sin((Math.PI * row) / rows);
    for (let k = 0; k < perRow; k++) nodes[row * perRow + k]! += size;
  }
}

const hasJumped = (sheet: SheetRow, before: BentShape, after: BentShape): boolean =>
  after.energy < (1 - LET_GO) * before.energy && farthest(before.nodes, after.nodes) > FAR * sheet.width;

function farthest(a: Float64Array, b: Float64Array): number {
  let most = 0;
  for (let i = 0; i < a.length; i += 3) most = Math.max(most, Math.hypot(a[i]! - b[i]!, a[i + 1]! - b[i + 1]!, a[i + 2]! - b[i + 2]!));
  return most;
}
