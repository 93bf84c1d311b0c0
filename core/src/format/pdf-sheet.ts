import { starterFor } from '../supplies/starter-workshops.js';
import type { Workshop } from '../supplies/workshop.js';
import type { Evaluation } from '../evaluate.js';
import { printAngle, sayLength } from '../measure/print.js';
import type { Mm, Notation } from '../measure/units.js';
import type { Point } from '../plane/point.js';
import { benchSteps } from '../plan/bench-steps.js';
import { materialsOf } from '../plan/materials.js';
import { verdictLine } from '../plan/verdict.js';
import { readsOffRuler, type CutSheet } from '../sheet/cut-sheet.js';
import { rectangle } from '../plane/outline.js';
import type { BenchStep } from '../plan/step.js';
import { pieceDrawing } from '../sheet/piece-drawing.js';
import {
  LEAST_TYPE,
  missingLetters,
  MmPage,
  newPdf,
  PAPERS,
  savePdf,
  type PaperId,
  type PdfFonts,
  type PdfLine,
  type PdfSetting,
} from './pdf-page.js';
import { standingPicture } from './standing-picture.js';
import { PT } from './pdf-units.js';

const MARGIN: Mm = 12;
/** Room for the drawings: more where there are many, whose text goes on over a second page anyway. */
const drawingRoom = (pieces: number): Mm => (pieces > 3 ? 112 : 74);
const COLUMN_GAP: Mm = 8;
/** Labels stand in lines this far apart, as many as they need. */
const LEVEL: Mm = 3.6;
/** A letter of a label is about as wide as this, and a label keeps as much clear behind it. */
const LETTER: Mm = 1.4;
const labelWidth = (words: string): Mm => (words.length + 1) * LETTER;

interface TextLine {
  words: string;
  bold?: boolean;
  /** a heading is kept off the line before it */
  space?: boolean;
}

/**
 * One page with everything to make the card: drawings with their scores, the verdict, every measure by name, materials, steps.
 * Where all of it does not fit at a size that can be read, the text goes on over further pages.
 */
export async function writeOnePage(
  evaluation: Evaluation,
  paper: PaperId,
  fonts: PdfFonts,
  workshop: Workshop = starterFor(evaluation.design.card.notation),
): Promise<Uint8Array> {
  const setting = await newPdf(evaluation.design.card.name, fonts);
  const { width, height } = PAPERS[paper];
  const newPage = (): MmPage => new MmPage(setting.document.addPage([width * PT, height * PT]), setting);
  const page = newPage();
  const room = width - 2 * MARGIN;
  const steps = benchSteps(evaluation, workshop);
  const headEnd = heading(page, setting, evaluation, { width: room - PICTURE.width - COLUMN_GAP, top: height - MARGIN });
  finished(page, evaluation, { x: width - MARGIN - PICTURE.width, y: height - MARGIN - PICTURE.height, ...PICTURE });
  const top = Math.min(headEnd, height - MARGIN - PICTURE.height - 2);
  const high = drawingRoom(evaluation.sheets.length);
  const drawings = { x: MARGIN, y: top - high, width: room, height: high };
  drawPieces(page, evaluation, { ...drawings, y: drawings.y + LEGEND, height: drawings.height - LEGEND }, setting, scoreNumbers(steps));
  legend(page, [MARGIN, drawings.y]);
  const missing = missingLetters(setting);
  const foot: Mm = MARGIN + (missing === undefined ? 6 : 10);
  const first = { x: MARGIN, y: foot, width: room, height: drawings.y - 2 - foot };
  const further = { ...first, height: height - MARGIN - foot };
  const pages = flow(page, newPage, setting, textOf(evaluation, workshop, steps), first, further);
  pages.forEach((own, i) => {
    if (missing !== undefined && i === 0) own.text(missing, [MARGIN, MARGIN + 4], 8, { bold: true });
    own.text('Estimates, not guarantees: try on scrap first. Knives cut: away from fingers, on a mat.', [MARGIN, MARGIN], 8, {
      soft: true,
    });
    if (pages.length > 1)
      own.aside(() => own.text(`${i + 1} of ${pages.length}`, [width - MARGIN, MARGIN], 8, { soft: true, right: true }));
  });
  return savePdf(setting);
}

/** Name, closed size and verdict at the head of the page, in as many lines as they take. @returns where they end */
function heading(page: MmPage, { regular, bold, tags }: PdfSetting, evaluation: Evaluation, { width, top }: { width: Mm; top: Mm }): Mm {
  const { card } = evaluation.design;
  const { minX, maxX, minY, maxY } = evaluation.closed.box;
  const verdict = verdictLine(evaluation);
  const set = [
    { role: 'H1' as const, words: card.name, size: 17, font: bold, look: { bold: true } },
    {
      role: 'P' as const,
      words: `Closed ${sayLength(maxX - minX, card.notation)} across the fold, ${sayLength(maxY - minY, card.notation)} along it. The drawings are not to scale; the numbers are.`,
      size: 9,
      font: regular,
      look: { soft: true },
    },
    { role: 'P' as const, words: verdict.says, size: 9, font: verdict.works ? regular : bold, look: { bold: !verdict.works } },
  ];
  let y = top;
  for (const { role, words, size, font, look } of set) {
    const element = tags.element(role);
    for (const line of font.wrapped(words, size, width)) {
      y -= (size * 1.25) / PT;
      page.as(element, () => page.text(line, [MARGIN, y], size, look));
    }
  }
  return y - 4;
}

/** The finished card, at the head of the page. */
const PICTURE = { width: 46, height: 30 } as const;

function finished(page: MmPage, evaluation: Evaluation, frame: Frame): void {
  const at = evaluation.design.base.rest.says;
  page.as('Figure', () => page.picture(standingPicture(evaluation), frame), `The finished card, ${at}`);
}

/** What the lines of the drawings mean, in one row under them. */
const LEGEND: Mm = 5;
const LEGEND_ENTRIES: readonly { line: PdfLine; words: string }[] = [
  { line: 'cut', words: 'cut' },
  { line: 'mountain', words: 'mountain, folds away from you' },
  { line: 'valley', words: 'valley, folds toward you' },
  { line: 'pencil', words: 'pencil' },
  { line: 'hatch', words: 'glue' },
];

function legend(page: MmPage, [left, y]: Point): void {
  let x = left;
  page.as('P', () => {
    for (const { line, words } of LEGEND_ENTRIES) {
      if (line === 'hatch') page.hatch(rectangle(x, y - 0.4, 9, 2.4));
      else page.line([x, y + 0.8], [x + 9, y + 0.8], line);
      page.text(words, [x + 10.5, y], 7);
      x += 10.5 + page.widthOf(words, 7) + 6;
    }
  });
}

interface Frame {
  x: Mm;
  y: Mm;
  width: Mm;
  height: Mm;
}

/** What one drawing takes up: the sheet itself, the words under it, the lines of labels over it. */
export interface DrawnPiece {
  width: Mm;
  height: Mm;
  /** the words under it are this wide at any scale */
  words: Mm;
  /** labels over it begin at a score, in its own mm, and are this wide at any scale */
  labels: readonly { x: Mm; words: Mm }[];
  /** how many lines they take at a scale */
  levels: (scale: number) => number;
}

const DRAWING_GAP: Mm = 6;
const WORDS_UNDER: Mm = 8;

/** How wide a drawing is at a scale, with its words and labels. */
export function widthAt({ width, words, labels }: DrawnPiece, scale: number): Mm {
  return Math.max(width * scale, words, ...labels.map((label) => label.x * scale + label.words));
}

/**
 * Drawings in rows at the largest common scale at which all rows have room: for each its row and where it begins, and
 * for each row how far its drawings' foot lies below the top. Many pieces take several rows, so that no words overlap.
 */
export function inRows(
  pieces: readonly DrawnPiece[],
  { width, height }: Pick<Frame, 'width' | 'height'>,
): { scale: number; places: { row: number; x: Mm }[]; feet: Mm[] } {
  const at = (scale: number) => {
    let [row, x] = [0, 0];
    const places = pieces.map((piece) => {
      const wide = widthAt(piece, scale);
      if (x > 0 && x + wide > width) [row, x] = [row + 1, 0];
      const place = { row, x };
      x += wide + DRAWING_GAP;
      return place;
    });
    const feet: Mm[] = [];
    for (let r = 0, down = 0; r <= row; r++) {
      const own = pieces.filter((_, i) => places[i]!.row === r);
      const labels = LEVEL * Math.max(...own.map((piece) => piece.levels(scale)));
      down += labels + Math.max(...own.map((piece) => piece.height * scale));
      feet.push(down);
      down += WORDS_UNDER;
    }
    return { scale, places, feet };
  };
  const fits = (set: ReturnType<typeof at>): boolean =>
    set.feet.at(-1)! + WORDS_UNDER <= height && pieces.every((piece) => widthAt(piece, set.scale) <= width);
  let [scale, set] = [1, at(1)];
  while (scale > 0.02 && !fits(set)) set = at((scale *= 0.97));
  return set;
}

function drawPieces(
  page: MmPage,
  { sheets, design }: Evaluation,
  frame: Frame,
  { regular, bold }: PdfSetting,
  numbers: ReadonlyMap<string, ScoreNumbers>,
): void {
  const { notation } = design.card;
  const labels = (sheet: CutSheet, drawnAt: number): ScoreLabel[] =>
    scoreLabels(sheet, drawnAt, notation, numbers.get(sheet.piece.id) ?? new Map<string, number>());
  const under = (sheet: CutSheet): string =>
    `${sayLength(sheet.width, notation)} across × ${sayLength(sheet.height, notation)} along, ${sheet.piece.faceUp}`;
  const name = (sheet: CutSheet): string => bold.shortened(sheet.piece.name, 8, frame.width / 2);
  const { scale, places, feet } = inRows(
    sheets.map((sheet) => ({
      width: sheet.width,
      height: sheet.height,
      words: Math.max(bold.width(name(sheet), 8), regular.width(under(sheet), 7)),
      levels: (drawnAt) => Math.max(0, ...labels(sheet, drawnAt).map(({ level }) => level + 1)),
      labels: labels(sheet, 1).map(({ x, words }) => ({
        x,
        words: regular.width(words, 7) + 1,
      })),
    })),
    frame,
  );
  sheets.forEach((sheet, i) => {
    const { row, x } = places[i]!;
    const foot = frame.y + frame.height - feet[row]!;
    const said = `Flat piece ${sheet.piece.name}, ${sayLength(sheet.width, design.card.notation)} by ${sayLength(sheet.height, design.card.notation)}`;
    const words = { name: name(sheet), under: under(sheet), labels: labels(sheet, scale) };
    page.as('Figure', () => drawPiece(page, sheet, words, [frame.x + x, foot], scale), said);
  });
}

interface PieceWords {
  name: string;
  under: string;
  labels: readonly ScoreLabel[];
}

function drawPiece(page: MmPage, sheet: CutSheet, { name, under, labels }: PieceWords, [left, bottom]: Point, scale: number): void {
  const at = ([x, y]: Point): Point => [left + x * scale, bottom + y * scale];
  page.piece(pieceDrawing(sheet), at);
  const top = bottom + sheet.height * scale;
  for (const label of labels) {
    const [x, lift] = [left + label.x, LEVEL * label.level];
    page.line([x, top], [x, top + 1.5 + lift], 'thin');
    page.text(label.words, [x + 0.5, top + 2 + lift], 7);
  }
  page.text(name, [left, bottom - 3.6], 8, { bold: true });
  page.text(under, [left, bottom - 7], 7, { soft: true });
}

/** What stands above a drawn score: how far from the drawing's left edge, and how many lines up. */
export interface ScoreLabel {
  words: string;
  x: Mm;
  level: number;
}

/**
 * The labels over a drawing, each reading once: a score that a window interrupts is one reading on the board. A label
 * whose words reach over scores to the right of it stands a line higher than theirs, so that no leader crosses words.
 */
export function scoreLabels(sheet: CutSheet, scale: number, notation: Notation, numbers?: ScoreNumbers): ScoreLabel[] {
  const said = new Set<string>();
  const told = (id: string): string => (numbers?.has(id) ? `${numbers.get(id)}: ` : '');
  const scores = sheet.scores
    .filter(readsOffRuler)
    .map(({ id, from, fold }) => ({ words: `${told(id)}${sayLength(from[0], notation)} ${fold}`, x: from[0] * scale }));
  // An upright pencil line says what it is for: where a stop stands, where a fold comes to lie.
  const marks = numbers
    ? sheet.marks
        .filter(({ from, to, face }) => face !== 'down' && Math.abs(from[0] - to[0]) < 1e-6)
        .map(({ from, says }) => ({ words: `${sayLength(from[0], notation)} ${says}`, x: from[0] * scale }))
    : [];
  const readings = [...scores, ...marks].filter(({ words }) => !said.has(words) && said.add(words)).sort((a, b) => b.x - a.x);
  const placed: ScoreLabel[] = [];
  for (const reading of readings) {
    const under = placed.filter(({ x }) => x < reading.x + labelWidth(reading.words));
    placed.push({ ...reading, level: 1 + Math.max(-1, ...under.map(({ level }) => level)) });
  }
  return placed.reverse();
}

/** The numbers that scores of one piece have in the steps, by the ids of the scores; those of one setting have one number. */
export type ScoreNumbers = ReadonlyMap<string, number>;

/** The settings of every piece numbered in the order of its steps, through all of them. */
export function scoreNumbers(steps: readonly BenchStep[]): ReadonlyMap<string, ScoreNumbers> {
  const byPiece = new Map<string, Map<string, number>>();
  for (const { picture, scores = [] } of steps) {
    if (picture?.kind !== 'flat') continue;
    const own = byPiece.get(picture.piece) ?? new Map<string, number>();
    byPiece.set(picture.piece, own);
    for (const reading of scores) {
      const next = 1 + Math.max(0, ...own.values());
      for (const { id } of [...reading.scores, ...reading.again]) own.set(id, next);
    }
  }
  return byPiece;
}

function textOf(evaluation: Evaluation, workshop: Workshop, steps: readonly BenchStep[]): TextLine[] {
  const numbers = scoreNumbers(steps);
  const numberOf = ({ picture }: BenchStep, { scores }: NonNullable<BenchStep['scores']>[number]): number | undefined =>
    picture?.kind === 'flat' ? numbers.get(picture.piece)?.get(scores[0]!.id) : undefined;
  const { notation } = evaluation.design.card;
  const heading = (words: string): TextLine => ({ words, bold: true, space: true });
  const { note } = evaluation.design.card;
  return [
    ...(note ? [heading('Note'), ...note.split(/\n+/).map((words) => ({ words }))] : []),
    heading('Have ready'),
    ...materialsOf(evaluation, workshop).map(({ what, detail }) => ({ words: `${what}: ${detail}` })),
    heading('Measures'),
    ...evaluation.measures.map(({ label, value, unit }) => ({
      words: `${label}: ${unit === 'rad' ? printAngle(value, notation) : sayLength(value, notation)}`,
    })),
    heading('Steps'),
    ...steps.slice(1).flatMap((step, i): TextLine[] => [
      { words: `${i + 1}. ${step.title}`, bold: true },
      {
        words: [...step.says, ...(step.scores ?? []).map((r) => `${numberOf(step, r)}: ${sayLength(r.at, notation)} (${r.words})`)].join(
          ' ',
        ),
      },
    ]),
  ];
}

interface SetLine {
  words: string;
  bold: boolean;
  height: Mm;
  /** which line of the text it is a part of */
  of: number;
}

/**
 * How many lines stand in one column: as many as there is room for, but a heading goes with what it heads into the next.
 * A column takes at least one.
 */
export function columnBreak(lines: readonly Pick<SetLine, 'bold' | 'height'>[], room: Mm): number {
  let [count, height] = [0, 0];
  while (count < lines.length && height + lines[count]!.height <= room + 1e-9) height += lines[count++]!.height;
  if (count === lines.length) return count;
  const most = count;
  while (count > 0 && lines[count - 1]!.bold) count--;
  return count > 0 ? count : Math.max(1, most);
}

/** The largest type for the text, and that of a text that goes on over further pages. */
const [LARGEST, OVER_PAGES] = [9.5, 8.5];

/** Sets text in two columns at the largest size at which all of it fits on the first page; else over further pages. */
function flow(
  first: MmPage,
  newPage: () => MmPage,
  { regular, bold, tags }: PdfSetting,
  lines: readonly TextLine[],
  frame: Frame,
  further: Frame,
): MmPage[] {
  const columnWidth = (frame.width - COLUMN_GAP) / 2;
  const leading = (size: number): Mm => (size * 1.22) / PT;
  const setAt = (size: number): SetLine[] =>
    lines.flatMap((line, of) =>
      (line.bold ? bold : regular).wrapped(line.words, size, columnWidth).map((words, i) => ({
        words,
        bold: line.bold ?? false,
        height: leading(size) * (line.space && i === 0 ? 1.6 : 1),
        of,
      })),
    );
  const fits = (set: readonly SetLine[]): boolean => columnsOf(set, [frame, frame]).length <= 2;
  let size = LARGEST;
  while (size > LEAST_TYPE && !fits(setAt(size))) size -= 0.25;
  const onOne = fits(setAt(size));
  if (!onOne) size = OVER_PAGES;
  const elements = lines.map(({ bold: heads }) => tags.element(heads ? 'H2' : 'P'));
  const pages = [first];
  columnsOf(setAt(size), [frame, frame], further).forEach((column, i) => {
    if (i > 1 && i % 2 === 0) pages.push(newPage());
    const page = pages.at(-1)!;
    const own = i < 2 ? frame : further;
    let y = own.y + own.height;
    for (const line of column) {
      y -= line.height;
      const at: Point = [own.x + (i % 2) * (columnWidth + COLUMN_GAP), y];
      page.as(elements[line.of]!, () => page.text(line.words, at, size, { bold: line.bold }));
    }
  });
  return pages;
}

/** Lines column by column: those of the first page, then as many further ones as it takes. */
function columnsOf(set: readonly SetLine[], columns: readonly Frame[], further = columns[0]!): SetLine[][] {
  const filled: SetLine[][] = [];
  let rest = set;
  while (rest.length > 0) {
    const count = columnBreak(rest, (columns[filled.length] ?? further).height);
    filled.push(rest.slice(0, count));
    rest = rest.slice(count);
  }
  return filled;
}
