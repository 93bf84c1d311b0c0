import { shifted } from '../../plane/placement.js';
import type { Mm } from '../../measure/units.js';
import { rectangle } from '../../plane/outline.js';
import { blankPiece, type Piece } from '../../sheet/piece.js';
import { TAB_CLEARANCE } from '../../supplies/limits.js';
import type { Bond } from '../../linkage/structure.js';
import type { Measure } from '../contract.js';
import { panelStrip } from '../drawing/panel-strip.js';
import { mm } from '../measures.js';
import { items, num, type SizeItem, type Sizes } from '../sizes.js';

export const isOfStrips = (sizes: Sizes): boolean => sizes['form'] === 'strips';

/** A base lies on the one behind it where they share at least this much; less is left unglued. */
const LEAST_SHARED: Mm = 8;
/** What is left of the board is filled by a strip of its own where it is wide enough to cut. */
const LEAST_FILLER: Mm = 6;

/** An easel of a row cut as one strip: display, flap, strut and base one after the other. */
export interface WholeStrip {
  piece: Piece;
  bonds: Bond[];
  /** where its foot fold and its back fold lie on the piece */
  footFold: Mm;
  backFold: Mm;
  width: Mm;
}

/** How wide an easel of the row is. */
const widthOf = (sizes: Sizes, easel: SizeItem): Mm => Math.min(num(easel, 'displayWidth'), num(sizes, 'width'));

/**
 * The strip of one easel. Its display is folded over the flap and glued to it; its base lies on the board from its back
 * edge on, and on the base of the easel behind as far as that reaches.
 */
export function wholeStrip(sizes: Sizes, index: number): WholeStrip {
  const all = items(sizes, 'easels');
  const easel = all[index]!;
  const [high, flap, strut, base, back] = ['displayHeight', 'flap', 'strut', 'base', 'back'].map((name) => num(easel, name)) as [
    Mm,
    Mm,
    Mm,
    Mm,
    Mm,
  ];
  const [id, own, width] = [`easel-${index + 1}`, `easel ${index + 1}`, widthOf(sizes, easel)];
  const { x, drawn } = panelStrip(width, [
    {
      panel: 'display',
      name: `${own}, display`,
      width: high,
      then: { id: 'foot-fold', name: `${own}, foot fold`, fold: 'mountain', closed: -Math.PI },
    },
    { panel: 'flap', name: `${own}, flap`, width: flap, then: { id: 'flap-fold', name: `${own}, hinge`, fold: 'valley', closed: 0 } },
    {
      panel: 'strut',
      name: `${own}, strut`,
      width: strut,
      then: { id: 'back-fold', name: `${own}, back fold`, fold: 'valley', closed: Math.PI },
    },
    { panel: 'tab', name: `${own}, base`, width: base },
  ]);
  const [footFold, backFold] = [x[1]!, x[3]!];
  const inside = TAB_CLEARANCE;
  const covered = Math.min(flap, high);
  // On the base of the easel behind as far as that reaches and is as wide, on the board beyond.
  const behind = all[index - 1];
  const shared = behind ? Math.min(base, num(behind, 'back') + num(behind, 'base') - back) : 0;
  const onBehind = behind && shared >= LEAST_SHARED ? { width: Math.min(width, widthOf(sizes, behind)), length: shared } : undefined;
  const boardFrom = onBehind ? shared + TAB_CLEARANCE : TAB_CLEARANCE;
  const onBoard = base - boardFrom >= LEAST_SHARED || !onBehind;
  const aside = (sizes: Sizes, wide: Mm): Mm => (num(sizes, 'width') - wide) / 2;
  const says = 'glue with the back fold on its line, the base to the front';
  const piece = blankPiece({
    id,
    name: `Easel ${index + 1}`,
    stock: 'base',
    faceUp: 'inside up',
    because: 'display, flap, strut and base one after the other, cut as one strip',
    zones: [
      {
        id: 'display-glue',
        kind: 'glue',
        face: 'down',
        outline: rectangle(high - covered + inside, inside, covered - 2 * inside, width - 2 * inside),
        says: 'glue to the flap, clear of both folds',
      },
      ...(onBehind
        ? [
            {
              id: 'behind-glue',
              kind: 'glue' as const,
              face: 'down' as const,
              outline: rectangle(backFold + inside, (width - onBehind.width) / 2 + 1, onBehind.length - inside - 1, onBehind.width - 2),
              says,
            },
          ]
        : []),
      ...(onBoard
        ? [
            {
              id: 'tab-glue',
              kind: 'glue' as const,
              face: 'down' as const,
              outline: rectangle(backFold + boardFrom, 1, base - boardFrom - 1, width - 2),
              says,
            },
          ]
        : []),
    ],
    ...drawn,
  });
  const bonds: Bond[] = [
    {
      id: `${id}-display-on-flap`,
      name: `display on the flap of ${own}`,
      panel: `${id}/display`,
      face: 'down',
      partner: `${id}/flap`,
      partnerFace: 'down',
      zone: 'display-glue',
      placement: { to: [2 * high, 0], turn: 0, flipped: true },
      made: 'on the table',
      says: ['Fold the display right over onto the flap and press it down there, its edges level with those of the flap.'],
    },
  ];
  if (onBehind) {
    const other = wholeStripSpan(behind!);
    bonds.push({
      id: `${id}-on-${index}`,
      name: `base of ${own} on the base of easel ${index}`,
      panel: `${id}/tab`,
      face: 'down',
      partner: `easel-${index}/tab`,
      partnerFace: 'up',
      zone: 'behind-glue',
      placement: shifted([other + back - num(behind!, 'back') - backFold, aside(sizes, width) - aside(sizes, widthOf(sizes, behind!))]),
      ...(onBoard && { atOnce: `base of ${own}` }),
    });
  }
  if (onBoard) {
    bonds.push({
      id: `${id}-on-board`,
      name: `base of ${own} on the board`,
      panel: `${id}/tab`,
      face: 'down',
      partner: 'board/board',
      partnerFace: 'up',
      zone: 'tab-glue',
      placement: shifted([back - backFold, aside(sizes, width)]),
      ...(onBehind && { atOnce: `base of ${own}` }),
    });
  }
  return { piece, bonds, footFold, backFold, width };
}

/** Where the back fold of an easel's strip lies on it. */
const wholeStripSpan = (easel: SizeItem): Mm => num(easel, 'displayHeight') + num(easel, 'flap') + num(easel, 'strut');

/** How much of the board is left in front of the last base. */
export function fillerWidth(sizes: Sizes): Mm {
  const front = Math.max(...items(sizes, 'easels').map((easel) => num(easel, 'back') + num(easel, 'base')));
  const left = num(sizes, 'depth') - front;
  return left >= LEAST_FILLER ? left : 0;
}

/** A strip as high as the base beside it, over what is left of the board in front. */
export function filler(sizes: Sizes): { piece: Piece; bond: Bond } | undefined {
  const wide = fillerWidth(sizes);
  if (wide === 0) return undefined;
  const [depth, width] = [num(sizes, 'depth'), num(sizes, 'width')];
  return {
    piece: blankPiece({
      id: 'filler',
      name: 'Filler strip',
      stock: 'base',
      faceUp: 'either face up',
      outline: rectangle(0, 0, wide, width),
      because: 'what the bases leave of the board in front',
      zones: [
        {
          id: 'filler-glue',
          kind: 'glue',
          face: 'down',
          outline: rectangle(1, 1, wide - 2, width - 2),
          says: 'glue all over, level with the front edge',
        },
      ],
      anchors: [{ panel: 'filler', name: 'filler strip', at: [wide / 2, width / 2] }],
    }),
    bond: {
      id: 'filler-on-board',
      name: 'filler strip on the board',
      panel: 'filler/filler',
      face: 'down',
      partner: 'board/board',
      partnerFace: 'up',
      zone: 'filler-glue',
      placement: shifted([depth - wide, 0]),
    },
  };
}

/** Of every strip its length, and of the board what is left over. */
export const stripRowMeasures = (sizes: Sizes): Measure[] => [
  ...items(sizes, 'easels').map((easel, i) =>
    mm(
      `stripLength${i + 1}`,
      `Strip of easel ${i + 1}, length`,
      wholeStripSpan(easel) + num(easel, 'base'),
      'display, hinge height, strut and base together',
    ),
  ),
  mm(
    'filler',
    'Filler strip',
    fillerWidth(sizes),
    'the depth of the board less the back edge and the base that reach farthest; none where too little is left',
  ),
];
