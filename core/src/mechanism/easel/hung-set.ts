import { capitalised } from '../../measure/print.js';
import { toRadians, type Mm, type Radians } from '../../measure/units.js';
import { intersect, largestOf, offset } from '../../plane/boolean.js';
import { asArea, boxOf, rectangle, signedArea, type Loop } from '../../plane/outline.js';
import { chordsAt, laidDown, longestChord } from '../../plane/chords.js';
import { shifted } from '../../plane/placement.js';
import type { Point } from '../../plane/point.js';
import { fitted, shapeNamed, SHAPE_OPTIONS } from '../../plane/shapes.js';
import { blankPiece, type Mark, type Piece } from '../../sheet/piece.js';
import type { Bond } from '../../linkage/structure.js';
import type { BuildContext, Measure } from '../contract.js';
import { angle, mm } from '../measures.js';
import { items, num, type FreeSize, type SizeContext, type SizeItem, type Sizes } from '../sizes.js';
import { insideOf } from './hung-front.js';
import { basePanel, coverPanel, hungShape, leafOf, sidesOfHung, type HungShape } from './hung-easel.js';
import { bareFoot, easelLean, FLATTEST, LEAST_STOP, STEEPEST, stopForLean } from './easel-parts.js';
import { lipRoom } from './raised-rim.js';

/** Foam is cut back from the edge of what stands on it, so that it does not show. */
const FOAM_INSET: Mm = 3;
/** Glue on foam keeps so far from the fold of what stands on it. */
const FOLD_ROOM: Mm = 2.5;
/** An easel that waits for the next one to rise keeps its foot so far from what reaches past that one's fold. */
const WAITING_ROOM: Mm = 3;
const MOST_LAYERS = 2;
const AS_FIRST = 'first';
/** Foam that is smaller than this holds nothing. */
const LEAST_FOAM_AREA = 30;

/** The smaller outlines of a set, the largest first. */
const smaller = (sizes: Sizes): readonly SizeItem[] => items(sizes, 'set');
const hasSet = (sizes: Sizes): boolean => smaller(sizes).length > 0;
/** How many outlines of the set stand, the first with them; of a number that cannot be, what is nearest and there is. */
export const standingIn = (sizes: Sizes): number => Math.max(1, Math.min(smaller(sizes).length + 1, Math.floor(num(sizes, 'standing'))));
const layersIn = (sizes: Sizes): number => num(sizes, 'coverLayers');

/** On the grid of outline arithmetic (10⁻⁶ mm), so that a half and its mirror image meet exactly at the fold. */
const onGrid = (high: Mm): Mm => Math.round(high * 1e6) / 1e6;

/** From the foot to the fold of the first easel, or of another of the set. */
export function hungHeight(sizes: Sizes, index: number): Mm {
  const of = index === 0 ? sizes : smaller(sizes)[index - 1]!;
  return onGrid(num(of, 'size') - num(of, 'chord'));
}

/** From the fold of an easel to where its foot stands: set for the first, for the others from the wanted lean. */
export function hungStop(sizes: Sizes, index: number): Mm {
  if (index === 0) return num(sizes, 'stopDistance');
  return stopForLean(num(smaller(sizes)[index - 1]!, 'lean'), sidesOfHung(hungHeight(sizes, index)));
}

const hungLean = (sizes: Sizes, index: number): Radians => {
  const { strut, foot } = sidesOfHung(hungHeight(sizes, index));
  return easelLean(strut, foot, hungStop(sizes, index));
};

/** What stands last needs a stop of its own. */
export const lastOf = (sizes: Sizes): number => standingIn(sizes) - 1;

/** The foot of an easel: its base, its cover and the layers on that. */
export const hungFootThickness = ({ sizes, baseCaliper, displayCaliper, mechanismCaliper }: Omit<SizeContext, 'item' | 'index'>): Mm =>
  baseCaliper + displayCaliper + layersIn(sizes) * mechanismCaliper;

const sizeBefore = ({ sizes, index }: SizeContext): Mm => num(index === 0 ? sizes : smaller(sizes)[index! - 1]!, 'size');

/** A set of outlines, how many of them stand nested in one another, and how many are layers on each cover. */
export const HUNG_SET_SIZES: readonly FreeSize[] = [
  {
    name: 'set',
    label: 'Smaller outlines of the set',
    kind: 'list',
    itemLabel: 'outline of the set',
    help: 'From the next larger to the smallest: as even or uneven as your dies are.',
    least: 0,
    most: 5,
    default: () => [],
    item: [
      {
        name: 'outline',
        label: 'Outline',
        kind: 'outline',
        default: AS_FIRST,
        help: 'Its shape, where it is not that of the first.',
        options: [{ value: AS_FIRST, label: 'as the first' }, ...SHAPE_OPTIONS.filter(({ value }) => value !== 'fern')],
      },
      {
        name: 'size',
        label: 'Height of the shape',
        kind: 'length',
        default: (context) => Math.round(sizeBefore(context) * 0.72),
        help: 'From its lowest to its highest point.',
        range: (context) => ({
          min: Math.min(20, sizeBefore(context) * 0.9),
          max: sizeBefore(context) * 0.98,
          because: 'each outline of the set is smaller than the one before it, and a very small one does not stand',
        }),
      },
      {
        name: 'chord',
        label: 'Fold below the top',
        kind: 'length',
        default: (context) => onePieceChord(context),
        help: 'Where it stands: how far below its highest point the fold cuts it. Below a notch in its top its edge is straight.',
        range: ({ item }) => ({
          min: num(item!, 'size') * 0.01,
          max: num(item!, 'size') * 0.45,
          because: 'the fold must cut the shape, and enough of it must hang below to stand',
        }),
      },
      {
        name: 'lean',
        label: 'Lean from the table',
        kind: 'angle',
        default: toRadians(70),
        help: 'Where it stands: its foot, and with it what stands on its base, is placed for this lean.',
        range: ({ item }) => {
          const high = num(item!, 'size') - num(item!, 'chord');
          return {
            min: Math.max(FLATTEST, Math.acos(Math.max(0, 1 - LEAST_STOP / high))),
            max: STEEPEST,
            because: 'steeper than 85° tips backward, flatter slides off, and a stop must have room on the base',
          };
        },
      },
    ],
  },
  {
    name: 'standing',
    label: 'Easels that stand',
    kind: 'count',
    default: ({ sizes }) => smaller(sizes).length + 1,
    help: 'The first outlines of the set, each on foam on the base of the one before.',
    range: ({ sizes }) => ({ min: 1, max: smaller(sizes).length + 1, because: 'each takes an outline of the set' }),
    shown: hasSet,
  },
  {
    name: 'coverLayers',
    label: 'Layers on each cover',
    kind: 'count',
    default: 0,
    help: 'An easel takes the outlines after its own as layers.',
    range: ({ sizes }) => ({
      min: 0,
      max: Math.min(MOST_LAYERS, smaller(sizes).length + 1 - standingIn(sizes)),
      because: `the last easel takes them from the outlines after its own, and the set has ${smaller(sizes).length + 1}: for more, let fewer stand or add outlines`,
    }),
    shown: hasSet,
  },
  {
    name: 'nestFoam',
    label: 'Foam under each nested easel',
    kind: 'length',
    default: (context) => Math.max(2, Math.ceil(4 * hungFootThickness(context)) / 2),
    help: 'Its raised edge is the stop of the easel before it.',
    range: (context) => ({
      min: hungFootThickness(context),
      max: 12,
      because: 'the foot of the easel before it must go in under the raised edge: base, cover and layers',
    }),
    shown: (sizes) => standingIn(sizes) > 1,
  },
];

/**
 * The least usual chord below which the top of an outline is one piece: the foot of the easel before catches under its whole
 * edge, where a notch would let that foot's sides into the humps beside it.
 */
function onePieceChord({ sizes, item, ownOutlines }: SizeContext): Mm {
  const size = num(item!, 'size');
  const usual = Math.round(size * 0.12);
  const shape = shapeNamed(String(item!['outline'] === AS_FIRST ? sizes['outline'] : item!['outline']), ownOutlines);
  if (!shape) return usual;
  const upright = laidDown(fitted(shape, size));
  const whole = [0.12, 0.16, 0.2, 0.24, 0.28, 0.32].find((share) => chordsAt([upright], size * (1 - share)).length === 1);
  return whole === undefined ? usual : Math.round(size * whole);
}

/** The outline of the set at a place, upright and of its full size. */
function outlineAt({ sizes, outline }: Pick<BuildContext, 'sizes' | 'outline'>, index: number): Loop {
  const first = outline(String(sizes['outline']));
  if (index === 0) return fitted(first, num(sizes, 'size'));
  const item = smaller(sizes)[index - 1]!;
  return fitted(item['outline'] === AS_FIRST ? first : outline(String(item['outline'])), num(item, 'size'));
}

/** The shapes that stand, the largest first. */
export const hungShapes = (context: BuildContext): HungShape[] =>
  Array.from({ length: standingIn(context.sizes) }, (_, index) => hungShape(outlineAt(context, index), hungHeight(context.sizes, index)));

/** How a nested easel lies on the base of the one before it. */
export interface Nested {
  foam: Piece;
  bonds: Bond[];
  /** on the base that carries it, from that one's fold: where its own fold lies */
  foldAt: Mm;
  /** how far the foam stops short of the raised edge, so that the foot goes in under it */
  lip: Mm;
  marks: Mark[];
}

/**
 * The foot of the easel before stands against the foam, and its front face touches the raised edge: so the foam begins
 * where the foot stands for the wanted lean, and the edge reaches back over the foot by the room under it.
 */
export function nestedOn(context: BuildContext, shapes: readonly HungShape[], index: number): Nested {
  const { sizes } = context;
  const [under, own] = [shapes[index - 1]!, shapes[index]!];
  const height = num(sizes, 'nestFoam');
  const foot = { lean: hungLean(sizes, index - 1), thickness: hungFootThickness(context) };
  const lip = Math.max(0, lipRoom(foot, height));
  const edge = raisedEdge(leafOf(own), own.foot[1], widthAt(under, height / Math.sin(foot.lean)));
  const stands = under.high + hungStop(sizes, index - 1);
  const at: Point = [stands - lip - edge, under.foot[1] - own.foot[1]];
  const shape = foamUnder(own, edge + lip);
  const { minX, minY } = boxOf(shape);
  const outline = shape.map(([x, y]): Point => [x - minX, y - minY]);
  const glue =
    largestOf(intersect([asArea(glueIn(outline))], [asArea(rectangle(own.high + FOLD_ROOM - minX, -1, own.high, own.wide + 2))])) ??
    outline;
  const carrying = leafOf(under).map(([x, y]): Point => [x - at[0] - minX, y - at[1] - minY]);
  const below = largestOf(intersect([asArea(glue)], offset(carrying, -0.5).map(asArea))) ?? glue;
  const id = `foam-${index + 1}`;
  const easel = `easel ${index + 1}`;
  const foam = blankPiece({
    id,
    name: `Foam under ${easel}`,
    stock: 'stop',
    faceUp: 'either face up',
    outline,
    because: 'the base that it carries, less 3 mm all round, and short of the edge under which the foot goes',
    thickness: height,
    zones: [
      { id: 'foam-below', kind: 'glue', face: 'down', outline: below, says: `glue to the base of ${numberedEasel(index)}` },
      { id: 'foam-above', kind: 'glue', face: 'up', outline: glue, says: `glue to the back of the base of ${easel}` },
    ],
    anchors: [{ panel: 'foam', name: `foam under ${easel}`, at: insideOf(outline) }],
  });
  const bonds: Bond[] = [
    {
      id: `${easel.replace(' ', '-')}-on-foam`,
      name: `base of ${easel} on its foam`,
      panel: `${id}/foam`,
      face: 'up',
      partner: basePanel(index),
      partnerFace: 'down',
      zone: 'foam-above',
      placement: shifted([minX, minY]),
    },
    {
      id: `${id}-on-base`,
      name: `foam of ${easel} on the base of ${numberedEasel(index)}`,
      panel: `${id}/foam`,
      face: 'down',
      partner: basePanel(index - 1),
      partnerFace: 'up',
      zone: 'foam-below',
      says: [`${capitalised(easel)} is on it already, folded flat.`],
      placement: shifted([minX + at[0], minY + at[1]]),
    },
  ];
  const foldAt = own.high + at[0];
  const marks: Mark[] = [
    {
      id: `${id}-line`,
      from: [stands, 0],
      to: [stands, under.wide],
      says: `the foam under ${easel} begins here: the foot rests against it`,
    },
  ];
  return { foam, bonds, foldAt: foldAt - under.high, lip, marks };
}

const numberedEasel = (index: number): string => `easel ${index}`;

/** How wide an outline is at a height over its foot, at the stretch that holds the foot. */
function widthAt({ lying, foot }: HungShape, height: Mm): Mm {
  const [from, to] = longestChord([lying], Math.min(height, boxOf(lying).maxX / 4)) ?? [foot[1], foot[1]];
  return to - from;
}

/** Where an easel's foot waits while the next one, which lies past its own fold by its top, is raised. */
export function waitsAt(sizes: Sizes, index: number, next: Nested | undefined): Mm {
  const stop = hungStop(sizes, index);
  if (!next) return stop;
  const clear = next.foldAt - num(smaller(sizes)[index]!, 'chord') - WAITING_ROOM;
  return Math.min(stop, Math.max(stopForLean(STEEPEST, sidesOfHung(hungHeight(sizes, index))), clear));
}

/** The edge of a base that a foot of some width meets first, from the side of its fold: in a notch it lies further in. */
function raisedEdge(leaf: Loop, y: Mm, width: Mm): Mm {
  const { minX, maxX } = boxOf(leaf);
  const half = Math.max(0.5, width / 2);
  const met = intersect([asArea(leaf)], [asArea(rectangle(minX - 1, y - half, maxX - minX + 2, 2 * half))]);
  return Math.min(...met.flatMap((loop) => loop.map(([x]) => x)), maxX);
}

/** What the last easel's own stop has to hold. A bare foot counts as two of the base, as any easel's does. */
export const stoppedFoot = (context: SizeContext): Mm =>
  layersIn(context.sizes) === 0 ? bareFoot(context) : Math.max(bareFoot(context), hungFootThickness(context));

/** What of a base foam lies under, from where a foot stands on: 3 mm inside its outline, and past its fold up to that line. */
function foamUnder(own: HungShape, from: Mm): Loop {
  const { maxX, minY, maxY } = boxOf(own.front.body.outer);
  const beyond = asArea(rectangle(from, minY - 1, Math.max(1, maxX - from + 1), maxY - minY + 2));
  const best = largestOf(intersect(offset(own.front.body.outer, -FOAM_INSET).map(asArea), [beyond]));
  if (best && signedArea(best) > LEAST_FOAM_AREA) return best;
  return largestOf(intersect([asArea(leafOf(own))], [beyond])) ?? leafOf(own);
}

const glueIn = (outline: Loop): Loop => largestOf(offset(outline, -0.5)) ?? outline;

/** The outlines after an easel's own, layered on its cover, middle on middle. */
export function coverLayers(context: BuildContext, shapes: readonly HungShape[], index: number): { piece: Piece; bond: Bond }[] {
  let [below, under] = [coverPanel(index), shapes[index]!.upright];
  return Array.from({ length: layersIn(context.sizes) }, (_, k) => {
    const outline = outlineAt(context, index + k + 1);
    const id = `cover-${index + 1}-layer-${k + 1}`;
    const name = `layer ${k + 1} of ${numberedEasel(index + 1)}`;
    const piece = blankPiece({
      id,
      name: `Layer ${k + 1} of ${numberedEasel(index + 1)}`,
      stock: 'mechanism',
      faceUp: 'picture up',
      outline,
      because: `outline ${index + k + 2} of the set`,
      zones: [{ id: 'layer-glue', kind: 'glue', face: 'down', outline: glueIn(outline), says: 'the same border on both sides' }],
      anchors: [{ panel: 'layer', name, at: insideOf(outline) }],
    });
    const bond: Bond = {
      id: `${id}-on`,
      name,
      panel: `${id}/layer`,
      face: 'down',
      partner: below,
      partnerFace: 'up',
      zone: 'layer-glue',
      placement: shifted(middleOn(under, outline)),
    };
    [below, under] = [`${id}/layer`, outline];
    return { piece, bond };
  });
}

/** Where an outline lies on another so that the middles of their boxes meet. */
function middleOn(under: Loop, own: Loop): Point {
  const [a, b] = [boxOf(under), boxOf(own)];
  return [(a.minX + a.maxX - b.minX - b.maxX) / 2, (a.minY + a.maxY - b.minY - b.maxY) / 2];
}

/** Which outlines of the set are cut for which easel, and where each nested easel goes. */
export function hungSetMeasures(context: BuildContext, nested: readonly Nested[]): Measure[] {
  const { sizes } = context;
  if (!hasSet(sizes)) return [];
  const [standing, layers] = [standingIn(sizes), layersIn(sizes)];
  const outlines = Array.from({ length: smaller(sizes).length + 1 }, (_, k): Measure => {
    const cuts = [
      ...(k < standing ? [`base and cover of easel ${k + 1}`] : []),
      ...Array.from({ length: layers }, (__, l) => k - l - 1)
        .filter((easel) => easel >= 0 && easel < standing)
        .map((easel) => `a layer of easel ${easel + 1}`),
    ];
    return mm(
      `outline${k + 1}`,
      `Outline ${k + 1} of the set, height`,
      num(k === 0 ? sizes : smaller(sizes)[k - 1]!, 'size'),
      cuts.length > 0 ? `cut for ${cuts.join(', ')}` : 'not used: nothing stands of it, and no cover takes it as a layer',
    );
  });
  const places = nested.flatMap(({ foldAt, lip }, i): Measure[] => [
    mm(
      `nestedFold${i + 2}`,
      `Fold of easel ${i + 2} from that of easel ${i + 1}`,
      foldAt,
      'where the foot stands for its lean, less how far the raised edge reaches over it and how far that edge lies from its fold',
    ),
    mm(
      `foamShort${i + 2}`,
      `Foam stops short of the raised edge of easel ${i + 2} by`,
      lip,
      '(foam − foot’s thickness × cos(lean)) ÷ tan(lean): so far the foot goes in under the edge before its front touches it',
    ),
    angle(`lean${i + 2}`, `Lean of easel ${i + 2}`, hungLean(sizes, i + 1), 'as wished: the foot is placed for it'),
  ]);
  return [...outlines, ...places];
}
