import type { Mm } from '../measure/units.js';
import { distanceToSegment, type Point } from '../plane/point.js';
import { contains, cutterMoves, lengthOf, type CutterJob, type CutterLine, type CutterMachine } from './cutter-job.js';

/** What comes of a drawing on a machine. */
export interface CutterReport {
  seconds: number;
  /** how far the head moves with each tool, mm */
  lengths: Readonly<Record<string, Mm>>;
  /** closed cuts that set a piece free, and those inside them that set an opening free */
  piecesFree: number;
  openingsFree: number;
  /** scores that no piece holds wholly, and those too short to be seen */
  scoresMissed: string[];
  /** cuts that run so near to each other that the paper between them tears */
  tooClose: string[];
  /** paper between two cuts, or between a cut and the edge of its piece, that is too narrow to hold */
  thinBridges: string[];
  /** there was so much in it that not every score and every pair of cuts was looked at */
  unlooked: boolean;
}

/** Cuts nearer than this tear the paper between them. */
const TEARS: Mm = 0.5;
/** Paper narrower than this holds nothing. */
const THIN_BRIDGE: Mm = 1.5;
/** A score shorter than this is a dot. */
const DOT: Mm = 0.5;
/** Between points along a line that distances are measured from. */
const APART: Mm = 1;

/** Distances that are looked at for one drawing at the most: about a second. */
const MOST_LOOKS = 1e7;

/** What may still be looked at of a drawing, so that none holds a machine up for long. */
class Looks {
  private left = MOST_LOOKS;
  spent = false;

  take(count: number): boolean {
    if (count > this.left) {
      this.spent = true;
      return false;
    }
    this.left -= count;
    return true;
  }
}

/** What a machine makes of a drawing: how long it takes, what comes free, and what it does badly. */
export function cutterReport(job: CutterJob, machine: CutterMachine): CutterReport {
  const moves = cutterMoves(job, machine);
  const lengths: Record<string, Mm> = {};
  for (const { tool, length } of moves) lengths[tool] = (lengths[tool] ?? 0) + length;
  const loops = job.lines.filter(({ tool, closed }) => tool === 'cut' && closed);
  const depths = loops.map((loop) => loops.filter((other) => other !== loop && contains(other.points, loop.points[0]!)).length);
  const looks = new Looks();
  const scoresMissed = job.lines.flatMap((line, i) => missed(line, i, loops, looks));
  const near = nearCuts(job.lines, looks);
  return {
    seconds: moves.reduce((sum, { seconds }) => sum + seconds, 0),
    lengths,
    piecesFree: depths.filter((depth) => depth % 2 === 0).length,
    openingsFree: depths.filter((depth) => depth % 2 === 1).length,
    scoresMissed,
    tooClose: near
      .filter(({ by }) => by < TEARS)
      .map(({ a, b, by, at }) => `lines ${a + 1} and ${b + 1} come within ${said(by)} of each other ${where(at)}`),
    thinBridges: near
      .filter(({ by }) => by >= TEARS && by < THIN_BRIDGE)
      .map(({ a, b, by, at }) => `between lines ${a + 1} and ${b + 1} only ${said(by)} of paper is left ${where(at)}`),
    unlooked: looks.spent,
  };
}

const said = (mm: Mm): string => `${mm.toFixed(2)} mm`;
const where = ([x, y]: Point): string => `at ${x.toFixed(1)}, ${y.toFixed(1)} mm`;

function missed(line: CutterLine, i: number, loops: readonly CutterLine[], looks: Looks): string[] {
  if (line.tool !== 'score' && line.tool !== 'perforate') return [];
  const length = lengthOf(line.points);
  if (length < DOT) return [`line ${i + 1} is ${said(length)} long: a dot`];
  if (loops.length === 0 || !looks.take(countAlong(line) * pointsIn(loops))) return [];
  const middle = pointsAlong(line).slice(1, -1);
  const off = middle.find((point) => loops.filter((loop) => contains(loop.points, point)).length % 2 === 0 && !isOn(loops, point));
  return off ? [`line ${i + 1} leaves every piece ${where(off)}`] : [];
}

const isOn = (loops: readonly CutterLine[], point: Point): boolean =>
  loops.some((loop) => segmentsOf(loop).some(([a, b]) => distanceToSegment(point, a, b) < 0.1));

interface Near {
  a: number;
  b: number;
  by: Mm;
  at: Point;
}

/** Where two cuts come near each other without touching; of each pair the nearest place. */
function nearCuts(lines: readonly CutterLine[], looks: Looks): Near[] {
  const cuts = lines.flatMap((line, i) => (line.tool === 'cut' ? [{ line, i, box: boxAround(line.points), along: countAlong(line) }] : []));
  return cuts.flatMap(({ line, i, box, along }, k) =>
    cuts.slice(k + 1).flatMap((other): Near[] => {
      if (looks.spent || !overlaps(box, other.box)) return [];
      const looked = along * other.line.points.length + other.along * line.points.length;
      if (!looks.take(looked)) return [];
      const [one, two] = [nearest(line, other.line), nearest(other.line, line)];
      const least = one.by < two.by ? one : two;
      // What touches is meant to: a slit that ends in an outline, two pieces parted by one cut.
      return least.by < TOUCHES || least.by >= THIN_BRIDGE ? [] : [{ a: i, b: other.i, ...least }];
    }),
  );
}

/** Nearer than this two lines meet. */
const TOUCHES: Mm = 0.02;

function nearest(from: CutterLine, to: CutterLine): { by: Mm; at: Point } {
  const segments = segmentsOf(to);
  let best: { by: Mm; at: Point } = { by: Infinity, at: from.points[0]! };
  for (const point of pointsAlong(from)) {
    for (const [a, b] of segments) {
      const by = distanceToSegment(point, a, b);
      if (by < best.by) best = { by, at: point };
    }
  }
  return best;
}

const segmentsOf = ({ points, closed }: CutterLine): [Point, Point][] => {
  const ring = closed ? [...points, points[0]!] : points;
  return ring.slice(1).map((point, i) => [ring[i]!, point]);
};

const stepsBetween = (a: Point, b: Point): number =>
  Math.max(1, Math.min(MOST_STEPS, Math.ceil(Math.hypot(b[0] - a[0], b[1] - a[1]) / APART)));
const countAlong = (line: CutterLine): number => segmentsOf(line).reduce((sum, [a, b]) => sum + stepsBetween(a, b), 1);
const pointsIn = (lines: readonly CutterLine[]): number => lines.reduce((sum, { points }) => sum + points.length, 0);

/** Points along a line, its corners among them, no two farther apart than a mm. */
function pointsAlong(line: CutterLine): Point[] {
  return segmentsOf(line).flatMap(([a, b], i): Point[] => {
    const steps = stepsBetween(a, b);
    const own = Array.from({ length: steps }, (_, k): Point => [
      a[0] + ((k + 1) / steps) * (b[0] - a[0]),
      a[1] + ((k + 1) / steps) * (b[1] - a[1]),
    ]);
    return i === 0 ? [a, ...own] : own;
  });
}

/** So many points lie along one straight stretch at the most. */
const MOST_STEPS = 400;

type Around = readonly [number, number, number, number];
function boxAround(points: readonly Point[]): Around {
  const [xs, ys] = [points.map(([x]) => x), points.map(([, y]) => y)];
  const least = (all: number[]): number => all.reduce((a, b) => Math.min(a, b));
  const most = (all: number[]): number => all.reduce((a, b) => Math.max(a, b));
  return [least(xs) - THIN_BRIDGE, least(ys) - THIN_BRIDGE, most(xs), most(ys)];
}
const overlaps = (a: Around, b: Around): boolean => a[0] <= b[2] && b[0] <= a[2] && a[1] <= b[3] && b[1] <= a[3];
