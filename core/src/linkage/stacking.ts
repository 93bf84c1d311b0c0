import { CLOSING_PLAY } from '../supplies/limits.js';
import { intersect, totalArea } from '../plane/boolean.js';
import { clippedTo, isSimple } from '../plane/convex.js';
import { apart, areaContains, boxOf, centroid, signedArea, type Area, type Loop } from '../plane/outline.js';
import { toRadians, type Mm } from '../measure/units.js';
import { distance, type Point } from '../plane/point.js';
import { carry, carryFlat, inverse, rigidIdentity } from './rigid.js';
import type { Frame, Motion } from './motion.js';
import { bendingBodies } from './structure.js';
import { poseOf } from './motion.js';
import type { Pose } from './kinematics.js';

/** A panel as it lies in the closed card. */
export interface Layer {
  body: number;
  /** outline in the ground panel's coordinates */
  area: Area;
  /** true when its upper face looks the same way as the ground's */
  faceUp: boolean;
}

/** The closed card as a pile of flat panels. */
export interface ClosedStack {
  layers: Layer[];
  /** above.get(a) holds every body that lies directly or indirectly on a where they overlap */
  over: ReadonlyMap<number, ReadonlySet<number>>;
  /** bodies in an order in which each lies on those before it; where there is none, the broadest overlaps are kept to */
  order: number[];
  /** bodies that overlap and whose order is known, with a point of what they share and about how wide that is */
  touching: Contact[];
  /** pairs of bodies whose order contradicts itself: they pass through each other on closing, over that width */
  crossings: { bodies: [number, number]; width: Mm }[];
  /** where the panels lie on one another in a circle: the width that overlaps against the order of the rest */
  circle: Mm;
}

interface Contact {
  lower: number;
  upper: number;
  at: Point;
  width: Mm;
}

/** Edges that overlap by less are edge on edge: paper and creases give as much when the card is pressed flat. */
const LEAST_WIDTH: Mm = CLOSING_PLAY;
const LEAST_OVERLAP = 0.5;
/** An opening up to which the side on which a panel is seen tells how it will lie. */
const NEARLY_CLOSED = toRadians(12);

/**
 * Finds which panel lies on which in the closed card. Glued faces and folds say it outright; for the
 * rest the side on which two panels are seen at several small openings decides, and must agree. Worked out once for a motion.
 */
export function stackClosed(motion: Motion): ClosedStack {
  const known = CLOSED.get(motion);
  if (known) return known;
  const foldedOver = motion.linkage.hinges.map(({ source }) => source.crease.closed);
  const stack = stackFlat(motion, motion.frames[0]!, { foldedOver, probes: nearlyClosed(motion), belowBent: () => 0 });
  CLOSED.set(motion, stack);
  return stack;
}

const CLOSED = new WeakMap<Motion, ClosedStack>();
const OPEN = new WeakMap<Motion, { stack: ClosedStack | undefined }>();

/**
 * The same for the open card, where all of it lies flat again: what lies on what is not what it was closed. Worked out once
 * for a motion; nothing where something stands.
 */
export function stackOpen(motion: Motion): ClosedStack | undefined {
  const known = OPEN.get(motion);
  if (known) return known.stack;
  const open = motion.frames[motion.frames.length - 1]!;
  const pose = poseOf(motion, open);
  const lies = pose.every((m) => Math.abs(m[10]!) > 1 - FLAT && Math.abs(m[11]!) < FLAT_HEIGHT);
  const probes = motion.frames.slice(-5, -1).map((frame) => poseOf(motion, frame));
  const stack = lies
    ? stackFlat(motion, open, { foldedOver: Array.from(open.folds), probes, belowBent: glueOrder(motion, pose) })
    : undefined;
  OPEN.set(motion, { stack });
  return stack;
}

/** How panels that lie in one plane lie on each other at a point of the drive: as in the closed card, or as in the open one. */
export const stackAt = (motion: Motion, closed: ClosedStack, s: number): ClosedStack => (s > 0.5 ? (stackOpen(motion) ?? closed) : closed);

/** Panels within this of the ground's plane, by direction and by mm, lie flat. */
const FLAT = 1e-6;
const FLAT_HEIGHT: Mm = 1e-3;

/** What is known of a flat pile besides where its panels lie. */
interface FlatPile {
  /** fold angles there, by hinge */
  foldedOver: readonly number[];
  /** poses on the way that leads there */
  probes: readonly Pose[];
  /** on which side of a panel another lies where either bends on that way: +1 when the second is above */
  belowBent: (a: number, b: number) => number;
}

/** A sheet lies on what it is glued to, and on what that is glued to: all of it, where the pile lies spread out. */
function glueOrder({ linkage: { panels, bonds } }: Motion, pose: Pose): (a: number, b: number) => number {
  const pieces = [...new Set(panels.map(({ piece }) => piece.id))];
  const of = (body: number): number => pieces.indexOf(panels[body]!.piece.id);
  const pairs = bonds.map(({ a, b, source }): [number, number] => {
    const partnerIsUnder = (source.partnerFace === 'up') === pose[b]![10]! > 0;
    return partnerIsUnder ? [of(b), of(a)] : [of(a), of(b)];
  });
  const over = reach(pieces.length, pairs);
  return (a, b) => Number(over.get(of(a))!.has(of(b))) - Number(over.get(of(b))!.has(of(a)));
}

function stackFlat(motion: Motion, closed: Frame, { foldedOver, probes, belowBent }: FlatPile): ClosedStack {
  const pose = poseOf(motion, closed);
  const layers = motion.linkage.panels.map((panel, body): Layer => {
    const toClosed = (loop: Loop): Loop => loop.map((p) => carryFlat(pose[body]!, p));
    return { body, area: { outer: toClosed(panel.area.outer), holes: panel.area.holes.map(toClosed) }, faceUp: pose[body]![10]! > 0 };
  });
  const known = knownOrder(motion, layers, foldedOver);
  const touching: ClosedStack['touching'] = [];
  const crossings: ClosedStack['crossings'] = [];
  const boxes = layers.map(({ area }) => boxOf(area.outer));
  const glued = gluedPlaces(motion, pose);
  const bending = bendingBodies(motion.linkage);
  // Where a bent panel is on the way tells nothing: it lies as its folds and what is glued to its neighbours say.
  const seenAt = (a: number, b: number, at: Point): Side =>
    bending.has(a) || bending.has(b) ? belowBent(a, b) : separation(motion, pose, probes, [a, b], at);
  for (let a = 0; a < layers.length; a++) {
    for (let b = a + 1; b < layers.length; b++) {
      if (apart(boxes[a]!, boxes[b]!)) continue;
      const shared = glued.get(`${a}-${b}`) ?? overlap(layers[a]!.area, layers[b]!.area);
      if (!shared) continue;
      const side = known.get(`${a}-${b}`) ?? seenAt(a, b, shared.at);
      if (side === 'both') crossings.push({ bodies: [a, b], width: shared.width });
      else if (side !== 0) touching.push(side > 0 ? { lower: a, upper: b, ...shared } : { lower: b, upper: a, ...shared });
    }
  }
  const { order, kept, circle } = sorted(layers.length, touching);
  return { layers, over: reach(layers.length, kept), order, touching, crossings, circle };
}

type Side = number | 'both';

/** +1 when b lies on a, from folds (a valley brings the other panel onto the upper face) and from glue. */
function knownOrder(motion: Motion, layers: readonly Layer[], foldedOver: readonly number[]): Map<string, number> {
  const known = new Map<string, number>();
  const say = (lower: number, upper: number): void => {
    known.set(`${Math.min(lower, upper)}-${Math.max(lower, upper)}`, lower < upper ? 1 : -1);
  };
  motion.linkage.hinges.forEach(({ left, right }, h) => {
    const fold = foldedOver[h]!;
    if (Math.abs(fold) < 3) return;
    const rightIsUnder = fold > 0 === layers[right]!.faceUp;
    say(rightIsUnder ? right : left, rightIsUnder ? left : right);
  });
  const glued = motion.linkage.bonds.map(({ a, b, source }) => {
    const partnerIsUnder = (source.partnerFace === 'up') === layers[b]!.faceUp;
    return partnerIsUnder ? { lower: b, upper: a } : { lower: a, upper: b };
  });
  // What is glued to the two faces of one panel has that panel between.
  for (const under of glued) for (const over of glued) if (under.upper === over.lower) say(under.lower, over.upper);
  for (const { lower, upper } of glued) say(lower, upper);
  return known;
}

/** The first poses after the closed one: further on, where a drive of many phases hurries, a foot may have left what it lay on. */
function nearlyClosed(motion: Motion): Pose[] {
  const first = motion.frames.slice(1, 5);
  const near = first.filter(({ opening }) => opening <= NEARLY_CLOSED);
  return (near.length > 0 ? near : first.slice(0, 1)).map((frame) => poseOf(motion, frame));
}

/** Where glued pairs share at least their glue, by pair: nothing has to be looked for there. */
function gluedPlaces({ linkage }: Motion, pose: Pose): Map<string, Pick<Contact, 'at' | 'width'>> {
  return new Map(
    linkage.bonds.flatMap(({ a, b, corners }) => {
      const place = contactIn(corners.map((p) => carryFlat(pose[a]!, p)));
      return place ? [[`${Math.min(a, b)}-${Math.max(a, b)}`, place] as const] : [];
    }),
  );
}

function overlap(a: Area, b: Area): Pick<Contact, 'at' | 'width'> | undefined {
  if (isSimple(a) && isSimple(b)) {
    const both = clippedTo(a.outer, b.outer, signedArea(b.outer) > 0);
    return both.length < 3 || Math.abs(signedArea(both)) < LEAST_OVERLAP ? undefined : contactIn(both);
  }
  const shared = intersect([a], [b]);
  if (totalArea(shared) < LEAST_OVERLAP) return undefined;
  const largest = shared.reduce((most, loop) => (Math.abs(totalArea([loop])) > Math.abs(totalArea([most])) ? loop : most));
  return contactIn(largest);
}

/** A strip is about as wide as twice its area over its length round. */
function contactIn(loop: Loop): Pick<Contact, 'at' | 'width'> | undefined {
  const round = loop.reduce((sum, p, i) => sum + distance(p, loop[(i + 1) % loop.length]!), 0);
  const width = (2 * Math.abs(signedArea(loop))) / round;
  return width < LEAST_WIDTH ? undefined : { at: centroid({ outer: loop, holes: [] }), width };
}

/**
 * On which side of panel a the shared point of panel b is seen at small openings: +1 above, as signed in the closed
 * pile. It tells only while the point is over the other panel: a foot that slides back leaves what it lay on, and its
 * plane goes on beneath it.
 */
function separation(
  { linkage: { panels } }: Motion,
  closed: Pose,
  probes: readonly Pose[],
  [a, b]: readonly [number, number],
  at: Point,
): Side {
  const over: number[] = [];
  const beside: number[] = [];
  for (const pose of probes) {
    for (const [from, other, sign] of [
      [a, b, 1],
      [b, a, -1],
    ] as const) {
      const { onto, height } = seenFrom(closed, pose, { from, other }, at);
      if (Math.abs(height) < 1e-4) continue;
      const side = sign * Math.sign(height) * Math.sign(closed[from]![10]!);
      (areaContains(panels[from]!.area, onto) ? over : beside).push(side);
    }
  }
  const sides = new Set(over.length > 0 ? over : beside.slice(0, 1));
  return sides.size > 1 ? 'both' : ([...sides][0] ?? 0);
}

const back = rigidIdentity();

/** A point of the closed pile, carried along by one panel and seen from another: where it comes to lie there, and how high. */
function seenFrom(closed: Pose, pose: Pose, { from, other }: { from: number; other: number }, at: Point): { onto: Point; height: number } {
  inverse(back, closed[other]!);
  const world = carry(pose[other]!, ...carry(back, at[0], at[1], 0));
  inverse(back, pose[from]!);
  const [x, y, height] = carry(back, ...world);
  return { onto: [x, y], height };
}

function reach(count: number, pairs: readonly [number, number][]): Map<number, Set<number>> {
  const over = new Map<number, Set<number>>();
  const visit = (body: number, seen: Set<number>): Set<number> => {
    for (const [lower, upper] of pairs) {
      if (lower === body && !seen.has(upper)) visit(upper, seen.add(upper));
    }
    return seen;
  };
  for (let body = 0; body < count; body++) over.set(body, visit(body, new Set()));
  return over;
}

/** Sorted bottom up. Where contacts go round in a circle the broadest are kept, and the widest that is not is told. */
function sorted(count: number, touching: readonly Contact[]): { order: number[]; kept: [number, number][]; circle: Mm } {
  const pairs = touching.map(({ lower, upper }): [number, number] => [lower, upper]);
  const order = sortStack(count, pairs);
  if (order.length > 0) return { order, kept: pairs, circle: 0 };
  let circle = 0;
  const kept: [number, number][] = [];
  for (const { lower, upper, width } of [...touching].sort((a, b) => b.width - a.width)) {
    if (sortStack(count, [...kept, [lower, upper]]).length > 0) kept.push([lower, upper]);
    else circle = Math.max(circle, width);
  }
  return { order: sortStack(count, kept), kept, circle };
}

/** Kahn's topological sort; empty when the pairs go round in a circle. */
function sortStack(count: number, pairs: readonly [number, number][]): number[] {
  const below = new Array<number>(count).fill(0);
  for (const [, upper] of pairs) below[upper]!++;
  const ready = below.flatMap((n, body) => (n === 0 ? [body] : []));
  const order: number[] = [];
  for (let body = ready.shift(); body !== undefined; body = ready.shift()) {
    order.push(body);
    for (const [lower, upper] of pairs) {
      if (lower !== body) continue;
      below[upper]!--;
      if (!below[upper]) ready.push(upper);
    }
  }
  return order.length === count ? order : [];
}
