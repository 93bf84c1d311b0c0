import { carry, type Evaluation, type Rigid, type Vec3 } from '@diptychon/core';

const NEAR = 0.05;

/**
 * Panels in the order in which they are painted, far ones first, for a viewer far away in the direction
 * `toward`. One panel is behind another when it lies wholly on the far side of the other's plane; glued
 * panels share a plane and are ordered by the face they are glued to.
 */
export function paintingOrder({ design }: Evaluation, pose: readonly Rigid[], toward: Vec3): number[] {
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
  /** +1 when a is in front of b */
  const front = (a: number, b: number): number => sideOf(corners[a]!, b) || -sideOf(corners[b]!, a) || gluedOn(a, b) || -gluedOn(b, a);

  const left = new Set(design.panels.map((_, body) => body));
  const order: number[] = [];
  while (left.size > 0) {
    const rest = [...left];
    const next = rest.find((a) => rest.every((b) => a === b || front(a, b) <= 0)) ?? rest[0]!;
    left.delete(next);
    order.push(next);
  }
  return order;
}
