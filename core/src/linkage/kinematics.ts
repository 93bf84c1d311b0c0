import type { Radians } from '../measure/units.js';
import { carryDirection, cross, dot, multiply, rigidIdentity, rotateAboutFlatLine, type Rigid } from './rigid.js';
import type { Linkage } from './structure.js';
import type { SpanningTree } from './spanning-tree.js';

/** Where every panel is: a rigid motion for each body, from its piece's flat coordinates to the ground's. */
export type Pose = Rigid[];

export function emptyPose(linkage: Linkage): Pose {
  return linkage.panels.map(() => rigidIdentity());
}

const turned = rigidIdentity();

/** Forward kinematics: places every panel for given fold angles (one for each hinge, radians). */
export function poseAt(out: Pose, linkage: Linkage, tree: SpanningTree, folds: Float64Array): void {
  for (const { parent, child, hinge, sign, fixed } of tree.branches) {
    if (hinge < 0) {
      multiply(out[child]!, out[parent]!, fixed);
    } else {
      const { px, py, ux, uy } = linkage.hinges[hinge]!;
      rotateAboutFlatLine(turned, px, py, ux, uy, sign * folds[hinge]!);
      multiply(out[child]!, out[parent]!, turned);
    }
  }
}

/** The fold angle of a hinge as the pose has it, in -π…π, valley positive. */
export function foldInPose(pose: Pose, linkage: Linkage, hinge: number): Radians {
  const { left, right, ux, uy } = linkage.hinges[hinge]!;
  const axis = carryDirection(pose[right]!, ux, uy, 0);
  const before = carryDirection(pose[right]!, -uy, ux, 0);
  const after = carryDirection(pose[left]!, -uy, ux, 0);
  return Math.atan2(dot(cross(before, after), axis), dot(before, after));
}
