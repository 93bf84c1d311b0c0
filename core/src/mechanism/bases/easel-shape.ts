import { chordsAt, longestChord, mirroredAt } from '../../plane/chords.js';
import { boxOf, type Area, type Loop } from '../../plane/outline.js';
import { SHAPE_OPTIONS } from '../../plane/shapes.js';
import type { Mark } from '../../sheet/piece.js';
import type { Mm } from '../../measure/units.js';
import type { Base, BuildContext, Measure } from '../contract.js';
import { introduced } from '../introductions.js';
import {
  EASEL_POSE,
  easelLean,
  leanAlternative,
  stopRange,
  stopSizes,
  ownStop,
  stopHeight,
  triangleMeasures,
  type EaselSides,
} from '../easel/easel-parts.js';
import { basePanel, coverPanel, hungEasel, mirrorPoint, raisedInTurn, sidesOfHung, type HungShape } from '../easel/hung-easel.js';
import {
  coverLayers,
  HUNG_SET_SIZES,
  hungFootThickness,
  hungHeight,
  hungSetMeasures,
  hungShapes,
  hungStop,
  lastOf,
  nestedOn,
  stoppedFoot,
  waitsAt,
} from '../easel/hung-set.js';
import { items, num, type Sizes } from '../sizes.js';
import { trackedAngle } from '../tracked.js';
import { mm } from '../measures.js';
import { meeting } from '../../claim/claims.js';

const sidesOf = (sizes: Sizes): EaselSides => sidesOfHung(hungHeight(sizes, 0));
const sizeOfLast = (sizes: Sizes): Mm => num(lastOf(sizes) === 0 ? sizes : items(sizes, 'set')[lastOf(sizes) - 1]!, 'size');

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
      default: ({ sizes }) => hungHeight(sizes, 0) / 2,
      help: 'From the fold to the side of the stop where the foot rests. Nearer leans steeper.',
      range: ({ sizes }) => stopRange(sidesOf(sizes), hungHeight(sizes, 0)),
    },
    ...HUNG_SET_SIZES,
    ...stopSizes(
      ({ sizes }) => sizeOfLast(sizes) * 0.5,
      ({ sizes }) => hungHeight(sizes, lastOf(sizes)) - hungStop(sizes, lastOf(sizes)),
      stoppedFoot,
    ),
  ],
  build(context) {
    const { sizes } = context;
    const shapes = hungShapes(context);
    const [first, last] = [shapes[0]!, lastOf(sizes)];
    const { high } = first;
    const stops = shapes.map((_, index) => hungStop(sizes, index));
    const nested = shapes.slice(1).map((_, i) => nestedOn(context, shapes, i + 1));
    const easels = shapes.map((shape, index) => hungEasel(shape, index, nested[index]?.marks ?? [stopLine(shape, stops[index]!)]));
    const layers = shapes.flatMap((_, index) => coverLayers(context, shapes, index));
    const stopped = stopOnLeaf(context, shapes[last]!, last);
    const lean = easelLean(shapes[last]!.high / 2, shapes[last]!.high / 2, stops[last]!);
    const { foot } = easels[last]!;
    const beyond = mirrorPoint(first.foot, high);
    return {
      pieces: [
        ...easels.flatMap(({ base, cover }, index) => [...(index === 0 ? [] : [nested[index - 1]!.foam]), base, cover]),
        ...layers.map(({ piece }) => piece),
        ...stopped.pieces,
      ],
      bonds: [
        ...easels.flatMap(({ bonds }, index) => [...bonds, ...(nested[index - 1]?.bonds ?? [])]),
        ...layers.map(({ bond }) => bond),
        ...stopped.bonds,
      ],
      touches: easels.map(({ touch }) => touch),
      ground: basePanel(0),
      closedOutline: mirroredAt(first.lying, high),
      schedule: raisedInTurn(
        easels.map(({ folds, scores }, i) => ({
          folds,
          scores,
          sides: sidesOfHung(shapes[i]!.high),
          stop: stops[i]!,
          waits: waitsAt(sizes, i, nested[i]),
        })),
      ),
      sides: { fold: 'the top', free: 'the foot' },
      rest: {
        ...EASEL_POSE,
        says:
          easels.length === 1
            ? 'the base on the table, the foot against the stop'
            : 'the base on the table, each foot under the edge in front of it, the last against its stop',
        stop: {
          foot: foot.panel,
          footEdge: [foot.at, foot.at],
          ...stopHeight(sizes),
          footThickness: hungFootThickness(context),
          lean,
        },
      },
      measures: [...shapeMeasures(sizes, first), ...hungSetMeasures(context, nested)],
      tracked: easels.map((_, i) =>
        trackedAngle(
          {
            id: i === 0 ? 'lean' : `lean${i + 1}`,
            label: i === 0 && easels.length === 1 ? 'Lean from the table' : `Lean of easel ${i + 1}`,
          },
          [coverPanel(i), [0, 1]],
          [basePanel(0), [-1, 0]],
        ),
      ),
      openHeight: { label: 'Height when standing', because: 'the top of the cover over the table' },
      claims: [
        meeting({
          id: 'feet',
          name: 'the foot of the front and the foot of the base',
          a: { panel: coverPanel(0), from: easels[0]!.foot.at, to: easels[0]!.foot.at },
          b: { panel: basePanel(0), from: beyond, to: beyond },
        }),
        ...easels.map(({ claim }) => claim),
      ],
      ...(easels.length > 1 && {
        words: {
          settingUp: [
            ...easels.map((_, i) =>
              i === last
                ? `Raise easel ${i + 1} and set its foot against its stop.`
                : `Raise easel ${i + 1} until it is nearly upright, its foot close to its fold, and hold it.`,
            ),
            ...easels
              .slice(0, last)
              .map((_, i) => `Let easel ${i + 1} down and push its foot in under the raised edge of easel ${i + 2}.`)
              .reverse(),
          ],
        },
      }),
    };
  },
};

const stopLine = ({ high, wide }: HungShape, stop: Mm): Mark => ({
  id: 'stop-line',
  from: [high + stop, 0],
  to: [high + stop, wide],
  says: 'the stop begins here',
});

/** A stop in the middle of the longest stretch of the last base where it goes. */
function stopOnLeaf({ sizes }: BuildContext, { high, front }: HungShape, index: number) {
  const width = num(sizes, 'stopWidth');
  const length = num(sizes, 'stopLength');
  const x = high + hungStop(sizes, index);
  const [from, to] = longestChord(loopsOf(front.body), x + width / 2) ?? [0, length];
  return ownStop(
    sizes,
    'stop',
    { width, length, height: num(sizes, 'stopHeight') },
    { panel: basePanel(index), at: [x, (from + to - length) / 2] },
  );
}

const loopsOf = ({ outer, holes }: Area): Loop[] => [outer, ...holes];

function shapeMeasures(sizes: Sizes, { front: { body }, high }: HungShape): Measure[] {
  const hinge = chordsAt(loopsOf(body), high).reduce((sum, [from, to]) => sum + to - from, 0);
  const { maxX, minX, minY, maxY } = boxOf(body.outer);
  return [
    mm('hingeHeight', 'Fold above the foot', high, 'height of the shape less how far below its top the fold cuts'),
    mm('frontScore', 'Front score from the foot', high / 2, 'half the fold’s height, so that both parts are equal'),
    mm('hingeLength', 'Length of the hinge', hinge, 'the chords of the shape where the fold cuts it'),
    mm('openLength', 'Flat outline, foot to foot', maxX - minX, 'the shape below its fold, twice'),
    mm('openWidth', 'Flat outline, across', maxY - minY, 'the shape’s own width below the fold'),
    ...triangleMeasures(sidesOfHung(high), num(sizes, 'stopDistance'), num(sizes, 'size')),
  ];
}
