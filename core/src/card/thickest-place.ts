import type { Mm } from '../measure/units.js';
import type { Area } from '../plane/outline.js';
import { ScanLines } from '../plane/scan-line.js';
import type { Point } from '../plane/point.js';
import { GLUE_FILM } from '../supplies/limits.js';
import type { Design } from './join.js';
import { thicknessAt, type Slab, type Thickest } from './pile.js';

/** Where sheets overlap by less than this, an edge lies on an edge: paper gives there. */
const LEAST_OVERLAP: Mm = 0.05;
/** Levels closer than this are one. */
const SAME: Mm = 1e-7;
/** Room for the crossings of one line. */
const MOST_CROSSINGS = 4096;

/** A level stretch of the closed card in which no outline bends or crosses another. */
interface Strip {
  low: Mm;
  high: Mm;
  /** more than everything that reaches into it cannot lie there */
  most: Mm;
}

/**
 * The thickest place of the closed card, exactly. Between two neighbouring levels at which an outline bends or crosses
 * another, the order of all outlines along a level line is the same, so one line through each such strip meets every
 * place that differs from its neighbours. Strips that cannot hold more than what was found are passed over.
 */
export function thickestPlace(design: Design, pile: readonly Slab[]): Thickest {
  const { bonds } = design.linkage;
  const lines = pile.map(({ area }) => new ScanLines(area));
  const crossed = new Float64Array(MOST_CROSSINGS);
  let best: Thickest = { thickness: 0, at: [0, 0], bodies: [] };
  for (const { low, high, most } of stripsOf(pile, bonds.length * GLUE_FILM)) {
    if (most <= best.thickness + SAME) break;
    const y = (low + high) / 2;
    const ends: { x: Mm; slab: number; enters: boolean }[] = [];
    pile.forEach(({ box }, slab) => {
      if (y < box.minY || y > box.maxY) return;
      const count = lines[slab]!.at(y, crossed);
      for (let i = 0; i < count; i++) ends.push({ x: crossed[i]!, slab, enters: i % 2 === 0 });
    });
    ends.sort((a, b) => a.x - b.x);
    let sum = 0;
    let here: Thickest | undefined;
    let width = 0;
    ends.forEach(({ x, slab, enters }, i) => {
      sum += enters ? pile[slab]!.thickness : -pile[slab]!.thickness;
      const next = ends[i + 1]?.x ?? x;
      if (next - x < LEAST_OVERLAP || sum + bonds.length * GLUE_FILM <= best.thickness + SAME) return;
      const found = thicknessAt(design, pile, [(x + next) / 2, y]);
      const more = found.thickness - (here?.thickness ?? best.thickness);
      // Of places that are equally thick, the widest on this line.
      const better = more > SAME || (here !== undefined && more > -SAME && next - x > width);
      if (better && isWide(design, pile, found)) [here, width] = [found, next - x];
    });
    best = here ?? best;
  }
  return best;
}

/** Whether what lies at a place reaches far enough along the fold to be more than an edge on an edge. */
function isWide(design: Design, pile: readonly Slab[], { at: [x, y], thickness }: Thickest): boolean {
  return [-LEAST_OVERLAP, LEAST_OVERLAP].some((by) => thicknessAt(design, pile, [x, y + by]).thickness > thickness - SAME);
}

/** All strips, those that may hold most first, and of these the highest. */
function stripsOf(pile: readonly Slab[], films: Mm): Strip[] {
  const levels = [...pile.flatMap(({ area }) => cornersOf(area).map(([, y]) => y)), ...crossingLevels(pile)].sort((a, b) => a - b);
  const strips: Strip[] = [];
  for (let i = 1; i < levels.length; i++) {
    const [low, high] = [levels[i - 1]!, levels[i]!];
    if (high - low < SAME) continue;
    const inside = pile.reduce((sum, { box, thickness }) => (box.minY < high && box.maxY > low ? sum + thickness : sum), 0);
    strips.push({ low, high, most: inside + films });
  }
  return strips.sort((a, b) => b.most - a.most || b.high - b.low - (a.high - a.low));
}

const cornersOf = ({ outer, holes }: Area): Point[] => [outer, ...holes].flat();

interface Edge {
  slab: number;
  low: Point;
  high: Point;
}

/** The levels at which outlines of two slabs cross: level edges are met by corners, upright ones never cross each other. */
function crossingLevels(pile: readonly Slab[]): Mm[] {
  const edges = pile
    .flatMap(({ area: { outer, holes } }, slab) =>
      [outer, ...holes].flatMap((loop) =>
        loop.map((from, i): Edge => {
          const to = loop[(i + 1) % loop.length]!;
          return from[1] < to[1] ? { slab, low: from, high: to } : { slab, low: to, high: from };
        }),
      ),
    )
    .filter(({ low, high }) => high[1] - low[1] > SAME)
    .sort((a, b) => a.low[1] - b.low[1]);
  const levels: Mm[] = [];
  edges.forEach((a, i) => {
    for (let k = i + 1; k < edges.length && edges[k]!.low[1] < a.high[1]; k++) {
      const b = edges[k]!;
      if (a.slab === b.slab) continue;
      const [slopeA, slopeB] = [slopeOf(a), slopeOf(b)];
      if (Math.abs(slopeA - slopeB) < 1e-12) continue;
      // x = low.x + slope · (y − low.y) on both.
      const y = (b.low[0] - slopeB * b.low[1] - (a.low[0] - slopeA * a.low[1])) / (slopeA - slopeB);
      if (y > b.low[1] && y < Math.min(a.high[1], b.high[1])) levels.push(y);
    }
  });
  return levels;
}

/** How far an edge goes sideways for each mm that it rises. */
const slopeOf = ({ low, high }: Edge): number => (high[0] - low[0]) / (high[1] - low[1]);
