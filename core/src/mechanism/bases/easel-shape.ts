import { chordsAt, laidDown, longestChord, mirroredAt } from '../../plane/chords.js';
import { boxOf, type Area, type Loop } from '../../plane/outline.js';
import type { Point } from '../../plane/point.js';
import { fitted, SHAPE_OPTIONS } from '../../plane/shapes.js';
import { blankPiece, type Crease, type Fold } from '../../sheet/piece.js';
import type { Bond } from '../../linkage/structure.js';
import type { Base, BuildContext, Measure } from '../contract.js';
import { introduced } from '../introductions.js';
import {
  EASEL_POSE,
  easelLean,
  leanAlternative,
  stopRange,
  stopSizes,
  stopStrip,
  strutRise,
  triangleMeasures,
  type EaselSides,
} from '../easel/easel-parts.js';
import { hungFront } from '../easel/hung-front.js';
import type { Mm } from '../../measure/units.js';
import { num, type Sizes } from '../sizes.js';
import { trackedAngle } from '../tracked.js';
import { mm } from '../measures.js';
import { meeting, closing } from '../../claim/claims.js';

/** Scores are drawn this far past a cut edge, so that they surely reach it. */
const PAST_EDGE = 0.01;

/** On the grid of outline arithmetic (10⁻⁶ mm), so that a half and its mirror image meet exactly at the fold. */
const hingeHeight = (sizes: Sizes): number => Math.round((num(sizes, 'size') - num(sizes, 'chord')) * 1e6) / 1e6;
const sidesOf = (sizes: Sizes): EaselSides => ({ strut: hingeHeight(sizes) / 2, foot: hingeHeight(sizes) / 2 });

/** Any outline, cut across a fold so that a chord of it remains as the hinge. */
export const easelShape: Base = {
  ...introduced('easel-shape'),
  foldEdge: 'top',
  difficulty: 'medium',
  gives: ['a display that leans', 'any outline'],
  needs: ['base card', 'card for a display', 'foam or layers for a stop'],
  mayGoWrong: ['a short chord tears', 'a shape that stands on one point rocks sideways', 'glue over the middle score'],
  alternatives: [leanAlternative(sidesOf, 'Sets the stop distance that gives this lean.')],
  forClosedSize: (across) => ({ size: across }),
  sizes: [
    {
      name: 'outline',
      label: 'Outline',
      kind: 'outline',
      default: 'scallop',
      help: 'Shape of front, base and cover.',
      options: SHAPE_OPTIONS.filter(({ value }) => value !== 'fern'),
    },
    {
      name: 'size',
      label: 'Height of the shape',
      kind: 'length',
      default: 120,
      help: 'From its lowest to its highest point.',
      range: () => ({ min: 50, max: 250, because: 'a smaller shape does not stand, and a larger one needs more than a sheet' }),
    },
    {
      name: 'chord',
      label: 'Fold below the top',
      kind: 'length',
      default: ({ sizes }) => Math.round(num(sizes, 'size') * 0.12),
      help: 'How far below the highest point the fold cuts the shape: further down makes a longer hinge.',
      range: ({ sizes }) => ({
        min: num(sizes, 'size') * 0.01,
        max: num(sizes, 'size') * 0.45,
        because: 'the fold must cut the shape, and enough of it must hang below to stand',
      }),
    },
    {
      name: 'stopDistance',
      label: 'Stop from the fold',
      kind: 'length',
      default: ({ sizes }) => hingeHeight(sizes) / 2,
      help: 'From the fold to the side of the stop where the foot rests. Nearer leans steeper.',
      range: ({ sizes }) => stopRange(sidesOf(sizes), hingeHeight(sizes)),
    },
    ...stopSizes(
      ({ sizes }) => num(sizes, 'size') * 0.5,
      ({ sizes }) => hingeHeight(sizes) - num(sizes, 'stopDistance'),
    ),
  ],
  build(context) {
    const { sizes, baseCaliper, displayCaliper } = context;
    const high = hingeHeight(sizes);
    const upright = fitted(context.outline(String(sizes['outline'])), num(sizes, 'size'));
    const lying = laidDown(upright);
    const { maxY: wide } = boxOf(lying);
    const score = high / 2;
    const stop = num(sizes, 'stopDistance');
    const sides = sidesOf(sizes);
    const { body, lower, strut, scores, folds } = hungFront(lying, high, score);
    const foot = lowestPoint(lying);
    const coverFoot: Point = [foot[1], foot[0]];
    const zones = lower.map((part) => part.glue);
    const base = blankPiece({
      id: 'base',
      name: 'Card',
      stock: 'base',
      faceUp: 'inside up',
      outline: body.outer,
      windows: body.holes.map((hole, k) => ({ id: `gap-${k + 1}`, outline: hole })),
      because: 'the shape below its fold, twice, foot to foot',
      creases: [
        ...hungScores('front-score', 'front score', scores, score, 'valley', 0, 2),
        ...hungScores('main-fold', 'main fold', folds, high, 'valley', Math.PI, 1),
      ],
      marks: [{ id: 'stop-line', from: [high + stop, 0], to: [high + stop, wide], says: 'the stop begins here' }],
      zones: strut.map((part, i) => ({
        id: `strut-free-${i + 1}`,
        kind: 'keep-clear' as const,
        face: 'down' as const,
        outline: part.outline,
        says: 'no glue here: the cover only lies on the upper part of the front',
      })),
      anchors: [
        ...lower.map((part, i) => ({ panel: panelName('front-lower', i), name: 'lower part of the front', at: part.at })),
        ...strut.map((part, i) => ({ panel: panelName('strut', i), name: 'upper part of the front', at: part.at })),
        { panel: 'base', name: 'base', at: mirrorPoint(lower[0]!.at, high) },
      ],
    });
    const cover = blankPiece({
      id: 'cover',
      name: 'Cover',
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
      anchors: [{ panel: 'cover', name: 'cover', at: [lower[0]!.at[1], lower[0]!.at[0]] }],
    });
    const glued = zones.map((zone, i): Bond => ({
      id: i === 0 ? 'cover-on-front' : `cover-on-front-${i + 1}`,
      name: 'cover on the lower part of the front',
      panel: 'cover/cover',
      face: 'down',
      partner: `base/${panelName('front-lower', i)}`,
      partnerFace: 'down',
      zone: `cover-glue-${i + 1}`,
      placement: { to: [0, 0], turn: -Math.PI / 2, flipped: true },
    }));
    const stopped = stopOnLeaf(context, body, high + stop);
    const lean = easelLean(sides.strut, sides.foot, stop);
    return {
      pieces: [base, cover, stopped.piece],
      bonds: [...glued, stopped.bond],
      touches: [{ id: 'foot-on-base', panel: 'cover/cover', at: coverFoot, on: 'base/base' }],
      ground: 'base/base',
      closedOutline: mirroredAt(lying, high),
      schedule: {
        phases: [
          {
            name: 'raise the display',
            from: 0,
            to: 1,
            targets: [{ hinge: 'base/main-fold', start: Math.PI, end: Math.PI - strutRise(sides, stop) }],
          },
        ],
        startAt: 0.6,
        opening: { hinge: 'base/main-fold', atZero: Math.PI, perFold: -1 },
      },
      sides: { fold: 'the top', free: 'the foot' },
      rest: {
        ...EASEL_POSE,
        says: 'the base on the table, the foot against the stop',
        stop: {
          foot: 'cover/cover',
          footEdge: [coverFoot, coverFoot],
          height: num(sizes, 'stopHeight'),
          footThickness: baseCaliper + displayCaliper,
          lean,
        },
      },
      measures: shapeMeasures(sizes, sides, body, high),
      tracked: [trackedAngle({ id: 'lean', label: 'Lean from the table' }, ['cover/cover', [0, 1]], ['base/base', [-1, 0]])],
      openHeight: { label: 'Height when standing', because: 'the top of the cover over the table' },
      claims: [
        meeting({
          id: 'feet',
          name: 'the foot of the front and the foot of the base',
          a: { panel: 'cover/cover', from: coverFoot, to: coverFoot },
          b: { panel: 'base/base', from: mirrorPoint(foot, high), to: mirrorPoint(foot, high) },
        }),
        closing({
          hinge: 'base/main-fold',
          name: 'main fold',
          lower: ['base/base'],
          upper: [...strut.map((_, i) => `base/${panelName('strut', i)}`), ...lower.map((_, i) => `base/${panelName('front-lower', i)}`)],
          depth: high,
          length: wide,
          spined: false,
          spineSize: '',
        }),
      ],
    };
  },
};

const loopsOf = ({ outer, holes }: Area): Loop[] => [outer, ...holes];
const panelName = (name: string, i: number): string => (i === 0 ? name : `${name}-${i + 1}`);
const mirrorPoint = ([x, y]: Point, at: number): Point => [2 * at - x, y];

function lowestPoint(lying: Loop): Point {
  const least = Math.min(...lying.map(([x]) => x));
  const feet = lying.filter(([x]) => x < least + 1e-6).map(([, y]) => y);
  return [least, (Math.min(...feet) + Math.max(...feet)) / 2];
}

/** A score across a shape: one crease for every stretch of material it crosses, all in one line. */
function hungScores(id: string, name: string, stretches: readonly [Mm, Mm][], x: Mm, fold: Fold, closed: number, perMm: number): Crease[] {
  return stretches.map(([from, to], i) => ({
    id: panelName(id, i),
    name,
    from: [x, from - PAST_EDGE],
    to: [x, to + PAST_EDGE],
    fold,
    closed,
    ease: 0,
    standsFor: { size: 'size', perMm },
  }));
}

/** A stop in the middle of the longest stretch of base where it goes. */
function stopOnLeaf({ sizes }: BuildContext, body: Area, x: number) {
  const width = num(sizes, 'stopWidth');
  const length = num(sizes, 'stopLength');
  const [from, to] = longestChord(loopsOf(body), x + width / 2) ?? [0, length];
  return stopStrip('stop', { width, length, height: num(sizes, 'stopHeight') }, { panel: 'base/base', at: [x, (from + to - length) / 2] });
}

function shapeMeasures(sizes: Sizes, sides: EaselSides, body: Area, high: number): Measure[] {
  const hinge = chordsAt(loopsOf(body), high).reduce((sum, [from, to]) => sum + to - from, 0);
  const { maxX, minX, minY, maxY } = boxOf(body.outer);
  return [
    mm('hingeHeight', 'Fold above the foot', high, 'height of the shape less how far below its top the fold cuts'),
    mm('frontScore', 'Front score from the foot', high / 2, 'half the fold’s height, so that both parts are equal'),
    mm('hingeLength', 'Length of the hinge', hinge, 'the chords of the shape where the fold cuts it'),
    mm('openLength', 'Flat outline, foot to foot', maxX - minX, 'the shape below its fold, twice'),
    mm('openWidth', 'Flat outline, across', maxY - minY, 'the shape’s own width below the fold'),
    ...triangleMeasures(sides, num(sizes, 'stopDistance'), num(sizes, 'size')),
  ];
}
