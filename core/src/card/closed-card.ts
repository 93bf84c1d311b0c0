import type { Motion } from '../linkage/motion.js';
import { stackClosed, type ClosedStack } from '../linkage/stacking.js';
import type { Mm } from '../measure/units.js';
import { boxOf, type Area, type Box, type Loop } from '../plane/outline.js';
import { ScanLines } from '../plane/scan-line.js';
import { CREASE_ZONE } from '../supplies/limits.js';
import type { ClaimOf } from '../claim/claims.js';
import { claimsOf } from './draw.js';
import type { Design } from './join.js';
import { pileOf, type Slab, type Thickest } from './pile.js';
import { thickestPlace } from './thickest-place.js';

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
  return { stack, box, props, spines, pile, thickest: thickestPlace(design, pile) };
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
  const lines = pile.map(({ area }) => new ScanLines(mirrored(area)));
  const slices = pile.map(() => new Float64Array(MOST_CROSSINGS));
  const counts = new Int32Array(pile.length);
  const sides = pile.map(({ body }) => (lower.has(body) ? LOWER : upper.has(body) ? UPPER : 0));
  const along = new Float64Array(ALONG_SAMPLES);
  return xs.map((x) => {
    pile.forEach(({ box }, k) => (counts[k] = x < box.minX || x > box.maxX ? 0 : lines[k]!.at(x, slices[k]!)));
    for (let i = 0; i < ALONG_SAMPLES; i++) along[i] = thicknessBetween(pile, sides, slices, counts, py + (i + 0.5) * step);
    return { r: x - px, thickness: along.slice().sort()[ALONG_SAMPLES - needed]! };
  });
}

const LOWER = 1;
const UPPER = 2;
const MOST_CROSSINGS = 512;

/** The same area with x and y changed over, so that upright lines are gone through like level ones. */
function mirrored({ outer, holes }: Area): Area {
  const swap = (loop: Loop): Loop => loop.map(([x, y]) => [y, x] as const);
  return { outer: swap(outer), holes: holes.map(swap) };
}

/** Thickness of what lies at y between the two sides of a fold: from the first slab of one side to the first of the other. */
function thicknessBetween(pile: readonly Slab[], sides: readonly number[], slices: readonly Float64Array[], counts: Int32Array, y: Mm): Mm {
  let found = 0;
  let sum = 0;
  for (let k = 0; k < pile.length; k++) {
    if (!isIn(slices[k]!, counts[k]!, y)) continue;
    const side = sides[k]!;
    if (side !== 0 && side !== found) {
      if (found !== 0) return sum;
      found = side;
    } else if (found !== 0) sum += pile[k]!.thickness;
  }
  return 0;
}

function isIn(slice: Float64Array, count: number, y: Mm): boolean {
  for (let i = 0; i + 1 < count; i += 2) if (slice[i]! <= y && y <= slice[i + 1]!) return true;
  return false;
}
