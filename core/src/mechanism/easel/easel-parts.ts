import { shifted } from '../../plane/placement.js';
import { toRadians, type Mm, type Radians } from '../../measure/units.js';
import { rectangle } from '../../plane/outline.js';
import type { Point } from '../../plane/point.js';
import { blankPiece, type Face, type Piece } from '../../sheet/piece.js';
import { STOP_CALIPERS } from '../../supplies/limits.js';
import type { Bond } from '../../linkage/structure.js';
import type { AlternativeSize, Measure } from '../contract.js';
import { num, type FreeSize, type Range, type SizeContext, type Sizes } from '../sizes.js';
import { mm, angle } from '../measures.js';

/** Steeper tips backward, flatter slides off. */
export const STEEPEST: Radians = toRadians(85);
export const FLATTEST: Radians = toRadians(20);

/** How every easel on its own board is put down and looked at: opened, from in front and a little from the side. */
export const EASEL_POSE = { at: 1, up: [0, 0, 1], viewFrom: [1, 0.75, 0.55] } as const;

/** The two sides of an easel's triangle: strut, and hinge above the foot. */
export interface EaselSides {
  strut: Mm;
  foot: Mm;
}

/**
 * Lean of the display from the table when its foot stands at `stop` from the back edge: the strut and
 * the foot part are two sides of a triangle on the base (law of cosines).
 */
export function easelLean(strut: Mm, foot: Mm, stop: Mm): Radians {
  return Math.acos((foot * foot + stop * stop - strut * strut) / (2 * foot * stop));
}

/** Angle of the strut from the table, the triangle's corner at the back edge. */
export function strutRise({ strut, foot }: EaselSides, stop: Mm): Radians {
  return Math.acos((strut * strut + stop * stop - foot * foot) / (2 * strut * stop));
}

/**
 * Angle between strut and foot part when the strut has risen a share of its way: the two base angles of the
 * triangle, by the law of sines. Of the two places the foot may have, the one in front of the hinge.
 */
export function hingeTurn(sides: EaselSides, stop: Mm, share: number): Radians {
  const rise = share * strutRise(sides, stop);
  return rise + Math.asin(Math.min(1, (sides.strut * Math.sin(rise)) / sides.foot));
}

/**
 * Stop distance that gives a lean, the display in front of its strut. A strut shorter than the foot part
 * cannot lean it steeper than asin(strut ÷ foot part): then the stop for that lean comes back.
 */
export function stopForLean(lean: Radians, { strut, foot }: EaselSides): Mm {
  const across = foot * Math.sin(lean);
  return across >= strut ? Math.sqrt(foot * foot - strut * strut) : foot * Math.cos(lean) + Math.sqrt(strut * strut - across * across);
}

/** A narrower stop peels off. */
export const LEAST_STOP: Mm = 4;

/** Where a stop may be: steep to flat, and on a base of this depth with room for the narrowest stop. */
export function stopRange(sides: EaselSides, baseDepth: Mm, stopWidth: Mm = LEAST_STOP): Range {
  const onBase = baseDepth - stopWidth;
  const flattest = Math.min(stopForLean(FLATTEST, sides), (sides.strut + sides.foot) * 0.995);
  return {
    min: stopForLean(STEEPEST, sides),
    max: Math.min(onBase, flattest),
    because:
      onBase < flattest
        ? 'the whole stop must lie on the base, and nearer than the least distance the display tips backward'
        : 'the display leans between 85° (steeper tips backward) and 20° (flatter slides off), and the stop must lie on the base',
  };
}

/** The lean in place of the stop distance. */
export function leanAlternative(sidesOf: (sizes: Sizes) => EaselSides, help: string): AlternativeSize {
  return {
    name: 'lean',
    label: 'Lean from the table',
    kind: 'angle',
    insteadOf: 'stopDistance',
    help,
    toSize: (lean, sizes) => stopForLean(lean, sidesOf(sizes)),
    fromSize: (sizes) => easelLean(sidesOf(sizes).strut, sidesOf(sizes).foot, num(sizes, 'stopDistance')),
  };
}

/** A stop where it is wanted, or as near to it as its limits allow. */
export function stopNear(wanted: Mm, { min, max }: Range): Mm {
  return Math.max(min, Math.min(max, wanted));
}

/** A foot of two thicknesses of the base card. */
export const bareFoot = ({ baseCaliper }: SizeContext): Mm => 2 * baseCaliper;

/**
 * What the stop is, and height, width and length of the raised strip.
 * @param room from the stop's near side to the edge of the base
 * @param foot how thick the foot is that it has to hold
 */
export function stopSizes(
  width: (context: SizeContext) => Mm,
  room: (context: SizeContext) => Mm,
  foot: (context: SizeContext) => Mm = bareFoot,
): FreeSize[] {
  return [
    {
      name: 'stop',
      label: 'Stop',
      kind: 'choice',
      default: 'strip',
      help: 'What holds the foot: a strip of foam or layers, or a topper that you place in front of it.',
      options: [
        { value: 'strip', label: 'a raised strip' },
        { value: 'topper', label: 'a topper' },
      ],
    },
    ...stripSizes(width, room, foot).map((size): FreeSize => ({ ...size, shown: (sizes) => sizes['stop'] !== 'topper' })),
  ];
}

function stripSizes(
  width: (context: SizeContext) => Mm,
  room: (context: SizeContext) => Mm,
  foot: (context: SizeContext) => Mm,
): FreeSize[] {
  return [
    {
      name: 'stopHeight',
      label: 'Stop height',
      kind: 'length',
      default: (context) => Math.max(2, Math.ceil(2 * STOP_CALIPERS * foot(context)) / 2),
      help: 'How far the stop stands up from the base: foam or layers.',
      range: () => ({ min: 0.3, max: 12, because: 'a stop is a raised strip that still lets the card close' }),
    },
    {
      name: 'stopWidth',
      label: 'Stop width',
      kind: 'length',
      default: (context) => Math.max(LEAST_STOP, Math.min(8, room(context))),
      help: 'Across the stop.',
      range: (context) => ({
        min: LEAST_STOP,
        max: Math.max(LEAST_STOP, Math.min(30, room(context))),
        because: 'a narrower strip peels off, and the whole stop lies on the base',
      }),
    },
    {
      name: 'stopLength',
      label: 'Stop length',
      kind: 'length',
      default: (context) => Math.round(width(context) * 0.6),
      help: 'Along the fold, centred.',
      range: (context) => ({ min: Math.min(10, width(context)), max: width(context), because: 'the stop lies on the base' }),
    },
  ];
}

/** The raised strip of an easel; none where a topper is its stop. */
export const ownStop = (sizes: Sizes, ...given: Parameters<typeof stopStrip>): { pieces: Piece[]; bonds: Bond[] } => {
  if (sizes['stop'] === 'topper') return { pieces: [], bonds: [] };
  const { piece, bond } = stopStrip(...given);
  return { pieces: [piece], bonds: [bond] };
};

/** How high a stop is: what only the maker's topper tells is left open. */
export const stopHeight = (sizes: Sizes): { height: Mm } | { byTopper: true; height: Mm } =>
  sizes['stop'] === 'topper' ? { byTopper: true, height: 0 } : { height: num(sizes, 'stopHeight') };

/** A raised strip, glued whole onto a face of a panel with its near side at `at` (lower corner). */
export function stopStrip(
  id: string,
  { width, length, height }: { width: Mm; length: Mm; height: Mm },
  on: { panel: string; at: Point; face?: Face },
): { piece: Piece; bond: Bond } {
  const face = on.face ?? 'up';
  const glue = rectangle(0.5, 0.5, width - 1, length - 1);
  const piece = blankPiece({
    id,
    name: id === 'stop' ? 'Stop' : `Stop ${id.replace(/\D+/g, '')}`,
    stock: 'stop',
    faceUp: 'either face up',
    outline: rectangle(0, 0, width, length),
    because: 'a strip long enough to hold the foot straight',
    thickness: height,
    zones: [{ id: 'stop-glue', kind: 'glue', face: 'down', outline: glue, says: 'glue the whole stop' }],
    anchors: [{ panel: 'stop', name: 'stop', at: [width / 2, length / 2] }],
  });
  const bond: Bond = {
    id: `${id}-on-base`,
    name: 'stop on the base',
    panel: `${id}/stop`,
    face: 'down',
    partner: on.panel,
    partnerFace: face,
    zone: 'stop-glue',
    placement: face === 'up' ? shifted(on.at) : { to: [on.at[0] + width, on.at[1]], turn: 0, flipped: true },
  };
  return { piece, bond };
}

/** What every easel's triangle gives. */
export function triangleMeasures(sides: EaselSides, stop: Mm, displayHeight: Mm): Measure[] {
  const lean = easelLean(sides.strut, sides.foot, stop);
  return [
    angle(
      'lean',
      'Lean from the table',
      lean,
      'strut, foot part and stop distance make a triangle: cos(lean) = (foot² + stop² − strut²) ÷ (2 × foot × stop), which is stop ÷ (2 × strut) when strut and foot part are equal',
    ),
    angle('strutRise', 'Strut from the table', strutRise(sides, stop), 'the third side of the same triangle, at the back edge'),
    mm('standingHeight', 'Top of the display', displayHeight * Math.sin(lean), 'display height × sin(lean)'),
  ];
}
