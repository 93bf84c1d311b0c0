import type { Mm, Radians } from '../../measure/units.js';
import { largestOf, subtract, unite } from '../../plane/boolean.js';
import { longestChord } from '../../plane/chords.js';
import { asArea, boxOf, convexHull, rectangle, type Loop } from '../../plane/outline.js';
import type { Point } from '../../plane/point.js';
import { fitted } from '../../plane/shapes.js';
import { EDGE_MARGIN, LEAST_TAB } from '../../supplies/limits.js';
import type { Side } from '../crested/ray-tab.js';
import { sidesOf } from '../crested/wing-limits.js';
import { num, type Sizes } from '../sizes.js';

/**
 * A lift arm: two wings joined at a slanting crease k, as of a V-fold, and a figure that three more folds parallel to k hold:
 * with k they are a parallelogram. Lengths in it are told along k from the apex (s) and across k on a wing (its distance).
 */
export interface LiftArm {
  sides: readonly [Side, Side];
  /** how long the tab creases are, on the second and the first leaf */
  rays: readonly [Mm, Mm];
  crest: Mm;
  /** cut off at the apex */
  trim: Mm;
  tab: Mm;
  /** the figure's hinge from k on the first wing (p); negative where it lies past k, on a tongue */
  hinge: Mm;
  /** the brace's hinge from k on the second wing (q) */
  brace: Mm;
  /** from where to where along k the figure's hinge and the brace run */
  mount: readonly [Mm, Mm];
}

/** A tongue is so much larger than the tab on it, all round. */
export const TONGUE_RIM: Mm = 0.5;
/** A score that is left at both ends of a tongue. */
const LEAST_CREST: Mm = 3;
/** Paper beyond a hinge, to the edge of its wing. */
export const BESIDE: Mm = 1;
/** Between the tongue's opening and the brace's hinge. */
export const TONGUE_CLEAR: Mm = 2;
/** A shorter hinge lets a figure wag. */
export const LEAST_MOUNT: Mm = LEAST_TAB;

export const inFront = (hinge: Mm): boolean => hinge < 0;

/** How far across k the arm needs paper: on the first wing, and on the second. */
export function paperNeeded({ hinge, brace, tab }: Pick<LiftArm, 'hinge' | 'brace' | 'tab'>): readonly [Mm, Mm] {
  return inFront(hinge) ? [0, brace + tab + BESIDE] : [hinge + BESIDE, brace + BESIDE];
}

/**
 * Where along k both wings have that much paper: from the ray's side to the arm's far edge. What hangs behind the wings comes
 * down to the card when that lies flat: as far along k as keeps it above.
 */
export function mountOf({ sides, crest, trim, ...hinges }: Omit<LiftArm, 'rays' | 'mount'>): readonly [Mm, Mm] {
  const needed = paperNeeded(hinges);
  const onWings = sides.map(({ wing }, i) => (needed[i]! > 0 ? needed[i]! / Math.tan(wing) : 0));
  const behind = inFront(hinges.hinge) ? 0 : aboveCard({ sides, hinge: hinges.hinge }, figurePaper(hinges));
  return [Math.max(trim + LEAST_CREST, behind, ...onWings) + TONGUE_RIM, crest - LEAST_CREST - TONGUE_RIM];
}

/** How far across from its hinge the figure needs paper: to the brace's fold, and behind it for its tab. */
const figurePaper = ({ hinge, brace, tab }: Pick<LiftArm, 'hinge' | 'brace' | 'tab'>): Mm => (inFront(hinge) ? brace : brace + tab);

/** From where along k a figure's point, so far across from its hinge, lies above the card when that is flat. */
export const aboveCard = ({ sides: [a, b], hinge }: Pick<LiftArm, 'sides' | 'hinge'>, across: Mm): Mm =>
  hinge / Math.tan(a.wing) + across / Math.tan(b.wing);

export function liftArm(sizes: Sizes): LiftArm {
  const arm = {
    sides: sidesOf({ sizes }),
    rays: [num(sizes, 'wingLength'), num(sizes, 'secondWingLength')] as const,
    crest: num(sizes, 'crestLength'),
    trim: num(sizes, 'trim'),
    tab: num(sizes, 'tabWidth'),
    hinge: num(sizes, 'figureHinge'),
    brace: num(sizes, 'braceHinge'),
  };
  return { ...arm, mount: mountOf(arm) };
}

/**
 * The figure in its own plane: x across k from its hinge toward the brace's fold, y along k. The outline, and paper from the
 * hinge to it, in one.
 */
export function figureOutline(arm: LiftArm, sizes: Sizes, shape: Loop): Loop {
  const [low, high] = arm.mount;
  const picture = fitted(shape, num(sizes, 'figureHigh'), num(sizes, 'figureWide')).map(([x, y]): Point => [
    x + num(sizes, 'figureAcross'),
    y + num(sizes, 'figureAlong'),
  ]);
  const mount = rectangle(0, low, figurePaper(arm), high - low);
  const neck = convexHull([...rectangle(NECK, high - NECK, figurePaper(arm) - NECK, NECK), ...somewhereIn(picture)]);
  const whole = unite([asArea(picture), asArea(mount), asArea(neck)]);
  const { minX, minY } = boxOf(picture);
  if (minX >= 0) return largestOf(whole)!;
  // Before its hinge the figure would pass through the wing that it hangs on.
  const top = (inFront(arm.hinge) ? high + TONGUE_RIM : arm.crest) + BESIDE;
  const taken = rectangle(minX - 1, Math.min(minY, low) - 1, 1 - minX, top - Math.min(minY, low) + 1);
  return largestOf(subtract(whole.map(asArea), [asArea(taken)]))!;
}

/** A neck begins within the paper that it goes out from, and clear of the tab. */
const NECK: Mm = 0.5;

/** A little square well inside a loop: about the middle of its longest chord half-way across. */
function somewhereIn(loop: Loop): Loop {
  const { minX, maxX } = boxOf(loop);
  const x = (minX + maxX) / 2;
  const [from, to] = longestChord([loop], x) ?? [0, 0];
  const half = Math.min(2, (maxX - minX) / 4, (to - from) / 4);
  return rectangle(x - half, (from + to) / 2 - half, 2 * half, 2 * half);
}

/** The angle between k and the fold when the card is closed: both angles of a side together. */
export const closedLean = ([{ ray, wing }]: LiftArm['sides']): Radians => ray + wing;

/**
 * The angle between k and the fold at an opening. The fold is y, the leaves lie to both sides of z; k makes its wing angles with
 * both rays, so that in the frame of the rays and their normal its parts follow from those two cosines and its length of 1.
 */
export function leanAt([a, b]: LiftArm['sides'], opening: Radians): Radians {
  const half = opening / 2;
  const along = Math.cos(a.ray) * Math.cos(b.ray);
  const between = along + Math.sin(a.ray) * Math.sin(b.ray) * Math.cos(opening);
  const det = 1 - between * between;
  if (det < 1e-12) return a.ray + a.wing;
  const [ca, cb] = [Math.cos(a.wing), Math.cos(b.wing)];
  const [u, v] = [(ca - between * cb) / det, (cb - between * ca) / det];
  const normal = Math.sqrt(Math.max(0, 1 - (u * ca + v * cb)));
  // Along the fold, the rays' normal of length 1: x and z of the rays are ± sin ray · sin half and sin ray · cos half.
  const up = (2 * Math.sin(a.ray) * Math.sin(b.ray) * Math.sin(half) * Math.cos(half)) / Math.sqrt(det);
  return Math.acos(Math.max(-1, Math.min(1, u * Math.cos(a.ray) + v * Math.cos(b.ray) - normal * up)));
}

/** How far along the fold from the apex a figure's point lies while k leans so from the fold. @param point [r, s] */
export function alongFold({ sides: [a, b], hinge }: LiftArm, [r, s]: Point, lean: Radians): Mm {
  const across = ({ ray, wing }: Side): number => (Math.cos(ray) - Math.cos(wing) * Math.cos(lean)) / Math.sin(wing);
  return s * Math.cos(lean) + hinge * across(a) + r * across(b);
}

/** How far from the fold it lies in the closed card. @param point [r, s] */
export const closedReachOf = ({ sides, hinge }: LiftArm, [r, s]: Point): Mm =>
  s * Math.sin(closedLean(sides)) - (hinge + r) * Math.cos(closedLean(sides));

/** How far the apex must be from the middle between both arms, that the figures just touch, or leave this gap, at an opening. */
export const apexFromMiddle = (arm: LiftArm, figure: Loop, opening: Radians, gap: Mm): Mm =>
  Math.max(...figure.map((point) => alongFold(arm, point, leanAt(arm.sides, opening)))) + gap / 2;

/** The most that two figures may be apart when open: as long as the card. */
export const mostGap = (length: Mm): Mm => length / 2 - EDGE_MARGIN;
