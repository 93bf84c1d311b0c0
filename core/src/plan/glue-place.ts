import { inSentence } from '../card/part-titles.js';
import type { Evaluation } from '../evaluate.js';
import type { BondJoint } from '../linkage/structure.js';
import { sayLength } from '../measure/print.js';
import type { Mm } from '../measure/units.js';
import { boxOf, type Box, type Loop } from '../plane/outline.js';
import { place } from '../plane/placement.js';
import { distanceToSegment, type Point } from '../plane/point.js';
import type { Mark } from '../sheet/piece.js';

/** Less than this is no gap that a hand could set. */
const FLUSH: Mm = 0.05;
const SAME: Mm = 1e-3;

/** Where a glued panel comes to lie on the piece that it is glued to. */
function lying({ design }: Evaluation, { a, source }: BondJoint): Loop {
  return design.panels[a]!.area.outer.map((point) => place(point, source.placement));
}

/**
 * Where a glued part sits on what carries it, from the edges and folds of the panel there: flush with which, centred how far
 * in, or how far from which. Nothing where the closed card sets the place, or where it lies aslant.
 */
export function placeWords(evaluation: Evaluation, bond: BondJoint): string | undefined {
  const { design } = evaluation;
  const { source, a, b } = bond;
  const turn = Math.abs(Math.sin(2 * source.placement.turn));
  if (source.placedBy === 'closing' || turn > 1e-6 || design.panels[a]!.piece === design.panels[b]!.piece) return undefined;
  const say = (mm: Mm): string => sayLength(mm, design.card.notation);
  const under = design.panels[b]!;
  if (edgeToEdge(evaluation, bond)) return `It sits on the ${inSentence(under.name)}, edge to edge with the outline there.`;
  const own = boxOf(lying(evaluation, bond));
  const side = (name: 'left' | 'right' | 'lower' | 'upper'): string => sideName(under, name);
  const box = boxOf(under.area.outer);
  const across = along(own.minX - box.minX, box.maxX - own.maxX, side('left'), side('right'), say);
  const up = along(own.minY - box.minY, box.maxY - own.maxY, side('lower'), side('upper'), say);
  return `It sits on the ${inSentence(under.name)}: ${across}; ${up}.`;
}

/** How a stretch lies between two ends, by what it leaves of each. */
function along(before: Mm, after: Mm, first: string, second: string, say: (mm: Mm) => string): string {
  const [flushFirst, flushSecond] = [Math.abs(before) < FLUSH, Math.abs(after) < FLUSH];
  if (flushFirst && flushSecond) return `flush with ${first} and ${second}`;
  if (flushFirst) return `flush with ${first}`;
  if (flushSecond) return `flush with ${second}`;
  if (Math.abs(before - after) < FLUSH)
    return before > 0
      ? `centred between ${first} and ${second}, ${say(before)} in from each`
      : `centred, ${say(-before)} past ${first} and ${second}`;
  const [gap, from] = Math.abs(before) <= Math.abs(after) ? [before, first] : [after, second];
  return gap > 0 ? `${say(gap)} in from ${from}` : `${say(-gap)} past ${from}`;
}

/** A side of a panel as a maker finds it: the fold that lies there, or the edge. */
function sideName({ area, piece }: Evaluation['design']['panels'][number], side: 'left' | 'right' | 'lower' | 'upper'): string {
  const box: Box = boxOf(area.outer);
  const [axis, at] = { left: [0, box.minX], right: [0, box.maxX], lower: [1, box.minY], upper: [1, box.maxY] }[side] as [0 | 1, Mm];
  const fold = piece.creases.find(({ from, to }) => Math.abs(from[axis] - at) < SAME && Math.abs(to[axis] - at) < SAME);
  return fold ? `the ${inSentence(fold.name)}` : `the ${side} edge`;
}

/** The pencil lines that a glued part is laid along: those on the face it is glued to that one of its sides comes to lie on. */
export function guides(evaluation: Evaluation, bond: BondJoint): Mark[] {
  const { piece } = evaluation.design.panels[bond.b]!;
  const outline = lying(evaluation, bond);
  const sides = outline.map((from, i): [Point, Point] => [from, outline[(i + 1) % outline.length]!]);
  const isOn = (points: readonly Point[], [from, to]: readonly [Point, Point]): boolean =>
    points.every((point) => distanceToSegment(point, from, to) < FLUSH);
  return piece.marks.filter(
    ({ from, to, face = 'up' }) =>
      face === bond.source.partnerFace && sides.some((side) => isOn(side, [from, to]) || isOn([from, to], side)),
  );
}

/** How much of a glued part's outline, as far as it lies over the panel under it, runs along the outline of the piece there. */
function edgeToEdge(evaluation: Evaluation, bond: BondJoint): boolean {
  const { area, piece } = evaluation.design.panels[bond.b]!;
  const { minX, maxX, minY, maxY } = boxOf(area.outer);
  const over = lying(evaluation, bond).filter(([x, y]) => x > minX - FLUSH && x < maxX + FLUSH && y > minY - FLUSH && y < maxY + FLUSH);
  const onEdge = over.filter((point) =>
    piece.outline.some((from, i) => distanceToSegment(point, from, piece.outline[(i + 1) % piece.outline.length]!) < FLUSH),
  );
  return piece.outline.length > 4 && over.length > 4 && onEdge.length > 0.8 * over.length;
}
