import type { Mm } from '../measure/units.js';
import { MM_PER_INCH } from '../measure/units.js';
import type { Evaluation } from '../evaluate.js';
import { verdictLine, type VerdictLine } from '../plan/verdict.js';
import type { OwnImage } from '../card/document.js';
import { rectangle, type Loop } from '../plane/outline.js';
import type { Point } from '../plane/point.js';
import type { Primitive } from '../sheet/piece-drawing.js';
import { PAPERS, type PaperId } from './papers.js';
import { embedImages, MmPage, newPdf, savePdf, type PdfFonts, type PdfLine, type PdfSetting } from './pdf-page.js';
import { PT } from './pdf-units.js';

/** Printers leave this much of a page white. */
const MARGIN: Mm = 10;
/** Room at the foot for check bars and words. */
const FOOT: Mm = 24;
/** Neighbouring tiles show this much of each other. */
export const OVERLAP: Mm = 10;
const APART: Mm = 8;
/** Room at the head for the verdict of a card that does not work. */
const HEAD: Mm = 10;
/** Where the key of lines begins, from the margin. */
const KEY_AT: Mm = 60;

/** Something that is printed at its true size, in mm from its lower left corner. */
export interface TrueSizeDrawing {
  title: string;
  width: Mm;
  height: Mm;
  piece: Primitive[];
  notes: { at: Point; words: string }[];
  /** what is printed on it, and the edge that it is seen within */
  images?: { of: OwnImage; at: Point; right: Point; up: Point; edge: Loop }[];
}

/** Where one drawing is shown on one page: `shift` moves drawing coordinates to page coordinates, mm. */
export interface TrueSizePlace {
  page: number;
  title: string;
  shift: Point;
  turned: boolean;
  column: number;
  row: number;
}

/** A finished file, and where everything stands in it. */
export interface TrueSizeFile {
  bytes: Uint8Array;
  places: TrueSizePlace[];
}

/**
 * Drawings of a card at their true size. What fits shares pages; what does not is tiled with 10 mm of overlap and crosses
 * that must lie on each other. Every page has a 50 mm and a 2 in bar to check the printer with.
 * @param what these drawings are, for the title: `true-size templates`
 */
export async function writeTrueSize(
  evaluation: Evaluation,
  drawings: readonly TrueSizeDrawing[],
  what: string,
  paper: PaperId,
  fonts: PdfFonts,
): Promise<TrueSizeFile> {
  const { name } = evaluation.design.card;
  const verdict = verdictLine(evaluation);
  const setting = await newPdf(`${name}, ${what}`, fonts);
  const shown = drawings.flatMap(({ images = [] }) => images.map(({ of }) => of));
  await embedImages(setting, evaluation.design.card.images?.filter((image) => shown.includes(image)) ?? []);
  const { width: pageWidth, height: pageHeight } = PAPERS[paper];
  const headRoom = verdict.works ? 0 : HEAD;
  const room = { width: pageWidth - 2 * MARGIN, height: pageHeight - 2 * MARGIN - FOOT - headRoom };
  const places: TrueSizePlace[] = [];
  const pages: MmPage[] = [];
  const addPage = (): MmPage => {
    const page = new MmPage(setting.document.addPage([pageWidth * PT, pageHeight * PT]), setting);
    pages.push(page);
    foot(page, setting, verdict.works ? name : `${name}: does not work yet`, pageWidth);
    if (pages.length === 1) head(page, setting, verdict, { width: pageWidth, height: pageHeight });
    return page;
  };

  let cursor = { x: 0, y: 0, row: 0 };
  let shared: MmPage | undefined;
  for (const original of drawings) {
    const { drawing, turned } = bestWay(original, room);
    if (drawing.width > room.width || drawing.height > room.height) {
      places.push(...tile(drawing, turned, room, pages, addPage));
      continue;
    }
    const wide = Math.min(
      room.width,
      Math.max(drawing.width, ...drawing.notes.map(({ at, words }) => at[0] + setting.regular.width(words, 8))),
    );
    if (cursor.x + wide > room.width) cursor = { x: 0, y: cursor.y + cursor.row + APART, row: 0 };
    if (!shared || cursor.y + drawing.height > room.height) {
      shared = addPage();
      cursor = { x: 0, y: 0, row: 0 };
    }
    const shift: Point = [MARGIN + cursor.x, pageHeight - MARGIN - headRoom - cursor.y - drawing.height];
    draw(shared, drawing, shift);
    places.push({ page: pages.indexOf(shared), title: drawing.title, shift, turned, column: 0, row: 0 });
    cursor = { x: cursor.x + wide + APART, y: cursor.y, row: Math.max(cursor.row, drawing.height) };
  }
  pages.forEach((page, i) =>
    page.aside(() => page.text(`Page ${i + 1} of ${pages.length}`, [pageWidth - MARGIN, MARGIN], 8, { soft: true, right: true })),
  );
  return { bytes: await savePdf(setting), places };
}

/** Upright or turned by a quarter, whichever needs fewer pages. */
function bestWay(drawing: TrueSizeDrawing, room: { width: Mm; height: Mm }): { drawing: TrueSizeDrawing; turned: boolean } {
  const pagesFor = (w: Mm, h: Mm): number => tilesAlong(w, room.width) * tilesAlong(h, room.height);
  if (pagesFor(drawing.width, drawing.height) <= pagesFor(drawing.height, drawing.width)) return { drawing, turned: false };
  const quarter = ([x, y]: Point): Point => [drawing.height - y, x];
  return {
    turned: true,
    drawing: {
      ...drawing,
      width: drawing.height,
      height: drawing.width,
      piece: drawing.piece.map((primitive) => ({ ...primitive, points: primitive.points.map(quarter) })),
      notes: drawing.notes.map(({ at, words }) => ({ at: quarter(at), words })),
      ...(drawing.images && {
        images: drawing.images.map(({ of, at, right, up, edge }) => ({
          of,
          at: quarter(at),
          right: quarter(right),
          up: quarter(up),
          edge: edge.map(quarter),
        })),
      }),
    },
  };
}

function tilesAlong(length: Mm, room: Mm): number {
  return length <= room ? 1 : Math.ceil((length - OVERLAP) / (room - OVERLAP));
}

function tile(
  drawing: TrueSizeDrawing,
  turned: boolean,
  room: { width: Mm; height: Mm },
  pages: MmPage[],
  addPage: () => MmPage,
): TrueSizePlace[] {
  const [columns, rows] = [tilesAlong(drawing.width, room.width), tilesAlong(drawing.height, room.height)];
  const [stepX, stepY] = [room.width - OVERLAP, room.height - OVERLAP];
  const crosses: Point[] = [];
  const inMiddle = (step: Mm, count: number): Mm[] => Array.from({ length: count - 1 }, (_, i) => (i + 1) * step + OVERLAP / 2);
  const spreadOver = (length: Mm): Mm[] => [0.15, 0.5, 0.85].map((share) => share * length);
  for (const x of inMiddle(stepX, columns)) for (const y of spreadOver(drawing.height)) crosses.push([x, y]);
  for (const y of inMiddle(stepY, rows)) for (const x of spreadOver(drawing.width)) crosses.push([x, y]);
  const places: TrueSizePlace[] = [];
  for (let row = 0; row < rows; row++) {
    for (let column = 0; column < columns; column++) {
      const page = addPage();
      const shift: Point = [MARGIN - column * stepX, MARGIN + FOOT - row * stepY];
      const window = rectangle(MARGIN, MARGIN + FOOT, room.width, room.height);
      page.inside(window, () => {
        draw(page, drawing, shift);
        for (const [x, y] of crosses) cross(page, [x + shift[0], y + shift[1]]);
      });
      page.loop(window, 'thin');
      page.text(
        `Column ${column + 1} of ${columns}, row ${row + 1} of ${rows} from below. Lay the crosses on each other.`,
        [MARGIN, MARGIN + FOOT - 4],
        8,
      );
      places.push({ page: pages.indexOf(page), title: drawing.title, shift, turned, column, row });
    }
  }
  return places;
}

function draw(page: MmPage, drawing: TrueSizeDrawing, [dx, dy]: Point): void {
  const at = ([x, y]: Point): Point => [x + dx, y + dy];
  page.as(
    'Figure',
    () => {
      for (const { of, at: corner, right, up, edge } of drawing.images ?? [])
        page.inside(edge.map(at), () => page.image(of.id, at(corner), at(right), at(up)));
      page.piece(drawing.piece, at);
      for (const note of drawing.notes) page.text(note.words, at(note.at), 8, { soft: true });
    },
    `At true size: ${drawing.title}`,
  );
}

function cross(page: MmPage, [x, y]: Point): void {
  page.line([x - 4, y], [x + 4, y], 'thin');
  page.line([x, y - 4], [x, y + 4], 'thin');
}

/** What was found wrong, on the first page of templates that would not work. */
function head(page: MmPage, { bold }: PdfSetting, { works, says }: VerdictLine, { width, height }: { width: Mm; height: Mm }): void {
  if (works) return;
  const lines = bold.wrapped(says, 8, width - 2 * MARGIN).slice(0, 2);
  lines.forEach((line, i) => page.text(line, [MARGIN, height - MARGIN - 3 - 3.6 * i], 8, { bold: true }));
}

/** Check bars, the key of lines, and the words that matter. */
function foot(page: MmPage, { regular }: PdfSetting, name: string, pageWidth: Mm): void {
  const bar = (x: Mm, y: Mm, length: Mm, words: string): void => {
    page.line([x, y], [x + length, y], 'cut');
    for (const end of [x, x + length]) page.line([end, y - 2], [end, y + 2], 'cut');
    page.text(words, [x + 2, y + 1], 8);
  };
  bar(MARGIN, MARGIN + 10, 50, 'This bar is 50 mm');
  bar(MARGIN + 60, MARGIN + 10, 2 * MM_PER_INCH, 'This bar is 2 in');
  page.text('Print at 100 %, not fitted to the page.', [pageWidth - MARGIN, MARGIN + 10], 9, { bold: true, right: true });
  page.text(regular.shortened(name, 8, KEY_AT - 4), [MARGIN, MARGIN], 8, { soft: true });
  const key: [PdfLine, string][] = [
    ['cut', 'cut'],
    ['mountain', 'mountain'],
    ['valley', 'valley'],
    ['pencil', 'pencil'],
  ];
  key.forEach(([kind, words], i) => {
    const x = MARGIN + KEY_AT + i * 26;
    page.line([x, MARGIN + 1], [x + 8, MARGIN + 1], kind);
    page.text(words, [x + 9.5, MARGIN], 8);
  });
}
