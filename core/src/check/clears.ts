import { caliperOf } from '../card/card-stocks.js';
import { JOINT_SLACK, poseOf } from '../linkage/motion.js';
import type { Pose } from '../linkage/kinematics.js';
import { lifted, liftsOf } from '../linkage/lifts.js';
import { bendingBodies, type Linkage } from '../linkage/structure.js';
import type { Rigid } from '../linkage/rigid.js';
import { boxOf, convexHull, type Box } from '../plane/outline.js';
import { printAngle } from '../measure/print.js';
import { spoken } from '../measure/sentence.js';
import { toRadians } from '../measure/units.js';
import type { Panel } from '../sheet/panels.js';
import { crossingDepth, solidOf, staysBeside, type Solid } from './crossing.js';
import { ofBoth, type Check, type Verdict } from './finding.js';

/** Below this opening the order of layers decides, not space between them. */
const NEARLY_CLOSED = toRadians(4);

/** Do panels pass through each other anywhere in the motion? */
export const clears: Check = ({ design, motion }) => {
  const { panels, linkage } = design;
  const hulls = panels.map((panel) => convexHull(panel.area.outer));
  const flat = hulls.map(boxOf);
  const slacks = panels.map(({ piece }) => caliperOf(design, piece) / 2);
  const found: Verdict[] = [];
  const firstHit = new Map<string, { at: number; opening: number; depth: number; a: Panel; b: Panel }>();
  const lifts = liftsOf(linkage);
  /**
   * How deep two panels cross at the height at which foam holds them, where it holds one higher than the other. The motion
   * takes foam as no higher than card: what slides over a raised part would cross it there, and what leans against its edge here.
   */
  const depthLifted = (a: number, b: number, slack: number, pose: Pose): number => {
    const apartBy = lifts.filter(({ bodies }) => bodies.includes(a) !== bodies.includes(b));
    if (apartBy.length === 0) return Infinity;
    const here = lifted(pose, apartBy);
    return crossingDepth(solidOf(panels[a]!, hulls[a]!, here[a]!), solidOf(panels[b]!, hulls[b]!, here[b]!), slack);
  };
  const watched = motion.frames
    .filter(({ opening, misfit }) => opening >= NEARLY_CLOSED && misfit <= JOINT_SLACK)
    .map((frame) => ({ frame, pose: poseOf(motion, frame) }));
  const boxesOf = watched.map(({ pose }) => {
    const boxes = new Float64Array(6 * panels.length);
    for (let body = 0; body < panels.length; body++) boxInto(boxes, 6 * body, flat[body]!, pose[body]!);
    return boxes;
  });
  // Parts beside one another keep to places of their own all the way: their panels are never compared.
  const swept = sweptBoxes(boxesOf, panels.length);
  const pairs = pairsToWatch(panels, linkage).filter(([a, b]) => !apart(swept, 6 * a, 6 * b));
  for (const [n, { frame, pose }] of watched.entries()) {
    const boxes = boxesOf[n]!;
    // Most panels miss all others: only those that do not are carried into space whole.
    const solids: (Solid | undefined)[] = [];
    const solid = (body: number): Solid => (solids[body] ??= solidOf(panels[body]!, hulls[body]!, pose[body]!));
    for (const [a, b] of pairs) {
      if (apart(boxes, 6 * a, 6 * b)) continue;
      const slack = Math.min(slacks[a]! + slacks[b]! + 0.05, 0.6);
      const [poseA, poseB] = [pose[a]!, pose[b]!];
      if (staysBeside(flat[a]!, poseA, 0, poseB, 0, slack) || staysBeside(flat[b]!, poseB, 0, poseA, 0, slack)) continue;
      const asDrawn = crossingDepth(solid(a), solid(b), slack);
      if (asDrawn === 0) continue;
      const depth = Math.min(asDrawn, depthLifted(a, b, slack, pose));
      if (depth === 0) continue;
      const key = ofBoth(panels[a]!.id, panels[b]!.id);
      const known = firstHit.get(key);
      if (!known) firstHit.set(key, { at: frame.s, opening: frame.opening, depth, a: panels[a]!, b: panels[b]! });
      else known.depth = Math.max(known.depth, depth);
    }
  }
  for (const [key, hit] of firstHit) {
    found.push({
      id: `clears/${key}`,
      check: 'clears',
      severity: 'fail',
      value: hit.depth,
      limit: 0,
      unit: 'mm',
      panels: [hit.a.id, hit.b.id],
      at: hit.at,
      ...(!motion.closedFlat.holds && { followsFrom: 'folds-flat' }),
      says: `On the way, ${hit.a.name} and ${hit.b.name} run into each other at an opening of ${printAngle(hit.opening)}, by up to ${spoken(hit.depth)}.`,
    });
  }
  if (found.length === 0)
    found.push({
      id: 'clears',
      check: 'clears',
      severity: 'pass',
      value: 0,
      limit: 0,
      unit: 'mm',
      says: 'No panel runs into another anywhere in the motion.',
    });
  return found;
};

type Joined = Pick<Linkage, 'hinges' | 'bonds'>;

/** All pairs but those that share a crease or glue, or where one bends: where that is on the way is worked out by itself. */
function pairsToWatch(panels: readonly Panel[], { hinges, bonds }: Joined): [number, number][] {
  const joined = new Set([...hinges.map((h) => `${h.left}-${h.right}`), ...bonds.map((b) => `${b.a}-${b.b}`)]);
  const bending = bendingBodies({ hinges });
  const stiff = panels.map((_, body) => !bending.has(body));
  return panels.flatMap((_, a) =>
    panels.flatMap((_, b): [number, number][] =>
      b > a && stiff[a] && stiff[b] && !joined.has(`${a}-${b}`) && !joined.has(`${b}-${a}`) ? [[a, b]] : [],
    ),
  );
}

/** Writes a box in space that holds the flat box of a panel: least x, y, z, then greatest. */
function boxInto(out: Float64Array, at: number, { minX, maxX, minY, maxY }: Box, m: Rigid): void {
  const [x, y, halfX, halfY] = [(minX + maxX) / 2, (minY + maxY) / 2, (maxX - minX) / 2, (maxY - minY) / 2];
  for (let axis = 0; axis < 3; axis++) {
    const r = 4 * axis;
    const middle = m[r]! * x + m[r + 1]! * y + m[r + 3]!;
    const reach = Math.abs(m[r]!) * halfX + Math.abs(m[r + 1]!) * halfY;
    out[at + axis] = middle - reach;
    out[at + 3 + axis] = middle + reach;
  }
}

/** The boxes that hold each panel wherever it comes. */
function sweptBoxes(boxesOf: readonly Float64Array[], count: number): Float64Array {
  const swept = new Float64Array(6 * count).map((_, k) => (k % 6 < 3 ? Infinity : -Infinity));
  for (const boxes of boxesOf) {
    for (let k = 0; k < swept.length; k++) swept[k] = k % 6 < 3 ? Math.min(swept[k]!, boxes[k]!) : Math.max(swept[k]!, boxes[k]!);
  }
  return swept;
}

/** Whether the boxes round two panels miss each other: most pairs need no closer look. */
function apart(boxes: Float64Array, a: number, b: number): boolean {
  for (let axis = 0; axis < 3; axis++) {
    if (boxes[a + axis]! > boxes[b + 3 + axis]! || boxes[b + axis]! > boxes[a + 3 + axis]!) return true;
  }
  return false;
}
