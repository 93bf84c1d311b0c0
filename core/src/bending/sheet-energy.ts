import type { Vec3 } from '../linkage/rigid.js';
import { BandedMatrix } from './banded.js';
import { onFold, rowCount, rowSpacing, type HeldEdge, type Hold, type SheetRow } from './sheet.js';

/**
 * How much stiffer the sheet is in its plane than in bending, times its width squared. A card of 0.4 mm and 40 mm wide has
 * 12·40²/0.4²; stiffer than that changes nothing that is shown, softer stretches.
 */
const MEMBRANE = 1.2e5;
/** Stiffness of what stops the sheet, in the same measure: it gives by hundredths of a millimetre. */
const STOP = 4e3;
/** So many rows beside a held edge may lie on the stiff panel beyond it. */
const ROWS_ON_PANEL = 2;

/** A second difference of nodes: Σ weight·node, squared, times `stiffness`. */
interface Stencil {
  nodes: readonly number[];
  weights: readonly number[];
  stiffness: number;
}

/**
 * Energy of a bent row of panels over its node positions, for a bending stiffness of 1 (N·mm): multiply by the card’s own
 * E·t³/12(1−ν²) for millijoules. For a sheet that does not stretch the bending energy is ½∫|∂²x|², exactly quadratic in the
 * positions; stretching is measured along the mid-lines of each cell, which does not lock however coarse the cells are.
 */
export class SheetEnergy {
  readonly unknowns: number;
  readonly gradient: Float64Array;
  readonly hessian: BandedMatrix;
  /** the parts of the value last worked out */
  bending = 0;
  stretching = 0;
  stopping = 0;

  private readonly across: number;
  private readonly rows: number;
  private readonly stencils: readonly Stencil[];
  private readonly bendingHessian: Float64Array;

  constructor(readonly sheet: SheetRow) {
    this.across = sheet.cells.across;
    this.rows = rowCount(sheet);
    const inRow = 3 * (this.across + 1);
    this.unknowns = inRow * (this.rows - 1);
    this.gradient = new Float64Array(this.unknowns);
    this.hessian = new BandedMatrix(this.unknowns, 2 * inRow + 3);
    this.stencils = stencilsOf(sheet);
    this.bendingHessian = this.constantHessian();
  }

  /** The unknown of a coordinate of the nodes; less than nothing, or past the last, where it is held. */
  unknownOf(coordinate: number): number {
    const unknown = coordinate - 3 * (this.across + 1);
    return unknown < this.unknowns ? unknown : -1;
  }

  /** The energy of a shape; with `slopes` the gradient and the second derivatives as well. */
  at(x: Float64Array, hold: Hold, slopes: boolean): number {
    if (slopes) {
      this.gradient.fill(0);
      this.hessian.entries.set(this.bendingHessian);
    }
    this.bending = this.bend(x, slopes);
    this.stretching = this.stretch(x, slopes);
    this.stopping = this.stop(x, hold, slopes);
    return this.bending + this.stretching + this.stopping;
  }

  private constantHessian(): Float64Array {
    for (const { nodes, weights, stiffness } of this.stencils) {
      nodes.forEach((a, p) =>
        nodes.forEach((b, q) => {
          for (let c = 0; c < 3; c++) this.addSecond(3 * a + c, 3 * b + c, stiffness * weights[p]! * weights[q]!);
        }),
      );
    }
    return this.hessian.entries.slice();
  }

  private addSecond(a: number, b: number, value: number): void {
    const [i, j] = [this.unknownOf(a), this.unknownOf(b)];
    if (i >= 0 && j >= 0) this.hessian.add(i, j, value);
  }

  private addFirst(coordinate: number, value: number): void {
    const i = this.unknownOf(coordinate);
    if (i >= 0) this.gradient[i]! += value;
  }

  private bend(x: Float64Array, slopes: boolean): number {
    let energy = 0;
    for (const { nodes, weights, stiffness } of this.stencils) {
      for (let c = 0; c < 3; c++) {
        let r = 0;
        for (let k = 0; k < nodes.length; k++) r += weights[k]! * x[3 * nodes[k]! + c]!;
        energy += 0.5 * stiffness * r * r;
        if (slopes) for (let k = 0; k < nodes.length; k++) this.addFirst(3 * nodes[k]! + c, stiffness * r * weights[k]!);
      }
    }
    return energy;
  }

  private readonly corner = new Int32Array(4);
  private readonly ofU = new Float64Array(4);
  private readonly ofV = new Float64Array(4);
  private readonly byU = new Float64Array(12);
  private readonly byV = new Float64Array(12);
  private readonly byShear = new Float64Array(12);

  private stretch(x: Float64Array, slopes: boolean): number {
    const { across: m, corner, ofU, ofV } = this;
    const dv = this.sheet.width / m;
    let energy = 0;
    for (let i = 0; i < this.rows; i++) {
      const du = rowSpacing(this.sheet, i);
      const stiffness = (MEMBRANE / this.sheet.width ** 2) * du * dv;
      ofU.set([-0.5 / du, -0.5 / du, 0.5 / du, 0.5 / du]);
      ofV.set([-0.5 / dv, 0.5 / dv, -0.5 / dv, 0.5 / dv]);
      for (let j = 0; j < m; j++) {
        const first = i * (m + 1) + j;
        corner.set([first, first + 1, first + m + 1, first + m + 2]);
        energy += this.stretchCell(x, stiffness, slopes);
      }
    }
    return energy;
  }

  /** Green’s strains of the mid-lines u and v of one cell: ½(|u|² − 1), ½(|v|² − 1) and u·v. */
  private stretchCell(x: Float64Array, stiffness: number, slopes: boolean): number {
    const { corner, ofU, ofV, byU, byV, byShear } = this;
    let [uu, vv, uv] = [0, 0, 0];
    for (let c = 0; c < 3; c++) {
      let [u, v] = [0, 0];
      for (let k = 0; k < 4; k++) {
        const p = x[3 * corner[k]! + c]!;
        u += ofU[k]! * p;
        v += ofV[k]! * p;
      }
      for (let k = 0; k < 4; k++) {
        byU[3 * k + c] = ofU[k]! * u;
        byV[3 * k + c] = ofV[k]! * v;
        byShear[3 * k + c] = ofU[k]! * v + ofV[k]! * u;
      }
      uu += u * u;
      vv += v * v;
      uv += u * v;
    }
    const [su, sv] = [0.5 * (uu - 1), 0.5 * (vv - 1)];
    if (slopes) this.stretchSlopes(stiffness, su, sv, uv);
    return 0.5 * stiffness * (su * su + sv * sv + 0.5 * uv * uv);
  }

  private stretchSlopes(stiffness: number, su: number, sv: number, shear: number): void {
    const { corner, ofU, ofV, byU, byV, byShear } = this;
    for (let p = 0; p < 12; p++) {
      const a = 3 * corner[(p / 3) | 0]! + (p % 3);
      if (this.unknownOf(a) < 0) continue;
      this.addFirst(a, stiffness * (su * byU[p]! + sv * byV[p]! + 0.5 * shear * byShear[p]!));
      for (let q = 0; q <= p; q++) {
        let second = byU[p]! * byU[q]! + byV[p]! * byV[q]! + 0.5 * byShear[p]! * byShear[q]!;
        if (p % 3 === q % 3) {
          const [k, l] = [(p / 3) | 0, (q / 3) | 0];
          second += su * ofU[k]! * ofU[l]! + sv * ofV[k]! * ofV[l]! + 0.5 * shear * (ofU[k]! * ofV[l]! + ofV[k]! * ofU[l]!);
        }
        this.addSecond(a, 3 * corner[(q / 3) | 0]! + (q % 3), stiffness * second);
      }
    }
  }

  private stop(x: Float64Array, hold: Hold, slopes: boolean): number {
    let energy = 0;
    for (let row = 1; row < this.rows; row++) {
      for (let j = 0; j <= this.across; j++) {
        const node = row * (this.across + 1) + j;
        for (const { at, normal } of hold.stops) energy += this.press(x, node, at, normal, slopes);
        if (row <= ROWS_ON_PANEL) energy += this.pressOnPanel(x, node, hold.first, slopes);
        if (row >= this.rows - ROWS_ON_PANEL) energy += this.pressOnPanel(x, node, hold.last, slopes);
      }
    }
    return energy;
  }

  /** The stiff panel beyond a held edge: what lies behind it is pressed out the nearer way, through its face or past the edge. */
  private pressOnPanel(x: Float64Array, node: number, { ends, into, facing }: HeldEdge, slopes: boolean): number {
    const [over, behind] = [depth(x, node, ends[0], into), -depth(x, node, ends[0], facing)];
    if (over <= 0 || behind <= 0) return 0;
    return behind < over
      ? this.press(x, node, ends[0], facing, slopes)
      : this.press(x, node, ends[0], [-into[0], -into[1], -into[2]], slopes);
  }

  private press(x: Float64Array, node: number, at: Vec3, normal: Vec3, slopes: boolean): number {
    const d = depth(x, node, at, normal);
    if (d >= 0) return 0;
    const stiffness = STOP / this.sheet.width ** 2;
    if (slopes) {
      for (let c = 0; c < 3; c++) {
        this.addFirst(3 * node + c, stiffness * d * normal[c]!);
        for (let e = 0; e <= c; e++) this.addSecond(3 * node + c, 3 * node + e, stiffness * normal[c]! * normal[e]!);
      }
    }
    return 0.5 * stiffness * d * d;
  }
}

const depth = (x: Float64Array, node: number, at: Vec3, way: Vec3): number =>
  (x[3 * node]! - at[0]) * way[0] + (x[3 * node + 1]! - at[1]) * way[1] + (x[3 * node + 2]! - at[2]) * way[2];

/** Second differences along, across and mixed: over no fold along, with half the weight on free edges. */
function stencilsOf(sheet: SheetRow): Stencil[] {
  const { across: m } = sheet.cells;
  const rows = rowCount(sheet);
  const dv = sheet.width / m;
  const node = (i: number, j: number): number => i * (m + 1) + j;
  const stencils: Stencil[] = [];
  const edge = (at: number, last: number): number => (at === 0 || at === last ? 0.5 : 1);
  for (let i = 0; i <= rows; i++) {
    const du = rowSpacing(sheet, Math.min(i, rows - 1));
    for (let j = 0; j <= m; j++) {
      if (!onFold(sheet, i)) {
        const nodes = [node(i - 1, j), node(i, j), node(i + 1, j)];
        stencils.push({ nodes, weights: [1, -2, 1], stiffness: (edge(j, m) * dv) / du ** 3 });
      }
      if (j > 0 && j < m) {
        const nodes = [node(i, j - 1), node(i, j), node(i, j + 1)];
        stencils.push({ nodes, weights: [1, -2, 1], stiffness: (edge(i, rows) * du) / dv ** 3 });
      }
      if (i < rows && j < m) {
        const nodes = [node(i, j), node(i + 1, j + 1), node(i + 1, j), node(i, j + 1)];
        stencils.push({ nodes, weights: [1, 1, -1, -1], stiffness: 2 / (du * dv) });
      }
    }
  }
  return stencils;
}
