import { tabSize } from '../common-sizes.js';
import { toRadians } from '../../measure/units.js';
import { rectangle } from '../../plane/outline.js';
import type { Point } from '../../plane/point.js';
import { SHAPE_OPTIONS } from '../../plane/shapes.js';
import { blankPiece, type Piece } from '../../sheet/piece.js';
import type { Phase } from '../../linkage/schedule.js';
import type { Base, Measure } from '../contract.js';
import { introduced } from '../introductions.js';
import { easelOn, nextBack, ownFeet, type EaselOnBoard } from '../easel/easel-on-board.js';
import { hingeTurn, STEEPEST, stopForLean, stopNear, stopRange, type EaselSides } from '../easel/easel-parts.js';
import { isNested, LAYERS, mostSetBorder, nestedMeasures } from '../easel/nested-set.js';
import { filler, isOfStrips, stripRowMeasures } from '../easel/whole-strip.js';
import { leastRimHeight, LEAST_LIP, lipRoom } from '../easel/raised-rim.js';
import { items, num, type Range, type SizeItem, type SizeContext, type Sizes } from '../sizes.js';
import { mm, angle } from '../measures.js';
import { rising } from '../../claim/claims.js';

/** Board in front of an easel's back edge. */
const room = ({ sizes, item }: SizeContext): number => num(sizes, 'depth') - num(item!, 'back');

const mostFlap = (context: SizeContext): number => Math.min(num(context.item!, 'displayHeight'), 8 * room(context));

/** Struts with which some lean between steep and flat puts the foot on the board: law of cosines at the steepest. */
function strutRange(context: SizeContext): Range {
  const [flap, board] = [num(context.item!, 'flap'), room(context)];
  return {
    min: Math.max(flap * 0.5, 1.001 * Math.sqrt(Math.max(0, flap * flap - board * board))),
    max: Math.min(flap * 1.6, 0.999 * Math.sqrt(board * board + flap * flap - 2 * board * flap * Math.cos(STEEPEST))),
    because: 'a much shorter strut leans the display far over, a much longer one pushes it upright, and the foot stands on the board',
  };
}

/** Distance to the next easel's back edge, or for the last one a stop for 60°. */
function presetStop(context: SizeContext): number {
  const { sizes, item, index } = context;
  const next = nextBack(sizes, index!);
  if (next !== undefined) return next - num(item!, 'back');
  return stopNear(stopForLean(toRadians(60), sidesOfEasel(item!)), rowStopRange(context));
}

const sidesOfEasel = (easel: SizeItem): EaselSides => ({ strut: num(easel, 'strut'), foot: num(easel, 'flap') });

const rowStopRange = (context: SizeContext): Range => stopRange(sidesOfEasel(context.item!), room(context), 0);

const hasRims = (sizes: Sizes): boolean => sizes['stopForm'] === 'rim';

/** The least height under a rim for every foot that has one; nothing where there are only strips. */
const rimHeight = (context: SizeContext): number => (hasRims(context.sizes) ? Math.max(...ownFeet(context).map(leastRimHeight)) : 0);

/** How far a rim may reach over the steepest foot. */
const mostLip = (context: SizeContext): number =>
  Math.min(...ownFeet(context).map((foot) => lipRoom(foot, num(context.sizes, 'stopHeight'))));

const MOST_BORDER = 30;

/** A narrower border does not show; a set too small for this one may have what it can have. */
const leastBorder = (most: number): number => Math.min(0.5, most);

/** Four fifths of what would leave nothing, in half millimetres. */
function presetBorder(context: SizeContext): number {
  const most = mostSetBorder(context, MOST_BORDER);
  return Math.max(leastBorder(most), Math.min(8, Math.floor(1.6 * most) / 2));
}

/** A shorter base of a whole strip holds nothing. */
const LEAST_BASE = 20;

/** Several easels one behind the other on one board. */
export const easelRow: Base = {
  ...introduced('easel-row'),
  foldEdge: 'top',
  difficulty: 'hard',
  gives: ['a display that leans', 'several figures'],
  needs: ['base card', 'card for a display', 'foam or layers for a stop'],
  mayGoWrong: ['easels that cover each other’s hinges: neither can be raised', 'a low easel behind a tall one is hidden'],
  forClosedSize: (across, along) => ({ depth: across, width: along }),
  sizes: [
    {
      name: 'depth',
      label: 'Depth',
      kind: 'length',
      default: 150,
      help: 'Of the board, across the folds.',
      range: () => ({ min: 60, max: 320, because: 'a board must carry its easels lying flat and come out of a sheet' }),
    },
    {
      name: 'width',
      label: 'Length of folds',
      kind: 'length',
      default: 120,
      help: 'Of the board, along the folds.',
      range: () => ({ min: 40, max: 320, because: 'a board must carry its easels and come out of a sheet' }),
    },
    {
      name: 'form',
      label: 'Displays',
      kind: 'choice',
      default: 'row',
      help: 'Plain panels of any size, shapes of one nested set, each with two smaller ones as layers, or whole strips, each with a base of its own.',
      options: [
        { value: 'row', label: 'plain panels' },
        { value: 'nested', label: 'shapes of a nested set' },
        { value: 'strips', label: 'whole strips, each with its base' },
      ],
    },
    {
      name: 'outline',
      label: 'Outline of the set',
      kind: 'outline',
      default: 'scallop',
      help: 'Shape of all displays.',
      options: SHAPE_OPTIONS,
      shown: isNested,
    },
    { ...tabSize(12, 'Behind the back edge of each easel, glued to the board.'), shown: (sizes: Sizes) => !isOfStrips(sizes) },
    {
      name: 'easels',
      label: 'Easels',
      kind: 'list',
      itemLabel: 'easel',
      help: 'From the back to the front.',
      least: 1,
      most: 5,
      default: ({ sizes }) => [
        { back: 14, displayHeight: num(sizes, 'depth') * 0.62, displayWidth: num(sizes, 'width') - 10 },
        { back: num(sizes, 'depth') * 0.39, displayHeight: num(sizes, 'depth') * 0.46, displayWidth: num(sizes, 'width') * 0.75 },
        { back: num(sizes, 'depth') * 0.63, displayHeight: num(sizes, 'depth') * 0.34, displayWidth: num(sizes, 'width') * 0.55 },
      ],
      item: [
        {
          name: 'back',
          label: 'Back edge',
          kind: 'length',
          default: ({ sizes, index }) => Math.min(14 + index! * 35, num(sizes, 'depth') - 40),
          help: 'From the board’s back edge to the fold of the strut.',
          range: ({ sizes }) => ({
            min: 0,
            max: num(sizes, 'depth') - 25,
            because: 'the easel’s foot and stop lie on the board in front of it',
          }),
        },
        {
          name: 'displayHeight',
          label: 'Display height',
          kind: 'length',
          default: ({ sizes }) => num(sizes, 'depth') * 0.35,
          help: 'From its foot up.',
          range: ({ sizes }) => ({
            min: 25,
            max: num(sizes, 'depth') * 1.6,
            because: 'a lower display needs no easel, and a much higher one has no board to lie on',
          }),
        },
        {
          name: 'displayWidth',
          label: 'Display width',
          kind: 'length',
          default: ({ sizes }) => num(sizes, 'width') * 0.6,
          help: 'Centred on the board. A shape of the set keeps its own proportions.',
          range: ({ sizes }) => ({
            min: 20,
            max: num(sizes, 'width') * 1.4,
            because: 'a narrower display tips sideways, and a much wider one has no board to lie on',
          }),
        },
        {
          name: 'flap',
          label: 'Hinge above the foot',
          kind: 'length',
          default: (context) => Math.min(num(context.item!, 'displayHeight') / 2, mostFlap(context)),
          help: 'Of the flap glued behind the display.',
          range: (context) => ({
            min: 10,
            max: mostFlap(context),
            because: 'the flap lies behind the display, and its foot must come to stand on the board',
          }),
        },
        {
          name: 'strut',
          label: 'Strut',
          kind: 'length',
          default: (context) => stopNear(num(context.item!, 'flap'), strutRange(context)),
          help: 'From the back edge to the hinge.',
          range: strutRange,
        },
        {
          name: 'stopDistance',
          label: 'Foot from the back edge',
          kind: 'length',
          default: presetStop,
          help: 'At the next easel’s back edge that edge is the stop; anywhere else the foot gets a strip of its own.',
          range: rowStopRange,
        },
        {
          name: 'base',
          label: 'Base',
          kind: 'length',
          default: (context) => Math.min(room(context), Math.max(LEAST_BASE, num(context.item!, 'stopDistance') + 12)),
          help: 'Of a whole strip: how far it lies on the board, from the back edge to the front.',
          range: (context) => ({
            min: Math.min(LEAST_BASE, room(context)),
            max: room(context),
            because: 'a shorter base is torn off by its strut, and a longer one has no board to lie on',
          }),
          shown: isOfStrips,
        },
      ],
    },
    {
      name: 'setBorder',
      label: 'Border of the set',
      kind: 'length',
      default: presetBorder,
      help: 'Each outline of the set is smaller than the one before by this all round.',
      range: (context) => {
        const most = mostSetBorder(context, MOST_BORDER);
        return {
          min: leastBorder(most),
          max: most,
          because: 'a smaller border does not show, and with a larger one the set is too small: of the innermost layer nothing is left',
        };
      },
      shown: isNested,
    },
    {
      name: 'outlinesInSet',
      label: 'Outlines in the set',
      kind: 'count',
      default: ({ sizes }) => items(sizes, 'easels').length + LAYERS,
      help: 'How many shapes the nested set has.',
      range: ({ sizes }) => {
        const count = items(sizes, 'easels').length;
        return {
          min: isNested(sizes) ? count + LAYERS : 0,
          max: 40,
          because: `easel ${count} uses outlines ${count}, ${count + 1} and ${count + 2} of the set`,
        };
      },
      shown: isNested,
    },
    {
      name: 'stopForm',
      label: 'Stops',
      kind: 'choice',
      default: 'strip',
      help: 'A rim is a strip on top of the stop that reaches back over the foot, so that the foot catches under it.',
      options: [
        { value: 'strip', label: 'raised strips' },
        { value: 'rim', label: 'raised rims' },
      ],
    },
    {
      name: 'stopHeight',
      label: 'Stop height',
      kind: 'length',
      default: (context) => Math.max(2, Math.ceil(2 * rimHeight(context)) / 2),
      help: 'Of a stop strip, where one is needed; under a rim, of the foam.',
      range: (context) => {
        const least = rimHeight(context);
        return least > 0.3
          ? { min: least, max: 12, because: 'the foam lets the leaning foot in under the rim and leaves its lip half a millimetre' }
          : { min: 0.3, max: 12, because: 'a stop is a raised strip that still lets the card close' };
      },
    },
    {
      name: 'rimLip',
      label: 'Lip of the rim',
      kind: 'length',
      default: (context) => LEAST_LIP + 0.7 * (mostLip(context) - LEAST_LIP),
      help: 'How far a rim reaches back over the foot.',
      range: (context) => ({
        min: LEAST_LIP,
        max: Math.max(LEAST_LIP, mostLip(context)),
        because: 'a narrower lip catches nothing, and one reaching further meets the leaning display before its foot meets the foam',
      }),
      shown: hasRims,
    },
  ],
  build(context) {
    const { sizes, baseCaliper, displayCaliper } = context;
    const [depth, width] = [num(sizes, 'depth'), num(sizes, 'width')];
    const easels = items(sizes, 'easels').map((easel, i) => easelOn(context, easel, i));
    const board = boardOf(depth, width, easels);
    const filled = isOfStrips(sizes) ? filler(sizes) : undefined;
    const share = 1 / easels.length;
    const last = easels[easels.length - 1]!;
    return {
      pieces: [board, ...easels.flatMap((easel) => easel.pieces), ...(filled ? [filled.piece] : [])],
      bonds: [...easels.flatMap((easel) => easel.bonds), ...(filled ? [filled.bond] : [])],
      touches: easels.map(({ id, width: wide, foot }) => ({
        id: `${id}-foot`,
        panel: foot.panel,
        at: [foot.at, wide / 2] as Point,
        on: 'board/board',
      })),
      ground: 'board/board',
      closedOutline: rectangle(0, 0, depth, width),
      schedule: {
        phases: easels.map((easel, i): Phase => ({
          name: `raise easel ${i + 1}`,
          from: i * share,
          to: (i + 1) * share,
          targets: easels.flatMap((other, j) => [
            {
              hinge: `${other.id}/back-fold`,
              start: j < i ? Math.PI - other.rise : Math.PI,
              end: j <= i ? Math.PI - other.rise : Math.PI,
            },
            ...(other.heldFold ? [{ hinge: other.heldFold, start: -Math.PI, end: -Math.PI }] : []),
          ]),
        })),
        startAt: 1 - share / 2,
        begin: Object.fromEntries(
          easels.map((easel, i) => [`${easel.id}/flap-fold`, hingeTurn(easel.sides, easel.stop, i + 1 < easels.length ? 1 : 0.5)]),
        ),
        opening: { hinge: `${easels[0]!.id}/back-fold`, atZero: Math.PI, perFold: -1 },
      },
      sides: { fold: 'the back edge', free: 'the front edge' },
      rest: {
        at: 1,
        up: [0, 0, 1],
        viewFrom: [1, 0.6, 0.55],
        says: 'the board on the table, each foot against the easel in front or its own stop',
        stop: {
          foot: last.foot.panel,
          footEdge: [
            [last.foot.at, 0],
            [last.foot.at, last.width],
          ],
          height: num(sizes, 'stopHeight'),
          footThickness: baseCaliper + (isOfStrips(sizes) ? baseCaliper : displayCaliper),
          lean: last.lean,
        },
      },
      measures: [
        ...rowMeasures(sizes, easels),
        ...(isNested(sizes) ? nestedMeasures(context, easels.length) : []),
        ...(isOfStrips(sizes) ? stripRowMeasures(sizes) : []),
      ],
      tracked: easels.map(({ id }, i) => ({
        id: `lean${i + 1}`,
        label: `Lean of easel ${i + 1}`,
        kind: 'angle' as const,
        panel: `${id}/flap`,
        along: [1, 0] as Point,
        withPanel: 'board/board',
        withAlong: [-1, 0] as Point,
      })),
      openHeight: { label: 'Height when standing', because: 'the highest display over the table' },
      claims: [...easels.map(({ unit }) => unit).map(rising)],
      words: {
        settingUp: easels.map((easel, i) =>
          easel.ownStop
            ? `Raise easel ${i + 1} and ${hasRims(sizes) ? `push its foot in under rim ${i + 1}` : 'set its foot behind its own stop'}.`
            : `Raise easel ${i + 1} and hold it; its foot goes behind easel ${i + 2} once that stands.`,
        ),
      },
    };
  },
};

function boardOf(depth: number, width: number, easels: readonly EaselOnBoard[]): Piece {
  return blankPiece({
    id: 'board',
    name: 'Board',
    stock: 'base',
    faceUp: 'upper face up, back edge at the left',
    outline: rectangle(0, 0, depth, width),
    because: 'as you chose it: it carries all easels lying flat',
    marks: easels.flatMap(({ id, back, stop, ownStop }, i) => [
      { id: `${id}-back`, from: [back, 0] as Point, to: [back, width] as Point, says: `back fold of easel ${i + 1}` },
      ...(ownStop
        ? [
            {
              id: `${id}-stop`,
              from: [back + stop, 0] as Point,
              to: [back + stop, width] as Point,
              says: `the stop of easel ${i + 1} begins here`,
            },
          ]
        : []),
    ]),
    anchors: [{ panel: 'board', name: 'board', at: [depth / 2, width / 2] }],
  });
}

function rowMeasures(sizes: Sizes, easels: readonly EaselOnBoard[]): Measure[] {
  return easels.flatMap(({ back, stop, lean, high, ownStop }, i): Measure[] => {
    const easel = items(sizes, 'easels')[i]!;
    const flat = num(easel, 'strut') + num(easel, 'flap');
    return [
      angle(`lean${i + 1}`, `Lean of easel ${i + 1}`, lean, 'strut, hinge above the foot and the foot’s distance make a triangle'),
      mm(
        `stopAt${i + 1}`,
        `Foot of easel ${i + 1} on the board`,
        back + stop,
        ownStop
          ? 'its back edge and the foot’s distance: its own stop strip goes here'
          : `the back edge of easel ${i + 2}: that is its stop`,
      ),
      mm(
        `coverFrom${i + 1}`,
        `Easel ${i + 1} flat, from`,
        back + Math.min(0, flat - high),
        'back edge, or where the top of the display comes to lie',
      ),
      mm(`coverTo${i + 1}`, `Easel ${i + 1} flat, to`, back + flat, 'back edge with strut and hinge height'),
    ];
  });
}
