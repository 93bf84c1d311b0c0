import type { Point } from '../plane/point.js';
import type { Mm } from '../measure/units.js';
import { carry, inverse, rigidIdentity } from './rigid.js';
import type { Pose } from './kinematics.js';
import type { Linkage, Tier } from './structure.js';
import type { SpanningTree } from './spanning-tree.js';

/** An angle of one radian counts as this many mm beside distances: the size of a hand-held card. */
export const MM_PER_RADIAN: Mm = 100;

interface PointPair {
  a: number;
  b: number;
  pa: Point;
  pb: readonly [number, number, number];
}

/** The equations of one tier. Rows are in mm; each is zero when the loops of the tier close. */
export interface ClosureSystem {
  pairs: PointPair[];
  touches: Linkage['touches'];
  couplings: Linkage['couplings'];
  rows: number;
}

/**
 * Collects what must close in one tier: every leftover bond at the corners of its glue, every leftover
 * hinge at its two ends, contacts and couplings.
 */
export function closuresOf(linkage: Linkage, tree: SpanningTree, tier: Tier): ClosureSystem {
  const pairs: PointPair[] = [];
  for (const bond of tree.openBonds) {
    if (bond.tier !== tier) continue;
    for (const pa of bond.corners) {
      pairs.push({ a: bond.a, b: bond.b, pa, pb: carry(bond.fixed, pa[0], pa[1], 0) });
    }
  }
  for (const index of tree.openHinges) {
    const { left, right, source, tier: own, loose } = linkage.hinges[index]!;
    if (own !== tier || loose) continue;
    for (const end of [source.from, source.to]) {
      pairs.push({ a: left, b: right, pa: end, pb: [end[0], end[1], 0] });
    }
  }
  const touches = linkage.touches.filter((touch) => touch.tier === tier);
  const couplings = linkage.couplings.filter((coupling) => coupling.tier === tier);
  return { pairs, touches, couplings, rows: 3 * pairs.length + touches.length + couplings.length };
}

/**
 * The same joints with both partners meeting where they lie in a pose: as a card is that was closed onto its glue in that
 * pose. What they missed each other by there is taken up.
 */
export function meetingIn(pose: Pose, system: ClosureSystem): ClosureSystem {
  const back = rigidIdentity();
  const pairs = system.pairs.map((pair): PointPair => {
    inverse(back, pose[pair.b]!);
    return { ...pair, pb: carry(back, ...carry(pose[pair.a]!, pair.pa[0], pair.pa[1], 0)) };
  });
  return { ...system, pairs };
}

/** Fills `out` with the residuals of a pose, mm. */
export function residuals(out: Float64Array, system: ClosureSystem, linkage: Linkage, pose: Pose, folds: Float64Array): void {
  let row = 0;
  for (const { a, b, pa, pb } of system.pairs) {
    const [ax, ay, az] = carry(pose[a]!, pa[0], pa[1], 0);
    const [bx, by, bz] = carry(pose[b]!, pb[0], pb[1], pb[2]);
    out[row++] = ax - bx;
    out[row++] = ay - by;
    out[row++] = az - bz;
  }
  for (const touch of system.touches) out[row++] = heightOver(pose, touch);
  for (const { terms, constant } of system.couplings) {
    let sum = -constant;
    for (const { hinge, factor } of terms) sum += factor * folds[linkage.hingeIndex.get(hinge)!]!;
    out[row++] = sum * MM_PER_RADIAN;
  }
}

type TouchJoint = Linkage['touches'][number];

/** Height of a touching point over the plane it rests on, along that panel's upper normal. */
function heightOver(pose: Pose, touch: TouchJoint): Mm {
  const under = pose[touch.on]!;
  const [x, y, z] = carry(pose[touch.body]!, touch.at[0], touch.at[1], 0);
  return under[2]! * (x - under[3]!) + under[6]! * (y - under[7]!) + under[10]! * (z - under[11]!);
}

/**
 * Fills `out` (rows × unknowns, row by row) with the derivatives of the residuals: a hinge moves a
 * point of a body below it by its unit axis crossed with the lever to that point.
 */
export function jacobian(
  out: Float64Array,
  system: ClosureSystem,
  linkage: Linkage,
  tree: SpanningTree,
  pose: Pose,
  unknowns: Int32Array,
): void {
  const n = unknowns.length;
  const hingeCount = linkage.hinges.length;
  out.fill(0);
  for (let k = 0; k < n; k++) {
    const h = unknowns[k]!;
    const hinge = linkage.hinges[h]!;
    const branch = tree.branchOf[h]!;
    const frame = pose[branch.parent]!;
    const wx = branch.sign * (frame[0]! * hinge.ux + frame[1]! * hinge.uy);
    const wy = branch.sign * (frame[4]! * hinge.ux + frame[5]! * hinge.uy);
    const wz = branch.sign * (frame[8]! * hinge.ux + frame[9]! * hinge.uy);
    const ox = frame[0]! * hinge.px + frame[1]! * hinge.py + frame[3]!;
    const oy = frame[4]! * hinge.px + frame[5]! * hinge.py + frame[7]!;
    const oz = frame[8]! * hinge.px + frame[9]! * hinge.py + frame[11]!;
    const moves = (body: number): number => tree.moves[body * hingeCount + h]!;
    let row = 0;
    for (const { a, b, pa, pb } of system.pairs) {
      const side = moves(a) - moves(b);
      if (side !== 0) {
        const [x, y, z] = side > 0 ? carry(pose[a]!, pa[0], pa[1], 0) : carry(pose[b]!, pb[0], pb[1], pb[2]);
        const lx = x - ox;
        const ly = y - oy;
        const lz = z - oz;
        out[row * n + k] = side * (wy * lz - wz * ly);
        out[(row + 1) * n + k] = side * (wz * lx - wx * lz);
        out[(row + 2) * n + k] = side * (wx * ly - wy * lx);
      }
      row += 3;
    }
    for (const touch of system.touches) {
      const side = moves(touch.body) - moves(touch.on);
      if (side !== 0) {
        const under = pose[touch.on]!;
        const [x, y, z] = carry(pose[touch.body]!, touch.at[0], touch.at[1], 0);
        const lx = x - ox;
        const ly = y - oy;
        const lz = z - oz;
        out[row * n + k] = side * (under[2]! * (wy * lz - wz * ly) + under[6]! * (wz * lx - wx * lz) + under[10]! * (wx * ly - wy * lx));
      }
      row++;
    }
    for (const { terms } of system.couplings) {
      for (const term of terms) {
        if (linkage.hingeIndex.get(term.hinge) === h) out[row * n + k]! += term.factor * MM_PER_RADIAN;
      }
      row++;
    }
  }
}
