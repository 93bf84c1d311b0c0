import { starterFor } from '../supplies/starter-workshops.js';
import type { Workshop } from '../supplies/workshop.js';
import type { Evaluation } from '../evaluate.js';
import { printAngle, sayLength } from '../measure/print.js';
import type { Mm, Notation } from '../measure/units.js';
import type { Point } from '../plane/point.js';
import { benchSteps } from '../plan/bench-steps.js';
import { materialsOf } from '../plan/materials.js';
import { readsOffRuler, type CutSheet } from '../sheet/cut-sheet.js';
import { pieceDrawing } from '../sheet/piece-drawing.js';
import { MmPage, newPdf, PAPERS, PT, wrapped, type PaperId, type PdfFonts, type PdfSetting } from './pdf-page.js';

const MARGIN: Mm = 12;
const DRAWING_HEIGHT: Mm = 74;
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

/** One page with everything to make the card: drawings with their scores, every measure by name, materials, steps. */
export async function writeOnePage(
  evaluation: Evaluation,
  paper: PaperId,
  fonts: PdfFonts,
  workshop: Workshop = starterFor(evaluation.design.card.notation),
): Promise<Uint8Array> {
  const { card } = evaluation.design;
  const setting = await newPdf(card.name, fonts);
  const { width, height } = PAPERS[paper];
  const page = new MmPage(setting.document.addPage([width * PT, height * PT]), setting);
  const { minX, maxX, minY, maxY } = evaluation.closed.box;
  page.text(card.name, [MARGIN, height - MARGIN - 5], 17, { bold: true });
  page.text(
    `Closed ${sayLength(maxX - minX, card.notation)} across the fold, ${sayLength(maxY - minY, card.notation)} along it. The drawings are not to scale; the numbers are.`,
    [MARGIN, height - MARGIN - 11],
    9,
    { soft: true },
  );
  drawPieces(
    page,
    evaluation,
    { x: MARGIN, y: height - MARGIN - 16 - DRAWING_HEIGHT, width: width - 2 * MARGIN, height: DRAWING_HEIGHT },
    setting,
  );
  flow(page, setting, textOf(evaluation, workshop), {
    x: MARGIN,
    y: MARGIN + 6,
    width: width - 2 * MARGIN,
    height: height - 2 * MARGIN - 24 - DRAWING_HEIGHT,
  });
  page.text('Estimates, not guarantees: try on scrap first. Knives cut: away from fingers, on a mat.', [MARGIN, MARGIN], 8, { soft: true });
  return setting.document.save();
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

function drawPieces(page: MmPage, { sheets, design }: Evaluation, frame: Frame, { regular, bold }: PdfSetting): void {
  const { scale, places, feet } = inRows(
    sheets.map((sheet) => ({
      width: sheet.width,
      height: sheet.height,
      words: Math.max(bold.widthOfTextAtSize(sheet.piece.name, 8), regular.widthOfTextAtSize(sheet.piece.faceUp, 7)) / PT,
      levels: (drawnAt) => Math.max(0, ...scoreLabels(sheet, drawnAt, design.card.notation).map(({ level }) => level + 1)),
      labels: scoreLabels(sheet, 1, design.card.notation).map(({ x, words }) => ({
        x,
        words: regular.widthOfTextAtSize(words, 7) / PT + 1,
      })),
    })),
    frame,
  );
  sheets.forEach((sheet, i) => {
    const { row, x } = places[i]!;
    const foot = frame.y + frame.height - feet[row]!;
    drawPiece(page, sheet, [frame.x + x, foot], scale, design.card.notation);
  });
}

function drawPiece(page: MmPage, sheet: CutSheet, [left, bottom]: Point, scale: number, notation: Notation): void {
  const at = ([x, y]: Point): Point => [left + x * scale, bottom + y * scale];
  page.piece(pieceDrawing(sheet), at);
  const top = bottom + sheet.height * scale;
  for (const label of scoreLabels(sheet, scale, notation)) {
    const [x, lift] = [left + label.x, LEVEL * label.level];
    page.line([x, top], [x, top + 1.5 + lift], 'thin');
    page.text(label.words, [x + 0.5, top + 2 + lift], 7);
  }
  page.text(sheet.piece.name, [left, bottom - 3.6], 8, { bold: true });
  page.text(sheet.piece.faceUp, [left, bottom - 7], 7, { soft: true });
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
export function scoreLabels(sheet: CutSheet, scale: number, notation: Notation): ScoreLabel[] {
  const said = new Set<string>();
  const readings = sheet.scores
    .filter(readsOffRuler)
    .map((score) => ({ words: `${sayLength(score.from[0], notation)} ${score.fold}`, x: score.from[0] * scale }))
    .filter(({ words }) => !said.has(words) && said.add(words))
    .sort((a, b) => b.x - a.x);
  const placed: ScoreLabel[] = [];
  for (const reading of readings) {
    const under = placed.filter(({ x }) => x < reading.x + labelWidth(reading.words));
    placed.push({ ...reading, level: 1 + Math.max(-1, ...under.map(({ level }) => level)) });
  }
  return placed.reverse();
}

function textOf(evaluation: Evaluation, workshop: Workshop): TextLine[] {
  const { notation } = evaluation.design.card;
  const heading = (words: string): TextLine => ({ words, bold: true, space: true });
  return [
    heading('Have ready'),
    ...materialsOf(evaluation, workshop).map(({ what, detail }) => ({ words: `${what}: ${detail}` })),
    heading('Measures'),
    ...evaluation.measures.map(({ label, value, unit }) => ({
      words: `${label}: ${unit === 'rad' ? printAngle(value) : sayLength(value, notation)}`,
    })),
    heading('Steps'),
    ...benchSteps(evaluation, workshop)
      .slice(1)
      .flatMap((step, i): TextLine[] => [
        { words: `${i + 1}. ${step.title}`, bold: true },
        { words: [...step.says, ...(step.scores ?? []).map((r, k) => `${k + 1}: ${sayLength(r.at, notation)} (${r.words})`)].join(' ') },
      ]),
  ];
}

interface SetLine {
  words: string;
  bold: boolean;
  height: Mm;
}

/**
 * How many lines stand in the first of two columns: as many as there is room for, but a heading goes with what it
 * heads into the second.
 */
export function columnBreak(lines: readonly Omit<SetLine, 'words'>[], room: Mm): number {
  let [count, height] = [0, 0];
  while (count < lines.length && height + lines[count]!.height <= room + 1e-9) height += lines[count++]!.height;
  if (count === lines.length) return count;
  while (count > 0 && lines[count - 1]!.bold) count--;
  return count;
}

/** Sets text in two columns at the largest size at which all of it fits. */
function flow(page: MmPage, { regular, bold }: PdfSetting, lines: readonly TextLine[], frame: Frame): void {
  const columnWidth = (frame.width - COLUMN_GAP) / 2;
  const leading = (size: number): Mm => (size * 1.22) / PT;
  const setAt = (size: number): SetLine[] =>
    lines.flatMap((line) =>
      wrapped(line.words, line.bold ? bold : regular, size, columnWidth).map((words, i) => ({
        words,
        bold: line.bold ?? false,
        height: leading(size) * (line.space && i === 0 ? 1.6 : 1),
      })),
    );
  const heightOf = (set: readonly SetLine[]): Mm => set.reduce((sum, line) => sum + line.height, 0);
  const fits = (set: readonly SetLine[]): boolean => heightOf(set.slice(columnBreak(set, frame.height))) <= frame.height;
  let size = 9.5;
  while (size > 4 && !fits(setAt(size))) size -= 0.25;
  const set = setAt(size);
  const first = columnBreak(set, frame.height);
  [set.slice(0, first), set.slice(first)].forEach((column, i) => {
    let y = frame.y + frame.height;
    for (const line of column) {
      y -= line.height;
      page.text(line.words, [frame.x + i * (columnWidth + COLUMN_GAP), y], size, { bold: line.bold });
    }
  });
}
