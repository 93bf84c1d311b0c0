import { MOST_TIMES } from '../card/dressing.js';
import type { PlacedTopper } from '../dress/toppers.js';
import { poseOf } from '../linkage/motion.js';
import { carry, carryFlat, dot, inverted, minus, type Rigid, type Vec3 } from '../linkage/rigid.js';
import { spoken } from '../measure/sentence.js';
import type { Mm } from '../measure/units.js';
import { areasOf, intersect } from '../plane/boolean.js';
import { areaContains, asArea, centroid, movedArea, rectangle } from '../plane/outline.js';
import { between, type Point } from '../plane/point.js';
import { GLUE_FILM, STOP_CALIPERS } from '../supplies/limits.js';
import type { CheckInput, Verdict } from './finding.js';

/** A foot this far from its stop is not held by it. */
const AT_STOP: Mm = 0.5;
/** Less than this along the foot holds it at a point only: it turns there. */
const LEAST_HELD: Mm = 10;
/** What a foot stands on lies no farther under or over it than this. */
const STANDS_ON: Mm = 3;
/** Beyond this nothing is looked for in front of a foot. */
const IN_FRONT: Mm = 60;
/** So far under a foot a topper is looked for that lies in its way. */
const BEHIND: Mm = 10;
/** Just inside an edge. */
const FOOT_EDGE: Mm = 0.5;
/** Places along a foot at which its thickness is looked at. */
const PLACES = 41;

type Stop = NonNullable<CheckInput['design']['base']['rest']['stop']>;

/** Is the stop high enough for the foot with all that it wears, and does the foot stand against it? */
export function stopHolds(input: CheckInput): Verdict[] {
  const { stop } = input.design.base.rest;
  if (!stop) return [];
  return stop.byTopper ? heldByTopper(input, stop) : [...highEnough(input, stop), ...atStrip(input, stop)];
}

function highEnough(input: CheckInput, stop: Stop): Verdict[] {
  const foot = footThickness(input, stop, stop.height);
  const least = STOP_CALIPERS * foot;
  const ok = stop.height >= least - 1e-9;
  const worn = wornWords(foot, stop);
  return [
    {
      id: 'stands/stop',
      check: 'stands',
      severity: stop.height <= foot ? 'fail' : ok ? 'pass' : 'warn',
      value: stop.height,
      limit: least,
      unit: 'mm',
      panels: [stop.foot],
      at: 1,
      says: ok
        ? `The stop is ${spoken(stop.height)} high and holds the foot, which is ${spoken(foot)} thick${worn}.`
        : `The stop is ${spoken(stop.height)} high; the foot is ${spoken(foot)} thick${worn} and slips over a stop lower than ${spoken(least)}.`,
      ...(!ok && {
        fix: {
          says: `Raise the stop to ${spoken(Math.ceil(least * 2) / 2)}.`,
          changes: [{ owner: 'base', size: 'stopHeight', value: Math.ceil(least * 2) / 2 }],
        },
      }),
    },
  ];
}

const wornWords = (foot: Mm, { footThickness: bare }: Stop): string => (foot > bare + 1e-9 ? ' with what it wears' : '');

/** Whether the foot really stands against its strip in the resting pose. */
function atStrip({ design, motion, resting }: CheckInput, stop: Stop): Verdict[] {
  const strip = design.linkage.bonds.find(({ source }) => source.id === 'stop-on-base');
  if (!strip) return [];
  const pose = poseOf(motion, resting);
  const foot = carry(pose[design.linkage.bodyOf.get(stop.foot)!]!, ...stop.footEdge[0], 0);
  const across = carryToStop(pose[strip.a]!, design.panels[strip.a]!.area.outer, foot);
  const value = Math.abs(across);
  const ok = value <= AT_STOP;
  return [
    {
      id: 'stands/foot',
      check: 'stands',
      severity: ok ? 'pass' : 'fail',
      value,
      limit: AT_STOP,
      unit: 'mm',
      panels: [stop.foot, design.panels[strip.a]!.id],
      at: resting.s,
      says: ok ? 'The foot stands against its stop.' : `The foot stands ${spoken(value)} from its stop: nothing holds it there.`,
    },
  ];
}

/** From the near side of a stop to a foot, across the stop; the near side is the one nearer the foot. */
function carryToStop(pose: Rigid, outline: readonly Point[], foot: Vec3): number {
  const xs = outline.map(([x]) => x);
  const distances = [Math.min(...xs), Math.max(...xs)].map((x) => {
    const on = carry(pose, x, 0, 0);
    const along = minus(carry(pose, x + 1, 0, 0), on);
    return dot(minus(foot, on), along);
  });
  return distances.reduce((least, d) => (Math.abs(d) < Math.abs(least) ? d : least));
}

/** Whether a topper stands in front of the foot, against it, and high enough. */
function heldByTopper(input: CheckInput, stop: Stop): Verdict[] {
  const { dressed, resting } = input;
  const [nearest] = dressed.toppers
    .flatMap((placed) => {
      const lies = inFrontOf(input, stop, placed);
      return lies ? [{ placed, ...lies }] : [];
    })
    .sort((a, b) => Math.abs(a.gap) - Math.abs(b.gap));
  const about = { check: 'stands' as const, panels: [stop.foot, ...(nearest ? [nearest.placed.panel] : [])], at: resting.s };
  if (!nearest) {
    return [
      {
        ...about,
        id: 'stands/foot',
        severity: 'fail',
        says: 'No topper lies in front of the foot: nothing holds it there. Put one with its edge on the line where the stop begins, or take a raised strip.',
      },
    ];
  }
  const { placed, gap, along } = nearest;
  const called = `${placed.number} (${placed.topper.name ?? placed.outlineName})`;
  const isAt = Math.abs(gap) <= AT_STOP;
  const foot: Verdict = {
    ...about,
    id: 'stands/foot',
    severity: !isAt ? 'fail' : along < LEAST_HELD ? 'warn' : 'pass',
    value: Math.abs(gap),
    limit: AT_STOP,
    unit: 'mm',
    says: !isAt
      ? gap > 0
        ? `The foot stands ${spoken(gap)} from ${called}, which is its stop: nothing holds it there. Move that so much nearer.`
        : `${called}, which is the stop, lies ${spoken(-gap)} under the foot. Move it so much farther away.`
      : along < LEAST_HELD
        ? `The foot stands against ${called} for ${spoken(along)} of its length only, and turns there; ${spoken(LEAST_HELD)} hold it straight.`
        : `The foot stands against ${called}, which is its stop.`,
  };
  return [foot, topperHigh(input, stop, placed, called)];
}

/** Whether a topper is as high as the foot asks, and how often it must be cut to be. */
function topperHigh(input: CheckInput, stop: Stop, { stands, times, stock, panel }: PlacedTopper, called: string): Verdict {
  const foot = footThickness(input, stop, stands);
  const least = STOP_CALIPERS * foot;
  const ok = stands >= least - 1e-9;
  const worn = wornWords(foot, stop);
  const sheet = stock.caliper + GLUE_FILM;
  const enough = Math.ceil((least - (stands - times * sheet)) / sheet - 1e-9);
  return {
    id: 'stands/stop',
    check: 'stands',
    severity: stands <= foot ? 'fail' : ok ? 'pass' : 'warn',
    value: stands,
    limit: least,
    unit: 'mm',
    panels: [stop.foot, panel],
    at: 1,
    says: ok
      ? `${called} is ${spoken(stands)} high and holds the foot, which is ${spoken(foot)} thick${worn}.`
      : `${called} is ${spoken(stands)} high; the foot is ${spoken(foot)} thick${worn} and slips over a stop lower than ${spoken(least)}. ${enough <= MOST_TIMES ? `Cut it at least ${enough} times and stack it, or put it on foam.` : 'Put it on foam, or cut it from thicker stock.'}`,
  };
}

/** How far a topper lies in front of the foot, on what that stands on, and along how much of the foot’s length it is as near. */
function inFrontOf({ design, motion, resting }: CheckInput, stop: Stop, placed: PlacedTopper): { gap: Mm; along: Mm } | undefined {
  const { bodyOf } = design.linkage;
  const pose = poseOf(motion, resting);
  const [own, foot] = [bodyOf.get(placed.panel)!, bodyOf.get(stop.foot)!];
  if (own === foot) return undefined;
  const seen = fromPanel(pose[foot]!, inverted(pose[own]!));
  const [start, end] = [seen(stop.footEdge[0]), seen(stop.footEdge[1])];
  const over = placed.face === 'up' ? start[2] : -start[2];
  if (Math.abs(over) > STANDS_ON) return undefined;
  const at = axesAhead(start, end, seen(centroid(design.panels[foot]!.area)));
  const ends = [at([start[0], start[1]])[1], at([end[0], end[1]])[1]];
  const play = Math.abs(ends[0]! - ends[1]!) < 1e-6 ? LEAST_HELD : 0;
  const [low, high] = [Math.min(...ends) - play, Math.max(...ends) + play];
  const ahead = areasOf(
    intersect(
      placed.whole.map((area) => movedArea(area, at)),
      [asArea(rectangle(-BEHIND, low, BEHIND + IN_FRONT, high - low))],
    ),
  );
  if (ahead.length === 0) return undefined;
  const gap = Math.min(...ahead.flatMap(({ outer }) => outer.map(([x]) => x)));
  const touching = areasOf(intersect(ahead, [asArea(rectangle(gap - 1, low, 1 + AT_STOP, high - low))]));
  const along = touching.reduce((sum, { outer }) => {
    const ys = outer.map(([, y]) => y);
    return sum + Math.max(...ys) - Math.min(...ys);
  }, 0);
  return { gap, along };
}

/** Where places of one panel are seen from another. */
const fromPanel =
  (own: Rigid, onto: Rigid) =>
  ([x, y]: Point): Vec3 => {
    const [wx, wy, wz] = carry(own, x, y, 0);
    return carry(onto, wx, wy, wz);
  };

/** How far a place lies in front of a foot, and how far along it. What stands on the foot leans back from it: in front is the other way. */
function axesAhead(start: Vec3, end: Vec3, leans: Vec3): (point: Point) => Point {
  const [ex, ey] = [end[0] - start[0], end[1] - start[1]];
  const length = Math.hypot(ex, ey);
  const [bx, by] = [leans[0] - start[0], leans[1] - start[1]];
  const turned = Math.sign(bx * ey - by * ex) || 1;
  const [fx, fy] = length < 1e-6 ? unit(-bx, -by) : unit(-turned * ey, turned * ex);
  return ([x, y]) => [(x - start[0]) * fx + (y - start[1]) * fy, (y - start[1]) * fx - (x - start[0]) * fy];
}

function unit(x: number, y: number): Point {
  const length = Math.hypot(x, y);
  return length < 1e-9 ? [1, 0] : [x / length, y / length];
}

/** Of a foot with what is glued on it, and on what is glued to it, as far up as its stop reaches. */
function footThickness({ design }: CheckInput, { foot, footEdge, footThickness: bare }: Stop, height: Mm): Mm {
  const { linkage, panels, worn } = design;
  const own = linkage.bodyOf.get(foot)!;
  // The places of its own panel, and those of the panels that are glued to it.
  const carriers: { panel: string; carry: (point: Point) => Point }[] = [
    { panel: foot, carry: (point) => point },
    ...linkage.bonds.flatMap(({ a, b, fixed }) => {
      if (a === own) return [{ panel: panels[b]!.id, carry: (point: Point) => carryFlat(fixed, point) }];
      if (b === own) return [{ panel: panels[a]!.id, carry: (point: Point) => carryFlat(inverted(fixed), point) }];
      return [];
    }),
  ];
  const [x, y] = centroid(panels[own]!.area);
  const [start, end] = footEdge;
  const up = upFrom(start, end, [x - start[0], y - start[1]]);
  const thickAt = (point: Point): Mm =>
    carriers.reduce((sum, { panel, carry: to }) => {
      const there = to(point);
      const here = worn.filter((each) => each.panel === panel && areaContains(each.area, there));
      return sum + here.reduce((all, { thickness }) => all + thickness, 0);
    }, 0);
  const places = Array.from({ length: PLACES }, (_, i) => between(start, end, (i + 0.5) / PLACES));
  const levels = [FOOT_EDGE, Math.max(FOOT_EDGE, height - FOOT_EDGE)];
  const most = Math.max(...places.flatMap(([px, py]) => levels.map((by) => thickAt([px + up[0] * by, py + up[1] * by]))));
  return bare + most;
}

/** The direction into the panel that stands on an edge, or on a point. */
function upFrom(start: Point, end: Point, middle: Point): Point {
  const [ex, ey] = [end[0] - start[0], end[1] - start[1]];
  if (Math.hypot(ex, ey) < 1e-6) return unit(...middle);
  const side = Math.sign(-ey * middle[0] + ex * middle[1]) || 1;
  return unit(-side * ey, side * ex);
}
