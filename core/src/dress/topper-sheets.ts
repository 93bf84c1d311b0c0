import type { Topper, TopperFilm } from '../card/dressing.js';
import { stockOf } from '../card/card-stocks.js';
import type { Design } from '../card/join.js';
import type { Worn } from '../card/worn.js';
import type { Mm } from '../measure/units.js';
import { areasOf, largestOf, offset, subtract } from '../plane/boolean.js';
import { areaOf, asArea, boxOf, movedArea, rectangle, type Area, type Loop } from '../plane/outline.js';
import { composed, place, shifted, undone, type Placement } from '../plane/placement.js';
import { cutSheet, type CutSheet } from '../sheet/cut-sheet.js';
import type { Panel } from '../sheet/panels.js';
import { blankPiece, type Face, type PieceImage } from '../sheet/piece.js';
import { GLUE_FILM } from '../supplies/limits.js';
import { isClear, type Stock } from '../supplies/stocks.js';
import { freeFace } from './free-face.js';

/** Film ends so far under the upper edge of what it carries, so that it does not show there. */
export const FILM_UNDER_TOP: Mm = 3;
/** A twin keeps so far from what lies in its way. */
export const TWIN_KEPT_OFF: Mm = 1;
/** Less than this of a back is not worth a twin, mm². */
const LEAST_TWIN = 16;
const LETTERS = ['a', 'b', 'c'] as const;
const BECAUSE: Readonly<Record<TopperSheet['as'], string>> = {
  backing: 'wider than what lies on it, by its border all round',
  film: 'as wide and as long as you wish it',
  twin: 'the mirror image of what it covers, as far as that is free',
};

/** A sheet that a topper is put together with: a paper behind it, the film that it stands on, or the twin that covers its back. */
export interface TopperSheet extends Worn {
  as: 'backing' | 'film' | 'twin';
  /** T1a for the paper right behind T1, then T1b; T1 film; T1 twin */
  number: string;
  stock: Stock;
  part: string;
  /** from the sheet that it is cut from, upright and its good side toward you, onto the panel's piece */
  placement: Placement;
  sheet: CutSheet;
}

/** A topper by itself: its outline, upright, and how that lies on the panel's piece. */
interface Bare {
  id: string;
  number: string;
  part: string;
  panel: string;
  flat: Loop;
  placement: Placement;
  /** the picture on it */
  image?: PieceImage | undefined;
}

/**
 * The sheets under a topper, from the panel outward: its twin, its film, the papers behind it with the widest lowest. The twin
 * covers the back of the widest paper wherever nothing lies behind that; there is none where nothing of it is free.
 */
export function sheetsUnder(design: Design, topper: Topper, panel: Panel, bare: Bare): TopperSheet[] {
  const { backings = [], film, twin } = topper;
  if (backings.length === 0 && !film && !twin) return [];
  let by: Mm = 0;
  const papers = backings.flatMap(({ border, stock }, i): { sheet: TopperSheet; outline: Loop }[] => {
    by += border;
    const outline = largestOf(offset(bare.flat, by));
    const sheet = outline && sheetOf(design, bare, asArea(outline), { as: 'backing', nth: i, stock, face: topper.face });
    return sheet ? [{ sheet, outline }] : [];
  });
  const widest = papers.at(-1)?.outline ?? bare.flat;
  return [
    ...(twin ? twinOf(design, topper, panel, bare, widest) : []),
    ...(film ? [sheetOf(design, bare, asArea(filmUnder(bare.flat, film)), { as: 'film', stock: film.stock, face: topper.face })] : []),
    ...papers.map(({ sheet }) => sheet).reverse(),
  ];
}

/** The strip of film under an upright outline, in its middle. */
function filmUnder(flat: Loop, { wide, long }: TopperFilm): Loop {
  const { minX, maxX, maxY } = boxOf(flat);
  return rectangle((minX + maxX - wide) / 2, maxY - FILM_UNDER_TOP - long, wide, long);
}

/** The mirror image of an outline, as far as its back is free. */
function twinOf(design: Design, topper: Topper, panel: Panel, bare: Bare, outline: Loop): TopperSheet[] {
  const { face, blocked } = behind(design, panel, topper.face);
  const onPanel = movedArea(asArea(outline), (point) => place(point, bare.placement));
  const [free] = areasOf(subtract([onPanel], blocked)).sort((a, b) => areaOf(b) - areaOf(a));
  if (!free || areaOf(free) < LEAST_TWIN) return [];
  const back = undone(bare.placement);
  return [
    sheetOf(
      design,
      bare,
      movedArea(free, (point) => place(point, back)),
      { as: 'twin', stock: topper.stock, face, image: bare.image },
    ),
  ];
}

/** What lies in the way behind a topper, and the face that its twin is glued on. */
function behind(design: Design, panel: Panel, face: Face): { face: Face; blocked: readonly Area[] } {
  // Through clear film all of it is seen; of other panels what stands past their edges or over their openings.
  if (isClear(stockOf(design, panel.piece))) {
    const other = face === 'up' ? 'down' : 'up';
    return { face: other, blocked: areasOf(subtract([panel.area], freeFace(design, panel, other))) };
  }
  const { outer, holes } = panel.area;
  const around = largestOf(offset(outer, TWIN_KEPT_OFF)) ?? outer;
  return { face, blocked: [{ outer: around, holes: holes.flatMap((hole) => offset(hole, -TWIN_KEPT_OFF)) }] };
}

interface Kind {
  as: TopperSheet['as'];
  /** from 0, of the papers behind it */
  nth?: number;
  stock: string;
  face: Face;
  image?: PieceImage | undefined;
}

/** A picture of a topper as it is on a twin whose lower left corner lies under a point of that: seen in a mirror. */
const seenFromBehind = ({ x, y, width, mirrored, ...image }: PieceImage, maxX: Mm, minY: Mm): PieceImage => ({
  ...image,
  width,
  x: maxX - x - width,
  y: y - minY,
  ...(!mirrored && { mirrored: true as const }),
});

/** One of those sheets. @param area as it lies under the upright topper, seen from that one's good side */
function sheetOf(design: Design, bare: Bare, area: Area, { as, nth = 0, stock: given, face, image }: Kind): TopperSheet {
  const { minX, minY, maxX } = boxOf(area.outer);
  // What covers a back is cut with its own good side toward you.
  const onTopper: Placement = as === 'twin' ? { to: [maxX, minY], turn: 0, flipped: true } : shifted([minX, minY]);
  const cut = movedArea(area, (point) => place(point, undone(onTopper)));
  const mark = as === 'backing' ? LETTERS[nth]! : as;
  const number = as === 'backing' ? `${bare.number}${mark}` : `${bare.number} ${mark}`;
  const id = `${bare.id.slice(0, 56)}-${mark}`;
  const name = as === 'backing' ? `${number}, paper behind it` : number;
  const stock = design.card.supplies.stocks.find((entry) => entry.id === (design.card.pieceStocks?.[id] ?? given))!;
  const { part, panel } = bare;
  return {
    ...{ as, id, number, name, panel, face, stock, part },
    area: movedArea(area, (point) => place(point, bare.placement)),
    thickness: stock.caliper + GLUE_FILM,
    weight: stock.weight,
    placement: composed(bare.placement, onTopper),
    sheet: cutSheet(
      blankPiece({
        ...{ id, name, part },
        stock: as === 'film' ? 'film' : 'display',
        faceUp: 'its good side up',
        outline: cut.outer,
        windows: cut.holes.map((outline, i) => ({ id: `opening-${i + 1}`, outline })),
        because: BECAUSE[as],
        ...(image && { image: seenFromBehind(image, maxX, minY) }),
      }),
    ),
  };
}
