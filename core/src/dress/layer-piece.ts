import { ROOT } from '../card/document.js';
import { SIDE_NAMES, type LayerJoint, type LayerRule, type Side } from '../card/dressing.js';
import type { Design } from '../card/join.js';
import { inSentence } from '../card/part-titles.js';
import type { Mm } from '../measure/units.js';
import { areasOf, subtract } from '../plane/boolean.js';
import { asArea, boxOf, type Area, type Loop } from '../plane/outline.js';
import { place, undone, type Placement } from '../plane/placement.js';
import { cutSheet } from '../sheet/cut-sheet.js';
import type { Panel } from '../sheet/panels.js';
import { blankPiece, type Face } from '../sheet/piece.js';
import { GLUE_FILM } from '../supplies/limits.js';
import type { Stock } from '../supplies/stocks.js';
import type { DressedLayer, SeenSide } from './layer.js';

/** What of a layer is cut as one piece. */
export interface LayerPart {
  area: Area;
  /** of the strip that it is */
  side?: Side;
  /** which of two papers that meet it is, or the strip over their line */
  of?: 'first' | 'second' | 'cover';
  joint?: LayerJoint;
}

/** One piece of a layer, and what is known of the face that wears it. */
export interface Making {
  design: Design;
  panel: Panel;
  seen: SeenSide;
  rule: LayerRule;
  part: LayerPart;
  free: Area;
  step: number;
  covers: boolean;
  seams: number;
  even: Mm | undefined;
  nth: number;
}

/** A piece of a layer as it lies on its panel and as it is cut; it has no number yet. */
export function layerOf({ design, panel, seen, rule, part, free, step, covers, seams, even, nth }: Making): DressedLayer {
  const { area, joint } = part;
  const id = layerId(panel.id, seen.face, nth);
  const given = part.of === 'second' ? joint!.stock : part.of === 'cover' ? joint!.cover!.stock : rule.stock;
  const stock = stockFor(design, id, given);
  const [inner, outer] = [boxOf(area.outer), boxOf(panel.area.outer)];
  const placement = laidOn(area, seen);
  const cut = (loop: Loop): Loop => {
    const moved = loop.map((point) => place(point, undone(placement)));
    return placement.flipped ? moved.reverse() : moved;
  };
  const borders = {
    left: inner.minX - outer.minX,
    right: outer.maxX - inner.maxX,
    bottom: inner.minY - outer.minY,
    top: outer.maxY - inner.maxY,
  };
  const reachesPast = Object.values(borders).some((border) => border < 0);
  const name = `${partName(part)}layer${step > 1 && part.of !== 'cover' ? ` ${step}` : ''} of the ${inSentence(panel.name)}${seen.face === 'down' ? ', its back' : ''}`;
  const sheet = cutSheet(
    blankPiece({
      id,
      name,
      stock: 'display',
      faceUp: 'its good side up, with what is up on the open card at the top',
      outline: cut(area.outer),
      because: because(part, covers, reachesPast),
      windows: area.holes.map((hole, i) => ({ id: `opening-${i + 1}`, outline: cut(hole) })),
      part: panel.part ?? panel.piece.part ?? ROOT,
    }),
  );
  return {
    ...{ id, number: '', name, panel: panel.id, panelName: panel.name, face: seen.face, area, free, step, stock },
    ...{ part: sheet.piece.part!, covers, seams, placement, sheet, borders },
    thickness: stock.caliper + GLUE_FILM,
    weight: stock.weight,
    panelBox: { width: outer.maxX - outer.minX, height: outer.maxY - outer.minY },
    box: { width: inner.maxX - inner.minX, height: inner.maxY - inner.minY },
    past: reachesPast ? areasOf(subtract([area], [asArea(panel.area.outer)])) : [],
    ...(joint && { joint: { runs: joint.runs, at: joint.at, of: part.of! } }),
    ...(even !== undefined && { evenBorder: even }),
    shows: seen.shows,
    upWhenOpen: seen.up,
  };
}

function partName({ side, of }: LayerPart): string {
  if (side) return `${SIDE_NAMES[side]} strip of the `;
  if (of === 'cover') return 'strip over the joint of the ';
  return of ? `${of} paper of the ` : '';
}

function because({ side, of }: LayerPart, covers: boolean, reachesPast: boolean): string {
  if (covers) return 'covers the strip fully';
  if (side) return 'what is left beside the window and the border, between its neighbours';
  if (of === 'cover') return 'as long as the line along which two papers meet, and as wide as you wish it';
  if (of) return 'as large as its panel, less the border, up to the line along which two papers meet';
  return reachesPast
    ? 'as large as its panel, less the border or with what stands past it on each side'
    : 'as large as its panel, less the border on each side';
}

/** From a sheet whose lower left corner is the origin, good side toward you and up at the top, onto the panel's face. */
export function laidOn(area: Area, { face, up }: Pick<SeenSide, 'face' | 'up'>): Placement {
  const turn = { top: 0, left: Math.PI / 2, bottom: Math.PI, right: -Math.PI / 2 }[up];
  const turned: Placement = { to: [0, 0], turn, flipped: face === 'down' };
  const back = undone(turned);
  const { minX, minY } = boxOf(area.outer.map((point) => place(point, back)));
  return { ...turned, to: place([minX, minY], turned) };
}

/** The stock of one piece of a layer: its own where it has one, else the one that was given. */
function stockFor({ card, stocks }: Design, id: string, given: string): Stock {
  const named = card.pieceStocks?.[id] ?? given;
  return stocks.pieces[id] ?? card.supplies.stocks.find((stock) => stock.id === named)!;
}

const layerId = (panel: string, face: Face, nth: number): string =>
  `layer-${panel.replace(/[^a-z0-9]+/gi, '-')}-${face}${nth > 0 ? `-${nth + 1}` : ''}`.slice(0, 64);
