import type { Mm } from '../../measure/units.js';
import { arrange } from '../../plane/arrangement.js';
import { intersect, largestOf, offset, unite } from '../../plane/boolean.js';
import { chordsAt, longestChord, mirroredAt } from '../../plane/chords.js';
import { asArea, boxOf, loopContains, rectangle, signedArea, type Area, type Loop } from '../../plane/outline.js';
import type { Point } from '../../plane/point.js';
import { TAB_CLEARANCE } from '../../supplies/limits.js';

/** A connected part of a front between its scores, with a point well inside it. */
export interface FrontPart {
  outline: Loop;
  at: Point;
  /** where its cover may be glued */
  glue: Loop;
}

/** A shape hung from a fold: what is left of it below the fold, and how a score half-way up parts that. */
export interface HungFront {
  /** front and base as one outline; between two humps that the fold cuts a gap is left */
  body: Area;
  /** parts below the middle score, the largest first */
  lower: FrontPart[];
  /** parts between the middle score and the fold */
  strut: FrontPart[];
  /** stretches of the middle score, and of the fold */
  scores: [Mm, Mm][];
  folds: [Mm, Mm][];
}

const NEAR = 1e-5;

/**
 * Hangs a lying shape (its foot at x = 0) from a fold at x = `fold`, scored at `score`. What is not
 * connected with the foot below the fold falls off and is left out. The score is made only where a part
 * that reaches the fold meets one that is large enough to be glued: an ear without a fold of its own stays
 * one with what it grows from.
 */
export function hungFront(lying: Loop, fold: Mm, score: Mm): HungFront {
  const { maxY } = boxOf(lying);
  // Corners at the fold are put exactly on it, so that the front and its mirror image join there.
  const front = withFoot(intersect([asArea(lying)], [asArea(rectangle(-1, -1, fold + 1, maxY + 2))])).map(([x, y]): Point => [
    x > fold - NEAR ? fold : x,
    y,
  ]);
  const band = (from: Mm, to: Mm): Loop[] =>
    intersect([asArea(front)], [asArea(rectangle(from, -1, to - from, maxY + 2))]).filter((loop) => signedArea(loop) > 0);
  const hung = band(score, fold).filter((part) => boxOf(part).maxX > fold - NEAR);
  const standing = band(-1, score);
  const glued = standing.filter((part) => glueOf(part) !== undefined);
  const beside = (parts: readonly Loop[], at: Point): boolean => parts.some((part) => loopContains(part, at));
  const scores = chordsAt([front], score).filter(([from, to]) => {
    const middle = (from + to) / 2;
    return beside(hung, [score + NEAR, middle]) && beside(glued.length > 0 ? glued : standing, [score - NEAR, middle]);
  });
  const parts = partsOf(front, score, scores);
  const isHung = (part: FrontPart): boolean => boxOf(part.outline).maxX > fold - NEAR;
  return {
    body: doubled(front, fold),
    lower: parts.filter((part) => !isHung(part)),
    strut: parts.filter(isHung),
    scores,
    folds: chordsAt([front], fold - NEAR),
  };
}

/** The part that holds the foot, and among several feet the largest. */
function withFoot(parts: readonly Loop[]): Loop {
  const least = Math.min(...parts.flatMap((part) => part.map(([x]) => x)));
  const feet = parts.filter((part) => boxOf(part).minX < least + NEAR);
  return largestOf(feet)!;
}

/** The front and its mirror image beyond the fold. */
function doubled(front: Loop, fold: Mm): Area {
  const both = unite([asArea(front), asArea(mirroredAt(front, fold))]);
  const outer = largestOf(both)!;
  return { outer, holes: both.filter((loop) => signedArea(loop) < 0 && loopContains(outer, loop[0]!)) };
}

function partsOf(front: Loop, score: Mm, scores: readonly [Mm, Mm][]): FrontPart[] {
  const lines = [
    ...front.map((from, i) => ({ from, to: front[(i + 1) % front.length]!, label: 'edge' })),
    ...scores.map(([from, to]) => ({ from: [score, from] as Point, to: [score, to] as Point, label: 'score' })),
  ];
  return arrange(lines)
    .faces.map(({ outer }): FrontPart => ({ outline: outer, at: insideOf(outer), glue: glueOf(outer) ?? outer }))
    .sort((a, b) => signedArea(b.outline) - signedArea(a.outline));
}

/** The largest area of a part that is clear of its edges and folds, if there is one worth gluing. */
function glueOf(part: Loop): Loop | undefined {
  return largestOf(offset(part, -TAB_CLEARANCE).filter((loop) => signedArea(loop) > 4));
}

/** A point well inside a loop: the middle of its longest chord about half-way across it. */
export function insideOf(outline: Loop): Point {
  const { minX, maxX } = boxOf(outline);
  const x = minX + (maxX - minX) * 0.53;
  const [from, to] = longestChord([outline], x)!;
  return [x, (from + to) / 2];
}
