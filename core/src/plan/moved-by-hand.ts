import { capitalised, sayLength } from '../measure/print.js';
import type { Mm } from '../measure/units.js';
import type { Evaluation } from '../evaluate.js';
import { inSentence } from '../card/part-titles.js';
import { everySheet } from '../dress/every-sheet.js';
import { intersect, totalArea } from '../plane/boolean.js';
import { asArea, boxOf, rectangle, type Area, type Box } from '../plane/outline.js';
import { distanceBetween } from '../plane/distance-between.js';
import type { CutSheet } from '../sheet/cut-sheet.js';
import { CellMap } from './cell-map.js';
import { cutJobs, paperOf, waysOf } from './cut-job.js';
import { rowFrom } from './beside-words.js';
import { asPlaced, GAP, leftoversOf, wasteOf, type CuttingTool, type PlannedPiece, type PlannedSheet } from './cutting-plan.js';
import { fenceCuts } from './fence-cuts.js';
import { leftOf, type Rectangle } from './guillotine.js';
import { partsBetween } from './parts-between.js';
import { areaOnSheet, cellFor, freeRectangles } from './outline-nesting.js';

/** Where a hand puts a piece: its lower left corner on the sheet, and how it lies. */
export interface PutAt {
  x: Mm;
  y: Mm;
  turned?: boolean;
  endForEnd?: boolean;
}

/** A sheet whose pieces were moved by hand, and what is wrong with it so; it cannot be cut while anything is. */
export interface MovedSheet {
  sheet: PlannedSheet;
  wrong: string[];
  /** what is well to know, though it can be cut */
  told: string[];
}

/** Overlaps of less than this are none (mm², mm). */
const TOUCH = 0.01;

/**
 * A sheet with one of its pieces elsewhere, judged: on the sheet, over no other piece, far enough from them to be cut out, or cut edge to
 * edge, with the cuts and what is left worked out anew.
 * @throws Error when the sheet holds no such piece
 */
export function movedByHand(evaluation: Evaluation, sheet: PlannedSheet, id: string, to: PutAt, tool: CuttingTool): MovedSheet {
  const moved = sheet.pieces.find((piece) => piece.id === id);
  if (!moved) throw new Error(`no piece “${id}” lies on this sheet`);
  const drawn = new Map(everySheet(evaluation).map((one) => [one.piece.id, one]));
  // Over what lies side by side a pattern runs on: all are moved, unless one of them is turned.
  const row = rowFrom(moved, sheet.pieces);
  const staysBeside =
    (to.turned ?? moved.turned) === moved.turned && (to.endForEnd ?? moved.endForEnd === true) === (moved.endForEnd === true);
  const pieces = sheet.pieces.map((piece) => {
    if (piece === moved) return put(staysBeside ? piece : alone(piece), to, drawn.get(piece.piece)!, sheet);
    if (!row.includes(piece)) return piece;
    return staysBeside ? { ...piece, x: piece.x + to.x - moved.x, y: piece.y + to.y - moved.y } : alone(piece);
  });
  return judged({ ...sheet, pieces }, drawn, evaluation, tool);
}

function alone({ beside: _, ...piece }: PlannedPiece): PlannedPiece {
  return piece;
}

function put(piece: PlannedPiece, { x, y, turned = piece.turned, endForEnd }: PutAt, drawn: CutSheet, sheet: PlannedSheet): PlannedPiece {
  const { acrossGrain: _, endForEnd: before, ...rest } = piece;
  const ends = endForEnd ?? before === true;
  const { lies, acrossGrain } = waysOf({ id: piece.id, sheet: drawn, copy: piece.copy }, sheet.stock, sheet);
  // The way it may lie is the one along the grain, unless it fits across it only.
  const isAsItMay = lies === 'either' || (lies === 'turned') === turned;
  const isAcross = drawn.scores.length > 0 && lies !== 'either' && isAsItMay === acrossGrain;
  const [width, height] = turned ? [drawn.height, drawn.width] : [drawn.width, drawn.height];
  return {
    ...rest,
    x,
    y,
    turned,
    width,
    height,
    ...(ends && { endForEnd: true as const }),
    ...(isAcross && { acrossGrain: true as const }),
  };
}

function judged(sheet: PlannedSheet, drawn: ReadonlyMap<string, CutSheet>, evaluation: Evaluation, tool: CuttingTool): MovedSheet {
  const { pieces, stock } = sheet;
  const lying = pieces.map((piece): Lying => ({ piece, area: lyingArea(piece, drawn.get(piece.piece)!, tool) }));
  const wrong = [...pastEdges(sheet, evaluation), ...tooNear(lying, tool, evaluation)];
  const parts = tool === 'trimmer' && wrong.length === 0 ? partsBetween(sheet, pieces.map(asPlaced)) : undefined;
  if (tool === 'trimmer' && wrong.length === 0 && !parts)
    wrong.push('No cut goes edge to edge between these pieces: bring one of them in line with another, or cut each along its outline.');
  const free = (): Rectangle[] => (wrong.length > 0 ? [] : freeRectangles(mapOf(sheet, lying), sheet));
  const job = cutJobs(evaluation, 1).find((one) => one.stock.id === stock.id)!;
  return {
    sheet: {
      ...sheet,
      cuts: parts ? fenceCuts(parts) : [],
      leftovers: leftoversOf(parts ? leftOf(parts) : free(), job, sheet),
      waste: wasteOf(pieces, drawn, sheet, tool),
    },
    wrong,
    told: wellToKnow(sheet, drawn),
  };
}

/** A piece and what it takes of the sheet. */
interface Lying {
  piece: PlannedPiece;
  area: Area;
}

const named = ({ name, copy, id, spare }: PlannedPiece): string =>
  id.includes('#') && !spare ? `${inSentence(name)} ${copy}` : inSentence(name);
const tenths = (mm: Mm, { design }: Evaluation): string => sayLength(Math.round(mm * 10) / 10, design.card.notation);

function pastEdges({ pieces, ...sheet }: PlannedSheet, evaluation: Evaluation): string[] {
  return pieces.flatMap((piece) => {
    const over: [string, Mm][] = [
      ['left', -piece.x],
      ['right', piece.x + piece.width - sheet.width],
      ['lower', -piece.y],
      ['upper', piece.y + piece.height - sheet.height],
    ];
    return over
      .filter(([, by]) => by > TOUCH)
      .map(([edge, by]) => `${capitalised(named(piece))} reaches ${tenths(by, evaluation)} past the ${edge} edge of the sheet.`);
  });
}

/** Pieces that lie over one another, or too near to be cut out each along its own line. */
function tooNear(lying: readonly Lying[], tool: CuttingTool, evaluation: Evaluation): string[] {
  return lying.flatMap(({ piece, area }, i) =>
    lying.slice(i + 1).flatMap(({ piece: other, area: others }): string[] => {
      if (piece.beside === other.id || other.beside === piece.id) return [];
      if (areBeside(boxOf(area.outer), boxOf(others.outer), GAP)) return [];
      const both = `${capitalised(named(piece))} and ${named(other)}`;
      if (totalArea(intersect([area], [others])) > TOUCH) return [`${both} lie over one another.`];
      const apart = tool === 'free' ? distanceBetween(area, others) : GAP;
      if (apart > GAP - TOUCH) return [];
      return [
        `${both} are ${tenths(apart, evaluation)} apart: leave ${tenths(GAP, evaluation)}, so that each is cut out along its own line.`,
      ];
    }),
  );
}

const areBeside = (a: Box, b: Box, room: Mm): boolean =>
  a.minX > b.maxX + room || b.minX > a.maxX + room || a.minY > b.maxY + room || b.minY > a.maxY + room;

/** Folds across the grain, patterns that do not stand upright: it can be cut so, if that is what is wanted. */
function wellToKnow(sheet: PlannedSheet, drawn: ReadonlyMap<string, CutSheet>): string[] {
  return sheet.pieces.flatMap((piece): string[] => {
    const own = drawn.get(piece.piece)!;
    const { lies, mayTurnEnd } = waysOf({ id: piece.id, sheet: own, copy: piece.copy }, sheet.stock, sheet);
    if (piece.acrossGrain) return [`The folds of ${named(piece)} run across the grain so.`];
    const isUpright = !piece.endForEnd && !(lies === 'upright' && piece.turned);
    return own.scores.length > 0 || mayTurnEnd || isUpright ? [] : [`The pattern of ${named(piece)} does not stand upright so.`];
  });
}

/** What a piece takes of the sheet: for a trimmer its blank, else its paper. */
function lyingArea(piece: PlannedPiece, drawn: CutSheet, tool: CuttingTool): Area {
  return tool === 'free' ? areaOnSheet(paperOf(drawn), asPlaced(piece)) : asArea(rectangle(piece.x, piece.y, piece.width, piece.height));
}

function mapOf({ width, height }: PlannedSheet, lying: readonly Lying[]): CellMap {
  const cell = cellFor({ width, height });
  const map = new CellMap(width, height, cell);
  for (const { area } of lying) {
    const own = CellMap.of([area], cell);
    map.takeAll(own, Math.round(own.x / cell), Math.round(own.y / cell));
  }
  return map;
}
