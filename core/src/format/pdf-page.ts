import * as fontkit from 'fontkit';
import {
  clip,
  closePath,
  endPath,
  FillRule,
  lineTo,
  moveTo,
  PDFDocument,
  popGraphicsState,
  pushGraphicsState,
  radians,
  rgb,
  type PDFImage,
  type PDFPage,
} from '@cantoo/pdf-lib';
import type { Mm } from '../measure/units.js';
import { flattened, pathOf } from '../plane/curves.js';
import type { Loop } from '../plane/outline.js';
import { distance, type Point } from '../plane/point.js';
import { edgesOf, type DrawingRole, type Primitive } from '../sheet/piece-drawing.js';
import type { OwnImage } from '../card/document.js';
import { PrintFont } from './pdf-font.js';
import type { StandingPicture } from './standing-picture.js';
import { PdfTags, type TagElement, type TagRole } from './pdf-tags.js';
import { PT } from './pdf-units.js';

/** Font files (WOFF or TTF) that go into the PDF, each weight in several files for several scripts; only the letters used are kept. */
export interface PdfFonts {
  regular: readonly Uint8Array[];
  bold: readonly Uint8Array[];
}

/** A part of a page, in mm from its lower left corner. */
export interface Frame {
  x: Mm;
  y: Mm;
  width: Mm;
  height: Mm;
}

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
  lettering: 'thin',
  glue: 'hatch',
};

/** Nothing that has to be read is set smaller, in points. */
export const LEAST_TYPE = 7;

/** A document with its fonts and what is said of its order. */
export interface PdfSetting {
  document: PDFDocument;
  regular: PrintFont;
  bold: PrintFont;
  tags: PdfTags;
  /** pictures that may be drawn, by their id in the card */
  images: Map<string, PDFImage>;
}

export async function newPdf(title: string, fonts: PdfFonts): Promise<PdfSetting> {
  const document = await PDFDocument.create();
  document.registerFontkit(fontkit as unknown as Parameters<PDFDocument['registerFontkit']>[0]);
  document.setTitle(title, { showInWindowTitleBar: true });
  document.setLanguage('en');
  document.setCreator('Diptychon');
  // A fixed date: the same card gives the same file.
  document.setCreationDate(new Date(0));
  document.setModificationDate(new Date(0));
  const embedded = async (files: readonly Uint8Array[]): Promise<PrintFont> =>
    new PrintFont(await Promise.all(files.map((file) => document.embedFont(file, { subset: true }))));
  return {
    document,
    regular: await embedded(fonts.regular),
    bold: await embedded(fonts.bold),
    tags: new PdfTags(document),
    images: new Map(),
  };
}

/** Takes pictures into a document, so that pages may show them. One whose file is broken is left out: where it belongs that is said. */
export async function embedImages({ document, images }: PdfSetting, given: readonly OwnImage[]): Promise<void> {
  for (const { id, type, data } of given) {
    try {
      images.set(id, await (type === 'image/png' ? document.embedPng(data) : document.embedJpg(data)));
    } catch {
      // Its place says so.
    }
  }
}

/** The finished file. */
export function savePdf({ document, tags }: PdfSetting): Promise<Uint8Array> {
  tags.finish();
  return document.save();
}

/** What has to be said of letters that could not be printed; nothing where all could. */
export function missingLetters({ regular, bold }: PdfSetting): string | undefined {
  const count = new Set([...regular.missing, ...bold.missing]).size;
  if (count === 0) return undefined;
  return `${count === 1 ? 'One letter' : `${count} letters`} of what you typed cannot be printed here and ${count === 1 ? 'stands' : 'stand'} as “?”.`;
}

/** Curves are drawn in chords this close to them. */
const CHORD: Mm = 0.02;

/** Dashes as they are, or on a short line so much finer that the line shows its kind twice over. */
export function dashFor(dash: readonly number[], length: Mm): number[] {
  const period = dash.reduce((sum, mm) => sum + mm, 0);
  const finer = period === 0 ? 1 : Math.min(1, length / (2 * period));
  return dash.map((mm) => mm * finer);
}

/** A page in mm from its lower left corner. */
export class MmPage {
  constructor(
    readonly page: PDFPage,
    private readonly setting: PdfSetting,
  ) {}

  /** Whether what is drawn now belongs to something that is tagged. */
  private tagged = false;

  /** Draws something as a heading, paragraph or figure of its own, or as more of one that was begun. */
  as(role: TagRole | TagElement, draw: () => void, alt?: string): void {
    const element = typeof role === 'string' ? this.setting.tags.element(role, alt) : role;
    this.tag(() => this.setting.tags.mark(this.page, element, draw));
  }

  /** Draws something that is not read out. */
  aside(draw: () => void): void {
    this.tag(() => this.setting.tags.artifact(this.page, draw));
  }

  private tag(draw: () => void): void {
    const before = this.tagged;
    this.tagged = true;
    draw();
    this.tagged = before;
  }

  line(from: Point, to: Point, kind: PdfLine): void {
    if (!this.tagged) return this.aside(() => this.line(from, to, kind));
    const { width, soft } = PDF_LINES[kind];
    const dash = dashFor(PDF_LINES[kind].dash, distance(from, to));
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
    const shown = drawing.map(({ role, points, closed }) => {
      const placed = points.map(at);
      const isCurved = role === 'outline' || role === 'window';
      return { look: LOOKS[role], points: isCurved ? flattened(pathOf(placed, closed), CHORD) : placed, closed };
    });
    for (const { look, points } of shown) if (look === 'hatch') this.hatch(points);
    for (const { look, ...line } of shown) if (look && look !== 'hatch') for (const [from, to] of edgesOf(line)) this.line(from, to, look);
  }

  text(words: string, at: Point, size: number, options: { bold?: boolean; soft?: boolean; right?: boolean } = {}): void {
    if (!this.tagged) return this.as('P', () => this.text(words, at, size, options));
    const font = options.bold ? this.setting.bold : this.setting.regular;
    let x = at[0] * PT - (options.right ? font.width(words, size) * PT : 0);
    for (const run of font.runs(words)) {
      this.page.drawText(run.words, { x, y: at[1] * PT, size, font: run.font, color: options.soft ? SOFT : INK });
      x += run.font.widthOfTextAtSize(run.words, size);
    }
  }

  /** How wide words are at a size (mm). */
  widthOf(words: string, size: number): Mm {
    return this.setting.regular.width(words, size);
  }

  /** A picture that was taken into the document, from its lower left corner to its lower right and its upper left one. */
  image(id: string, at: Point, right: Point, up: Point): void {
    const image = this.setting.images.get(id);
    if (!image) return this.text('This picture cannot be read.', [at[0] + 2, at[1] + 2], 8);
    const [across, upward] = [right, up].map((to): Point => [to[0] - at[0], to[1] - at[1]]) as [Point, Point];
    const mirrored = across[0] * upward[1] - across[1] * upward[0] < 0;
    this.page.drawImage(image, {
      x: at[0] * PT,
      y: at[1] * PT,
      width: distance(at, right) * PT,
      height: (mirrored ? -1 : 1) * distance(at, up) * PT,
      rotate: radians(Math.atan2(across[1], across[0])),
    });
  }

  /** A picture of a standing card, as large as a frame lets it be, in its middle. */
  picture({ facets, box }: StandingPicture, frame: Frame): void {
    const scale = Math.min(frame.width / box.width, frame.height / box.height);
    const left = frame.x + (frame.width - box.width * scale) / 2 - box.x * scale;
    const top = frame.y + (frame.height + box.height * scale) / 2 + box.y * scale;
    for (const { path, fill, opacity, bent } of facets) {
      const [red, green, blue] = fill.match(/[\d.]+/g)!.map((n) => Number(n) / 255);
      this.page.drawSvgPath(path, {
        x: left * PT,
        y: top * PT,
        scale: scale * PT,
        color: rgb(red!, green!, blue!),
        opacity,
        borderColor: bent ? rgb(red!, green!, blue!) : SOFT,
        borderWidth: 0.3 / (scale * PT),
        fillRule: FillRule.EvenOdd,
      });
    }
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
