import { capitalised, sayLength } from '../measure/print.js';
import type { Mm } from '../measure/units.js';
import type { Evaluation } from '../evaluate.js';
import { areaOf as outlineArea, asArea, rectangle, type Area } from '../plane/outline.js';
import type { CutSheet } from '../sheet/cut-sheet.js';
import type { Stock } from '../supplies/stocks.js';
import type { Workshop } from '../supplies/workshop.js';
import { cutJobs, fillsBlank, openingsOf, paperOf, waysOf, type CutJob, type JobPiece } from './cut-job.js';
import { fenceCuts, type FenceCut } from './fence-cuts.js';
import { freeLayout, type FreeLayout } from './free-layout.js';
import { guillotine, leftOf, placedOn, type Blank, type PlacedBlank, type Rectangle } from './guillotine.js';
import { memberOn, unitsOf, type CutUnit } from './cut-units.js';
import { leastSheets } from './least-sheets.js';
import { nested, type BlankShape } from './outline-nesting.js';
import { partsBetween } from './parts-between.js';

/** A sheet that is at hand; for one stock, or for all. */
export interface SheetAtHand {
  width: Mm;
  height: Mm;
  stock?: string;
}

/** How pieces are cut: edge to edge along a fence, or each along its own outline. */
export type CuttingTool = 'trimmer' | 'free';

export interface PlanAsked {
  copies: number;
  tool: CuttingTool;
  /** the sizes that stocks come in; where none is given for a stock, those that the workshop knows */
  sheets: readonly SheetAtHand[];
  /** one more of each topper, as a sample */
  spares?: boolean;
  seed?: number;
}

/** A piece on a sheet, mm from the sheet's lower left corner; width and height as it lies there. */
export interface PlannedPiece extends Rectangle {
  id: string;
  piece: string;
  copy: number;
  name: string;
  /** a quarter turned to the left from how it is drawn */
  turned: boolean;
  /** and then end for end */
  endForEnd?: true;
  /** the next of the layers that it lies beside as on the card, the first after the last: the pattern runs on over them */
  beside?: string;
  /** its main scores run across the grain: they fit no other way */
  acrossGrain?: true;
  /** one more than the cards need */
  spare?: true;
}

/** What is left of a sheet, and which pieces of the card still come out of it. */
export interface Leftover extends Rectangle {
  goodFor: string[];
}

export interface PlannedSheet {
  stock: Stock;
  width: Mm;
  height: Mm;
  pieces: PlannedPiece[];
  /** the cuts of a trimmer, in their order; none where pieces are cut along their outlines */
  cuts: FenceCut[];
  leftovers: Leftover[];
  /** share of the sheet that no piece takes: by their blanks for a trimmer, else by the paper they really are */
  waste: number;
}

/** All sheets of so many cards. */
export interface CuttingPlan {
  sheets: PlannedSheet[];
  /** pieces that come out of no sheet at hand */
  leftOut: { id: string; says: string }[];
  /** share of all sheets that no piece takes, and the least that any layout of these pieces on such sheets could have */
  waste: number;
  bound: number;
  /** no layout needs fewer sheets than this */
  leastSheets: number;
}

/** Room between pieces that are cut out along their outlines. */
export const GAP: Mm = 2;
/** One sheet is never cut from more than so many smaller ones. */
const MOST_SMALLER = 3;
/** What is smaller is no use to anybody. */
const LEAST_LEFT: Mm = 10;

/**
 * How all pieces of so many cards are cut from the sheets at hand, each stock by itself: of the sizes at hand the one that takes
 * least in all, the last sheet as small as will do.
 * @param told how much is done, 0 … 1; false ends the search with what is best so far
 */
export function cuttingPlan(
  evaluation: Evaluation,
  asked: PlanAsked,
  workshop: Workshop,
  told: (share: number) => boolean = () => true,
): CuttingPlan {
  const jobs = cutJobs(evaluation, asked.copies, asked.spares);
  const planned = jobs.map((job, i) => {
    const sizes = sizesFor(job.stock, asked, workshop);
    const own = planFor(job, asked, sizes, evaluation, (share) => told((i + share) / jobs.length));
    return { ...own, least: leastOf(job, sizes, asked.tool) };
  });
  const sheets = planned.flatMap((one) => one.sheets);
  const whole = sum(sheets, areaOf);
  const taken = sum(sheets, (sheet) => areaOf(sheet) * (1 - sheet.waste));
  const least = sum(planned, (one) => one.least.area);
  return {
    sheets,
    leftOut: planned.flatMap((one) => one.leftOut),
    waste: whole > 0 ? Math.max(0, 1 - taken / whole) : 0,
    bound: least > taken ? 1 - taken / least : 0,
    leastSheets: sum(planned, (one) => one.least.sheets),
  };
}

const areaOf = ({ width, height }: { width: Mm; height: Mm }): number => width * height;
const sum = <T>(all: readonly T[], of: (one: T) => number): number => all.reduce((total, one) => total + of(one), 0);

/** The sizes that a stock is at hand in: as asked, as it is bought, or as any sheet of the workshop. */
function sizesFor(stock: Stock, { sheets }: PlanAsked, workshop: Workshop): { width: Mm; height: Mm }[] {
  const own = sheets.filter((sheet) => sheet.stock === stock.id);
  const any = own.length > 0 ? own : sheets.filter((sheet) => sheet.stock === undefined);
  if (any.length > 0) return any.map(({ width, height }) => ({ width, height }));
  return stock.sheet ? [stock.sheet] : workshop.sheets.map(({ width, height }) => ({ width, height }));
}

interface Planned {
  sheets: PlannedSheet[];
  leftOut: CuttingPlan['leftOut'];
}

/** What no layout of a job goes below: sheets, and their area. */
interface Least {
  sheets: number;
  area: number;
}

/**
 * Of one size at hand the bound of that size; of several, whatever any mixture of them needs: the sheets were all as wide and as high
 * as the widest and the highest, and the paper of the pieces. Where pieces are laid by their outlines, only paper counts.
 */
function leastOf(job: CutJob, sizes: readonly { width: Mm; height: Mm }[], tool: CuttingTool): Least {
  const fitting = job.pieces.filter((piece) => sizes.some((size) => fitsOn(blankOf(piece, job.stock, size), size)));
  if (fitting.length === 0) return { sheets: 0, area: 0 };
  const around = { width: Math.max(...sizes.map(({ width }) => width)), height: Math.max(...sizes.map(({ height }) => height)) };
  const byOutline = tool === 'free' && fitting.some(({ sheet }) => !fillsBlank(sheet));
  const blanks = fitting.map((piece): Blank =>
    sizes.length === 1 ? blankOf(piece, job.stock, sizes[0]!) : { ...blankOf(piece, job.stock, around), lies: 'either' },
  );
  const paper = sum(fitting, ({ sheet }) => (byOutline ? paperAreaOf(sheet) : areaOf(sheet)));
  const sheets = byOutline ? Math.max(1, Math.ceil(paper / areaOf(around) - 1e-6)) : leastSheets(blanks, around);
  const smallest = Math.min(...sizes.map(areaOf));
  return { sheets, area: sizes.length === 1 ? sheets * smallest : Math.max(paper, smallest) };
}

const blankOf = (piece: JobPiece, stock: Stock, size: { width: Mm; height: Mm }): Blank => ({
  id: piece.id,
  width: piece.sheet.width,
  height: piece.sheet.height,
  lies: waysOf(piece, stock, size).lies,
});

function planFor(
  job: CutJob,
  asked: PlanAsked,
  sizes: readonly { width: Mm; height: Mm }[],
  evaluation: Evaluation,
  told: (share: number) => boolean,
): Planned {
  const tries = sizes.map((size, i) => planOn(job, size, asked, evaluation, (share) => told((i + share) / sizes.length)));
  const best = tries.reduce((least, one) => (isLess(one, least) ? one : least));
  // What lies on one sheet may come out of smaller ones.
  return { ...best, sheets: best.sheets.flatMap((sheet) => onSmaller(sheet, job, asked, sizes, evaluation)) };
}

/** The pieces of one sheet on the sheets that take least paper: itself, or smaller ones that are less in all. */
function onSmaller(
  sheet: PlannedSheet,
  job: CutJob,
  asked: PlanAsked,
  sizes: readonly { width: Mm; height: Mm }[],
  evaluation: Evaluation,
): PlannedSheet[] {
  return sizes
    .filter((size) => areaOf(size) < areaOf(sheet) - 1 && areaOf(sheet) * (1 - sheet.waste) <= MOST_SMALLER * areaOf(size))
    .map((size) => planOn(only(job, sheet), size, asked, evaluation))
    .filter(({ leftOut }) => leftOut.length === 0)
    .reduce((least, { sheets }) => (sum(sheets, areaOf) < sum(least, areaOf) - 1 ? sheets : least), [sheet]);
}

const only = ({ stock, pieces }: CutJob, sheet: PlannedSheet): CutJob => ({
  stock,
  pieces: pieces.filter(({ id }) => sheet.pieces.some((placed) => placed.id === id)),
});

/** Fewer pieces left out, then less paper. */
const isLess = (a: Planned, b: Planned): boolean =>
  a.leftOut.length !== b.leftOut.length ? a.leftOut.length < b.leftOut.length : sum(a.sheets, areaOf) < sum(b.sheets, areaOf) - 1;

function planOn(
  job: CutJob,
  size: { width: Mm; height: Mm },
  { tool, seed = 1 }: PlanAsked,
  evaluation: Evaluation,
  told: (share: number) => boolean = () => true,
): Planned {
  const { stock } = job;
  const units = unitsOf(job, evaluation, size);
  const known = new Map(units.map((unit) => [unit.id, unit]));
  const first = ({ id }: Blank): JobPiece => known.get(id)!.members[0]!.piece;
  const blanks = units.map(({ id, width, height, members }): Blank => ({
    ...{ id, width, height },
    lies: waysOf(members[0]!.piece, stock, size).lies,
  }));
  const across = new Set(job.pieces.filter((piece) => waysOf(piece, stock, size).acrossGrain).map(({ id }) => id));
  const inWords = (placed: readonly PlacedBlank[]): PlannedPiece[] =>
    placed.flatMap((one) => plannedPieces(one, known.get(one.blank.id)!, across));
  const drawn = new Map(job.pieces.map(({ sheet }) => [sheet.piece.id, sheet]));
  const sheetOf = (pieces: PlannedPiece[], cuts: FenceCut[], left: readonly Rectangle[]): PlannedSheet => ({
    stock,
    ...size,
    pieces,
    cuts,
    leftovers: leftoversOf(left, job, size),
    waste: wasteOf(pieces, drawn, size, tool),
  });
  const { notation } = evaluation.design.card;
  const leftOut = (tooLarge: readonly Blank[]): CuttingPlan['leftOut'] =>
    tooLarge.map(({ id, width, height }) => ({
      id,
      says: `${capitalised(known.get(id)!.members[0]!.piece.sheet.piece.name)}, ${sayLength(width, notation)} × ${sayLength(height, notation)}, comes out of no sheet of ${stock.name} at hand.`,
    }));
  if (tool === 'free') {
    const openings = (blank: Blank): Rectangle[] =>
      known
        .get(blank.id)!
        .members.flatMap(({ piece, at: [x, y] }) => openingsOf(piece.sheet).map((one) => ({ ...one, x: one.x + x, y: one.y + y })));
    const byBox = freeLayout(blanks, size, GAP, openings);
    const shapeOf = (blank: Blank): BlankShape => {
      const { mayTurnEnd } = waysOf(first(blank), stock, size);
      return { area: known.get(blank.id)!.members.length > 1 ? boxArea(blank) : paperOf(first(blank).sheet), mayTurnEnd };
    };
    const byOutline = job.pieces.every(({ sheet }) => fillsBlank(sheet)) ? undefined : nested(blanks, size, GAP, shapeOf, () => told(0.5));
    const layout = byOutline && leavesMore(byOutline, byBox) ? byOutline : byBox;
    return { sheets: layout.sheets.map(({ placed, left }) => sheetOf(inWords(placed), [], left)), leftOut: leftOut(layout.tooLarge) };
  }
  const least = leastSheets(
    blanks.filter((blank) => fitsOn(blank, size)),
    size,
  );
  const layout = guillotine(blanks, size, least, seed, (_, share) => told(share));
  return {
    sheets: layout.sheets.map((sheet) => {
      const pieces = inWords(placedOn(sheet));
      // What was laid as one is cut apart too.
      const parts = pieces.some(({ beside }) => beside) ? partsBetween(size, pieces.map(asPlaced))! : sheet;
      return sheetOf(pieces, fenceCuts(parts), leftOf(parts));
    }),
    leftOut: leftOut(layout.tooLarge),
  };
}

const boxArea = ({ width, height }: Blank): Area => asArea(rectangle(0, 0, width, height));

/** A planned piece as a blank that lies where it was laid. */
export const asPlaced = ({ id, x, y, width, height, turned, endForEnd }: PlannedPiece): PlacedBlank => ({
  blank: { id, width: turned ? height : width, height: turned ? width : height, lies: 'either' },
  ...{ x, y, width, height, turned, ...(endForEnd && { endForEnd }) },
});

/** The share of a sheet that no piece takes: by their blanks for a trimmer, else by the paper they really are. */
export function wasteOf(
  pieces: readonly PlannedPiece[],
  drawn: ReadonlyMap<string, CutSheet>,
  size: { width: Mm; height: Mm },
  tool: CuttingTool,
): number {
  const taken = sum(pieces, (piece) => (tool === 'free' ? paperAreaOf(drawn.get(piece.piece)!) : areaOf(piece)));
  return Math.max(0, 1 - taken / areaOf(size));
}

const paperAreaOf = (sheet: CutSheet): number => outlineArea(paperOf(sheet));

/** Fewer sheets, then clearly more in one piece on the last of them. */
function leavesMore(a: FreeLayout, b: FreeLayout): boolean {
  if (a.sheets.length !== b.sheets.length) return a.sheets.length < b.sheets.length;
  const [own, other] = [a, b].map(({ sheets }) => Math.max(0, ...(sheets.at(-1)?.left ?? []).map(areaOf))) as [number, number];
  return own > 1.02 * other;
}

const fitsOn = ({ width, height, lies }: Blank, on: { width: Mm; height: Mm }): boolean =>
  (lies !== 'turned' && width <= on.width + 1e-6 && height <= on.height + 1e-6) ||
  (lies !== 'upright' && height <= on.width + 1e-6 && width <= on.height + 1e-6);

function plannedPieces(placed: PlacedBlank, { members }: CutUnit, across: ReadonlySet<string>): PlannedPiece[] {
  const { turned, endForEnd } = placed;
  return members.map((member, i): PlannedPiece => {
    const { sheet, copy, id, spare } = member.piece;
    const other = members[(i + 1) % members.length]!;
    return {
      ...{ id, piece: sheet.piece.id, copy, name: spare ? `${sheet.piece.name}, spare` : sheet.piece.name },
      ...memberOn(member, placed),
      turned,
      ...(endForEnd && { endForEnd }),
      ...(members.length > 1 && { beside: other.piece.id }),
      ...(across.has(id) && { acrossGrain: true as const }),
      ...(spare && { spare }),
    };
  });
}

/** What is left that is worth keeping, largest first, with the names of the pieces of this stock that come out of it. */
export function leftoversOf(left: readonly Rectangle[], { stock, pieces }: CutJob, size: { width: Mm; height: Mm }): Leftover[] {
  const kinds = pieces.filter(({ sheet }, i) => pieces.findIndex((other) => other.sheet === sheet) === i);
  return left
    .filter(({ width, height }) => Math.min(width, height) >= LEAST_LEFT)
    .sort((a, b) => areaOf(b) - areaOf(a))
    .map((rest) => ({
      ...rest,
      goodFor: kinds.filter((piece) => fitsOn(blankOf(piece, stock, size), rest)).map(({ sheet }) => sheet.piece.name),
    }));
}
