import { carry, inverse, rigidIdentity, type ClosedStack, type Evaluation, type Rigid, type Vec3 } from '@diptychon/core';

/** Where two panels that lie on each other in a pile share a point, in the coordinates of either. */
interface Contact {
  lower: number;
  upper: number;
  onLower: Vec3;
  onUpper: Vec3;
}

/**
 * How far panels are drawn off their planes so that paper has room for paper. Motion knows no thickness:
 * panels that lie on each other share a plane. Each is moved along the pile's way up, by as much as
 * is missing between it and the one below; what has come apart by itself is not moved.
 */
export class LayerGaps {
  private readonly contacts: Contact[];
  private readonly order: readonly number[];
  private readonly way: readonly number[];

  /** @param stack the pile, and `pilePose` the panels’ places in it: of the closed card, or of one that lies flat open */
  constructor({ motion, design }: Evaluation, pilePose: readonly Rigid[], stack: ClosedStack) {
    const local = (body: number, [x, y]: readonly [number, number]): Vec3 => {
      const home = rigidIdentity();
      inverse(home, pilePose[body]!);
      return carry(home, x, y, 0);
    };
    // A card that cannot lie flat has no pile to speak of: only what is glued lies on each other.
    const flat = motion.closedFlat.holds;
    const glued = new Set(design.linkage.bonds.flatMap(({ a, b }) => [`${a} ${b}`, `${b} ${a}`]));
    this.contacts = stack.touching
      .filter(({ lower, upper }) => flat || glued.has(`${lower} ${upper}`))
      .map(({ lower, upper, at }) => ({ lower, upper, onLower: local(lower, at), onUpper: local(upper, at) }));
    this.order = stack.order.length > 0 ? stack.order : stack.layers.map((layer) => layer.body);
    this.way = stack.layers.map((layer) => (layer.faceUp ? 1 : -1));
    const place = new Map(this.order.map((body, i) => [body, i]));
    this.contacts.sort((a, b) => place.get(a.upper)! - place.get(b.upper)!);
  }

  /** Offset of every panel along its own upper normal. @param thickness of each as drawn */
  offsets(pose: readonly Rigid[], thickness: readonly number[]): number[] {
    const height = pose.map(() => 0);
    for (const { lower, upper, onLower, onUpper } of this.contacts) {
      const [a, b] = [pose[lower]!, pose[upper]!];
      const wayA = this.way[lower]!;
      const up: Vec3 = [a[2]! * wayA, a[6]! * wayA, a[10]! * wayA];
      const wayB = this.way[upper]!;
      // Panels turned away from each other leave room by themselves.
      const together = up[0] * b[2]! * wayB + up[1] * b[6]! * wayB + up[2] * b[10]! * wayB;
      if (together < 0.5) continue;
      const p = carry(a, onLower[0], onLower[1], 0);
      const q = carry(b, onUpper[0], onUpper[1], 0);
      const apart = up[0] * (q[0] - p[0]) + up[1] * (q[1] - p[1]) + up[2] * (q[2] - p[2]);
      const needed = (thickness[lower]! + thickness[upper]!) / 2 - Math.max(0, apart);
      if (needed > 0) height[upper] = Math.max(height[upper]!, height[lower]! + needed);
    }
    return height.map((h, body) => h * this.way[body]!);
  }
}
