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
  const easel = items(sizes, 'easels')[index]!;
  const [high, flap, strut, base] = [num(easel, 'displayHeight'), num(easel, 'flap'), num(easel, 'strut'), num(easel, 'base')];
  const [id, own, width] = [`easel-${index + 1}`, `easel ${index + 1}`, widthOf(sizes, easel)];
  const { x, drawn } = panelStrip(width, [
    {
      panel: 'display',
      name: `display of ${own}`,
      width: high,
      then: { id: 'foot-fold', name: `foot fold of ${own}`, fold: 'mountain', closed: -Math.PI },
    },
    { panel: 'flap', name: `flap of ${own}`, width: flap, then: { id: 'flap-fold', name: `hinge of ${own}`, fold: 'valley', closed: 0 } },
    {
      panel: 'strut',
      name: `strut of ${own}`,
      width: strut,
      then: { id: 'back-fold', name: `back fold of ${own}`, fold: 'valley', closed: Math.PI },
    },
    { panel: 'tab', name: `base of ${own}`, width: base },
  ]);
  const [footFold, backFold] = [x[1]!, x[3]!];
  const covered = Math.min(flap, high);
  const places = placesOfBase(sizes, index);
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
        outline: rectangle(high - covered + TAB_CLEARANCE, TAB_CLEARANCE, covered - 2 * TAB_CLEARANCE, width - 2 * TAB_CLEARANCE),
        says: 'glue to the flap, clear of both folds',
      },
      ...places.map((place) => ({
        id: place.zone,
        kind: 'glue' as const,
        face: 'down' as const,
        outline: rectangle(backFold + place.from, (width - place.width) / 2 + 1, place.to - place.from - 1, place.width - 2),
        says: 'glue with the back fold on its line, the base to the front',
      })),
    ],
    ...drawn,
  });
  const onFlap: Bond = {
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
  };
  const down = places.map((place): Bond => ({
    id: `${id}-${place.zone}`,
    name: `base of ${own} on the ${place.name}`,
    panel: `${id}/tab`,
    face: 'down',
    partner: place.panel,
    partnerFace: 'up',
    zone: place.zone,
    placement: shifted([place.backEdge - backFold, place.aside]),
    ...(places.length > 1 && { atOnce: `base of ${own}` }),
  }));
  return { piece, bonds: [onFlap, ...down], footFold, backFold, width };
}

/** A stretch of a base that is glued down, from its back edge on, and what it lies on. */
interface PlaceOfBase {
  zone: string;
  name: string;
  panel: string;
  from: Mm;
  to: Mm;
  /** of the glue, along the fold */
  width: Mm;
  /** where the base’s back edge and its lower side lie on that piece */
  backEdge: Mm;
  aside: Mm;
}

/** On the base of the easel behind as far as that reaches and is as wide, on the board beyond. */
function placesOfBase(sizes: Sizes, index: number): PlaceOfBase[] {
  const all = items(sizes, 'easels');
  const [easel, behind] = [all[index]!, all[index - 1]];
  const [base, back, width] = [num(easel, 'base'), num(easel, 'back'), widthOf(sizes, easel)];
  const shared = behind ? Math.min(base, num(behind, 'back') + num(behind, 'base') - back) : 0;
  const places: PlaceOfBase[] = [];
  if (behind && shared >= LEAST_SHARED) {
    const wide = widthOf(sizes, behind);
    places.push({
      zone: 'behind-glue',
      name: `base of easel ${index}`,
      panel: `easel-${index}/tab`,
      from: TAB_CLEARANCE,
      to: shared - 0.5,
      width: Math.min(width, wide),
      backEdge: wholeStripSpan(behind) + back - num(behind, 'back'),
      aside: (wide - width) / 2,
    });
  }
  const from = places.length > 0 ? shared + TAB_CLEARANCE : TAB_CLEARANCE;
  if (places.length === 0 || base - from >= LEAST_SHARED) {
    places.push({
      zone: 'tab-glue',
      name: 'board',
      panel: 'board/board',
      from,
      to: base,
      width,
      backEdge: back,
      aside: (num(sizes, 'width') - width) / 2,
    });
  }
  return places;
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
