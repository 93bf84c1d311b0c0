import { outerLine } from './outer-line.js';
import type { Loop } from './outline.js';
import { distanceToSegment, type Point } from './point.js';

/** Corners of an outline that is kept: what a knife or a cutter can follow, and every check stays quick with. */
export const MOST_CORNERS = 240;

/** Crossings of the line with itself taken out, and no more corners than may be; with how far it may be off for that. */
export function tidied(loop: Loop, closeEnough: number): { outline: Loop; tolerance: number } {
  const whole = outerLine(loop);
  let tolerance = closeEnough;
  let outline = thinned(whole, tolerance);
  while (outline.length > MOST_CORNERS) outline = thinned(whole, (tolerance *= 1.5));
  return { outline, tolerance };
}

/** Leaves out points that lie within a tolerance of the line without them (Ramer–Douglas–Peucker, on both halves of the loop). */
export function thinned(loop: Loop, tolerance: number): Loop {
  if (loop.length < 4) return loop;
  const first = loop[0]!;
  const off = ([x, y]: Point): number => Math.hypot(x - first[0], y - first[1]);
  const far = loop.reduce((most, p, i) => (off(p) > off(loop[most]!) ? i : most), 0);
  const line = [...loop, first];
  const kept = new Set([0, far]);
  const waiting: (readonly [number, number])[] = [
    [0, far],
    [far, loop.length],
  ];
  for (let stretch = waiting.pop(); stretch; stretch = waiting.pop()) {
    const [from, to] = stretch;
    let worst = { off: tolerance, at: -1 };
    for (let i = from + 1; i < to; i++) {
      const here = distanceToSegment(line[i]!, line[from]!, line[to]!);
      if (here > worst.off) worst = { off: here, at: i };
    }
    if (worst.at < 0) continue;
    kept.add(worst.at);
    waiting.push([from, worst.at], [worst.at, to]);
  }
  return [...kept].sort((a, b) => a - b).map((i) => line[i]!);
}
