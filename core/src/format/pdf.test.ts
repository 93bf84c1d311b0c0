import { readFileSync } from 'node:fs';
import {
  decodePDFRawStream,
  PDFArray,
  PDFDict,
  PDFDocument,
  PDFName,
  PDFNumber,
  PDFRawStream,
  PDFRef,
  type PDFObject,
} from '@cantoo/pdf-lib';
import { describe, expect, it } from 'vitest';
import { DEMO_CARDS } from '../card/demo-cards.js';
import type { CardDocument } from '../card/document.js';
import { cardToTry } from '../card/try-out.js';
import { CATALOGUE, mechanismById } from '../mechanism/catalogue.js';
import { INCH_WORKSHOP } from '../supplies/starter-workshops.js';
import { cardOn, evaluated } from '../testing/evaluated.js';
import { verdictLine } from '../plan/verdict.js';
import { dashFor, LEAST_TYPE, missingLetters, newPdf, type PdfFonts } from './pdf-page.js';
import { PAPER_IDS, PAPERS } from './papers.js';
import { writeArrangement } from './pdf-arrangement.js';
import { writeOnePage } from './pdf-sheet.js';
import { writeTemplates } from './pdf-templates.js';

const letters = (script: string, weight: number): Uint8Array =>
  new Uint8Array(
    readFileSync(new URL(`../../../web/public/print-fonts/atkinson-hyperlegible-next-${script}-${weight}-normal.woff`, import.meta.url)),
  );
const FONTS: PdfFonts = {
  regular: [letters('latin', 400), letters('latin-ext', 400)],
  bold: [letters('latin', 700), letters('latin-ext', 700)],
};

interface ReadPage {
  sizes: number[];
  marked: number[];
  /** how many marked stretches the structure knows of this page */
  known: number;
  width: number;
  height: number;
  /** where each stretch of text begins (points from the lower left corner) */
  begins: (readonly [number, number])[];
}

/** A PDF read back: sizes of type and marked stretches of each page, and what the catalogue says of the whole. */
async function read(bytes: Uint8Array) {
  const { context, catalog, ...document } = await PDFDocument.load(bytes).then((loaded) => ({
    context: loaded.context,
    catalog: loaded.catalog,
    pages: loaded.getPages(),
    title: loaded.getTitle(),
  }));
  const follow = (object: PDFObject | undefined): PDFObject | undefined => (object instanceof PDFRef ? context.lookup(object) : object);
  const root = follow(catalog.get(PDFName.of('StructTreeRoot'))) as PDFDict;
  const nums = follow((follow(root.get(PDFName.of('ParentTree'))) as PDFDict).get(PDFName.of('Nums'))) as PDFArray;
  const pages = document.pages.map((page): ReadPage => {
    const streams = page.node
      .normalizedEntries()
      .Contents!.asArray()
      .map((ref) => context.lookup(ref));
    const text = streams
      .map((stream) => (stream instanceof PDFRawStream ? new TextDecoder('latin1').decode(decodePDFRawStream(stream).decode()) : ''))
      .join('\n');
    const parent = page.node.get(PDFName.of('StructParents')) as PDFNumber;
    const at = nums.asArray().findIndex((entry, i) => i % 2 === 0 && (entry as PDFNumber).asNumber() === parent.asNumber());
    return {
      sizes: [...text.matchAll(/ ([\d.]+) Tf/g)].map(([, size]) => Number(size)),
      marked: [...text.matchAll(/\/MCID (\d+)/g)].map(([, id]) => Number(id)),
      known: (follow(nums.get(at + 1)) as PDFArray).size(),
      width: page.getWidth(),
      height: page.getHeight(),
      begins: [...text.matchAll(/([\d.-]+) ([\d.-]+) Tm/g)].map(([, x, y]) => [Number(x), Number(y)] as const),
    };
  });
  return {
    pages,
    title: document.title,
    language: String(catalog.get(PDFName.of('Lang'))),
    info: String(catalog.get(PDFName.of('MarkInfo'))),
  };
}

const CARDS: readonly (readonly [string, CardDocument])[] = [
  ...CATALOGUE.map((mechanism) => [mechanism.id, cardToTry(mechanism)] as const),
  ['a box in inches', { ...cardToTry(mechanismById('box-card'), {}, INCH_WORKSHOP), notation: 'inch/16' }],
  ['a card with a long note', { ...cardOn('box-card'), note: 'Leave the moss till last. '.repeat(150) }],
];

describe.each(CARDS)('the printed pages of %s', (_name, card) => {
  const evaluation = evaluated(card);

  it('are never set smaller than can be read, go on over further pages instead, and are tagged from first to last', async () => {
    for (const bytes of [await writeOnePage(evaluation, 'a4', FONTS), (await writeTemplates(evaluation, 'letter', FONTS)).bytes]) {
      const { pages, title, language, info } = await read(bytes);
      expect(title).toContain(card.name);
      expect(language).toContain('en');
      expect(info).toContain('/Marked true');
      for (const { sizes, marked, known } of pages) {
        expect(Math.min(...sizes)).toBeGreaterThanOrEqual(LEAST_TYPE);
        expect(marked).toEqual(marked.map((_, i) => i));
        expect(known).toBe(marked.length);
      }
    }
  });
});

describe('the sheet of where the toppers go', () => {
  it('is tagged and large enough to read, for a sample card with a front over both doors and one with a pocket', async () => {
    for (const id of ['logs-at-the-doors', 'the-foray-map']) {
      const { bytes } = await writeArrangement(evaluated(DEMO_CARDS.find((card) => card.id === id)!), 'a4', FONTS);
      const { pages, title } = await read(bytes);
      expect(title).toContain('where the toppers go');
      for (const { sizes, marked, known } of pages) {
        expect(Math.min(...sizes)).toBeGreaterThanOrEqual(LEAST_TYPE);
        expect(known).toBe(marked.length);
      }
    }
  });
});

describe.each(PAPER_IDS)('on %s', (paper) => {
  /** What lies nearer to the edge some printers leave out (points). */
  const EDGE = 20;

  it.each(['film-stand', 'easel-folded-front'])('the one page of %s keeps inside its paper, to the last word of the legend', async (id) => {
    const { pages } = await read(await writeOnePage(evaluated(cardOn(id)), paper, FONTS));
    for (const { width, height, begins, sizes } of pages) {
      expect(width * (25.4 / 72)).toBeCloseTo(PAPERS[paper].width, 3);
      expect(height * (25.4 / 72)).toBeCloseTo(PAPERS[paper].height, 3);
      expect(begins.length).toBeGreaterThan(5);
      for (const [x, y] of begins) {
        expect(x).toBeGreaterThan(EDGE);
        expect(x).toBeLessThan(width - EDGE);
        expect(y).toBeGreaterThan(EDGE);
        expect(y).toBeLessThan(height - EDGE);
      }
      expect(Math.min(...sizes)).toBeGreaterThanOrEqual(LEAST_TYPE);
    }
  });
});

describe('letters', () => {
  it('of other Latin scripts are printed; what cannot be is said, and stands as a question mark', async () => {
    const setting = await newPdf('x', FONTS);
    const { regular } = setting;
    expect(
      regular
        .runs('Žofie a Łucja, ő')
        .map(({ words }) => words)
        .join(''),
    ).toBe('Žofie a Łucja, ő');
    expect(missingLetters(setting)).toBeUndefined();
    expect(
      regular
        .runs('菌 a')
        .map(({ words }) => words)
        .join(''),
    ).toBe('? a');
    expect(missingLetters(setting)).toBe('One letter of what you typed cannot be printed here and stands as “?”.');
  });

  it('of long words break at the width there is', async () => {
    const { regular } = await newPdf('x', FONTS);
    const lines = regular.wrapped(`a ${'m'.repeat(120)} z`, 9, 40);
    expect(lines.join('').replaceAll(' ', '')).toBe(`a${'m'.repeat(120)}z`);
    for (const line of lines) expect(regular.width(line, 9)).toBeLessThanOrEqual(40);
    const short = regular.shortened('m'.repeat(120), 9, 40);
    expect(regular.width(short, 9)).toBeLessThanOrEqual(40);
    expect(short.endsWith('…')).toBe(true);
  });
});

describe('the verdict on paper', () => {
  const good = DEMO_CARDS[0]!;
  const tall = { ...good, parts: good.parts.map((part) => ({ ...part, sizes: { ...part.sizes, displayHeight: 200 } })) };

  it('names the first fault and how many more there are, or how much to watch', () => {
    const failing = evaluated(tall);
    const faults = failing.findings.filter(({ severity }) => severity === 'fail');
    const { works, says } = verdictLine(failing);
    expect(works).toBe(false);
    expect(says).toContain(faults[0]!.says);
    expect(/And (\d+) more/.exec(says)?.[1] ?? '0').toBe(String(faults.length - 1));
    expect(verdictLine(evaluated(good))).toEqual({ works: true, says: 'Judged and found to work.' });
  });

  it('stands on the first of templates that would not work', async () => {
    const marks = async (card: CardDocument): Promise<number> =>
      (await read((await writeTemplates(evaluated(card), 'a4', FONTS)).bytes)).pages[0]!.marked.length;
    expect(await marks(tall)).toBeGreaterThan(await marks(good));
  });
});

describe('dashes', () => {
  it('show the kind of a line of one millimetre, and are as they are on a long one', () => {
    const mountain = [4, 1, 0.8, 1];
    expect(dashFor(mountain, 100)).toEqual(mountain);
    const fine = dashFor(mountain, 1);
    expect(2 * fine.reduce((sum, mm) => sum + mm, 0)).toBeCloseTo(1, 9);
    expect(fine[0]! / fine[2]!).toBeCloseTo(5, 9);
    expect(dashFor([], 1)).toEqual([]);
  });
});
