import { caliperOf } from '../card/card-stocks.js';
import { JOINT_SLACK, poseOf } from '../linkage/motion.js';
import type { Pose } from '../linkage/kinematics.js';
import { lifted, liftsOf } from '../linkage/lifts.js';
import { bendingBodies, type Linkage } from '../linkage/structure.js';
import { carry, cross, dot, minus, norm, type Rigid, type Vec3 } from '../linkage/rigid.js';
import { boxOf, convexHull, type Box, type Loop } from '../plane/outline.js';
import { printAngle } from '../measure/print.js';
import { spoken } from '../measure/sentence.js';
import { toRadians } from '../measure/units.js';
import type { Panel } from '../sheet/panels.js';
import { ofBoth, type Check, type Verdict } from './finding.js';

/** A shared line shorter than this is a corner touching, not a collision. */
const LEAST_LINE = 1;
/** Below this opening the order of layers decides, not space between them. */
const NEARLY_CLOSED = toRadians(4);

/** A panel in space. Its hull is enough to tell that it misses another; its lines are carried only when they are needed. */
interface Solid {
  hull: Vec3[];
  lines: () => Vec3[][];
  origin: Vec3;
  normal: Vec3;
}

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
      if (oneSided(flat[a]!, poseA, poseB, slack) || oneSided(flat[b]!, poseB, poseA, slack)) continue;
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

function solidOf({ area }: Panel, hullOf: Loop, m: Rigid): Solid {
  const hull = hullOf.map(([x, y]) => carry(m, x, y, 0));
  const lines = (): Vec3[][] => [area.outer, ...area.holes].map((loop) => loop.map(([x, y]) => carry(m, x, y, 0)));
  return { hull, lines, origin: hull[0]!, normal: [m[2]!, m[6]!, m[10]!] };
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

/** Whether the flat box of panel a stays, within the slack, on one side of the plane of panel b: then the panel does too. */
function oneSided(a: Box, m: Rigid, plane: Rigid, slack: number): boolean {
  const [nx, ny, nz] = [plane[2]!, plane[6]!, plane[10]!];
  // The heights over the plane of the box's middle, and how much its half sides add.
  const u = nx * m[0]! + ny * m[4]! + nz * m[8]!;
  const v = nx * m[1]! + ny * m[5]! + nz * m[9]!;
  const level = nx * (m[3]! - plane[3]!) + ny * (m[7]! - plane[7]!) + nz * (m[11]! - plane[11]!);
  const middle = (u * (a.minX + a.maxX)) / 2 + (v * (a.minY + a.maxY)) / 2 + level;
  const reach = (Math.abs(u) * (a.maxX - a.minX)) / 2 + (Math.abs(v) * (a.maxY - a.minY)) / 2;
  return middle - reach > -slack || middle + reach < slack;
}

/** How deep two flat panels pass through each other: 0 when one stays on one side of the other or they miss. */
function crossingDepth(a: Solid, b: Solid, slack: number): number {
  const depthA = straddle(a, b, slack);
  if (depthA === 0) return 0;
  const depthB = straddle(b, a, slack);
  if (depthB === 0) return 0;
  const line = cross(a.normal, b.normal);
  const length = norm(line);
  if (length < 1e-6) return 0;
  const direction: Vec3 = [line[0] / length, line[1] / length, line[2] / length];
  // Paper must go on at both sides of the line, in both: an edge that lies in the other's plane only touches it.
  const through = [
    spans(a, b, direction, slack),
    spans(a, b, direction, -slack),
    spans(b, a, direction, slack),
    spans(b, a, direction, -slack),
  ];
  const shared = through.reduce(inBoth).reduce((sum, [from, to]) => sum + to - from, 0);
  return shared > LEAST_LINE ? Math.min(depthA, depthB) : 0;
}

/** The smaller of the two extents of `a` on the two sides of the plane of `b`; 0 when within the slack. */
function straddle(a: Solid, b: Solid, slack: number): number {
  let low = 0;
  let high = 0;
  for (const p of a.hull) {
    const d = dot(minus(p, b.origin), b.normal);
    if (d < low) low = d;
    if (d > high) high = d;
  }
  const least = Math.min(-low, high);
  return least > slack ? least : 0;
}

/**
 * Stretches of a line that lie inside panel `a`, as sorted parameters along the direction: where it meets the plane of panel
 * b, moved to one side of it by some mm.
 */
function spans(a: Solid, b: Solid, direction: Vec3, aside: number): [number, number][] {
  const hits: number[] = [];
  for (const loop of a.lines()) {
    for (let i = 0, j = loop.length - 1; i < loop.length; j = i++) {
      const di = dot(minus(loop[i]!, b.origin), b.normal) - aside;
      const dj = dot(minus(loop[j]!, b.origin), b.normal) - aside;
      if (di > 0 === dj > 0) continue;
      const t = di / (di - dj);
      const p = loop[i]!;
      const q = loop[j]!;
      hits.push(dot([p[0] + (q[0] - p[0]) * t, p[1] + (q[1] - p[1]) * t, p[2] + (q[2] - p[2]) * t], direction));
    }
  }
  hits.sort((x, y) => x - y);
  const found: [number, number][] = [];
  for (let i = 0; i + 1 < hits.length; i += 2) found.push([hits[i]!, hits[i + 1]!]);
  return found;
}

/** Stretches that two lists of stretches share. */
function inBoth(a: readonly [number, number][], b: readonly [number, number][]): [number, number][] {
  return a.flatMap(([from, to]) =>
    b.flatMap(([start, end]): [number, number][] => {
      const both: [number, number] = [Math.max(from, start), Math.min(to, end)];
      return both[1] > both[0] ? [both] : [];
    }),
  );
}
