import { ROOT } from '../card/document.js';
import type { OwnEnvelope } from '../card/dressing.js';
import type { Design } from '../card/join.js';
import type { Mm } from '../measure/units.js';
import { rulerStep, type Notation } from '../measure/units.js';
import { inset } from '../plane/inset.js';
import { asArea, boxOf, type Loop } from '../plane/outline.js';
import type { Point } from '../plane/point.js';
import { cutSheet, type CutSheet } from '../sheet/cut-sheet.js';
import { blankPiece, type Crease } from '../sheet/piece.js';
import type { Stock } from '../supplies/stocks.js';
import { ENVELOPE_EASE, FLAP_OVERLAP, type PostedCard } from './square-envelope.js';

/** The tip of a flap keeps so far from the fold opposite. */
const TIP_CLEAR: Mm = 2;
/** A liner leaves so much of the closing flap's edges free for gum, and so much of the pocket's. */
const GUM: Mm = 10;
const LINER_PLAY: Mm = 1.5;

/** A square with every place on a mark of the maker's ruler, that folds into a pocket no smaller than a card asks. */
export interface EnvelopeOnMarks {
  square: Mm;
  /** from corners A, along the edges, to the pocket's corners */
  firstFold: Mm;
  /** how deep the notches are there, and how far they open on either side */
  notch: Mm;
  /** inside: between the folds of flaps A, and between those of flaps B */
  pocket: readonly [shorter: Mm, longer: Mm];
  /** so far along the edges from corners A, and from corners B, their tips are cut off; 0 where they stay clear of the fold opposite */
  tips: readonly [a: Mm, b: Mm];
  /** flaps B lap over each other by so much */
  seam: Mm;
}

/**
 * The square of a folded envelope brought onto marks: nothing is rounded down that a card must pass. The pocket's corners lie
 * f along an edge and n inside it; its sides are (f − n) · √2 and (S − f − n) · √2.
 */
export function squareEnvelopeOnMarks(
  card: PostedCard,
  notation: Notation,
  { ease = ENVELOPE_EASE, overlap = FLAP_OVERLAP }: Pick<OwnEnvelope, 'ease' | 'overlap'> = {},
): EnvelopeOnMarks {
  const step = rulerStep(notation);
  const up = (mm: Mm): Mm => Math.ceil(mm / step - 1e-9) * step;
  const inside = (side: Mm): Mm => (side + card.thickness + ease) / Math.SQRT2;
  const notch = up(overlap / 2);
  const firstFold = notch + up(inside(Math.min(card.width, card.height)));
  const square = firstFold + notch + up(inside(Math.max(card.width, card.height)));
  const pocket = [(firstFold - notch) * Math.SQRT2, (square - firstFold - notch) * Math.SQRT2] as const;
  // A flap is a corner of legs f + n, or S − f + n, and as high as that ÷ √2; cutting its tip t along the edges takes t ÷ √2.
  const highs = [(firstFold + notch) / Math.SQRT2, (square - firstFold + notch) / Math.SQRT2] as const;
  const tip = (high: Mm, opposite: Mm): Mm => {
    const over = high - (opposite - TIP_CLEAR);
    return over > 0 ? up(over * Math.SQRT2) : 0;
  };
  const tips = [tip(highs[0], pocket[1]), tip(highs[1], pocket[0])] as const;
  return { square, firstFold, notch, pocket, tips, seam: 2 * (highs[1] - tips[1] / Math.SQRT2) - pocket[0] };
}

/** An envelope of its own for a card, as pieces. */
export interface FoldedEnvelope {
  made: EnvelopeOnMarks;
  stock: Stock;
  sheet: CutSheet;
  liner?: { stock: Stock; sheet: CutSheet };
}

/** Ids of its pieces. */
export const ENVELOPE_PIECE = 'envelope';
export const LINER_PIECE = 'envelope-liner';

/** The envelope that a card carries the wish for. @param posted the closed card with all that is on it */
export function foldedEnvelope({ card }: Pick<Design, 'card'>, posted: PostedCard): FoldedEnvelope | undefined {
  const own = card.dressing?.envelope;
  if (!own) return undefined;
  const stock = (id: string): Stock => card.supplies.stocks.find((entry) => entry.id === id)!;
  const made = squareEnvelopeOnMarks(posted, card.notation, own);
  return {
    ...{ made, stock: stock(own.stock), sheet: envelopeSheet(made) },
    ...(own.liner !== undefined && { liner: { stock: stock(own.liner), sheet: linerSheet(made) } }),
  };
}

/** Corners of the pocket, from the lower edge round. */
const pocketCorners = ({ square: s, firstFold: f, notch: n }: EnvelopeOnMarks): readonly [Point, Point, Point, Point] => [
  [f, n],
  [s - n, s - f],
  [s - f, s - n],
  [n, f],
];

/** The square with its notches and tips. Corners A are the lower left and the upper right one; its inside is toward you. */
export function envelopeOutline({ square: s, firstFold: f, notch: n, tips: [ta, tb] }: EnvelopeOnMarks): Loop {
  const half: Point[] = [
    ...(ta > 0
      ? ([
          [0, ta],
          [ta, 0],
        ] as const)
      : ([[0, 0]] as const)),
    [f - n, 0],
    [f, n],
    [f + n, 0],
    ...(tb > 0
      ? ([
          [s - tb, 0],
          [s, tb],
        ] as const)
      : ([[s, 0]] as const)),
    [s, s - f - n],
    [s - n, s - f],
    [s, s - f + n],
  ];
  return [...half, ...half.map(([x, y]): Point => [s - x, s - y])];
}

function envelopeSheet(made: EnvelopeOnMarks): CutSheet {
  const corners = pocketCorners(made);
  const names = ['the lower flap B', 'the right flap A', 'the upper flap B', 'the left flap A'];
  const creases = corners.map((from, i): Crease => ({
    id: `fold-${i + 1}`,
    name: `fold of ${names[i]}`,
    from,
    to: corners[(i + 1) % 4]!,
    fold: 'valley',
    closed: Math.PI,
    ease: 0,
  }));
  return cutSheet(
    blankPiece({
      ...{
        id: ENVELOPE_PIECE,
        name: 'Envelope',
        stock: 'display',
        faceUp: 'inside up',
        outline: envelopeOutline(made),
        creases,
        part: ROOT,
      },
      because: 'so that its pocket takes the closed card with its thickness and ease both ways',
    }),
  );
}

/** What covers the pocket and the closing flap inside, clear of where gum goes. */
function linerSheet(made: EnvelopeOnMarks): CutSheet {
  const { square: s, firstFold: f, notch: n, tips } = made;
  const [, t] = tips;
  const [low, right, high, left] = pocketCorners(made);
  const flap: Point[] = [
    [s - f - n, s],
    ...(t > 0
      ? ([
          [t, s],
          [0, s - t],
        ] as const)
      : ([[0, s]] as const)),
    [0, f + n],
  ];
  const whole: Loop = [low, right, high, ...flap, left];
  const borders = whole.map((_, i) => (i < 2 || i === whole.length - 1 ? LINER_PLAY : GUM));
  const [area] = inset(asArea(whole), borders, 0);
  const outline = area!.outer;
  const { minX, minY } = boxOf(outline);
  // The fold of the closing flap, between the liner's own edges.
  const along = (share: number): Point => [left[0] + share * (high[0] - left[0]), left[1] + share * (high[1] - left[1])];
  const long = Math.hypot(high[0] - left[0], high[1] - left[1]);
  const crease: Crease = {
    ...{ id: 'fold', name: 'fold of the closing flap', fold: 'valley', closed: Math.PI, ease: 0 },
    from: along(LINER_PLAY / long),
    to: along(1 - LINER_PLAY / long),
  };
  return cutSheet(
    blankPiece({
      ...{ id: LINER_PIECE, name: 'Liner of the envelope', stock: 'display', faceUp: 'its good side up', part: ROOT },
      ...{
        outline: outline.map(([x, y]): Point => [x - minX, y - minY]),
        because: 'covers the pocket and the closing flap, clear of the gum',
      },
      creases: [{ ...crease, from: [crease.from[0] - minX, crease.from[1] - minY], to: [crease.to[0] - minX, crease.to[1] - minY] }],
    }),
  );
}
