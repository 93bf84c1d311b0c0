import { asArea, boxOf, rectangle, type Loop } from '../../plane/outline.js';
import type { Point } from '../../plane/point.js';
import { intersect, largestOf } from '../../plane/boolean.js';
import { laidDown } from '../../plane/chords.js';
import { blankPiece, type Crease, type Fold, type Piece } from '../../sheet/piece.js';
import type { Mark } from '../../sheet/piece.js';
import type { Bond, Touch } from '../../linkage/structure.js';
import type { Phase, Schedule } from '../../linkage/schedule.js';
import type { Mm } from '../../measure/units.js';
import type { Claim } from '../../claim/claims.js';
import { closing } from '../../claim/claims.js';
import { hungFront, type HungFront } from './hung-front.js';
import { hingeTurn, strutRise, type EaselSides } from './easel-parts.js';

/** Scores are drawn this far past a cut edge, so that they surely reach it. */
const PAST_EDGE = 0.01;

/** An outline hung from a fold: front and base of it on one side each, lying with the foot at x = 0 and the fold at `high`. */
export interface HungShape {
  upright: Loop;
  lying: Loop;
  /** from the foot to the fold, and across */
  high: Mm;
  wide: Mm;
  front: HungFront;
  /** its lowest point, lying */
  foot: Point;
}

/** Hangs an outline of its full size from a fold `high` over its foot, scored half-way up. */
export function hungShape(upright: Loop, high: Mm): HungShape {
  const lying = laidDown(upright);
  return { upright, lying, high, wide: boxOf(lying).maxY, front: hungFront(lying, high, high / 2), foot: lowestPoint(lying) };
}

/** Strut and foot part are equal: the front is scored half-way up. */
export const sidesOfHung = (high: Mm): EaselSides => ({ strut: high / 2, foot: high / 2 });

/** What one hung easel is made of. */
export interface HungEasel {
  base: Piece;
  cover: Piece;
  bonds: Bond[];
  touch: Touch;
  claim: Claim;
  /** its fold and the score of its front, each in as many stretches as gaps part it */
  folds: string[];
  scores: string[];
  foot: { panel: string; at: Point };
}

/** The first easel is the card itself; those that stand on it are numbered. */
const numbered = (id: string, index: number): string => (index === 0 ? id : `${id}-${index + 1}`);
/** The panel that lies on what carries an easel. */
export const basePanel = (index: number): string => `${numbered('base', index)}/base`;
export const coverPanel = (index: number): string => `${numbered('cover', index)}/cover`;

/** Front, base and cover of an easel of a hung shape. @param marks what is drawn on its base */
export function hungEasel({ upright, high, wide, front, foot }: HungShape, index: number, marks: Mark[]): HungEasel {
  const { body, lower, strut, scores, folds } = front;
  const id = numbered('base', index);
  const named = (name: string): string => (index === 0 ? name : `${name} of easel ${index + 1}`);
  const sizedBy = index === 0 ? 'size' : undefined;
  const zones = lower.map((part) => part.glue);
  const base = blankPiece({
    id,
    name: index === 0 ? 'Card' : `Easel ${index + 1}`,
    stock: 'base',
    faceUp: 'inside up',
    outline: body.outer,
    windows: body.holes.map((hole, k) => ({ id: `gap-${k + 1}`, outline: hole })),
    because: 'the shape below its fold, twice, foot to foot',
    creases: [
      ...hungScores('front-score', named('front score'), scores, high / 2, 'valley', 0, sizedBy && { size: sizedBy, perMm: 2 }),
      ...hungScores('main-fold', named('main fold'), folds, high, 'valley', Math.PI, sizedBy && { size: sizedBy, perMm: 1 }),
    ],
    marks,
    zones: strut.map((part, i) => ({
      id: `strut-free-${i + 1}`,
      kind: 'keep-clear' as const,
      face: 'down' as const,
      outline: part.outline,
      says: 'no glue here: the cover only lies on the upper part of the front',
    })),
    anchors: [
      ...lower.map((part, i) => ({ panel: panelName('front-lower', i), name: named('lower part of the front'), at: part.at })),
      ...strut.map((part, i) => ({ panel: panelName('strut', i), name: named('upper part of the front'), at: part.at })),
      { panel: 'base', name: named('base'), at: mirrorPoint(lower[0]!.at, high) },
    ],
  });
  const cover = blankPiece({
    id: numbered('cover', index),
    name: index === 0 ? 'Cover' : `Cover of easel ${index + 1}`,
    stock: 'display',
    faceUp: 'picture up',
    outline: upright,
    because: 'the whole shape: it hides the flat top where the fold is',
    zones: zones.map((zone, i) => ({
      id: `cover-glue-${i + 1}`,
      kind: 'glue' as const,
      face: 'down' as const,
      outline: laidDown(zone),
      says: 'glue to the lower part of the front only, short of the middle score',
    })),
    anchors: [{ panel: 'cover', name: named('cover'), at: [lower[0]!.at[1], lower[0]!.at[0]] }],
  });
  const glued = zones.map((zone, i): Bond => ({
    id: panelName(`${cover.id}-on-front`, i),
    name: `${named('cover')} on the lower part of the front`,
    panel: coverPanel(index),
    face: 'down',
    partner: `${id}/${panelName('front-lower', i)}`,
    partnerFace: 'down',
    zone: `cover-glue-${i + 1}`,
    placement: { to: [0, 0], turn: -Math.PI / 2, flipped: true },
  }));
  const at: Point = [foot[1], foot[0]];
  return {
    base,
    cover,
    bonds: glued,
    touch: { id: index === 0 ? 'foot-on-base' : `foot-${index + 1}-on-base`, panel: coverPanel(index), at, on: basePanel(index) },
    claim: closing({
      hinge: `${id}/main-fold`,
      name: named('main fold'),
      lower: [basePanel(index)],
      upper: [...strut.map((_, i) => `${id}/${panelName('strut', i)}`), ...lower.map((_, i) => `${id}/${panelName('front-lower', i)}`)],
      depth: high,
      length: wide,
      spined: false,
      spineSize: '',
    }),
    folds: folds.map((_, i) => `${id}/${panelName('main-fold', i)}`),
    scores: scores.map((_, i) => `${id}/${panelName('front-score', i)}`),
    foot: { panel: coverPanel(index), at },
  };
}

/** An easel that stands among others: where its foot stands in the end, and where it waits meanwhile. */
export interface Raised {
  /** its fold and the score of its front, each in as many stretches as gaps part it */
  folds: readonly string[];
  scores: readonly string[];
  sides: EaselSides;
  stop: Mm;
  /** nearer its fold, so that what is nested in it can be raised */
  waits: Mm;
}

/**
 * Easels nested in one another are raised from the outermost on, each nearly upright and out of the way of the next, for
 * what lies flat inside it reaches past its own fold; then, from the last back to the first, each is let down on its foot.
 * Their scores lead: with strut and foot part of one length a strut at a given rise knows two ways, the foot in front or back
 * at the fold, and a score at a given turn only one.
 */
export function raisedInTurn(easels: readonly Raised[]): Schedule {
  const last = easels.length - 1;
  if (last === 0) return raisedAlone(easels[0]!);
  const poses = [easels.map(() => 0)];
  const names: string[] = [];
  const goOn = (index: number, stop: Mm, name: string): void => {
    const turn = hingeTurn(easels[index]!.sides, stop, 1);
    poses.push(poses[poses.length - 1]!.map((before, i) => (i === index ? turn : before)));
    names.push(name);
  };
  easels.forEach(({ stop, waits }, i) => goOn(i, i === last ? stop : waits, `raise easel ${i + 1}`));
  for (let i = last - 1; i >= 0; i--) goOn(i, easels[i]!.stop, `let easel ${i + 1} down on its foot`);
  const share = 1 / names.length;
  const phases = names.map((name, n): Phase => ({
    name,
    from: n * share,
    to: (n + 1) * share,
    targets: easels.map(({ scores }, i) => ({ hinge: scores[0]!, start: poses[n]![i]!, end: poses[n + 1]![i]! })),
  }));
  const begin = easels.flatMap(({ scores, folds, sides, stop, waits }, i): [string, number][] => {
    const now = i === 0 ? (stop + waits) / 2 : stop;
    return [
      ...scores.slice(1).map((score): [string, number] => [score, hingeTurn(sides, now, 1)]),
      ...folds.map((fold): [string, number] => [fold, Math.PI - strutRise(sides, now)]),
    ];
  });
  // Strut and foot part being of one length, the score turns by twice what the fold opens.
  const opening = { hinge: easels[0]!.scores[0]!, atZero: 0, perFold: 0.5 };
  return { phases, startAt: 1 - share / 2, begin: Object.fromEntries(begin), opening };
}

function raisedAlone({ folds, sides, stop }: Raised): Schedule {
  const targets = [{ hinge: folds[0]!, start: Math.PI, end: Math.PI - strutRise(sides, stop) }];
  const opening = { hinge: folds[0]!, atZero: Math.PI, perFold: -1 };
  return { phases: [{ name: 'raise the display', from: 0, to: 1, targets }], startAt: 0.6, opening };
}

export const panelName = (name: string, i: number): string => (i === 0 ? name : `${name}-${i + 1}`);
export const mirrorPoint = ([x, y]: Point, at: number): Point => [2 * at - x, y];

/** The base of a hung shape, lying: what of its mirror image is beyond the fold. */
export function leafOf({ front: { body }, high, wide }: HungShape): Loop {
  return largestOf(intersect([body], [asArea(rectangle(high, -1, 2 * high, wide + 2))]))!;
}

function lowestPoint(lying: Loop): Point {
  const least = Math.min(...lying.map(([x]) => x));
  const feet = lying.filter(([x]) => x < least + 1e-6).map(([, y]) => y);
  return [least, (Math.min(...feet) + Math.max(...feet)) / 2];
}

/** A score across a shape: one crease for every stretch of material it crosses, all in one line. */
function hungScores(
  id: string,
  name: string,
  stretches: readonly [Mm, Mm][],
  x: Mm,
  fold: Fold,
  closed: number,
  standsFor: Crease['standsFor'] | undefined,
): Crease[] {
  return stretches.map(([from, to], i) => ({
    id: panelName(id, i),
    name,
    from: [x, from - PAST_EDGE],
    to: [x, to + PAST_EDGE],
    fold,
    closed,
    ease: 0,
    ...(standsFor && { standsFor }),
  }));
}
