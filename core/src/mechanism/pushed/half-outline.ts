import type { Mm } from '../../measure/units.js';
import { offset } from '../../plane/boolean.js';
import { boxOf, signedArea, type Loop } from '../../plane/outline.js';
import { distance, type Point } from '../../plane/point.js';
import { fitted } from '../../plane/shapes.js';

/**
 * The right half of an outline that is the same on both sides of the upright line x = 0: from its lowest point on that line,
 * round by the right, to its highest one.
 */
export type HalfOutline = readonly Point[];

/** Between its ends a half keeps this far from the line, so that nothing is cut along a fold. */
const OFF_THE_LINE: Mm = 0.5;
/** Corners nearer than this are one. */
const SAME: Mm = 1e-3;

/** The right half of an outline made so high, its box’s middle on x = 0 and its lower end at `from`. */
export function halfOf(outline: Loop, height: Mm, from: Mm): HalfOutline {
  const upright = fitted(outline, height);
  const middle = boxOf(upright).maxX / 2;
  return rightOf(upright.map(([x, y]): Point => [x - middle, y + from]));
}

/** What is right of x = 0 of a loop that goes round counter-clockwise; only that line’s outermost crossings count. */
function rightOf(loop: Loop): HalfOutline {
  const next = (i: number): Point => loop[(i + 1) % loop.length]!;
  const crossings = loop
    .flatMap((p, i): { i: number; y: Mm }[] => {
      const q = next(i);
      return p[0] > 0 === q[0] > 0 ? [] : [{ i, y: p[1] + ((q[1] - p[1]) * -p[0]) / (q[0] - p[0]) }];
    })
    .sort((a, b) => a.y - b.y);
  const [low, high] = [crossings[0]!, crossings.at(-1)!];
  const count = (high.i - low.i + loop.length) % loop.length;
  const between = Array.from({ length: count }, (_, k) => loop[(low.i + 1 + k) % loop.length]!);
  const ends: [Point, Point] = [
    [0, low.y],
    [0, high.y],
  ];
  return [ends[0], ...between.filter((p) => ends.every((end) => distance(p, end) > SAME)).map(offTheLine), ends[1]];
}

const offTheLine = ([x, y]: Point): Point => [Math.max(x, OFF_THE_LINE), y];

export const mirrored = ([x, y]: Point): Point => [x === 0 ? 0 : -x, y];

/** Both halves, counter-clockwise. */
export const wholeOf = (half: HalfOutline): Loop => [...half, ...half.slice(1, -1).reverse().map(mirrored)];

/** The right half of an outline made smaller by an even border; nothing where too little is left of it. */
export function shrunkHalf(half: HalfOutline, border: Mm): HalfOutline | undefined {
  const [largest] = offset(wholeOf(half), -border)
    .filter((loop) => signedArea(loop) > LEAST_CORE)
    .sort((a, b) => signedArea(b) - signedArea(a));
  return largest && largest.some(([x]) => x > 0) && largest.some(([x]) => x < 0) ? rightOf(largest) : undefined;
}

/** mm² */
const LEAST_CORE = 40;

/** The line that the bridges of one side lie on: `at` from the fold where it is `middle` up, leaning out from there by so much for each mm up. */
export interface BridgeLine {
  at: Mm;
  middle: Mm;
  lean: number;
}

const beyond = ([x, y]: Point, { at, middle, lean }: BridgeLine): number => x - (y - middle) * lean - at;

/** A half outline cut off along its bridge line. */
export interface CutHalf {
  /** from the fold along the outline to the line: below, and above */
  lower: readonly Point[];
  upper: readonly Point[];
  /** how long the line is inside the outline */
  chord: Mm;
}

/** Cuts a half off along a line; nothing where it does not reach that far. What dips back over the line is cut straight. */
export function cutHalf(half: HalfOutline, line: BridgeLine): CutHalf | undefined {
  const first = half.findIndex((p) => beyond(p, line) > 0);
  if (first <= 0) return undefined;
  const last = half.findLastIndex((p) => beyond(p, line) > 0);
  if (last === half.length - 1) return undefined;
  const lower = [...half.slice(0, first), crossing(half[first - 1]!, half[first]!, line)];
  const upper = [...half.slice(last + 1)].reverse();
  upper.push(crossing(half[last + 1]!, half[last]!, line));
  const [from, to] = [lower.at(-1)!, upper.at(-1)!];
  return to[1] > from[1] ? { lower, upper, chord: distance(from, to) } : undefined;
}

function crossing(inside: Point, outside: Point, line: BridgeLine): Point {
  const [a, b] = [beyond(inside, line), beyond(outside, line)];
  const share = a / (a - b);
  return [inside[0] + (outside[0] - inside[0]) * share, inside[1] + (outside[1] - inside[1]) * share];
}

/** The middle of the line inside the outline, and the ends of a bridge so long about it. */
export function bridgeOn({ lower, upper }: CutHalf, length: Mm): { from: Point; to: Point; middle: Point } {
  const [a, b] = [lower.at(-1)!, upper.at(-1)!];
  const far = distance(a, b);
  const at = (share: number): Point => [a[0] + (b[0] - a[0]) * share, a[1] + (b[1] - a[1]) * share];
  const reach = Math.min(1, length / far) / 2;
  // A bridge as long as the line ends where the outline does, to the last digit.
  const whole = length > far - SAME;
  return { from: whole ? a : at(0.5 - reach), to: whole ? b : at(0.5 + reach), middle: at(0.5) };
}

/** What moves, as one loop: both halves between their lines. */
export const movingPart = ({ lower, upper }: CutHalf): Loop => wholeOf([...lower, ...[...upper].reverse()]);

/** The two lines that are cut round it, each from bridge to bridge over the fold: below, and above. */
export function cutLines(cut: CutHalf, length: Mm): [Point[], Point[]] {
  const { from, to } = bridgeOn(cut, length);
  const right = (points: readonly Point[], end: Point): Point[] =>
    distance(points.at(-1)!, end) > SAME ? [...points, end] : [...points.slice(0, -1), end];
  const bothSides = (points: Point[]): Point[] => [...points.slice(1).reverse().map(mirrored), ...points];
  return [bothSides(right(cut.lower, from)), bothSides(right(cut.upper, to))];
}

/** The farthest that what moves comes to lie from the fold when the card is closed: each half mirrored in its own line. */
export function closedReachOf({ lower, upper }: CutHalf, line: BridgeLine): Mm {
  // Across the line a point is off it by the cosine of the slant less, and what is across counts by that cosine again.
  const share = 1 / (1 + line.lean * line.lean);
  return Math.max(...[...lower, ...upper].map((p) => p[0] - 2 * beyond(p, line) * share));
}
