import type { Mm } from '../measure/units.js';
import { boxOf, type Box, type Loop } from '../plane/outline.js';
import { distance, type Point } from '../plane/point.js';
import { stretchesOf, type Stretch } from '../plane/smooth.js';
import type { CutSheet } from './cut-sheet.js';
import type { Cut } from './piece.js';

/** What a cut is for, besides trimming the blank to its box. */
export type CutKind = 'cut' | 'window' | 'slot' | 'notch' | 'outline';

/** One straight cut. */
export interface StraightCut {
  id: string;
  kind: CutKind;
  from: Point;
  to: Point;
}

/** A line that no rule makes: it is traced from the template. */
export interface TracedCut {
  id: string;
  kind: CutKind;
  points: readonly Point[];
  box: Box;
}

/** Every cut of a flat piece that trimming it to its box does not make. */
export interface CutLines {
  straight: StraightCut[];
  traced: TracedCut[];
}

const SAME: Mm = 1e-4;
/** A shorter edge beside a curve is traced with it. */
const LEAST_READ: Mm = 5;
/** More straight edges in a row than this are traced rather than read one by one. */
const MOST_READ = 12;

/** Slits and the edges of openings: what is cut inside a piece while it is still whole. */
export function inner(sheet: CutSheet): CutLines {
  const slits = sheet.cuts.filter(({ line }) => !line).map(({ id, from, to }): StraightCut => ({ id, kind: 'cut', from, to }));
  const lines = linesOf(sheet.cuts).map(({ line, points }) => taken(line, 'cut', stretchesOf(points, false), true));
  const openings = sheet.windows.map(({ id, outline, slot }) => taken(id, slot ? 'slot' : 'window', stretchesOf(outline, true)));
  return joined([{ straight: slits, traced: [] }, ...lines, ...openings]);
}

/** Lines that are cut in one go, end to end. */
export function linesOf(cuts: readonly Cut[]): { line: string; points: Point[] }[] {
  const lines = new Map<string, Point[]>();
  for (const { line, from, to } of cuts) {
    if (line === undefined) continue;
    const points = lines.get(line);
    if (points) points.push(to);
    else lines.set(line, [from, to]);
  }
  return [...lines].map(([line, points]) => ({ line, points }));
}

/** What the outline leaves of the blank’s box: notches, and edges that are traced. */
export function outer(sheet: CutSheet): CutLines {
  return joined(offTheBox(sheet.outline).map((points, i) => chain(`notch-${i + 1}`, points)));
}

function joined(parts: readonly CutLines[]): CutLines {
  return { straight: parts.flatMap(({ straight }) => straight), traced: parts.flatMap(({ traced }) => traced) };
}

function chain(id: string, { points, closed }: { points: readonly Point[]; closed: boolean }): CutLines {
  const stretches = stretchesOf(points, closed);
  return taken(id, stretches.some(({ curved }) => curved) || stretches.length > MOST_READ ? 'outline' : 'notch', stretches);
}

/**
 * Straight edges as cuts; all of it traced where a curve or too many edges are in it, but for long square ones.
 * @param shape whether it is part of a shape, which is traced as soon as one edge is slanted
 */
function taken(id: string, kind: CutKind, stretches: readonly Stretch[], shape = false): CutLines {
  const slanted = ({ points: [a, b] }: Stretch): boolean => !isSquare(a!, b!);
  const irregular = (shape && stretches.some(slanted)) || stretches.some(({ curved }) => curved) || stretches.length > MOST_READ;
  const isRead = ({ curved, points: [a, b] }: Stretch): boolean =>
    !curved && (!irregular || (isSquare(a!, b!) && distance(a!, b!) >= LEAST_READ));
  const straight = stretches.flatMap((stretch, i): StraightCut[] =>
    isRead(stretch) ? [{ id: `${id}/${i + 1}`, kind, from: stretch.points[0]!, to: stretch.points[1]! }] : [],
  );
  const rest: Point[][] = [];
  stretches.forEach((stretch, i) => {
    if (isRead(stretch)) return;
    if (i > 0 && !isRead(stretches[i - 1]!)) rest.at(-1)!.push(...stretch.points.slice(1));
    else rest.push([...stretch.points]);
  });
  const traced = rest.map((points, i): TracedCut => ({
    id: rest.length > 1 ? `${id}/curve-${i + 1}` : `${id}/curve`,
    kind,
    points,
    box: boxOf(points),
  }));
  return { straight, traced };
}

/** Whether a line runs along the blank or across it. */
export function isSquare(from: Point, to: Point): boolean {
  return Math.abs(from[0] - to[0]) < SAME || Math.abs(from[1] - to[1]) < SAME;
}

/** The stretches of an outline that do not lie on the sides of its box. */
function offTheBox(outline: Loop): { points: Point[]; closed: boolean }[] {
  const { minX, maxX, minY, maxY } = boxOf(outline);
  const onSide = (a: Point, b: Point): boolean =>
    [
      [0, minX],
      [0, maxX],
      [1, minY],
      [1, maxY],
    ].some(([axis, at]) => Math.abs(a[axis!]! - at!) < SAME && Math.abs(b[axis!]! - at!) < SAME);
  const { length } = outline;
  const at = (i: number): Point => outline[i % length]!;
  const first = outline.findIndex((_, i) => onSide(at(i), at(i + 1)));
  if (first < 0) return [{ points: [...outline], closed: true }];
  const chains: Point[][] = [];
  let open = false;
  for (let i = first; i < first + length; i++) {
    if (onSide(at(i), at(i + 1))) open = false;
    else if (open) chains.at(-1)!.push(at(i + 1));
    else {
      chains.push([at(i), at(i + 1)]);
      open = true;
    }
  }
  return chains.map((points) => ({ points, closed: false }));
}
