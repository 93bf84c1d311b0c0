import { carry } from '../linkage/rigid.js';
import { poseOf } from '../linkage/motion.js';
import { plainMm } from '../measure/print.js';
import type { Check } from './finding.js';

const LIMIT = 0.5;

/** Do edges that are meant to meet meet when the card is closed? */
export const meets: Check = ({ design, motion }) => {
  const pose = poseOf(motion, motion.frames[0]!);
  return design.base.meetings.map(({ id, name, a, b }) => {
    const [bodyA, bodyB] = [design.linkage.bodyOf.get(a.panel)!, design.linkage.bodyOf.get(b.panel)!];
    const gaps = (['from', 'to'] as const).map((end) => {
      const p = carry(pose[bodyA]!, a[end][0], a[end][1], 0);
      const q = carry(pose[bodyB]!, b[end][0], b[end][1], 0);
      return Math.hypot(p[0] - q[0], p[1] - q[1], p[2] - q[2]);
    });
    const value = Math.max(...gaps);
    const ok = value <= LIMIT;
    return {
      id: `meets/${id}`,
      check: 'meets',
      severity: ok ? ('pass' as const) : ('fail' as const),
      value,
      limit: LIMIT,
      unit: 'mm' as const,
      panels: [a.panel, b.panel],
      at: 0,
      says: ok ? `Closed, ${name} meet.` : `Closed, ${name} miss each other by ${plainMm(value)}.`,
    };
  });
};
