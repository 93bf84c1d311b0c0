import { stockOf } from '../card/card-stocks.js';
import { claimsOf } from '../card/draw.js';
import { SIDES, type LayerJoint, type LayerRule, type LayerStrips, type OwnDress, type Side } from '../card/dressing.js';
import type { Design } from '../card/join.js';
import type { Mm } from '../measure/units.js';
import { inset, isWiderThan } from '../plane/inset.js';
import { boxOf, type Area } from '../plane/outline.js';
import { between, distanceToSegment, type Point } from '../plane/point.js';
import type { Panel } from '../sheet/panels.js';
import { isClear } from '../supplies/stocks.js';
import { freeFace, isHeldBehind, isSeam } from './free-face.js';
import type { BareFace, DressedLayer, Layers, SeenSide } from './layer.js';
import { inTwoPapers } from './joint.js';
import { layerOf, type LayerPart } from './layer-piece.js';
import { countedAs, isLined, oneStock, runsOver, withLiveFolds } from './liner.js';
import { inStrips } from './strips.js';
import { twinBy } from './twins.js';

/** A strip narrower than so many borders is covered fully: a border on both sides would leave less than half of it. */
const NARROW = 4;
/** Nothing narrower is worth cutting. */
const LEAST_ACROSS: Mm = 5;
/** Lines this close lie on one another. */
const ON_EDGE: Mm = 0.05;
/** Of a frame strips are narrower. */
const LEAST_STRIP: Mm = 2;

/** Of faces that are seen, what was worked out for them last, and for which wishes. */
const LAYERED = new WeakMap<readonly SeenSide[], { wishes: string; layers: Layers }>();

/**
 * The layers that a card's rule and what differs from it put on every face that is seen. While a topper is moved neither the faces
 * nor the wishes change: then they are those of before.
 */
export function layersOf(design: Design, sides: readonly SeenSide[]): Layers {
  const { dressing, pieceStocks, supplies } = design.card;
  if (!dressing?.layers) return { layers: [], bare: [] };
  const wishes = JSON.stringify([dressing.layers, pieceStocks, supplies.stocks]);
  const known = LAYERED.get(sides);
  if (known?.wishes === wishes) return known.layers;
  const layers = layersAnew(design, dressing.layers, sides);
  LAYERED.set(sides, { wishes, layers });
  return layers;
}

function layersAnew(design: Design, given: LayerRule, sides: readonly SeenSide[]): Layers {
  const rule = withLiveFolds(design, given, sides);
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
  return { layers: withTwins(numberedAll(oneStock(design, layers, rule), countedAs(design, layers, rule))), bare };
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
  const lined = isLined(rule, panel.id, seen.face);
  if (isWhole && !lined && spaces.every(isNarrow) && isHeldBehind(design, panel, seen.face)) return 'tab';
  const made: DressedLayer[] = [];
  for (const space of spaces) {
    const covers = isWhole && !lined && isNarrow(space) && !hasOwnBorder(own);
    // Strips on strips would lie over their gaps.
    const steps = covers || own?.strips ? 1 : (own?.steps ?? rule.steps);
    for (let step = 1; step <= steps; step++) {
      const border = bordersOf({ design, panel, seen, rule, own }, covers, step);
      const around = covers ? 0 : (own?.border ?? rule.border) + (step - 1) * (rule.step ?? rule.border);
      const borders = space.outer.map((from, i) => border(from, space.outer[(i + 1) % space.outer.length]!));
      const kept = inset(space, borders, around).filter((area) => isWide(area, LEAST_ACROSS));
      const seams = borders.filter((wanted) => wanted === 0).length;
      const even = borders.every((wanted) => wanted === borders[0]) ? borders[0] : undefined;
      const parted = (area: Area): LayerPart[] =>
        own?.strips && !covers
          ? cutInStrips(area, own.strips)
          : own?.joint && step === steps
            ? cutInTwo(area, panel, own.joint)
            : [{ area }];
      for (const part of kept.flatMap(parted)) {
        // The strip over a joint lies on the papers that meet under it.
        const lies = part.of === 'cover' ? step + 1 : step;
        made.push(layerOf({ design, panel, seen, rule, part, free: space, step: lies, covers, seams, even, nth: made.length }));
      }
    }
  }
  return made.length > 0 ? made : 'borders';
}

/** Whether there is a place in an area that is so wide every way. */
const isWide = (area: Area, across: Mm): boolean => isWiderThan(area, across / 2);

const hasOwnBorder = (own: OwnDress | undefined): boolean =>
  own !== undefined && [own.border, ...SIDES.map((side) => own[side])].some((mm) => mm !== undefined);

/** A face, and what is said of it. */
interface Wearing {
  design: Design;
  panel: Panel;
  seen: SeenSide;
  rule: LayerRule;
  own: OwnDress | undefined;
}

/** The border of an edge of a panel: none along a seam, its side's own where it has one, else the face's own, else the rule's. */
function bordersOf({ design, panel, seen, rule, own }: Wearing, covers: boolean, step: number) {
  const further = (step - 1) * (rule.step ?? rule.border);
  return (from: Point, to: Point): Mm => {
    if (covers) return 0;
    const wished = own?.[sideOf(from, to)] ?? own?.border;
    if (step === 1 && runsOver(design, rule, panel.id, seen.face, from, to)) return 0;
    if (wished === undefined && isSeam(design, panel.id, from, to)) return 0;
    // Only what ends at the panel's own edge stands past it: not where something is glued on beside it.
    if (wished !== undefined && wished < 0 && !isOnEdge(panel, from, to)) return 0;
    // A border of its own that is 0 is a seam that the maker asks for: it stays one at every step.
    return wished === 0 ? 0 : (wished ?? rule.border) + further;
  };
}

/** Whether an edge of what is free of a face is one of its panel. */
const isOnEdge = ({ area: { outer } }: Panel, from: Point, to: Point): boolean =>
  outer.some((corner, i) => distanceToSegment(between(from, to, 0.5), corner, outer[(i + 1) % outer.length]!) < ON_EDGE);

/** The side that an edge of a counter-clockwise line bounds. */
function sideOf(from: Point, to: Point): Side {
  const [outX, outY] = [to[1] - from[1], from[0] - to[0]];
  if (Math.abs(outX) >= Math.abs(outY)) return outX > 0 ? 'right' : 'left';
  return outY > 0 ? 'top' : 'bottom';
}

/** Two papers that meet, each wide enough to be cut; one where they are not. */
function cutInTwo(area: Area, panel: Panel, joint: LayerJoint): LayerPart[] {
  const cut = inTwoPapers(area, boxOf(panel.area.outer), joint);
  return cut.every(({ area: part }) => isWide(part, LEAST_STRIP)) ? cut : [{ area }];
}

/** Strips that are wide enough to be cut; in one piece where there is nothing to cut them round. */
function cutInStrips(area: Area, strips: LayerStrips): LayerPart[] {
  const cut = inStrips(area, strips);
  return cut.length === 0 ? [{ area }] : cut.filter((strip) => isWide(strip.area, LEAST_STRIP));
}

/** @param as the place in the list of what each is counted as: of those that are one piece the first */
function numberedAll(layers: readonly DressedLayer[], as: readonly number[]): DressedLayer[] {
  const firsts = [...new Set(as)];
  return layers.map((layer, i) => numbered(layer, firsts.indexOf(as[i]!) + 1));
}

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
