import { caliperOf } from '../card/card-stocks.js';
import { JOINT_SLACK, poseOf } from '../linkage/motion.js';
import { carry, cross, dot, minus, norm, type Rigid, type Vec3 } from '../linkage/rigid.js';
import { convexHull, type Loop } from '../plane/outline.js';
import { printAngle } from '../measure/print.js';
import { spoken } from '../measure/sentence.js';
import { toRadians } from '../measure/units.js';
import type { Panel } from '../sheet/panels.js';
import type { Check, Verdict } from './finding.js';

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
  low: [number, number, number];
  high: [number, number, number];
}

/** Do panels pass through each other anywhere in the motion? */
export const clears: Check = ({ design, motion }) => {
  const pairs = pairsToWatch(design.panels, design.linkage);
  const hulls = design.panels.map((panel) => convexHull(panel.area.outer));
  const found: Verdict[] = [];
  const firstHit = new Map<string, { at: number; opening: number; depth: number; a: Panel; b: Panel }>();
  for (const frame of motion.frames) {
    if (frame.opening < NEARLY_CLOSED || frame.misfit > JOINT_SLACK) continue;
    const pose = poseOf(motion, frame);
    const solids = design.panels.map((panel, body) => solidOf(panel, hulls[body]!, pose[body]!));
    for (const [a, b] of pairs) {
      if (apart(solids[a]!, solids[b]!)) continue;
      const slack = caliperOf(design, design.panels[a]!.piece) / 2 + caliperOf(design, design.panels[b]!.piece) / 2 + 0.05;
      const depth = crossingDepth(solids[a]!, solids[b]!, Math.min(slack, 0.6));
      if (depth === 0) continue;
      const key = `${design.panels[a]!.id}/${design.panels[b]!.id}`;
      const known = firstHit.get(key);
      if (!known) firstHit.set(key, { at: frame.s, opening: frame.opening, depth, a: design.panels[a]!, b: design.panels[b]! });
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
      ...(!motion.closedFlat.holds && { followsFrom: motion.frames[0]!.misfit > JOINT_SLACK ? 'closes-loop' : 'folds-flat' }),
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

type Joined = { hinges: readonly { left: number; right: number }[]; bonds: readonly { a: number; b: number }[] };

/** All pairs but those that share a crease or glue. */
function pairsToWatch(panels: readonly Panel[], { hinges, bonds }: Joined): [number, number][] {
  const joined = new Set([...hinges.map((h) => `${h.left}-${h.right}`), ...bonds.map((b) => `${b.a}-${b.b}`)]);
  return panels.flatMap((_, a) =>
    panels.flatMap((_, b): [number, number][] => (b > a && !joined.has(`${a}-${b}`) && !joined.has(`${b}-${a}`) ? [[a, b]] : [])),
  );
}

function solidOf({ area }: Panel, hullOf: Loop, m: Rigid): Solid {
  const hull = hullOf.map(([x, y]) => carry(m, x, y, 0));
  const low: Solid['low'] = [Infinity, Infinity, Infinity];
  const high: Solid['high'] = [-Infinity, -Infinity, -Infinity];
  for (const p of hull) {
    for (let axis = 0; axis < 3; axis++) {
      if (p[axis]! < low[axis]!) low[axis] = p[axis]!;
      if (p[axis]! > high[axis]!) high[axis] = p[axis]!;
    }
  }
  const lines = (): Vec3[][] => [area.outer, ...area.holes].map((loop) => loop.map(([x, y]) => carry(m, x, y, 0)));
  return { hull, lines, origin: hull[0]!, normal: [m[2]!, m[6]!, m[10]!], low, high };
}

/** Whether the boxes round two panels miss each other: most pairs need no closer look. */
function apart(a: Solid, b: Solid): boolean {
  for (let axis = 0; axis < 3; axis++) if (a.low[axis]! > b.high[axis]! || b.low[axis]! > a.high[axis]!) return true;
  return false;
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
  const shared = sharedLength(spans(a, b, direction), spans(b, a, direction));
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

/** Stretches of a line (through both planes) that lie inside panel `a`, as sorted parameters along the direction. */
function spans(a: Solid, b: Solid, direction: Vec3): [number, number][] {
  const hits: number[] = [];
  for (const loop of a.lines()) {
    for (let i = 0, j = loop.length - 1; i < loop.length; j = i++) {
      const di = dot(minus(loop[i]!, b.origin), b.normal);
      const dj = dot(minus(loop[j]!, b.origin), b.normal);
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

function sharedLength(a: readonly [number, number][], b: readonly [number, number][]): number {
  let sum = 0;
  for (const [from, to] of a) for (const [start, end] of b) sum += Math.max(0, Math.min(to, end) - Math.max(from, start));
  return sum;
}
