import { emptyPose, poseAt, type Pose } from '../linkage/kinematics.js';
import { targetsAt } from '../linkage/schedule.js';
import { spanningTree } from '../linkage/spanning-tree.js';
import type { Design } from './join.js';

/** The closed card with every crease at its nominal angle: where its panels lie if it closes, without any motion being followed. */
export function nominalClosedPose({ linkage, schedule }: Pick<Design, 'linkage' | 'schedule'>): Pose {
  const folds = Float64Array.from(linkage.hinges, ({ source }) => source.crease.closed);
  for (const [id, fold] of targetsAt(schedule, 0)) folds[linkage.hingeIndex.get(id)!] = fold;
  const pose = emptyPose(linkage);
  poseAt(pose, linkage, spanningTree(linkage), folds);
  return pose;
}
