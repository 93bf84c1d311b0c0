import { stockOf } from '../card/card-stocks.js';
import { ROOT } from '../card/document.js';
import { claimsOf } from '../card/draw.js';
import { SIDE_NAMES, SIDES, type LayerRule, type LayerStrips, type OwnDress, type Side } from '../card/dressing.js';
import type { Design } from '../card/join.js';
import { inSentence } from '../card/part-titles.js';
import type { Mm } from '../measure/units.js';
import { inset, isWiderThan } from '../plane/inset.js';
import { boxOf, type Area, type Loop } from '../plane/outline.js';
import { place, undone, type Placement } from '../plane/placement.js';
import type { Point } from '../plane/point.js';
import { cutSheet } from '../sheet/cut-sheet.js';
import type { Panel } from '../sheet/panels.js';
import { blankPiece, type Face } from '../sheet/piece.js';
import { GLUE_FILM } from '../supplies/limits.js';
import { isClear, type Stock } from '../supplies/stocks.js';
import { freeFace, isHeldBehind, isSeam } from './free-face.js';
import type { BareFace, DressedLayer, Layers, SeenSide } from './layer.js';
import { inStrips } from './strips.js';
import { twinBy } from './twins.js';

/** A strip narrower than so many borders is covered fully: a border on both sides would leave less than half of it. */
const NARROW = 4;
/** Nothing narrower is worth cutting. */
const LEAST_ACROSS: Mm = 5;
/** Of a frame strips are narrower. */
const LEAST_STRIP: Mm = 2;

/** The layers that a card's rule and what differs from it put on every face that is seen. */
export function layersOf(design: Design, sides: readonly SeenSide[]): Layers {
  const rule = design.card.dressing?.layers;
  if (!rule) return { layers: [], bare: [] };
  const bending = new Set(claimsOf(design, 'bends').flatMap(({ panels }) => panels));
  const bare: BareFace[] = [];
  const layers: DressedLayer[] = [];
  for (const seen of sides) {
    const panel = design.panels[design.linkage.bodyOf.get(seen.panel)!]!;
    const own = rule.own?.find((entry) => entry.panel === seen.panel && entry.face === seen.face);
    const found = dressFace(design, panel, seen, rule, own, bending.has(seen.panel));
    if (typeof found === 'string') bare.push({ panel: panel.id, name: panel.name, face: seen.face, why: found });
    else layers.push(...found);
  }
  return { layers: withTwins(layers.map((layer, i) => numbered(layer, i + 1))), bare };
}

function dressFace(
  design: Design,
  panel: Panel,
  seen: SeenSide,
  rule: LayerRule,
  own: OwnDress | undefined,
  bends: boolean,
): DressedLayer[] | BareFace['why'] {
  if (own?.bare) return 'wished';
  if (isClear(stockOf(design, panel.piece))) return 'clear';
  if (panel.piece.thickness !== undefined) return 'raised';
  if (bends) return 'bends';
  const spaces = freeFace(design, panel, seen.face).filter((space) => isWide(space, LEAST_ACROSS));
  if (spaces.length === 0) return 'small';
  const isWhole = spaces[0] === panel.area;
  const isNarrow = (space: Area): boolean => !isWiderThan({ outer: space.outer, holes: [] }, (NARROW / 2) * rule.border);
  if (isWhole && spaces.every(isNarrow) && isHeldBehind(design, panel, seen.face)) return 'tab';
  const made: DressedLayer[] = [];
  for (const space of spaces) {
    const covers = isWhole && isNarrow(space) && !hasOwnBorder(own);
    // Strips on strips would lie over their gaps.
    const steps = covers || own?.strips ? 1 : (own?.steps ?? rule.steps);
    for (let step = 1; step <= steps; step++) {
      const border = bordersOf(design, panel, rule, own, covers, step);
      const around = covers ? 0 : (own?.border ?? rule.border) + (step - 1) * (rule.step ?? rule.border);
      const borders = space.outer.map((from, i) => border(from, space.outer[(i + 1) % space.outer.length]!));
      const kept = inset(space, borders, around).filter((area) => isWide(area, LEAST_ACROSS));
      const seams = borders.filter((wanted) => wanted === 0).length;
      const even = borders.every((wanted) => wanted === borders[0]) ? borders[0] : undefined;
      for (const { area, side } of kept.flatMap((area): PartOfLayer[] =>
        own?.strips && !covers ? cutInStrips(area, own.strips) : [{ area }],
      ))
        made.push(layerOf({ design, panel, seen, rule, own, area, side, free: space, step, covers, seams, even, nth: made.length }));
    }
  }
  return made.length > 0 ? made : 'borders';
}

/** Whether there is a place in an area that is so wide every way. */
const isWide = (area: Area, across: Mm): boolean => isWiderThan(area, across / 2);

const hasOwnBorder = (own: OwnDress | undefined): boolean =>
  own !== undefined && [own.border, ...SIDES.map((side) => own[side])].some((mm) => mm !== undefined);

/** The border of an edge of a panel: none along a seam, its side's own where it has one, else the face's own, else the rule's. */
function bordersOf(design: Design, panel: Panel, rule: LayerRule, own: OwnDress | undefined, covers: boolean, step: number) {
  const further = (step - 1) * (rule.step ?? rule.border);
  return (from: Point, to: Point): Mm => {
    if (covers) return 0;
    const wished = own?.[sideOf(from, to)] ?? own?.border;
    if (wished === undefined && isSeam(design, panel.id, from, to)) return 0;
    // A border of its own that is 0 is a seam that the maker asks for: it stays one at every step.
    return wished === 0 ? 0 : (wished ?? rule.border) + further;
  };
}

/** The side that an edge of a counter-clockwise line bounds. */
function sideOf(from: Point, to: Point): Side {
  const [outX, outY] = [to[1] - from[1], from[0] - to[0]];
  if (Math.abs(outX) >= Math.abs(outY)) return outX > 0 ? 'right' : 'left';
  return outY > 0 ? 'top' : 'bottom';
}

interface PartOfLayer {
  area: Area;
  /** of the strip that it is */
  side?: Side;
}

/** Strips that are wide enough to be cut; in one piece where there is nothing to cut them round. */
function cutInStrips(area: Area, strips: LayerStrips): PartOfLayer[] {
  const cut = inStrips(area, strips);
  return cut.length === 0 ? [{ area }] : cut.filter((strip) => isWide(strip.area, LEAST_STRIP));
}

interface Making {
  design: Design;
  panel: Panel;
  seen: SeenSide;
  rule: LayerRule;
  own: OwnDress | undefined;
  area: Area;
  side: Side | undefined;
  free: Area;
  step: number;
  covers: boolean;
  seams: number;
  even: Mm | undefined;
  nth: number;
}

function layerOf({ design, panel, seen, rule, area, side, free, step, covers, seams, even, nth }: Making): DressedLayer {
  const id = layerId(panel.id, seen.face, nth);
  const stock = stockFor(design, id, rule);
  const [inner, outer] = [boxOf(area.outer), boxOf(panel.area.outer)];
  const placement = laidOn(area, seen);
  const cut = (loop: Loop): Loop => {
    const moved = loop.map((point) => place(point, undone(placement)));
    return placement.flipped ? moved.reverse() : moved;
  };
  const part = panel.part ?? panel.piece.part ?? ROOT;
  const strip = side ? `${SIDE_NAMES[side]} strip of the ` : '';
  const name = `${strip}layer${step > 1 ? ` ${step}` : ''} of the ${inSentence(panel.name)}${seen.face === 'down' ? ', its back' : ''}`;
  const sheet = cutSheet(
    blankPiece({
      id,
      name,
      stock: 'display',
      faceUp: 'its good side up, with what is up on the open card at the top',
      outline: cut(area.outer),
      because: covers
        ? 'covers the strip fully'
        : side
          ? 'what is left beside the window and the border, between its neighbours'
          : 'as large as its panel, less the border on each side',
      windows: area.holes.map((hole, i) => ({ id: `opening-${i + 1}`, outline: cut(hole) })),
      part,
    }),
  );
  return {
    ...{
      id,
      number: '',
      name,
      panel: panel.id,
      panelName: panel.name,
      face: seen.face,
      area,
      free,
      step,
      stock,
      part,
      covers,
      seams,
      placement,
      sheet,
    },
    thickness: stock.caliper + GLUE_FILM,
    weight: stock.weight,
    panelBox: { width: outer.maxX - outer.minX, height: outer.maxY - outer.minY },
    box: { width: inner.maxX - inner.minX, height: inner.maxY - inner.minY },
    borders: {
      left: inner.minX - outer.minX,
      right: outer.maxX - inner.maxX,
      bottom: inner.minY - outer.minY,
      top: outer.maxY - inner.maxY,
    },
    ...(even !== undefined && { evenBorder: even }),
    shows: seen.shows,
    upWhenOpen: seen.up,
  };
}

/** From a sheet whose lower left corner is the origin, good side toward you and up at the top, onto the panel's face. */
export function laidOn(area: Area, { face, up }: Pick<SeenSide, 'face' | 'up'>): Placement {
  const turn = { top: 0, left: Math.PI / 2, bottom: Math.PI, right: -Math.PI / 2 }[up];
  const turned: Placement = { to: [0, 0], turn, flipped: face === 'down' };
  const back = undone(turned);
  const { minX, minY } = boxOf(area.outer.map((point) => place(point, back)));
  return { ...turned, to: place([minX, minY], turned) };
}

/** The stock of one layer: its own where it has one, else that of the rule. */
function stockFor({ card, stocks }: Design, id: string, rule: LayerRule): Stock {
  const named = card.pieceStocks?.[id] ?? rule.stock;
  return stocks.pieces[id] ?? card.supplies.stocks.find((stock) => stock.id === named)!;
}

const layerId = (panel: string, face: Face, nth: number): string =>
  `layer-${panel.replace(/[^a-z0-9]+/gi, '-')}-${face}${nth > 0 ? `-${nth + 1}` : ''}`.slice(0, 64);

function numbered(layer: DressedLayer, n: number): DressedLayer {
  const number = `L${n}`;
  const name = `${number}, ${layer.name}`;
  return { ...layer, number, name, sheet: { ...layer.sheet, piece: { ...layer.sheet.piece, name } } };
}

/** Names every layer that is cut like an earlier one of its stock, and how it must be moved to be it. */
function withTwins(layers: readonly DressedLayer[]): DressedLayer[] {
  return layers.map((layer, i): DressedLayer => {
    for (const earlier of layers.slice(0, i)) {
      if (earlier.twin || earlier.stock !== layer.stock) continue;
      const by = twinBy(cornered(earlier), cornered(layer));
      if (by) return { ...layer, twin: { of: earlier.id, by } };
    }
    return layer;
  });
}

const cornered = ({ sheet: { outline, windows, width, height } }: DressedLayer) => ({
  area: { outer: outline, holes: windows.map((window) => window.outline) },
  width,
  height,
});
