import type { Evaluation } from '../evaluate.js';
import { carry, dot, type Rigid, type Vec3 } from '../linkage/rigid.js';
import type { ClosedStack } from '../linkage/stacking.js';
import { convexHull, type Loop } from '../plane/outline.js';
import type { Point } from '../plane/point.js';

const NEAR = 0.05;
/** Cosine of the angle between panels that lie in one plane, about. */
const PARALLEL = 0.99;
/** Shapes that overlap by less only touch. */
const TOUCH = 0.2;

/**
 * Panels in the order in which they are painted, far ones first, for a viewer far away in the direction
 * `toward`. One panel is behind another when it lies wholly on the far side of the other's plane; glued
 * panels share a plane and are ordered by the face they are glued to. Panels that do not cover each other on
 * the picture need no order; where order goes round in a circle, the one with the fewest before it is next.
 */
export function paintingOrder(design: Evaluation['design'], stack: ClosedStack, pose: readonly Rigid[], toward: Vec3): number[] {
  const corners = design.panels.map((panel, body) => panel.area.outer.map(([x, y]) => carry(pose[body]!, x, y, 0)));
  const facing = pose.map((m): Vec3 => {
    const sign = Math.sign(m[2]! * toward[0] + m[6]! * toward[1] + m[10]! * toward[2]) || 1;
    return [m[2]! * sign, m[6]! * sign, m[10]! * sign];
  });
  const sideOf = (points: readonly Vec3[], body: number): number => {
    const origin = corners[body]![0]!;
    const normal = facing[body]!;
    const heights = points.map((p) => (p[0] - origin[0]) * normal[0] + (p[1] - origin[1]) * normal[1] + (p[2] - origin[2]) * normal[2]);
    const [low, high] = [Math.min(...heights), Math.max(...heights)];
    if (low >= -NEAR && high > NEAR) return 1;
    return high <= NEAR && low < -NEAR ? -1 : 0;
  };
  const gluedOn = (a: number, b: number): number => {
    const bond = design.linkage.bonds.find((joint) => joint.a === a && joint.b === b);
    if (!bond) return 0;
    const up = pose[b]![2]! * facing[b]![0] + pose[b]![6]! * facing[b]![1] + pose[b]![10]! * facing[b]![2] > 0;
    return (bond.source.partnerFace === 'up') === up ? 1 : -1;
  };
  // Panels in one plane lie as they do in the pile.
  const { touching, layers } = stack;
  const over = new Map(touching.map(({ lower, upper }) => [`${upper} ${lower}`, 1]));
  const stackedOn = (a: number, b: number): number => {
    if (Math.abs(dot(facing[a]!, facing[b]!)) < PARALLEL) return 0;
    const known = (over.get(`${a} ${b}`) ?? 0) - (over.get(`${b} ${a}`) ?? 0);
    const up = dot([pose[b]![2]!, pose[b]![6]!, pose[b]![10]!], toward) > 0 === layers[b]!.faceUp;
    return up ? known : -known;
  };
  /** +1 when a is in front of b */
  const front = (a: number, b: number): number =>
    sideOf(corners[a]!, b) || -sideOf(corners[b]!, a) || gluedOn(a, b) || -gluedOn(b, a) || stackedOn(a, b);

  const across = sideways(toward);
  const onPicture = corners.map((points) => convexHull(points.map((p): Point => [dot(p, across[0]), dot(p, across[1])])));
  const behind = corners.map((_, a) =>
    corners.flatMap((_, b) => (a !== b && front(a, b) > 0 && cover(onPicture[a]!, onPicture[b]!) ? [b] : [])),
  );
  const left = new Set(corners.map((_, body) => body));
  const order: number[] = [];
  while (left.size > 0) {
    const waiting = (a: number): number => behind[a]!.filter((b) => left.has(b)).length;
    const next = [...left].reduce((best, a) => (waiting(a) < waiting(best) ? a : best));
    left.delete(next);
    order.push(next);
  }
  return order;
}

/** Two directions at right angles to the one that is looked along. */
function sideways([x, y, z]: Vec3): [Vec3, Vec3] {
  const a: Vec3 = Math.abs(z) < Math.abs(x) ? [-y, x, 0] : [0, -z, y];
  const length = Math.hypot(...a);
  const u: Vec3 = [a[0] / length, a[1] / length, a[2] / length];
  return [u, [y * u[2] - z * u[1], z * u[0] - x * u[2], x * u[1] - y * u[0]]];
}

/** Whether two convex shapes overlap by more than a touch: no side of either has the other wholly beyond it. */
function cover(a: Loop, b: Loop): boolean {
  const parted = (p: Loop, q: Loop): boolean =>
    p.some((from, i) => {
      const to = p[(i + 1) % p.length]!;
      const length = Math.hypot(to[0] - from[0], to[1] - from[1]);
      const beyond = (r: Point): number => ((to[1] - from[1]) * (r[0] - from[0]) - (to[0] - from[0]) * (r[1] - from[1])) / length;
      return length > 0 && q.every((r) => beyond(r) > -TOUCH);
    });
  return a.length > 2 && b.length > 2 && !parted(a, b) && !parted(b, a);
}
