import { CLOSING_PLAY } from '../supplies/limits.js';
import { claimsOf } from '../card/draw.js';
import { carry } from '../linkage/rigid.js';
import { poseOf } from '../linkage/motion.js';
import { capitalised } from '../measure/print.js';
import { spoken } from '../measure/sentence.js';
import type { Check } from './finding.js';
import { mended } from './mended.js';

/** Less than this is no overlap: a hand is off by as much. */
const TOUCHING = CLOSING_PLAY;

/** Is room left in the closed card where something must stay clear of something else? */
export const hasRoom: Check = ({ design, motion }) => {
  const pose = poseOf(motion, motion.frames[0]!);
  const place = ({ panel, at }: { panel: string; at: readonly [number, number] }) =>
    carry(pose[design.linkage.bodyOf.get(panel)!]!, at[0], at[1], 0);
  return claimsOf(design, 'room').map(({ id, from, to, along, least, says, mend, owner }) => {
    const [a, b] = [place(from), place(to)];
    const value = (b[0] - a[0]) * along[0] + (b[1] - a[1]) * along[1];
    const severity = value < -TOUCHING ? ('fail' as const) : value < least - TOUCHING ? ('warn' as const) : ('pass' as const);
    const words = { fail: says.none, warn: says.tight, pass: says.enough }[severity];
    const amount =
      severity === 'fail'
        ? `by ${spoken(-value)}`
        : `${spoken(Math.max(0, value))} are left${severity === 'warn' ? `, ${spoken(least)} are wanted` : ''}`;
    return {
      id: `has-room/${id}`,
      check: 'has-room',
      severity,
      value,
      limit: least,
      unit: 'mm' as const,
      panels: [from.panel, to.panel],
      at: 0,
      says: `${capitalised(words)}: ${amount}.`,
      ...(severity === 'fail' && mend && { fix: mended(mend, owner) }),
    };
  });
};
