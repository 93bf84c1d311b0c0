import { claimsOf } from '../card/draw.js';
import type { ClaimOf } from '../claim/claims.js';
import { spoken } from '../measure/sentence.js';
import { carryFlat } from '../linkage/rigid.js';
import { poseOf } from '../linkage/motion.js';
import { boxOf } from '../plane/outline.js';
import type { Point } from '../plane/point.js';
import type { Check, CheckInput, Verdict } from './finding.js';

/** A part may lie this far over a hinge without holding it down. */
const ALLOWED = 0.5;

interface Lying {
  name: string;
  panels: readonly string[];
  /** x of the hinge, and how far the part reaches on both sides, when closed */
  hinge: number;
  from: number;
  to: number;
}

/**
 * Can parts that are raised one by one be raised at all? One that lies over another’s hinge must go up
 * first; two that lie over each other’s hinges hold each other down.
 */
export const rises: Check = ({ design, motion }) => {
  const pose = poseOf(motion, motion.frames[0]!);
  const units = claimsOf(design, 'rising').map((unit): Lying => lyingAt(design, pose, unit));
  const found: Verdict[] = [];
  const first: string[] = [];
  units.forEach((a, i) => {
    for (const b of units.slice(i + 1)) {
      const [aOverB, bOverA] = [reach(a, b), reach(b, a)];
      if (aOverB > ALLOWED && bOverA > ALLOWED) {
        const value = Math.min(aOverB, bOverA);
        found.push({
          id: `rises/${a.name}/${b.name}`.replaceAll(' ', '-'),
          check: 'rises',
          severity: 'fail',
          value,
          limit: ALLOWED,
          unit: 'mm',
          panels: [...a.panels, ...b.panels],
          at: 0,
          says: `Lying flat, ${a.name} and ${b.name} cover each other’s back folds, by ${spoken(aOverB)} and ${spoken(bOverA)}: neither can be raised first. Move them apart, or make one lower, by ${spoken(value)}.`,
        });
      } else if (aOverB > ALLOWED) first.push(`${a.name} before ${b.name}`);
      else if (bOverA > ALLOWED) first.push(`${b.name} before ${a.name}`);
    }
  });
  if (units.length > 0 && found.length === 0) {
    found.push({
      id: 'rises',
      check: 'rises',
      severity: 'pass',
      says: first.length > 0 ? `Raise ${first.join(', ')}; lay them down the other way round.` : 'The parts can be raised in any order.',
    });
  }
  return found;
};

/** How far a part lies over another's hinge: the smaller of what is on its two sides, negative when it stays clear. */
function reach(over: Lying, under: Lying): number {
  return Math.min(under.hinge - over.from, over.to - under.hinge);
}

type Unit = ClaimOf<'rising'>;

function lyingAt(design: CheckInput['design'], pose: ReturnType<typeof poseOf>, { name, hinge, panels }: Unit): Lying {
  const joint = design.linkage.hinges[design.linkage.hingeIndex.get(hinge)!]!;
  const at = carryFlat(pose[joint.right]!, [joint.px, joint.py])[0];
  const points = panels.flatMap((id): Point[] => {
    const body = design.linkage.bodyOf.get(id)!;
    return design.panels[body]!.area.outer.map((p) => carryFlat(pose[body]!, p));
  });
  const { minX, maxX } = boxOf(points);
  return { name, panels, hinge: at, from: minX, to: maxX };
}
