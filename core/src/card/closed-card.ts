import type { Motion } from '../linkage/motion.js';
import { stackClosed, type ClosedStack } from '../linkage/stacking.js';
import type { Mm } from '../measure/units.js';
import { boxOf, type Box } from '../plane/outline.js';
import { CREASE_ZONE } from '../supplies/limits.js';
import type { ClaimOf } from '../mechanism/claims.js';
import { claimsOf } from './draw.js';
import type { Design } from './join.js';
import { pileOf, thickestPlace, type Slab, type Thickest } from './pile.js';

/** What lies between the two sides of a fold at one distance from it. */
export interface PropAt {
  r: Mm;
  thickness: Mm;
}

/** The card as it lies closed, in the ground panel's coordinates. */
export interface ClosedCard {
  stack: ClosedStack;
  box: Box;
  /** what props each closing fold open, by hinge */
  props: Record<string, PropAt[]>;
  /** width of the spine to give each closing fold, by hinge: the thickest place between its leaves */
  spines: Record<string, Mm>;
  /** every slab from the bottom up */
  pile: Slab[];
  /** the thickest place, and the bodies piled up there */
  thickest: Thickest;
}

/** Two scores closer than this tear into one. */
const LEAST_SPINE: Mm = 1;

/** Lays the card closed: order of layers, outline, thickness, spines. */
export function closeCard(design: Design, motion: Motion): ClosedCard {
  const stack = stackClosed(motion, motion.frames[0]!);
  const box = boxOf(stack.layers.flatMap((layer) => layer.area.outer));
  const pile = pileOf(design, stack);
  const props: ClosedCard['props'] = {};
  const spines: ClosedCard['spines'] = {};
  for (const closing of claimsOf(design, 'closing')) {
    const profile = propsBetween(design, pile, closing);
    const most = profile.reduce((thick, { thickness }) => Math.max(thick, thickness), 0);
    props[closing.hinge] = profile;
    spines[closing.hinge] = most === 0 ? 0 : Math.max(LEAST_SPINE, most);
  }
  return { stack, box, props, spines, pile, thickest: thickestPlace(design, pile, box) };
}

type Closing = ClaimOf<'closing'>;

/** A prop shorter than this along the fold dents; a longer one holds a stiff leaf open. */
export const LEAST_PROP: Mm = 20;
const ALONG_SAMPLES = 30;
const ACROSS_SAMPLES = 24;

/**
 * What lies between the two sides of a closing fold, by distance from the fold: at each distance the
 * greatest thickness that a stretch of at least 20 mm along the fold reaches. Distances are a grid and
 * every corner of a slab, so that a straight front edge is met exactly.
 */
function propsBetween(design: Design, pile: readonly Slab[], closing: Closing): PropAt[] {
  const { px, py } = design.linkage.hinges[design.linkage.hingeIndex.get(closing.hinge)!]!;
  const bodies = (ids: readonly string[]): Set<number> => new Set(ids.map((id) => design.linkage.bodyOf.get(id)!));
  const [lower, upper] = [bodies(closing.lower), bodies(closing.upper)];
  const corners = pile.flatMap(({ area }) => area.outer.map(([x]) => x + 1e-6));
  const grid = Array.from({ length: ACROSS_SAMPLES }, (_, i) => px + ((i + 0.5) / ACROSS_SAMPLES) * closing.depth);
  // Where the give of the crease ends, the whole thickness begins to count.
  const xs = [...new Set([...corners, ...grid, px + CREASE_ZONE + 1e-6])]
    .filter((x) => x > px + 0.5 && x < px + closing.depth)
    .sort((a, b) => a - b);
  const step = closing.length / ALONG_SAMPLES;
  const needed = Math.max(1, Math.min(ALONG_SAMPLES, Math.round(LEAST_PROP / step)));
  return xs.map((x) => {
    const slices = pile.map((slab) => sliceAt(slab, x));
    const along = Array.from({ length: ALONG_SAMPLES }, (_, i) => {
      const y = py + (i + 0.5) * step;
      const here = pile.filter((_, k) => isIn(slices[k]!, y));
      return thicknessBetween(here, lower, upper);
    });
    return { r: x - px, thickness: along.sort((a, b) => b - a)[needed - 1]! };
  });
}

/** Where an upright line at x enters and leaves a slab: sorted y, in pairs. */
function sliceAt({ area, box }: Slab, x: Mm): Mm[] {
  if (x < box.minX || x > box.maxX) return [];
  const ys: Mm[] = [];
  for (const loop of [area.outer, ...area.holes]) {
    for (let i = 0, j = loop.length - 1; i < loop.length; j = i++) {
      const p = loop[i]!;
      const q = loop[j]!;
      if (p[0] > x !== q[0] > x) ys.push(p[1] + ((x - p[0]) / (q[0] - p[0])) * (q[1] - p[1]));
    }
  }
  return ys.sort((a, b) => a - b);
}

function isIn(slice: readonly Mm[], y: Mm): boolean {
  for (let i = 0; i + 1 < slice.length; i += 2) if (slice[i]! <= y && y <= slice[i + 1]!) return true;
  return false;
}

function thicknessBetween(pile: readonly Slab[], lower: ReadonlySet<number>, upper: ReadonlySet<number>): Mm {
  const a = pile.findIndex((slab) => lower.has(slab.body));
  const b = pile.findIndex((slab) => upper.has(slab.body));
  if (a < 0 || b < 0) return 0;
  return pile.slice(Math.min(a, b) + 1, Math.max(a, b)).reduce((sum, slab) => sum + slab.thickness, 0);
}
