import type { Mm } from '../measure/units.js';
import type { BondJoint, Linkage } from './structure.js';
import type { Pose } from './kinematics.js';

/** What stands on raised stock, and how far that lifts it. The motion takes every sheet as flat and foam as no higher. */
export interface Lift {
  /** all panels that stand on it, and on nothing else */
  bodies: readonly number[];
  /** the raised piece, on whose face they stand */
  on: number;
  /** along that panel's own normal: with a minus where they stand on its lower face */
  by: Mm;
}

const KNOWN = new WeakMap<Linkage, readonly Lift[]>();

/**
 * What foam and other raised pieces lift off the panel that carries them. What is joined to the rest besides stands where
 * that holds it, and is not lifted. A raised piece is one with a thickness of its own.
 */
export function liftsOf(linkage: Linkage): readonly Lift[] {
  const known = KNOWN.get(linkage);
  if (known) return known;
  const lifts = linkage.bonds.flatMap((bond): Lift[] =>
    [bond.a, bond.b].flatMap((body): Lift[] => {
      const by = linkage.panels[body]!.piece.thickness;
      if (by === undefined) return [];
      const beyond = joinedWithout(linkage, bond, body === bond.a ? bond.b : bond.a);
      if (beyond.has(linkage.ground) || beyond.has(body) || !isCarriedBelow(linkage, bond, body)) return [];
      return [{ bodies: [...beyond], on: body, by: faceOf(bond, body) === 'up' ? by : -by }];
    }),
  );
  KNOWN.set(linkage, lifts);
  return lifts;
}

const faceOf = ({ a, source }: BondJoint, body: number): 'up' | 'down' => (body === a ? source.face : source.partnerFace);

/** Whether a raised piece is held by its other face: what lies on the same face as its carrier is not lifted by it. */
const isCarriedBelow = ({ bonds }: Linkage, bond: BondJoint, body: number): boolean =>
  bonds.some((other) => other !== bond && (other.a === body || other.b === body) && faceOf(other, body) !== faceOf(bond, body));

/** All that hangs together with a body when one bond is undone. */
function joinedWithout({ hinges, bonds }: Linkage, without: BondJoint, from: number): Set<number> {
  const found = new Set([from]);
  const next = [from];
  const go = (body: number): void => {
    if (found.has(body)) return;
    found.add(body);
    next.push(body);
  };
  for (let body = next.pop(); body !== undefined; body = next.pop()) {
    for (const { left, right } of hinges) if (left === body || right === body) go(left === body ? right : left);
    for (const bond of bonds) if (bond !== without && (bond.a === body || bond.b === body)) go(bond.a === body ? bond.b : bond.a);
  }
  return found;
}

/** A pose with everything moved to the height at which it stands; the same pose where nothing is lifted. */
export function lifted(pose: Pose, lifts: readonly Lift[]): Pose {
  if (lifts.length === 0) return pose;
  const raised = pose.map((place) => place.slice());
  for (const { bodies, on, by } of lifts) {
    const carrier = pose[on]!;
    for (const body of bodies) for (const row of [0, 1, 2]) raised[body]![4 * row + 3]! += by * carrier[4 * row + 2]!;
  }
  return raised;
}
