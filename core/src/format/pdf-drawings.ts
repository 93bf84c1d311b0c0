import type { Evaluation } from '../evaluate.js';
import { sayLength } from '../measure/print.js';
import type { Mm, Notation } from '../measure/units.js';
import { rectangle } from '../plane/outline.js';
import type { Point } from '../plane/point.js';
import type { BenchStep } from '../plan/step.js';
import { readsOffRuler, type CutSheet } from '../sheet/cut-sheet.js';
import { pieceDrawing } from '../sheet/piece-drawing.js';
import type { Frame, MmPage, PdfLine, PdfSetting } from './pdf-page.js';

/** Labels stand in lines this far apart, as many as they need. */
const LEVEL: Mm = 3.6;
/** A letter of a label is about as wide as this, and a label keeps as much clear behind it. */
const LETTER: Mm = 1.4;
const labelWidth = (words: string): Mm => (words.length + 1) * LETTER;

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
const WORDS_UNDER: Mm = 10;

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

/** All flat pieces of a card with their labels, in a frame. */
export function drawPieces(
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
        .filter(({ from, to, face, cross }) => face !== 'down' && !cross && Math.abs(from[0] - to[0]) < 1e-6)
        .map(({ from, says }) => ({ words: `${sayLength(from[0], notation)}: ${says}`, x: from[0] * scale }))
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

const LEGEND_ENTRIES: readonly { line: PdfLine; words: string }[] = [
  { line: 'cut', words: 'cut' },
  { line: 'mountain', words: 'mountain, folds away from you' },
  { line: 'valley', words: 'valley, folds toward you' },
  { line: 'pencil', words: 'pencil' },
  { line: 'hatch', words: 'glue' },
];
const LEGEND_ROW: Mm = 5;
/** The piece of line that is shown of each, and what lies between one and the next. */
const SWATCH: Mm = 9;
const AFTER_SWATCH: Mm = 1.5;
const BETWEEN: Mm = 6;

/** How high the legend is on a page that is so wide. */
export const legendHeight = (page: MmPage, width: Mm): Mm =>
  LEGEND_ROW * (1 + Math.max(...placedEntries(page, width).map(({ row }) => row)));

/** What each kind of line means, in as many rows as the width asks for, up from the lower left corner. */
export function legend(page: MmPage, [left, bottom]: Point, width: Mm): void {
  const top = bottom + legendHeight(page, width) - LEGEND_ROW;
  page.as('P', () => {
    for (const { line, words, x: along, row } of placedEntries(page, width)) {
      const [x, y] = [left + along, top - row * LEGEND_ROW];
      if (line === 'hatch') page.hatch(rectangle(x, y - 0.4, SWATCH, 2.4));
      else page.line([x, y + 0.8], [x + SWATCH, y + 0.8], line);
      page.text(words, [x + SWATCH + AFTER_SWATCH, y], 7);
    }
  });
}

function placedEntries(page: MmPage, width: Mm): { line: PdfLine; words: string; x: Mm; row: number }[] {
  let [x, row] = [0, 0];
  return LEGEND_ENTRIES.map((entry) => {
    const long = SWATCH + AFTER_SWATCH + page.widthOf(entry.words, 7);
    if (x > 0 && x + long > width) [x, row] = [0, row + 1];
    const placed = { ...entry, x, row };
    x += long + BETWEEN;
    return placed;
  });
}
