import { PDFDict, PDFDocument, PDFName, PDFRawStream } from '@cantoo/pdf-lib';
import { readFileSync } from 'node:fs';
import { inflateSync } from 'node:zlib';
import { DOMParser } from '@xmldom/xmldom';
import { describe, expect, it } from 'vitest';
import { withTopper } from '../card/dress-card.js';
import type { CardDocument } from '../card/document.js';
import type { Topper } from '../card/dressing.js';
import { readCardFile, writeCardFile } from '../format/card-file.js';
import { drawingsOf } from '../format/layout.js';
import { writeTemplates } from '../format/pdf-templates.js';
import { writeSvg } from '../format/svg.js';
import { benchSteps } from '../plan/bench-steps.js';
import { boxOf } from '../plane/outline.js';
import { place } from '../plane/placement.js';
import { imageCorners } from '../sheet/image-corners.js';
import { METRIC_WORKSHOP } from '../supplies/starter-workshops.js';
import { cardOn, evaluated } from '../testing/evaluated.js';

/** One pixel. */
const DOT = 'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNkYPhfDwAChwGA60e6kgAAAABJRU5ErkJggg==';

/** Two leaves of 100 × 140 mm; a square of half a picture's width in the middle of it. */
const folded: CardDocument = {
  ...cardOn('folded-card', { depth: 100, length: 140 }),
  images: [{ id: 'image-cap', name: 'cap.png', type: 'image/png', data: DOT }],
  outlines: [
    {
      id: 'own-cap',
      name: 'Cap',
      points: [
        [0, 0],
        [1000, 0],
        [1000, 1000],
        [0, 1000],
      ],
      image: { of: 'image-cap', x: -500, y: -500, width: 2000, height: 2000 },
    },
  ],
};
const given: Omit<Topper, 'id'> = {
  panel: 'base/front-leaf',
  face: 'up',
  across: 50,
  along: 70,
  outline: 'own-cap',
  height: 40,
  stock: 'card-250',
};
const dressedIn = (change: Partial<Topper> = {}) => evaluated(withTopper(folded, { ...given, ...change }, METRIC_WORKSHOP));

describe('a topper with a picture', () => {
  it('is cut on its outline, or a margin outside it, the picture staying as large as it is', () => {
    const [plain] = dressedIn().dressed.toppers;
    expect(plain!.sheet.piece.image).toEqual({ of: 'image-cap', x: -20, y: -20, width: 80, height: 80 });
    expect([plain!.sheet.width, plain!.sheet.height]).toEqual([40, 40]);
    const [wide] = dressedIn({ margin: 5 }).dressed.toppers;
    expect([wide!.sheet.width, wide!.sheet.height]).toEqual([expect.closeTo(50, 6), expect.closeTo(50, 6)]);
    expect(wide!.sheet.piece.image).toMatchObject({
      x: expect.closeTo(-15, 6) as number,
      y: expect.closeTo(-15, 6) as number,
      width: 80,
      height: 80,
    });
    // Its middle stays where it is put.
    const { minX, maxX, minY, maxY } = boxOf(wide!.area.outer);
    expect([minX + maxX, minY + maxY]).toEqual([expect.closeTo(100, 6), expect.closeTo(140, 6)]);
  });

  it('is drawn out with it', () => {
    const [wide] = dressedIn({ width: 60, margin: 2 }).dressed.toppers;
    expect(wide!.sheet.piece.image).toMatchObject({
      x: expect.closeTo(2 - 30, 6) as number,
      y: expect.closeTo(2 - 20, 6) as number,
      width: 120,
      height: 80,
    });
  });

  it('is printed at its true size in the drawing that is printed first, and nowhere in one that is only cut', () => {
    const evaluation = dressedIn({ margin: 5 });
    const drawing = drawingsOf(evaluation, METRIC_WORKSHOP).find(({ placed }) => placed.some(({ sheet }) => sheet.piece.image))!;
    const images = evaluation.design.card.images!;
    const svg = new DOMParser().parseFromString(writeSvg(drawing, 'card', { folds: 'score', printed: true }, images), 'text/xml');
    const [image] = [...svg.getElementsByTagName('image')];
    expect(image!.getAttribute('href')).toBe(`data:image/png;base64,${DOT}`);
    const [a, b, c, d] = /matrix\(([^)]*)\)/.exec(image!.getAttribute('transform')!)![1]!.split(' ').map(Number) as [
      number,
      number,
      number,
      number,
    ];
    // A unit square is laid as 80 × 80 mm, turned or not, and not mirrored.
    expect([Math.hypot(a, b), Math.hypot(c, d), a * d - b * c]).toEqual([
      expect.closeTo(80, 4),
      expect.closeTo(80, 4),
      expect.closeTo(6400, 2),
    ]);
    expect(writeSvg(drawing, 'card', { folds: 'score' }, images)).not.toContain('<image');
  });

  it('is in the templates, once, and a broken one is said to be that', async () => {
    const font = readFileSync(new URL('../../../web/public/print-fonts/atkinson-hyperlegible-next-latin-400-normal.woff', import.meta.url));
    const fonts = { regular: [new Uint8Array(font)], bold: [new Uint8Array(font)] };
    const count = async (evaluation: ReturnType<typeof evaluated>): Promise<number> => {
      const document = await PDFDocument.load((await writeTemplates(evaluation, 'a4', fonts)).bytes);
      return document.context
        .enumerateIndirectObjects()
        .filter(
          ([, object]) =>
            object instanceof PDFRawStream &&
            (object.dict as PDFDict).get(PDFName.of('Subtype')) === PDFName.of('Image') &&
            !(object.dict as PDFDict).has(PDFName.of('Decode')) &&
            (object.dict as PDFDict).has(PDFName.of('SMask')),
        ).length;
    };
    expect(await count(dressedIn())).toBe(1);
    const broken: CardDocument = { ...folded, images: [{ ...folded.images![0]!, data: 'iVBORw0KGgoAAAAN' }] };
    expect(await count(evaluated(withTopper(broken, given, METRIC_WORKSHOP)))).toBe(0);
  });

  it('is printed before it is cut, with its own size on the paper', () => {
    const steps = benchSteps(dressedIn({ margin: 5 }), METRIC_WORKSHOP);
    const print = steps.findIndex(({ id }) => id === 'print-topper-1');
    const cut = steps.findIndex(({ blanks = [] }) => blanks.some(({ piece }) => piece === 'topper-topper-1'));
    expect(steps[print]!.says[0]).toContain('“cap.png”, 80 mm wide and 80 mm high');
    expect(print).toBeGreaterThan(-1);
    expect(cut).toBeGreaterThan(print);
  });

  it('is on its twin as a mirror shows it', () => {
    // Its middle on the left edge: half of it stands past that, but for the millimetre that a twin keeps off.
    const evaluation = dressedIn({ across: 0, twin: true });
    const [placed] = evaluation.dressed.toppers;
    const [twin] = placed!.under;
    const [front, back] = [placed!.sheet.piece.image!, twin!.sheet.piece.image!];
    expect([back.width, back.height, back.mirrored]).toEqual([front.width, front.height, true]);
    // Whatever of the picture lies at a place of the panel, lies there on both.
    const [a, b] = [imageCorners(front), imageCorners(back)];
    a.forEach((corner, i) => {
      const [onPanel, behind] = [place(corner, placed!.placement), place(b[i]!, twin!.placement)];
      expect(behind[0]).toBeCloseTo(onPanel[0], 9);
      expect(behind[1]).toBeCloseTo(onPanel[1], 9);
    });
    // In the drawing that is printed it is laid with left and right changed: its determinant is negative.
    const turns = drawingsOf(evaluation, METRIC_WORKSHOP)
      .filter(({ placed: own }) => own.some(({ sheet }) => sheet.piece.image))
      .flatMap((drawing) => {
        const svg = writeSvg(drawing, 'card', { folds: 'score', printed: true }, evaluation.design.card.images!);
        return [...svg.matchAll(/<image id="([^"]+)-picture"[^>]*transform="matrix\(([^)]*)\)"/g)];
      })
      .map(([, id, matrix]) => {
        const [p, q, r, t] = matrix!.split(' ').map(Number) as [number, number, number, number];
        return [id!.includes('twin'), Math.sign(p * t - q * r)];
      });
    expect(turns).toEqual(
      expect.arrayContaining([
        [false, 1],
        [true, -1],
      ]),
    );
    expect(turns).toHaveLength(2);
    const said = benchSteps(evaluation, METRIC_WORKSHOP).find(({ id }) => id === 'print-topper-1')!.says;
    expect(said.some((line) => line.startsWith('On T1 twin as well, seen in a mirror'))).toBe(true);
  });

  it('is in the templates of its twin with left and right changed', async () => {
    const font = readFileSync(new URL('../../../web/public/print-fonts/atkinson-hyperlegible-next-latin-400-normal.woff', import.meta.url));
    const fonts = { regular: [new Uint8Array(font)], bold: [new Uint8Array(font)] };
    const document = await PDFDocument.load((await writeTemplates(dressedIn({ across: 0, twin: true }), 'a4', fonts)).bytes);
    const drawn = document.context
      .enumerateIndirectObjects()
      .flatMap(([, object]) => (object instanceof PDFRawStream ? [object] : []))
      .filter(({ dict }) => (dict as PDFDict).get(PDFName.of('Subtype')) === undefined)
      .flatMap(({ contents }) => {
        try {
          return [inflateSync(contents).toString('latin1')];
        } catch {
          return [];
        }
      })
      .flatMap((text) => [...text.matchAll(/q\n((?:[-\d.e ]+ cm\n)+)\/Image[^\n]* Do/g)])
      .map(([, matrices]) =>
        matrices!
          .trim()
          .split('\n')
          .map((line) => line.split(' ').map(Number) as [number, number, number, number])
          .reduce((product, [a, b, c, d]) => product * (a * d - b * c), 1),
      );
    expect(drawn.map(Math.sign).sort()).toEqual([-1, 1]);
  });

  it('goes into the file of the card and comes out of it as it was; what is none is refused', () => {
    const card = withTopper(folded, { ...given, margin: 3 }, METRIC_WORKSHOP);
    expect(readCardFile(writeCardFile(card))).toEqual({ ok: true, card });
    const refused = (change: Partial<CardDocument>): string => {
      const reading = readCardFile(writeCardFile({ ...card, ...change }));
      return reading.ok ? '' : `${reading.problems[0]!.path} ${reading.problems[0]!.says}`;
    };
    const [image] = card.images!;
    expect(refused({ images: [] })).toContain('outlines.0.image.of');
    expect(refused({ images: [image!, image!] })).toContain('images.1.id');
    expect(refused({ images: [{ ...image!, type: 'image/jpeg' }] })).toContain('images.0');
    expect(refused({ images: [{ ...image!, data: 'javascript:alert(1)' }] })).toContain('images.0.data');
    expect(refused({ images: [{ ...image!, data: DOT.repeat(4000) }] })).toContain('images.0.data');
    // A file of a few bytes that unpacks to 60000 × 60000 dots.
    const bomb = Buffer.from(DOT, 'base64');
    bomb.writeUInt32BE(60000, 16);
    bomb.writeUInt32BE(60000, 20);
    expect(refused({ images: [{ ...image!, data: bomb.toString('base64') }] })).toContain('4096 × 4096 dots');
  });
});
