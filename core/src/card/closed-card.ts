import type { Pose } from '../linkage/kinematics.js';
import { poseOf, type Motion } from '../linkage/motion.js';
import { carryFlat } from '../linkage/rigid.js';
import { stackClosed, type ClosedStack } from '../linkage/stacking.js';
import type { Mm } from '../measure/units.js';
import { boxOf, centroid, type Area, type Box, type Loop } from '../plane/outline.js';
import type { Point } from '../plane/point.js';
import { ScanLines } from '../plane/scan-line.js';
import { CREASE_ZONE } from '../supplies/limits.js';
import type { ClaimOf } from '../claim/claims.js';
import { claimsOf } from './draw.js';
import type { Design } from './join.js';
import { pileOf, type Slab, type Thickest } from './pile.js';
import { thickestPlace } from './thickest-place.js';
import { lyingAt } from './worn.js';

/** What lies between the two sides of a fold at one distance from it. */
export interface PropAt {
  r: Mm;
  thickness: Mm;
}

/** The card as it lies closed, in the ground panel's coordinates. */
export interface ClosedCard {
  stack: ClosedStack;
  box: Box;
  /** what props each closing fold open, by hinge */
  props: Record<string, PropAt[]>;
  /** width of the spine to give each closing fold, by hinge: the thickest place between its leaves */
  spines: Record<string, Mm>;
  /** every slab from the bottom up */
  pile: Slab[];
  /** the thickest place, and the bodies piled up there */
  thickest: Thickest;
}

/** Two scores closer than this tear into one. */
const LEAST_SPINE: Mm = 1;

/** Lays the card closed: order of layers, outline, thickness, spines. @param stack how its panels lie on one another, where that is known */
export function closeCard(design: Design, motion: Motion, stack: ClosedStack = stackClosed(motion)): ClosedCard {
  const pose = poseOf(motion, motion.frames[0]!);
  const worn = design.worn.flatMap((each) => lyingAt(pose[design.linkage.bodyOf.get(each.panel)!]!, each).outer);
  const box = boxOf([...stack.layers.flatMap((layer) => layer.area.outer), ...worn]);
  const pile = pileOf(design, stack, pose);
  const props: ClosedCard['props'] = {};
  const spines: ClosedCard['spines'] = {};
  for (const closing of claimsOf(design, 'closing')) {
    const profile = propsBetween(design, pose, pile, closing);
    const most = profile.reduce((thick, { thickness }) => Math.max(thick, thickness), 0);
    props[closing.hinge] = profile;
    spines[closing.hinge] = most === 0 ? 0 : Math.max(LEAST_SPINE, most);
  }
  return { stack, box, props, spines, pile, thickest: thickestPlace(design, pile) };
}

type Closing = ClaimOf<'closing'>;

/** A prop as long as this along the fold holds a stiff leaf open by its whole height; a shorter one dents the leaf. */
export const LEAST_PROP: Mm = 20;
/** A prop that is a mere point dents the leaf by so much. */
const POINT_DENTS: Mm = 1;
/** A shorter one gives way altogether, the more the shorter it is. */
const SPLINTER: Mm = 2;
const ACROSS_SAMPLES = 24;

/**
 * What lies between the two sides of a closing fold, by distance from the fold: at each distance the
 * greatest thickness along the fold, less what a stretch shorter than 20 mm dents the leaf. Distances are a grid and
 * every corner of a slab, so that a straight front edge is met exactly.
 */
function propsBetween(design: Design, pose: Pose, flatPile: readonly Slab[], closing: Closing): PropAt[] {
  const pile = besideFold(design, pose, flatPile, closing);
  const bodies = (ids: readonly string[]): Set<number> => new Set(ids.map((id) => design.linkage.bodyOf.get(id)!));
  const [lower, upper] = [bodies(closing.lower), bodies(closing.upper)];
  const corners = pile.flatMap(({ area }) => turningCorners(area.outer).map(([x]) => x + 1e-6));
  const grid = Array.from({ length: ACROSS_SAMPLES }, (_, i) => ((i + 0.5) / ACROSS_SAMPLES) * closing.depth);
  // Where the give of the crease ends, the whole thickness begins to count.
  const xs = [...new Set([...corners, ...grid, CREASE_ZONE + 1e-6])].filter((x) => x > 0.5 && x < closing.depth).sort((a, b) => a - b);
  const lines = pile.map(({ area }) => new ScanLines(mirrored(area)));
  const sides = pile.map(({ body }) => (lower.has(body) ? LOWER : upper.has(body) ? UPPER : 0));
  return xs.map((x) => {
    const met: Met[] = [];
    pile.forEach(({ box, thickness }, k) => {
      if (x < box.minX || x > box.maxX) return;
      const count = lines[k]!.at(x);
      if (count > 0) met.push({ slice: lines[k]!.xs, count, side: sides[k]!, thickness });
    });
    return { r: x, thickness: propping(stretchesAlong(met)) };
  });
}

/** A slab that a line beside the fold runs through: where it enters and leaves, in pairs, and which side of the fold it is of. */
interface Met {
  slice: readonly Mm[];
  count: number;
  side: number;
  thickness: Mm;
}

/**
 * The corners at which a line stops going one way, across the fold or along it: only there what lies on a line begins, ends or
 * is longest. Round a curve most corners are none.
 */
function turningCorners(loop: Loop): Loop {
  const n = loop.length;
  return loop.filter(([x, y], i) => {
    const [before, after] = [loop[(i + n - 1) % n]!, loop[(i + 1) % n]!];
    return turns(x - before[0], after[0] - x) || turns(y - before[1], after[1] - y);
  });
}

/** Whether two steps do not both go on the same way; one that hardly goes anywhere stands still. */
const turns = (into: Mm, on: Mm): boolean => Math.abs(into) < 1e-6 || Math.abs(on) < 1e-6 || into > 0 !== on > 0;

/** How thick it is, and over what length along the fold. */
interface Stretch {
  thickness: Mm;
  length: Mm;
}

/** What lies between the sides of a fold along one line beside it: exact, since it changes only where a slab begins or ends. */
function stretchesAlong(met: readonly Met[]): Stretch[] {
  const ends: Mm[] = [];
  for (const { slice, count } of met) for (let i = 0; i < count; i++) ends.push(slice[i]!);
  ends.sort((a, b) => a - b);
  const found: Stretch[] = [];
  for (let i = 1; i < ends.length; i++) {
    const [from, to] = [ends[i - 1]!, ends[i]!];
    if (to - from < 1e-9) continue;
    const thickness = thicknessBetween(met, (from + to) / 2);
    if (thickness > 0) found.push({ thickness, length: to - from });
  }
  return found;
}

/** The greatest thickness that props a leaf, each less what so short a stretch of it and of what is thicker dents the leaf. */
function propping(stretches: Stretch[]): Mm {
  let [most, long] = [0, 0];
  for (const { thickness, length } of stretches.sort((a, b) => b.thickness - a.thickness)) {
    long += length;
    most = Math.max(most, propped(thickness, long));
  }
  return most;
}

/** What is left of a thickness over a length: a short prop dents the leaf by up to a mm, and no hand feels a splinter of one. */
function propped(thickness: Mm, length: Mm): Mm {
  const dented = (long: Mm): Mm => Math.max(0, thickness - POINT_DENTS * (1 - Math.min(1, long / LEAST_PROP)));
  return length >= SPLINTER ? dented(length) : (dented(SPLINTER) * length) / SPLINTER;
}

/**
 * The pile as seen from a closed fold: x away from it over its leaves, y along it, beyond both its ends too. The fold lies
 * where it has come to lie in the closed card, and its leaves on whichever side of it they do.
 */
function besideFold(design: Design, pose: Pose, pile: readonly Slab[], closing: Closing): Slab[] {
  const { linkage } = design;
  const { left, px, py, ux, uy } = linkage.hinges[linkage.hingeIndex.get(closing.hinge)!]!;
  const origin = carryFlat(pose[left]!, [px, py]);
  const ahead = carryFlat(pose[left]!, [px + ux, py + uy]);
  const along = [ahead[0] - origin[0], ahead[1] - origin[1]] as const;
  const leaf = linkage.bodyOf.get(closing.upper[0]!)!;
  const middle = carryFlat(pose[leaf]!, centroid(design.panels[leaf]!.area));
  const side = Math.sign((middle[0] - origin[0]) * along[1] - (middle[1] - origin[1]) * along[0]) || 1;
  const [acrossX, acrossY] = [side * along[1], -side * along[0]];
  const seen = ([x, y]: Point): Point => {
    const [dx, dy] = [x - origin[0], y - origin[1]];
    return [dx * acrossX + dy * acrossY, dx * along[0] + dy * along[1]];
  };
  return pile.map((slab) => {
    const area = { outer: slab.area.outer.map(seen), holes: slab.area.holes.map((hole) => hole.map(seen)) };
    return { ...slab, area, box: boxOf(area.outer) };
  });
}

const LOWER = 1;
const UPPER = 2;

/** The same area with x and y changed over, so that upright lines are gone through like level ones. */
function mirrored({ outer, holes }: Area): Area {
  const swap = (loop: Loop): Loop => loop.map(([x, y]) => [y, x] as const);
  return { outer: swap(outer), holes: holes.map(swap) };
}

/** Thickness of what lies at y between the two sides of a fold: from the first slab of one side to the first of the other. */
function thicknessBetween(met: readonly Met[], y: Mm): Mm {
  let found = 0;
  let sum = 0;
  for (const { slice, count, side, thickness } of met) {
    if (!isIn(slice, count, y)) continue;
    if (side !== 0 && side !== found) {
      if (found !== 0) return sum;
      found = side;
    } else if (found !== 0) sum += thickness;
  }
  return 0;
}

function isIn(slice: readonly Mm[], count: number, y: Mm): boolean {
  for (let i = 0; i + 1 < count; i += 2) if (slice[i]! <= y && y <= slice[i + 1]!) return true;
  return false;
}
