import { stockOf } from '../card/card-stocks.js';
import { ROOT } from '../card/document.js';
import { closuresOf, type MagnetClosure } from '../card/dressing.js';
import type { Design } from '../card/join.js';
import { inSentence } from '../card/part-titles.js';
import type { Worn } from '../card/worn.js';
import { poseOf, type Motion } from '../linkage/motion.js';
import { carryFlat, inverted } from '../linkage/rigid.js';
import type { ClosedStack } from '../linkage/stacking.js';
import { stayStill } from '../linkage/still.js';
import type { Mm } from '../measure/units.js';
import { areasOf, intersect } from '../plane/boolean.js';
import { areaContains, areaOf, asArea, boxOf, rectangle, type Area, type Loop } from '../plane/outline.js';
import { distanceToSegment, polar, type Point } from '../plane/point.js';
import { cutSheet, type CutSheet } from '../sheet/cut-sheet.js';
import type { Panel } from '../sheet/panels.js';
import { blankPiece, type Face } from '../sheet/piece.js';
import { GLUE_FILM } from '../supplies/limits.js';
import { isClear, type Stock } from '../supplies/stocks.js';
import { freeFace } from './free-face.js';
import type { DressedLayer } from './layer.js';
import type { PlacedTopper } from './toppers.js';

/** Paper kept round a disc on every side: what holds its blank layers together. */
export const ROUND_DISC: Mm = 8;
/** A disc nearer than this to an edge shows, and tears out. */
export const FROM_EDGE: Mm = 2;
/** Discs of the trade are so heavy, g/mm³. */
const DISC_WEIGHT = 0.0075;
const CORNERS = 48;

/** One disc of a pair, with what it is sunk into. */
export interface SunkDisc {
  panel: string;
  panelName: string;
  face: Face;
  /** its middle on the panel's piece */
  at: Point;
  /** what the blank layers cover; nothing where there is no paper for them */
  patch?: Area;
  /** so many blank layers with a hole are as thick as the disc, or hardly more */
  blanks: number;
  /** the layer that the face wears over it; where it wears none, a cover of its own */
  coveredBy: string;
  /** toppers that lie over the disc: they keep it from the other */
  under: readonly PlacedTopper[];
  /** how much paper lies between the disc and the air */
  over: Mm;
  /** of the disc's rim to the nearest edge of its panel */
  fromEdge: Mm;
  film: boolean;
}

/** Two discs that meet when the card closes. */
export interface PlacedMagnet {
  closure: MagnetClosure;
  number: string;
  stock: Stock;
  part: string;
  first: SunkDisc;
  /** where the first comes to lie on when the card is closed; nothing where no panel lies there */
  second?: SunkDisc;
  /** both lie on panels that do not part as the card opens */
  still: boolean;
  /** between the discs of the closed card */
  apart: Mm;
  /** blank layers, then what lies over layers: in the order of gluing */
  blanks: readonly Worn[];
  covers: readonly Worn[];
  sheets: readonly CutSheet[];
}

/** The magnets of a card. @param stack of the bare card: what lies on what is not changed by what is worn */
export function magnetsOf(
  design: Design,
  motion: Motion,
  stack: ClosedStack,
  worn: { layers: readonly DressedLayer[]; toppers: readonly PlacedTopper[] },
): PlacedMagnet[] {
  return closuresOf(design.card.dressing, 'magnet').flatMap((closure, i): PlacedMagnet[] => {
    const body = design.linkage.bodyOf.get(closure.panel);
    if (body === undefined) return [];
    const stock = design.card.supplies.stocks.find(({ id }) => id === closure.stock)!;
    const { minX, minY } = boxOf(design.panels[body]!.area.outer);
    const sink = (panel: Panel, face: Face, at: Point): SunkDisc => sunk(design, closure, stock, panel, face, at, worn);
    const first = sink(design.panels[body]!, closure.face, [minX + closure.across, minY + closure.along]);
    const other = facing(design, motion, stack, first);
    const second = other && sink(design.panels[other.body]!, other.face, other.at);
    const number = `M${i + 1}`;
    const discs = second ? [first, second] : [first];
    const parts = discs.map((disc, nth) => partsOf(closure, number, nth === 0 ? 'first' : 'second', disc, stock));
    return [
      {
        ...{ closure, number, stock, part: design.panels[body]!.part ?? ROOT, first },
        ...(second && { second }),
        still: other !== undefined && stayStill(motion, body, other.body),
        apart: discs.reduce((sum, { over }) => sum + over, 0),
        blanks: parts.flatMap(({ blank }) => blank),
        covers: parts.flatMap(({ cover }) => cover),
        sheets: parts.flatMap(({ sheets }) => sheets),
      },
    ];
  });
}

/** The face that a place of a face lies on when the card is closed. */
function facing(
  design: Design,
  motion: Motion,
  stack: ClosedStack,
  { panel, face, at }: SunkDisc,
): { body: number; face: Face; at: Point } | undefined {
  const body = design.linkage.bodyOf.get(panel)!;
  const pose = poseOf(motion, motion.frames[0]!);
  const order = stack.order.length > 0 ? stack.order : stack.layers.map((layer) => layer.body);
  const own = order.indexOf(body);
  const looksUp = (face === 'up') === stack.layers[body]!.faceUp;
  const place = carryFlat(pose[body]!, at);
  const beyond = looksUp ? order.slice(own + 1) : order.slice(0, own).reverse();
  const other = beyond.find((each) => areaContains(stack.layers[each]!.area, place));
  if (other === undefined) return undefined;
  return { body: other, face: stack.layers[other]!.faceUp === looksUp ? 'down' : 'up', at: carryFlat(inverted(pose[other]!), place) };
}

function sunk(
  design: Design,
  { disc, thick, whole }: MagnetClosure,
  stock: Stock,
  panel: Panel,
  face: Face,
  at: Point,
  { layers, toppers }: { layers: readonly DressedLayer[]; toppers: readonly PlacedTopper[] },
): SunkDisc {
  const isHere = (worn: Worn): boolean => worn.panel === panel.id && worn.face === face;
  const above = layers.filter((layer) => isHere(layer) && areaContains(layer.area, at));
  const under = toppers.filter((topper) => isHere(topper) && topper.whole.some((area) => areaContains(area, at)));
  const blanks = Math.ceil(thick / (stock.caliper + GLUE_FILM) - 1e-9);
  const space = freeFace(design, panel, face).find((area) => areaContains(area, at));
  const lowest = above.find(({ step }) => step === 1);
  // A face that wears a layer is blank under all of it where the maker wishes nothing to stand out.
  const square = rectangle(at[0] - disc / 2 - ROUND_DISC, at[1] - disc / 2 - ROUND_DISC, disc + 2 * ROUND_DISC, disc + 2 * ROUND_DISC);
  const ground = lowest?.area ?? space;
  const patch =
    !space || !ground ? undefined : whole ? ground : areasOf(intersect([ground], [asArea(square)])).find((area) => areaContains(area, at));
  const spare = blanks * (stock.caliper + GLUE_FILM) - thick;
  const paper = above.length > 0 ? above.reduce((sum, { thickness }) => sum + thickness, 0) : stock.caliper + GLUE_FILM;
  const edge = Math.min(
    ...panel.area.outer.map((from, i) => distanceToSegment(at, from, panel.area.outer[(i + 1) % panel.area.outer.length]!)),
  );
  return {
    ...{ panel: panel.id, panelName: panel.name, face, at, blanks, under },
    ...(patch && { patch }),
    coveredBy: lowest?.number ?? '',
    over: spare + paper + under.reduce((sum, { stands }) => sum + stands, 0),
    fromEdge: edge - disc / 2,
    film: isClear(stockOf(design, panel.piece)),
  };
}

/** The blank layers of a disc and, where no layer hides it, its cover: as they lie, and as they are cut. */
function partsOf(
  closure: MagnetClosure,
  number: string,
  nth: 'first' | 'second',
  disc: SunkDisc,
  stock: Stock,
): { blank: Worn[]; cover: Worn[]; sheets: CutSheet[] } {
  const { patch } = disc;
  if (!patch) return { blank: [], cover: [], sheets: [] };
  const { minX, minY } = boxOf(patch.outer);
  const onSheet = (loop: Loop): Loop => loop.map(([x, y]): Point => [x - minX, y - minY]);
  const hole = Array.from({ length: CORNERS }, (_, i) => polar(disc.at, closure.disc / 2, (2 * Math.PI * i) / CORNERS));
  const own = `${inSentence(disc.panelName)}${disc.face === 'down' ? ', its back' : ''}`;
  const piece = (id: string, name: string, windows: readonly Loop[]): CutSheet =>
    cutSheet(
      blankPiece({
        id,
        name: `${number}, ${name} of the ${own}`,
        stock: 'display',
        faceUp: 'either side up',
        outline: onSheet(patch.outer),
        because: closure.whole ? 'as large as what hides it' : 'paper round the disc on every side',
        windows: [...windows, ...patch.holes].map((outline, i) => ({ id: `opening-${i + 1}`, outline: onSheet(outline) })),
        part: ROOT,
      }),
    );
  const id = `${closure.id}-${nth}`;
  const sheets = Array.from({ length: disc.blanks }, (_, i) =>
    piece(`${id}-blank-${i + 1}`, `blank layer ${i + 1} of ${disc.blanks}`, [hole]),
  );
  const covers = disc.coveredBy === '' ? [piece(`${id}-cover`, 'cover', [])] : [];
  const area = areaOf(patch);
  const punched = Math.PI * (closure.disc / 2) ** 2;
  const lies = { panel: disc.panel, face: disc.face, area: patch };
  return {
    // The disc fills the hole: what lies there is as high as the blank layers, and as heavy as both.
    blank: [
      {
        ...{ id: `${id}-blank`, name: `${number}, blank layers`, ...lies },
        thickness: disc.blanks * (stock.caliper + GLUE_FILM),
        weight: (disc.blanks * stock.weight * (area - punched) + punched * closure.thick * DISC_WEIGHT * 1e6) / area,
      },
    ],
    cover: covers.map((): Worn => ({
      id: `${id}-cover`,
      name: `${number}, cover`,
      ...lies,
      thickness: stock.caliper + GLUE_FILM,
      weight: stock.weight,
    })),
    sheets: [...sheets, ...covers],
  };
}
