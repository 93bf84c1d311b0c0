import * as fontkit from 'fontkit';
import {
  clip,
  closePath,
  endPath,
  lineTo,
  moveTo,
  PDFDocument,
  popGraphicsState,
  pushGraphicsState,
  rgb,
  type PDFFont,
  type PDFPage,
} from '@cantoo/pdf-lib';
import { MM_PER_INCH, type Mm } from '../measure/units.js';
import type { Loop } from '../plane/outline.js';
import type { Point } from '../plane/point.js';
import { edgesOf, type DrawingRole, type Primitive } from '../sheet/piece-drawing.js';

/** Paper to print on. */
export type PaperId = 'a4' | 'letter';
export const PAPERS: Record<PaperId, { name: string; width: Mm; height: Mm }> = {
  a4: { name: 'A4', width: 210, height: 297 },
  letter: { name: 'US Letter', width: 8.5 * MM_PER_INCH, height: 11 * MM_PER_INCH },
};

/** Font files (WOFF or TTF) that go into the PDF; only the letters used are kept. */
export interface PdfFonts {
  regular: Uint8Array;
  bold: Uint8Array;
}

/** Points for a mm: PDF measures in 1/72 in. */
export const PT = 72 / MM_PER_INCH;

const INK = rgb(0.11, 0.11, 0.1);
const SOFT = rgb(0.42, 0.42, 0.4);

/** How lines look on paper; told apart by dash and weight, so that they read in greyscale. mm. */
export const PDF_LINES = {
  cut: { width: 0.35, dash: [] as number[], soft: false },
  mountain: { width: 0.3, dash: [4, 1, 0.8, 1], soft: false },
  valley: { width: 0.3, dash: [2.4, 1.6], soft: false },
  pencil: { width: 0.2, dash: [0.3, 1.1], soft: true },
  hatch: { width: 0.12, dash: [] as number[], soft: true },
  thin: { width: 0.15, dash: [] as number[], soft: true },
};
export type PdfLine = keyof typeof PDF_LINES;

/** How each part of a flat piece looks on paper; what is left out is not drawn. */
const LOOKS: Partial<Record<DrawingRole, PdfLine>> = {
  outline: 'cut',
  window: 'cut',
  slit: 'cut',
  mountain: 'mountain',
  valley: 'valley',
  pencil: 'pencil',
  glue: 'hatch',
};

/** A document with its fonts. */
export interface PdfSetting {
  document: PDFDocument;
  regular: PDFFont;
  bold: PDFFont;
}

export async function newPdf(title: string, fonts: PdfFonts): Promise<PdfSetting> {
  const document = await PDFDocument.create();
  document.registerFontkit(fontkit as unknown as Parameters<PDFDocument['registerFontkit']>[0]);
  document.setTitle(title);
  document.setCreator('Diptychon');
  // A fixed date: the same card gives the same file.
  document.setCreationDate(new Date(0));
  document.setModificationDate(new Date(0));
  const regular = await document.embedFont(fonts.regular, { subset: true });
  const bold = await document.embedFont(fonts.bold, { subset: true });
  return { document, regular, bold };
}

/** A page in mm from its lower left corner. */
export class MmPage {
  constructor(
    readonly page: PDFPage,
    private readonly setting: PdfSetting,
  ) {}

  line(from: Point, to: Point, kind: PdfLine): void {
    const { width, dash, soft } = PDF_LINES[kind];
    this.page.drawLine({
      start: { x: from[0] * PT, y: from[1] * PT },
      end: { x: to[0] * PT, y: to[1] * PT },
      thickness: width * PT,
      color: soft ? SOFT : INK,
      ...(dash.length > 0 && { dashArray: dash.map((mm) => mm * PT) }),
    });
  }

  loop(points: Loop, kind: PdfLine): void {
    for (const [from, to] of edgesOf({ points, closed: true })) this.line(from, to, kind);
  }

  /** A flat piece, its glue hatched beneath its lines. @param at where a point of the piece stands on the page */
  piece(drawing: readonly Primitive[], at: (point: Point) => Point): void {
    const shown = drawing.map((primitive) => ({ look: LOOKS[primitive.role], points: primitive.points.map(at), closed: primitive.closed }));
    for (const { look, points } of shown) if (look === 'hatch') this.hatch(points);
    for (const { look, ...line } of shown) if (look && look !== 'hatch') for (const [from, to] of edgesOf(line)) this.line(from, to, look);
  }

  text(words: string, at: Point, size: number, options: { bold?: boolean; soft?: boolean; right?: boolean } = {}): void {
    const font = options.bold ? this.setting.bold : this.setting.regular;
    const x = at[0] * PT - (options.right ? font.widthOfTextAtSize(words, size) : 0);
    this.page.drawText(words, { x, y: at[1] * PT, size, font, color: options.soft ? SOFT : INK });
  }

  /** Draws only inside a loop. */
  inside(loop: Loop, draw: () => void): void {
    const [first, ...rest] = loop;
    this.page.pushOperators(
      pushGraphicsState(),
      moveTo(first![0] * PT, first![1] * PT),
      ...rest.map(([x, y]) => lineTo(x * PT, y * PT)),
      closePath(),
      clip(),
      endPath(),
    );
    draw();
    this.page.pushOperators(popGraphicsState());
  }

  /** Slanted lines over a loop. */
  hatch(loop: Loop): void {
    const xs = loop.map(([x]) => x);
    const ys = loop.map(([, y]) => y);
    const [minX, maxX, minY, maxY] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
    this.inside(loop, () => {
      for (let x = minX - (maxY - minY); x < maxX; x += 2.2) this.line([x, minY], [x + maxY - minY, maxY], 'hatch');
    });
    this.loop(loop, 'thin');
  }
}

/** Breaks words into lines no wider than `width` mm at a font size in points. */
export function wrapped(words: string, font: PDFFont, size: number, width: Mm): string[] {
  const lines: string[] = [];
  let line = '';
  for (const word of words.split(' ')) {
    const longer = line ? `${line} ${word}` : word;
    if (line && font.widthOfTextAtSize(longer, size) > width * PT) {
      lines.push(line);
      line = word;
    } else line = longer;
  }
  return [...lines, line];
}
