import type { Mm } from '../measure/units.js';
import type { Area } from './outline.js';
import type { Point } from './point.js';

/** Levels closer than this are one. */
const SAME: Mm = 1e-7;

interface Edge {
  owner: number;
  low: Point;
  high: Point;
  /** how far it goes sideways for each mm that it rises */
  slope: number;
}

/**
 * The levels (y, rising, each once) at which an outline of some areas bends or crosses one of another. Between two
 * neighbours every level line meets the same edges in the same order.
 */
export function levelsOf(areas: readonly Area[]): Float64Array {
  const edges: Edge[] = [];
  const levels: Mm[] = [];
  areas.forEach(({ outer, holes }, owner) => {
    for (const loop of [outer, ...holes]) {
      loop.forEach((from, i) => {
        const to = loop[(i + 1) % loop.length]!;
        levels.push(from[1]);
        const [low, high] = from[1] < to[1] ? [from, to] : [to, from];
        if (high[1] - low[1] > SAME) edges.push({ owner, low, high, slope: (high[0] - low[0]) / (high[1] - low[1]) });
      });
    }
  });
  levels.push(...crossings(edges));
  const sorted = Float64Array.from(levels).sort();
  return sorted.filter((level, i) => i === 0 || level - sorted[i - 1]! > SAME);
}

/** Where edges of two areas cross. Level edges have their corners' level, upright ones never cross each other. */
function crossings(edges: Edge[]): Mm[] {
  edges.sort((a, b) => a.low[1] - b.low[1]);
  const levels: Mm[] = [];
  edges.forEach((a, i) => {
    for (let k = i + 1; k < edges.length && edges[k]!.low[1] < a.high[1]; k++) {
      const b = edges[k]!;
      const steeper = a.slope - b.slope;
      if (a.owner === b.owner || Math.abs(steeper) < 1e-12) continue;
      // x = low.x + slope · (y − low.y) on both.
      const y = (b.low[0] - b.slope * b.low[1] - (a.low[0] - a.slope * a.low[1])) / steeper;
      if (y > b.low[1] && y < Math.min(a.high[1], b.high[1])) levels.push(y);
    }
  });
  return levels;
}
