import type { Placement } from '../plane/placement.js';
import { emptyPose, poseAt } from './kinematics.js';
import { inverse, multiply, rigidIdentity } from './rigid.js';
import { spanningTree } from './spanning-tree.js';
import { assemble, type Bond, type LinkageInput } from './structure.js';

/**
 * Makers fix one end of a part, put adhesive on the other and close the card onto it: the closed card
 * itself sets the place. Replaces the placement of every bond `placedBy: 'closing'` by where its panel
 * lies on its partner when all creases are at their closed angles.
 * @throws RangeError when a panel hangs on nothing but such a bond
 */
export function closeOntoGlue(input: LinkageInput): LinkageInput {
  if (input.bonds.every((bond) => bond.placedBy !== 'closing')) return input;
  const fixed = input.bonds.filter((bond) => bond.placedBy !== 'closing');
  const linkage = assemble({ ...input, bonds: fixed });
  const pose = emptyPose(linkage);
  poseAt(
    pose,
    linkage,
    spanningTree(linkage),
    Float64Array.from(linkage.hinges, ({ source }) => source.crease.closed),
  );
  const found = (bond: Bond): Placement => {
    const home = rigidIdentity();
    const onPartner = rigidIdentity();
    inverse(home, pose[linkage.bodyOf.get(bond.partner)!]!);
    multiply(onPartner, home, pose[linkage.bodyOf.get(bond.panel)!]!);
    // A turned-over piece has its x axis mirrored before turning, so the turn is read off the y axis.
    return { to: [onPartner[3]!, onPartner[7]!], turn: Math.atan2(-onPartner[1]!, onPartner[5]!), flipped: bond.placement.flipped };
  };
  return { ...input, bonds: input.bonds.map((bond) => (bond.placedBy === 'closing' ? { ...bond, placement: found(bond) } : bond)) };
}
