import type { Evaluation } from '../evaluate.js';
import { everySheet } from '../dress/every-sheet.js';
import type { CutSheet } from '../sheet/cut-sheet.js';
import { halfTemplate } from '../sheet/half-template.js';
import { pieceDrawing } from '../sheet/piece-drawing.js';
import type { PaperId } from './papers.js';
import type { PdfFonts } from './pdf-page.js';
import { writeTrueSize, type TrueSizeDrawing, type TrueSizeFile } from './pdf-true-size.js';

/** True-size templates of all pieces, and half-templates of symmetrical ones. */
export const writeTemplates = (evaluation: Evaluation, paper: PaperId, fonts: PdfFonts): Promise<TrueSizeFile> =>
  writeTrueSize(evaluation, drawingsOf(everySheet(evaluation)), 'true-size templates', paper, fonts);

function drawingsOf(sheets: readonly CutSheet[]): TrueSizeDrawing[] {
  const whole = sheets.map((sheet): TrueSizeDrawing => {
    return {
      title: `${sheet.piece.name}, ${sheet.piece.faceUp}`,
      width: sheet.width,
      height: sheet.height,
      piece: pieceDrawing(sheet),
      notes: [{ at: [sheet.width * 0.3, sheet.height * 0.45], words: `${sheet.piece.name}: ${sheet.piece.faceUp}` }],
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
