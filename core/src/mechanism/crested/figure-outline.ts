import type { Mm, Radians } from '../../measure/units.js';
import { intersect, largestOf, unite } from '../../plane/boolean.js';
import { chordsAt } from '../../plane/chords.js';
import { asArea, boxOf, type Loop } from '../../plane/outline.js';
import { polar, type Point } from '../../plane/point.js';
import { fitted, SHAPE_OPTIONS } from '../../plane/shapes.js';
import type { RayTab, Side } from './ray-tab.js';

/** Tops that are drawn from the glue lines themselves; every other outline is a shape laid on the crest. */
const TOPS = [
  { value: 'pointed', label: 'pointed' },
  { value: 'upright', label: 'upright, square top' },
  { value: 'cap', label: 'rounded cap' },
] as const;

export const FIGURE_OUTLINES: readonly { value: string; label: string }[] = [...TOPS, ...SHAPE_OPTIONS];

/** Whether an outline is one of those tops. */
export const isOwnTop = (outline: string): boolean => TOPS.some(({ value }) => value === outline);

/** The whole piece of a figure, its crest upright from its point, and how far up its crest reaches. */
export interface FigureOutline {
  loop: Loop;
  top: Mm;
}

/** What a figure is drawn from: its sides, first right and then left, and their tabs. */
interface FigureSizes {
  sides: readonly [Side, Side];
  tabs: readonly [RayTab, RayTab];
  /** of the glue lines, and of the crest */
  length: Mm;
  crest: Mm;
}

/** A figure with one of the tops that follow from its glue lines. */
export function toppedFigure({ sides, tabs, length, crest }: FigureSizes, top: string): FigureOutline {
  const [right, left] = [rim(sides[0].wing, 1, length, crest, top), rim(sides[1].wing, -1, length, crest, top)];
  const loop: Loop = [[0, 0], ...tabs[0].loop, ...right, [0, crest], ...left.reverse(), ...[...tabs[1].loop].reverse()];
  return { loop, top: crest };
}

/**
 * A figure of any shape, as high as the crest, its box’s middle on it and its lower end at the point of the V. Paper between
 * the glue lines and the crest joins it to the tabs; what would lie beyond a glue line is cut off, for there is the leaf.
 */
export function shapedFigure({ sides, tabs, length, crest }: FigureSizes, shape: Loop): FigureOutline {
  const upright = fitted(shape, crest);
  const { maxX } = boxOf(upright);
  const laid = upright.map(([x, y]): Point => [x - maxX / 2, y]);
  const ends = [polar([0, 0], length, Math.PI / 2 - sides[0].wing), polar([0, 0], length, Math.PI / 2 + sides[1].wing)] as const;
  const joining: Loop = [[0, 0], ends[0], [0, Math.min(crest, Math.max(ends[0][1], ends[1][1], crest / 3))], ends[1]];
  const reach = 4 * Math.max(length, crest, maxX);
  const turns = Array.from({ length: 13 }, (_, i): Radians => Math.PI / 2 - sides[0].wing + ((sides[0].wing + sides[1].wing) * i) / 12);
  const between: Loop = [[0, 0], ...turns.map((turn) => polar([0, 0], reach, turn))];
  const figure = largestOf(intersect([asArea(largestOf(unite([asArea(laid), asArea(joining)]))!)], [asArea(between)]))!;
  const loop = largestOf(unite([asArea(figure), ...tabs.map((tab) => asArea(reachingIn(tab)))]))!;
  const [, top] = chordsAt([loop], 0).reduce((lowest, chord) => (chord[0] < lowest[0] ? chord : lowest));
  return { loop, top };
}

/** A tab and a hair of the wing beside it: two edges on one slanted line may miss each other by their last digit. */
function reachingIn({ loop, near, far, outer }: RayTab): Loop {
  const along: Point = [far[0] - near[0], far[1] - near[1]];
  const side = Math.sign(along[0] * (outer[1] - near[1]) - along[1] * (outer[0] - near[0]));
  const long = Math.hypot(...along);
  const inward: Point = [(HAIR * side * along[1]) / long, (-HAIR * side * along[0]) / long];
  const within = ([x, y]: Point, t: Mm): Point => [x + inward[0] + (t * along[0]) / long, y + inward[1] + (t * along[1]) / long];
  return [within(near, HAIR), ...loop, within(far, -HAIR)];
}

/** Far below what a knife or cutter knows of. */
const HAIR: Mm = 0.002;

/** Points of the outer edge between the ray's far end and the top of the crest, both left out. */
function rim(wing: Radians, hand: 1 | -1, length: Mm, crest: Mm, outline: string): Point[] {
  const [ex, ey] = [length * Math.sin(wing), length * Math.cos(wing)];
  if (outline === 'pointed' || crest <= ey + 1) return [];
  if (outline === 'upright') return [[hand * ex, crest]];
  const steps = 18;
  return Array.from({ length: steps - 1 }, (_, k): Point => {
    const t = ((k + 1) / steps) * (Math.PI / 2);
    return [hand * ex * Math.cos(t), ey + (crest - ey) * Math.sin(t)];
  });
}
