import { claimsOf } from '../card/draw.js';
import { poseOf, JOINT_SLACK } from '../linkage/motion.js';
import { carry, carryDirection, dot, minus } from '../linkage/rigid.js';
import { capitalised, printAngle } from '../measure/print.js';
import { spoken } from '../measure/sentence.js';
import { CLOSING_PLAY } from '../supplies/limits.js';
import type { Check } from './finding.js';
import { mended } from './mended.js';

/** Does a panel stay on its own side of a line, wherever the card is in its motion? */
export const neverGoesPast: Check = ({ design, motion }) => {
  const claims = claimsOf(design, 'never-past');
  if (claims.length === 0) return [];
  const body = (id: string): number => design.linkage.bodyOf.get(id)!;
  const farthest = claims.map(() => ({ past: -Infinity, at: 0, opening: 0 }));
  for (const frame of motion.frames) {
    const pose = poseOf(motion, frame);
    if (frame.misfit > JOINT_SLACK) continue;
    claims.forEach(({ panel, of }, i) => {
      const line = pose[body(of.panel)]!;
      const [at, along] = [carry(line, of.at[0], of.at[1], 0), carryDirection(line, of.along[0], of.along[1], 0)];
      for (const [x, y] of design.panels[body(panel)]!.area.outer) {
        const past = dot(minus(carry(pose[body(panel)]!, x, y, 0), at), along);
        if (past > farthest[i]!.past) farthest[i] = { past, at: frame.s, opening: frame.opening };
      }
    });
  }
  return claims.map(({ id, name, panel, where, mend, owner }, i) => {
    const { past, at, opening } = farthest[i]!;
    const fails = past > CLOSING_PLAY;
    return {
      id: `never-past/${id}`,
      check: 'never-past',
      severity: fails ? ('fail' as const) : ('pass' as const),
      value: past,
      limit: CLOSING_PLAY,
      unit: 'mm' as const,
      panels: [panel],
      at,
      owner,
      says: fails
        ? `On the way, ${name} passes ${where} by ${spoken(past)} at an opening of ${printAngle(opening)}: it would run into what comes from the other side.`
        : `${capitalised(name)} never passes ${where}.`,
      ...(fails && mend && { fix: mended({ ...mend, value: mend.value + mend.perMm * past }, owner) }),
    };
  });
};
