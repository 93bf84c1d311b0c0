import type { Mm } from '../measure/units.js';
import { closuresOf, jacobian, meetingIn, residuals, type ClosureSystem } from './closure.js';
import { rank, solveSymmetric } from './dense.js';
import { emptyPose, poseAt, type Pose } from './kinematics.js';
import { spanningTree, type SpanningTree } from './spanning-tree.js';
import type { Linkage } from './structure.js';

/** A loop is closed when no row is off by more than this; far below what paper can show. */
const CLOSED: Mm = 1e-10;
const MAX_ITERATIONS = 60;

/** Draws a solution toward a known pose where the equations hardly hold it: mm for each radian away. */
export interface Pull {
  toward: Float64Array;
  strength: Mm;
}

interface TierWork {
  system: ClosureSystem;
  unknowns: Int32Array;
  r: Float64Array;
  trial: Float64Array;
  j: Float64Array;
  normal: Float64Array;
  damped: Float64Array;
  gradient: Float64Array;
  step: Float64Array;
  before: Float64Array;
  /** unknowns that move one row */
  moving: Int32Array;
}

/**
 * Finds fold angles that close every loop of a linkage, tier by tier, by least squares with
 * Levenberg–Marquardt damping and analytic derivatives. What cannot be closed remains as misfit.
 * Holds its own work arrays: one solver for one linkage, not to be shared between threads.
 */
export class LoopSolver {
  readonly tree: SpanningTree;
  readonly pose: Pose;
  private readonly work: TierWork[];
  iterations = 0;

  /**
   * @param driven hinges whose angle is given, not solved for
   * @param meetingAt folds at which all joints are taken to meet, whatever they miss each other by there
   */
  constructor(
    readonly linkage: Linkage,
    driven: ReadonlySet<number>,
    meetingAt?: Float64Array,
  ) {
    this.tree = spanningTree(linkage);
    this.pose = emptyPose(linkage);
    if (meetingAt) poseAt(this.pose, linkage, this.tree, meetingAt);
    this.work = Array.from({ length: linkage.tiers }, (_, tier) => {
      const inTree = (h: number): boolean => !this.tree.openHinges.includes(h);
      const unknowns = Int32Array.from(
        linkage.hinges.flatMap((hinge, h) => (hinge.tier === tier && !driven.has(h) && inTree(h) ? [h] : [])),
      );
      const drawn = closuresOf(linkage, this.tree, tier);
      const system = meetingAt ? meetingIn(this.pose, drawn) : drawn;
      const n = unknowns.length;
      return {
        system,
        unknowns,
        r: new Float64Array(system.rows),
        trial: new Float64Array(system.rows),
        j: new Float64Array(system.rows * n),
        normal: new Float64Array(n * n),
        damped: new Float64Array(n * n),
        gradient: new Float64Array(n),
        step: new Float64Array(n),
        before: new Float64Array(n),
        moving: new Int32Array(n),
      };
    });
  }

  /** Improves `folds` in place, driven angles kept. @returns the misfit (largest gap at a joint), mm */
  solve(folds: Float64Array, pull?: Pull): Mm {
    for (const work of this.work) this.solveTier(work, folds, pull);
    return this.misfit(folds);
  }

  /** Largest distance between two points that are joined, over all tiers, for given folds; sets the pose. */
  misfit(folds: Float64Array): Mm {
    poseAt(this.pose, this.linkage, this.tree, folds);
    let worst = 0;
    for (const { system, r } of this.work) {
      residuals(r, system, this.linkage, this.pose, folds);
      const paired = 3 * system.pairs.length;
      for (let i = 0; i < paired; i += 3) worst = Math.max(worst, Math.hypot(r[i]!, r[i + 1]!, r[i + 2]!));
      for (let i = paired; i < system.rows; i++) worst = Math.max(worst, Math.abs(r[i]!));
    }
    return worst;
  }

  /** The two bodies whose joint is off most in the pose that was last set; undefined where only contacts or couplings are. */
  worstJoint(): { bodies: [number, number]; misfit: Mm } | undefined {
    let worst: { bodies: [number, number]; misfit: Mm } | undefined;
    for (const { system, r } of this.work) {
      system.pairs.forEach(({ a, b }, k) => {
        const misfit = Math.hypot(r[3 * k]!, r[3 * k + 1]!, r[3 * k + 2]!);
        if (!worst || misfit > worst.misfit) worst = { bodies: [a, b], misfit };
      });
    }
    return worst;
  }

  /** How many ways each tier can still move with the driven hinges held, at given folds. */
  freedom(folds: Float64Array): number {
    poseAt(this.pose, this.linkage, this.tree, folds);
    let free = 0;
    for (const { system, unknowns, j } of this.work) {
      jacobian(j, system, this.linkage, this.tree, this.pose, unknowns);
      free += unknowns.length - rank(j, system.rows, unknowns.length);
    }
    return free;
  }

  /** The equations of one tier, for benchmarks and tests: residuals for a vector of its unknowns. */
  equations(tier: number, folds: Float64Array): { unknowns: Int32Array; evaluate: (x: ArrayLike<number>) => Float64Array } {
    const { system, unknowns } = this.work[tier]!;
    return {
      unknowns,
      evaluate: (x) => {
        unknowns.forEach((h, k) => (folds[h] = x[k]!));
        const out = new Float64Array(system.rows);
        poseAt(this.pose, this.linkage, this.tree, folds);
        residuals(out, system, this.linkage, this.pose, folds);
        return out;
      },
    };
  }

  private solveTier(w: TierWork, folds: Float64Array, pull: Pull | undefined): void {
    const n = w.unknowns.length;
    if (n === 0 || w.system.rows === 0) return;
    let damping = 1e-6;
    let cost = this.cost(w, w.r, folds, pull);
    for (let pass = 0; pass < MAX_ITERATIONS; pass++) {
      if (largest(w.r) < CLOSED && !pull) return;
      this.iterations++;
      jacobian(w.j, w.system, this.linkage, this.tree, this.pose, w.unknowns);
      this.normalEquations(w, folds, pull);
      let improved = false;
      for (let tries = 0; tries < 12 && !improved; tries++) {
        w.damped.set(w.normal);
        for (let k = 0; k < n; k++) {
          w.damped[k * n + k]! += damping * (w.normal[k * n + k]! + 1e-6);
          w.step[k] = -w.gradient[k]!;
          w.before[k] = folds[w.unknowns[k]!]!;
        }
        if (!solveSymmetric(w.damped, w.step, n)) {
          damping *= 10;
          continue;
        }
        for (let k = 0; k < n; k++) folds[w.unknowns[k]!] = bounded(w.before[k]! + w.step[k]!);
        const next = this.cost(w, w.trial, folds, pull);
        improved = next < cost;
        if (improved) {
          const gain = cost - next;
          cost = next;
          w.r.set(w.trial);
          damping = Math.max(damping / 10, 1e-15);
          if (gain < 1e-26 + 1e-13 * cost && largest(w.r) > CLOSED) return;
        } else {
          for (let k = 0; k < n; k++) folds[w.unknowns[k]!] = w.before[k]!;
          damping *= 8;
        }
      }
      if (!improved) {
        poseAt(this.pose, this.linkage, this.tree, folds);
        return;
      }
    }
  }

  /** Sum of squares of a tier's rows (and the pull's), leaving the rows in `out` and the pose set. */
  private cost(w: TierWork, out: Float64Array, folds: Float64Array, pull: Pull | undefined): number {
    poseAt(this.pose, this.linkage, this.tree, folds);
    residuals(out, w.system, this.linkage, this.pose, folds);
    let sum = 0;
    for (let i = 0; i < w.system.rows; i++) sum += out[i]! ** 2;
    if (pull) for (const h of w.unknowns) sum += (pull.strength * (folds[h]! - pull.toward[h]!)) ** 2;
    return sum;
  }

  /** Row by row: a fold moves few of the joints of its tier, so most of a row is nothing and is passed over. */
  private normalEquations(w: TierWork, folds: Float64Array, pull: Pull | undefined): void {
    const n = w.unknowns.length;
    const { j, r, normal, gradient, moving } = w;
    normal.fill(0);
    gradient.fill(0);
    for (let i = 0; i < w.system.rows; i++) {
      let count = 0;
      for (let a = 0; a < n; a++) if (j[i * n + a] !== 0) moving[count++] = a;
      for (let p = 0; p < count; p++) {
        const a = moving[p]!;
        const slope = j[i * n + a]!;
        gradient[a]! += slope * r[i]!;
        for (let q = 0; q <= p; q++) normal[a * n + moving[q]!]! += slope * j[i * n + moving[q]!]!;
      }
    }
    for (let a = 0; a < n; a++) {
      for (let b = 0; b < a; b++) normal[b * n + a] = normal[a * n + b]!;
      if (!pull) continue;
      const h = w.unknowns[a]!;
      normal[a * n + a]! += pull.strength ** 2;
      gradient[a]! += pull.strength ** 2 * (folds[h]! - pull.toward[h]!);
    }
  }
}

/** Paper cannot fold past itself. */
function bounded(fold: number): number {
  return Math.min(Math.PI, Math.max(-Math.PI, fold));
}

function largest(rows: Float64Array): number {
  let most = 0;
  for (const row of rows) most = Math.max(most, Math.abs(row));
  return most;
}
