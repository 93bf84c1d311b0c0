import { ROOT } from '../card/document.js';
import type { Topper } from '../card/dressing.js';
import type { Design } from '../card/join.js';
import { ownOutlines } from '../card/own-outlines.js';
import type { Worn } from '../card/worn.js';
import { frameBetween, poseOf, type Motion } from '../linkage/motion.js';
import type { Mm } from '../measure/units.js';
import { areasOf, intersect, largestOf, offset } from '../plane/boolean.js';
import { areaOf, asArea, boxOf, movedArea, type Area, type Loop } from '../plane/outline.js';
import { place, undone, type Placement } from '../plane/placement.js';
import type { Point } from '../plane/point.js';
import { fitted, fitting, shapeNamed, SHAPES } from '../plane/shapes.js';
import { cutSheet, type CutSheet } from '../sheet/cut-sheet.js';
import type { Panel } from '../sheet/panels.js';
import { blankPiece, type Piece } from '../sheet/piece.js';
import { GLUE_FILM } from '../supplies/limits.js';
import type { Stock } from '../supplies/stocks.js';
import { freeFace } from './free-face.js';
import { setGreeting, type SetGreeting } from './greeting.js';
import { gluePart, tagFor, type Tag } from './glue-part.js';
import type { Moment, SeenSide } from './layer.js';
import { padsFor } from './pads.js';
import { topOf } from './reading-up.js';
import { sheetsUnder, type TopperSheet } from './topper-sheets.js';

/** Foam weighs about so much for each mm of height, g/m². */
const FOAM_PER_MM = 120;

/** A topper as it lies on its panel. Outlines are those of the panel as drawn on its piece, upper face toward you. */
export interface PlacedTopper extends Worn {
  /** as it is kept in the card */
  topper: Topper;
  /** ties drawing, list, sheet and step together: T1, T2 … */
  number: string;
  panelName: string;
  outlineName: string;
  stock: Stock;
  part: string;
  /** its middle on the panel's piece */
  at: Point;
  /** from the sheet it is cut from, upright and its good side toward you, onto the panel's piece */
  placement: Placement;
  sheet: CutSheet;
  /** what it is put together with, from the panel outward */
  under: readonly TopperSheet[];
  /** all that it reaches over: its widest paper, and its film */
  whole: readonly Area[];
  /** how far its upper face stands over what it is glued on, with the film of glue */
  stands: Mm;
  /** so many alike are cut and glued on one another */
  times: number;
  /** foam pads under it */
  pads: readonly Loop[];
  /** what of it is glued down: the pads, where it stands on foam */
  glue: readonly Area[];
  /** its greeting: as it is set on its sheet, and its letters on the panel's piece */
  greeting?: SetGreeting & { onPanel: readonly Loop[] };
  /** the largest tag that it takes, where it is a pocket that takes one */
  tag?: Tag;
  /** what of the face carries it */
  ground: readonly Area[];
  shows: readonly Moment[];
}

/** A topper that is kept in the card and cannot be placed, and why. */
export interface LostTopper {
  topper: Topper;
  why: 'panel' | 'outline';
}

/** The toppers of a card in the order in which they are glued on. @param sides faces that are seen, with what is up on them */
export function toppersOf(design: Design, motion: Motion, sides: readonly SeenSide[]): { toppers: PlacedTopper[]; lost: LostTopper[] } {
  const toppers: PlacedTopper[] = [];
  const lost: LostTopper[] = [];
  for (const topper of design.card.dressing?.toppers ?? []) {
    const body = design.linkage.bodyOf.get(topper.panel);
    const outline = shapeNamed(topper.outline, ownOutlines(design.card));
    if (body === undefined || !outline) {
      lost.push({ topper, why: body === undefined ? 'panel' : 'outline' });
      continue;
    }
    const seen = sides.find(({ panel, face }) => panel === topper.panel && face === topper.face);
    toppers.push(placed(design, motion, topper, outline, design.panels[body]!, seen, `T${toppers.length + 1}`));
  }
  return { toppers, lost };
}

function placed(
  design: Design,
  motion: Motion,
  topper: Topper,
  outline: Loop,
  panel: Panel,
  seen: SeenSide | undefined,
  number: string,
): PlacedTopper {
  const { flat, margin } = cutAround(fitted(outline, topper.height, topper.width), topper.margin);
  const { maxX: width, maxY: height } = boxOf(flat);
  const box = boxOf(panel.area.outer);
  const at: Point = [box.minX + topper.across, box.minY + topper.along];
  const placement = standingAt(at, { width, height }, topper, turnOf(design, motion, panel, seen));
  const laid = (part: Area): Area => movedArea(part, (point) => place(point, placement));
  const area = laid(asArea(flat));
  const stock = design.card.supplies.stocks.find(({ id }) => id === (design.card.pieceStocks?.[pieceOf(topper)] ?? topper.stock))!;
  const ground = freeFace(design, panel, topper.face);
  const part = panel.part ?? panel.piece.part ?? ROOT;
  const printed = printedOn(design, topper, outline, margin);
  const bare = { id: pieceOf(topper), number, part, panel: panel.id, flat, placement, ...printed };
  const under = sheetsUnder(design, topper, panel, bare);
  const film = under.find(({ as }) => as === 'film');
  const widest = under.find(({ as }) => as === 'backing');
  const lowest = widest ? movedArea(widest.area, (point) => place(point, undone(placement))).outer : flat;
  const glue = film ? areasOf(intersect([film.area], [panel.area])) : gluePart(lowest, topper.glued).map(laid);
  const pads = topper.foam === undefined ? [] : glue.flatMap((part) => padsFor(part, ground));
  const greeting = topper.greeting && setGreeting(topper.greeting, flat);
  const tag = topper.glued?.as === 'pocket' ? tagFor(lowest, topper.glued) : undefined;
  const foam = pads.reduce((sum, pad) => sum + areaOf(asArea(pad)), 0) * FOAM_PER_MM * (topper.foam ?? 0);
  const outlineName = nameOf(design, topper.outline);
  const name = `${number}, ${topper.name ?? outlineName}`;
  const times = topper.times ?? 1;
  const sheet = cutSheet(
    blankPiece({
      id: pieceOf(topper),
      name: times > 1 ? `${name}, ${times} alike` : name,
      stock: 'display',
      faceUp: 'its good side up',
      outline: flat,
      because: topper.margin === undefined ? 'as large as you wish it' : 'as large as you wish it, and its margin all round',
      part,
      ...(greeting && { lettering: greeting.loops }),
      ...printed,
    }),
  );
  // Sheets with glue between them, on glue, or on foam with glue on both its sides: that is under the lowest paper.
  const raised = topper.foam === undefined ? 0 : topper.foam + GLUE_FILM;
  const own = times * (stock.caliper + GLUE_FILM);
  const onto = under.map((each) =>
    each === widest ? { ...each, thickness: each.thickness + raised, weight: each.weight + foam / areaOf(each.area) } : each,
  );
  return {
    ...{ topper, number, id: pieceOf(topper), name, outlineName, panel: panel.id, panelName: panel.name, face: topper.face },
    ...{ area, stock, part, at, placement, sheet, pads, ground },
    glue: topper.foam === undefined ? glue : pads.map(asArea),
    ...(tag && { tag }),
    ...(greeting && { greeting: { ...greeting, onPanel: greeting.loops.map((loop) => loop.map((point) => place(point, placement))) } }),
    times,
    under: onto,
    whole: [widest?.area ?? area, ...(film ? [film.area] : [])],
    stands: own + raised + under.reduce((sum, { as, thickness }) => sum + (as === 'twin' ? 0 : thickness), 0),
    thickness: own + (widest ? 0 : raised),
    weight: times * stock.weight + (widest ? 0 : foam / areaOf(area)),
    shows: seen?.shows ?? [],
  };
}

/** An outline with its margin all round, its lower left corner at the origin, and how far it lies from there. */
function cutAround(drawn: Loop, margin: Mm = 0): { flat: Loop; margin: Point } {
  const wider = margin > 0 ? largestOf(offset(drawn, margin)) : undefined;
  if (!wider) return { flat: drawn, margin: [0, 0] };
  const { minX, minY } = boxOf(wider);
  return { flat: wider.map(([x, y]): Point => [x - minX, y - minY]), margin: [-minX, -minY] };
}

/** Where the picture of an outline lies on the sheet. */
function printedOn({ card }: Design, { outline: id, height, width }: Topper, outline: Loop, [dx, dy]: Point): Pick<Piece, 'image'> {
  const image = card.outlines?.find((each) => each.id === id)?.image;
  if (!image) return {};
  const at = fitting(outline, height, width);
  const [low, high] = [at([image.x, image.y]), at([image.x + image.width, image.y + image.height])];
  return { image: { of: image.of, x: dx + low[0], y: dy + low[1], width: high[0] - low[0], height: high[1] - low[1] } };
}

/** The turn that brings the top of a sheet to what is up on a face of the open card, of the closed one where it is seen only so. */
function turnOf(design: Design, motion: Motion, panel: Panel, seen: SeenSide | undefined): number {
  if (seen) return { top: 0, left: Math.PI / 2, bottom: Math.PI, right: -Math.PI / 2 }[seen.up];
  const pose = poseOf(motion, frameBetween(motion, design.base.rest.at));
  const [x, y] = topOf(pose[design.linkage.bodyOf.get(panel.id)!]!, design.base.rest).toward;
  return Math.abs(x) > Math.abs(y) ? (x > 0 ? -Math.PI / 2 : Math.PI / 2) : y >= 0 ? 0 : Math.PI;
}

/** The placement that puts the middle of an upright sheet on a point, turned. Seen from its good side a turn to the left is one. */
function standingAt(at: Point, { width, height }: { width: Mm; height: Mm }, { face, turn = 0 }: Topper, upright: number): Placement {
  const flipped = face === 'down';
  const turned: Placement = { to: [0, 0], turn: upright + (flipped ? -turn : turn), flipped };
  const [x, y] = place([width / 2, height / 2], turned);
  return { ...turned, to: [at[0] - x, at[1] - y] };
}

const pieceOf = ({ id }: Topper): string => `topper-${id}`.slice(0, 64);

const nameOf = ({ card }: Design, outline: string): string =>
  card.outlines?.find(({ id }) => id === outline)?.name ?? SHAPES.find(({ id }) => id === outline)?.name ?? outline;
