import { claimsOf, type Owned } from '../card/draw.js';
import type { ClaimOf } from '../claim/claims.js';
import { carry, carryDirection, dot, type Vec3 } from '../linkage/rigid.js';
import { poseOf } from '../linkage/motion.js';
import { spoken } from '../measure/sentence.js';
import type { Check, CheckInput, Verdict } from './finding.js';
import { mended } from './mended.js';

/** Edges meet when they are no farther off, mm. */
export const MEETS_WITHIN = 0.5;

/** Do edges that are meant to meet meet when the card is closed: face to face, or side by side with the wanted gap? */
export const meets: Check = (input) =>
  claimsOf(input.design, 'meeting').map((meeting): Verdict => {
    const { ends, outward } = endsOf(input, meeting);
    return outward ? besideEachOther(meeting, ends, outward) : onEachOther(meeting, ends);
  });

type Meeting = Owned<ClaimOf<'meeting'>>;

/** From edge a to edge b at both ends, in the closed card, and which way is out of panel a there. */
function endsOf({ design, motion }: CheckInput, { a, b, sideBySide }: Meeting): { ends: Vec3[]; outward?: Vec3 } {
  const pose = poseOf(motion, motion.frames[0]!);
  const [bodyA, bodyB] = [design.linkage.bodyOf.get(a.panel)!, design.linkage.bodyOf.get(b.panel)!];
  const ends = (['from', 'to'] as const).map((end): Vec3 => {
    const p = carry(pose[bodyA]!, a[end][0], a[end][1], 0);
    const q = carry(pose[bodyB]!, b[end][0], b[end][1], 0);
    return [q[0] - p[0], q[1] - p[1], q[2] - p[2]];
  });
  return { ends, ...(sideBySide && { outward: carryDirection(pose[bodyA]!, ...sideBySide.outward, 0) }) };
}

function onEachOther({ id, name, a, b }: Meeting, ends: readonly Vec3[]): Verdict {
  const value = Math.max(...ends.map((offset) => Math.hypot(...offset)));
  const ok = value <= MEETS_WITHIN;
  return {
    ...finding(id, ok, value, [a.panel, b.panel]),
    says: ok ? `Closed, ${name} meet.` : `Closed, ${name} miss each other by ${spoken(value)}.`,
  };
}

function besideEachOther({ id, name, a, b, sideBySide, mend, owner }: Meeting, ends: readonly Vec3[], outward: Vec3): Verdict {
  const wanted = sideBySide!.gap;
  const gaps = ends.map((offset) => dot(offset, outward));
  const off = gaps.map((gap) => gap - wanted).reduce((worst, here) => (Math.abs(here) > Math.abs(worst) ? here : worst));
  const ok = Math.abs(off) <= MEETS_WITHIN;
  const gap = wanted + off;
  const found = gap < -0.005 ? `overlap by ${spoken(-gap)}` : gap > 0.005 ? `leave ${spoken(gap)} between them` : 'just meet';
  const meant = wanted > 0 ? `a gap of ${spoken(wanted)} was wanted` : 'they should just meet';
  return {
    ...finding(id, ok, Math.abs(off), [a.panel, b.panel]),
    says: ok ? `Closed, ${name} ${found}.` : `Closed, ${name} ${found}; ${meant}.`,
    ...(!ok && mend && { fix: mended(mend, owner) }),
  };
}

function finding(id: string, ok: boolean, value: number, panels: string[]): Omit<Verdict, 'says'> {
  return { id: `meets/${id}`, check: 'meets', severity: ok ? 'pass' : 'fail', value, limit: MEETS_WITHIN, unit: 'mm', panels, at: 0 };
}
