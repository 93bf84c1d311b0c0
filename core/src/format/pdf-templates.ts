import type { Evaluation } from '../evaluate.js';
import { everySheet } from '../dress/every-sheet.js';
import type { CutSheet } from '../sheet/cut-sheet.js';
import { imageCorners } from '../sheet/image-corners.js';
import { halfTemplate } from '../sheet/half-template.js';
import { pieceDrawing } from '../sheet/piece-drawing.js';
import type { Mm } from '../measure/units.js';
import type { OwnImage } from '../card/document.js';
import type { PaperId } from './papers.js';
import type { PdfFonts } from './pdf-page.js';
import { writeTrueSize, type TrueSizeDrawing, type TrueSizeFile } from './pdf-true-size.js';

/** True-size templates of all pieces, and half-templates of symmetrical ones. */
export const writeTemplates = (evaluation: Evaluation, paper: PaperId, fonts: PdfFonts): Promise<TrueSizeFile> =>
  writeTrueSize(evaluation, drawingsOf(everySheet(evaluation), evaluation.design.card.images ?? []), 'true-size templates', paper, fonts);

/** Words stand so far over a piece. */
const ABOVE: Mm = 1.2;

/** The picture that is printed on a sheet, as far as its edge. */
function imagesOn({ piece: { image }, outline }: CutSheet, images: readonly OwnImage[]): NonNullable<TrueSizeDrawing['images']> {
  const of = images.find(({ id }) => id === image?.of);
  if (!image || !of) return [];
  const [at, right, up] = imageCorners(image);
  return [{ of, at, right, up, edge: outline }];
}

function drawingsOf(sheets: readonly CutSheet[], images: readonly OwnImage[]): TrueSizeDrawing[] {
  const whole = sheets.map((sheet): TrueSizeDrawing => {
    return {
      title: `${sheet.piece.name}, ${sheet.piece.faceUp}`,
      width: sheet.width,
      height: sheet.height,
      piece: pieceDrawing(sheet),
      images: imagesOn(sheet, images),
      // Nothing is written over a picture.
      notes: [
        {
          at: sheet.piece.image ? [1, sheet.height + ABOVE] : [sheet.width * 0.3, sheet.height * 0.45],
          words: `${sheet.piece.name}: ${sheet.piece.faceUp}`,
        },
      ],
    };
  });
  const halves = sheets.flatMap((sheet): TrueSizeDrawing[] => {
    const half = halfTemplate(sheet);
    if (!half) return [];
    const xs = half.outline.map(([x]) => x);
    return [
      {
        title: `${half.name}, half template`,
        width: Math.max(...xs),
        height: sheet.height,
        piece: pieceDrawing(half),
        notes: [{ at: [2, sheet.height / 2], words: 'straight edge on the fold' }],
      },
    ];
  });
  return [...whole, ...halves];
}
