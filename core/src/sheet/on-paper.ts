import { loopContains, type Loop } from '../plane/outline.js';
import { between, distance, type Point } from '../plane/point.js';
import type { CutSheet } from './cut-sheet.js';

/** As much of a flat piece as says where there is paper. */
export type Paper = Pick<CutSheet, 'outline'> & Partial<Pick<CutSheet, 'windows'>>;

/** Far enough beside a line to see whether paper is there. */
const BESIDE = 1e-3;
const SAME = 1e-9;

/** The stretches of a line that have paper on both sides: a score is nowhere else, whatever it is drawn across. */
export function stretchesOnPaper({ outline, windows = [] }: Paper, from: Point, to: Point): [from: Point, to: Point][] {
  const length = distance(from, to);
  if (length < SAME) return [];
  const along: Point = [(to[0] - from[0]) / length, (to[1] - from[1]) / length];
  const holes = windows.map((window) => window.outline);
  const paper = (p: Point): boolean => loopContains(outline, p) && !holes.some((hole) => loopContains(hole, p));
  const onBothSides = (at: number): boolean => {
    const [x, y] = between(from, to, at / length);
    return [BESIDE, -BESIDE].every((off) => paper([x - off * along[1], y + off * along[0]]));
  };
  const ends = [0, ...[outline, ...holes].flatMap((loop) => crossings(loop, from, along)), length]
    .filter((at) => at >= 0 && at <= length)
    .sort((a, b) => a - b);
  const stretches: [number, number][] = [];
  for (let i = 1; i < ends.length; i++) {
    const [a, b] = [ends[i - 1]!, ends[i]!];
    if (b - a < 1e-6 || !onBothSides((a + b) / 2)) continue;
    const last = stretches.at(-1);
    if (last && a - last[1] < 1e-6) last[1] = b;
    else stretches.push([a, b]);
  }
  return stretches.map(([a, b]) => [between(from, to, a / length), between(from, to, b / length)]);
}

/** Where a loop meets a line, as distances along it; both ends of an edge that lies on it. */
function crossings(loop: Loop, [x, y]: Point, [ux, uy]: Point): number[] {
  return loop.flatMap((a, i): number[] => {
    const b = loop[(i + 1) % loop.length]!;
    const [offA, offB] = [ux * (a[1] - y) - uy * (a[0] - x), ux * (b[1] - y) - uy * (b[0] - x)];
    const alongOf = (p: Point): number => ux * (p[0] - x) + uy * (p[1] - y);
    if (Math.abs(offA) < 1e-7 && Math.abs(offB) < 1e-7) return [alongOf(a), alongOf(b)];
    if (offA > 0 === offB > 0 && Math.abs(offA) > 1e-7 && Math.abs(offB) > 1e-7) return [];
    return offA === offB ? [] : [alongOf(between(a, b, offA / (offA - offB)))];
  });
}
