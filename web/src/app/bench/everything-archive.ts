import {
  benchSteps,
  drawingsOf,
  stepsRecord,
  verdictLine,
  writeCardFile,
  writeCsv,
  writeFold,
  writeSvg,
  type Evaluation,
  type PaperId,
  type Workshop,
} from '@diptychon/core';
import type { PdfFonts } from '@diptychon/core/files';
import type { Evaluator } from '../evaluation/evaluator';
import { fileName } from '../frame/download';

/** How the files of an archive are made. */
export interface ArchiveWishes {
  paper: PaperId;
  folds: 'score' | 'perforation';
  fonts: PdfFonts;
  workshop: Workshop;
}

/** Every file of a card in one archive: to print, to cut from, to calculate with, and the card itself. */
export async function everythingOf(evaluation: Evaluation, evaluator: Evaluator, wishes: ArchiveWishes): Promise<Uint8Array<ArrayBuffer>> {
  const { card } = evaluation.design;
  const { paper, folds, fonts, workshop } = wishes;
  const { strToU8, zipSync } = await import('fflate');
  const files: Record<string, Uint8Array> = {};
  const add = (folder: string, ending: string, content: string | Uint8Array, suffix = ''): void => {
    files[`${folder}${fileName(`${card.name} ${suffix}`, ending)}`] = typeof content === 'string' ? strToU8(content) : content;
  };
  add('', 'card.json', writeCardFile(card));
  add('', 'csv', writeCsv(evaluation, card.notation.endsWith('comma') ? 'comma' : 'point'), 'measures');
  add('', 'json', JSON.stringify(stepsRecord(benchSteps(evaluation, workshop)), null, 2), 'steps');
  add('', 'fold', writeFold(evaluation));
  for (const drawing of drawingsOf(evaluation, workshop)) add('cutter/', 'svg', writeSvg(drawing, card.name, { folds }), drawing.suffix);
  for (const { suffix = '', bytes } of await evaluator.write(card, { kind: 'dxf', folds })) add('cutter/', 'dxf', bytes, suffix);
  const prints = ['one-page', 'templates', ...(evaluation.dressed.toppers.length > 0 ? ['arrangement' as const] : [])] as const;
  for (const kind of prints) {
    const [file] = await evaluator.write(card, { kind, paper, fonts });
    add('print/', 'pdf', file!.bytes, { 'one-page': 'page', templates: 'templates', arrangement: 'toppers' }[kind]);
  }
  add('', 'txt', `${card.name}\n\n${verdictLine(evaluation).says}\n\n${KINDS}\n`, 'what is here');
  return zipSync(files) as Uint8Array<ArrayBuffer>;
}

const KINDS = `.card.json  the card itself: open it on the shelf
print/      the page for the table, templates at true size, where toppers go
cutter/     drawings for an electronic cutter, one for each stock
.csv        measures for a spreadsheet
.json       every step with its readings in mm
.fold       the crease pattern, for programs that fold on the screen

Estimates, not guarantees: try a fold on scrap first. Knives, hot tools and strong glues: follow your local rules.`;
