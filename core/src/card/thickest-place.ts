import type { Mm } from '../measure/units.js';
import { levelsOf } from '../plane/levels.js';
import { ScanLines } from '../plane/scan-line.js';
import { GLUE_FILM } from '../supplies/limits.js';
import type { Design } from './join.js';
import { thicknessAt, type Slab, type Thickest } from './pile.js';

/** Where sheets overlap by less than this, an edge lies on an edge: paper gives there. */
const LEAST_OVERLAP: Mm = 0.05;
/** Thicknesses closer than this are one. */
const SAME: Mm = 1e-7;

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
  let best: Thickest = { thickness: 0, at: [0, 0], bodies: [] };
  for (const { low, high, most } of stripsOf(pile, bonds.length * GLUE_FILM)) {
    if (most <= best.thickness + SAME) break;
    const y = (low + high) / 2;
    const ends: { x: Mm; slab: number; enters: boolean }[] = [];
    for (let slab = 0; slab < pile.length; slab++) {
      const { box } = pile[slab]!;
      if (y < box.minY || y > box.maxY) continue;
      const line = lines[slab]!;
      const count = line.at(y);
      for (let i = 0; i < count; i++) ends.push({ x: line.xs[i]!, slab, enters: i % 2 === 0 });
    }
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
  const levels = levelsOf(pile.map(({ area }) => area));
  const strips: Strip[] = [];
  let low = levels[0]!;
  for (const high of levels.slice(1)) {
    let most = films;
    for (const { box, thickness } of pile) if (box.minY < high && box.maxY > low) most += thickness;
    strips.push({ low, high, most });
    low = high;
  }
  return strips.sort((a, b) => b.most - a.most || b.high - b.low - (a.high - a.low));
}
