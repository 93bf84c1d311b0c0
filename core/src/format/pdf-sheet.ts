import { starterFor } from '../supplies/starter-workshops.js';
import type { Workshop } from '../supplies/workshop.js';
import { cutOnce, type DressedLayer } from '../dress/layer.js';
import type { Evaluation } from '../evaluate.js';
import { printAngle, sayLength } from '../measure/print.js';
import type { Mm } from '../measure/units.js';
import { benchSteps } from '../plan/bench-steps.js';
import { materialsOf } from '../plan/materials.js';
import type { BenchStep } from '../plan/step.js';
import { verdictLine } from '../plan/verdict.js';
import { COLUMN_GAP, flow, type TextLine } from './pdf-columns.js';
import { drawPieces, legend, legendHeight, scoreNumbers } from './pdf-drawings.js';
import { PAPERS, type PaperId } from './papers.js';
import { missingLetters, MmPage, newPdf, savePdf, type Frame, type PdfFonts, type PdfSetting } from './pdf-page.js';
import { standingPicture } from './standing-picture.js';
import { PT } from './pdf-units.js';

const MARGIN: Mm = 12;
/** Of a page of everyday height. */
const EVERYDAY_PAGE: Mm = 297;
/** Room for the drawings: more where there are many, whose text goes on over a second page anyway, and on a larger page. */
const drawingRoom = (pieces: number, page: Mm): Mm => (pieces > 3 ? 112 : 74) * Math.max(1, page / EVERYDAY_PAGE);

/**
 * One page with everything to make the card: drawings with their scores, the verdict, every measure by name, materials, steps.
 * Where all of it does not fit at a size that can be read, the text goes on over further pages.
 */
export async function writeOnePage(
  evaluation: Evaluation,
  paper: PaperId,
  fonts: PdfFonts,
  workshop: Workshop = starterFor(evaluation.design.card.notation),
): Promise<Uint8Array> {
  const setting = await newPdf(evaluation.design.card.name, fonts);
  const { width, height } = PAPERS[paper];
  const newPage = (): MmPage => new MmPage(setting.document.addPage([width * PT, height * PT]), setting);
  const page = newPage();
  const room = width - 2 * MARGIN;
  const steps = benchSteps(evaluation, workshop);
  const headEnd = heading(page, setting, evaluation, { width: room - PICTURE.width - COLUMN_GAP, top: height - MARGIN });
  finished(page, evaluation, { x: width - MARGIN - PICTURE.width, y: height - MARGIN - PICTURE.height, ...PICTURE });
  const top = Math.min(headEnd, height - MARGIN - PICTURE.height - 2);
  const high = drawingRoom(evaluation.sheets.length, height);
  const below = legendHeight(page, room);
  const drawings = { x: MARGIN, y: top - high, width: room, height: high };
  drawPieces(page, evaluation, { ...drawings, y: drawings.y + below, height: drawings.height - below }, setting, scoreNumbers(steps));
  legend(page, [MARGIN, drawings.y], room);
  const missing = missingLetters(setting);
  const foot: Mm = MARGIN + (missing === undefined ? 6 : 10);
  const first = { x: MARGIN, y: foot, width: room, height: drawings.y - 2 - foot };
  const further = { ...first, height: height - MARGIN - foot };
  const pages = flow(page, newPage, setting, textOf(evaluation, workshop, steps), first, further);
  pages.forEach((own, i) => {
    if (missing !== undefined && i === 0) own.text(missing, [MARGIN, MARGIN + 4], 8, { bold: true });
    own.text('Estimates, not guarantees: try on scrap first. Knives cut: away from fingers, on a mat.', [MARGIN, MARGIN], 8, {
      soft: true,
    });
    if (pages.length > 1)
      own.aside(() => own.text(`${i + 1} of ${pages.length}`, [width - MARGIN, MARGIN], 8, { soft: true, right: true }));
  });
  return savePdf(setting);
}

/** Name, closed size and verdict at the head of the page, in as many lines as they take. @returns where they end */
function heading(page: MmPage, { regular, bold, tags }: PdfSetting, evaluation: Evaluation, { width, top }: { width: Mm; top: Mm }): Mm {
  const { card } = evaluation.design;
  const { minX, maxX, minY, maxY } = evaluation.closed.box;
  const verdict = verdictLine(evaluation);
  const set = [
    { role: 'H1' as const, words: card.name, size: 17, font: bold, look: { bold: true } },
    {
      role: 'P' as const,
      words: `Closed ${sayLength(maxX - minX, card.notation)} across the fold, ${sayLength(maxY - minY, card.notation)} along it. The drawings are not to scale; the numbers are.`,
      size: 9,
      font: regular,
      look: { soft: true },
    },
    { role: 'P' as const, words: verdict.says, size: 9, font: verdict.works ? regular : bold, look: { bold: !verdict.works } },
  ];
  let y = top;
  for (const { role, words, size, font, look } of set) {
    const element = tags.element(role);
    for (const line of font.wrapped(words, size, width)) {
      y -= (size * 1.25) / PT;
      page.as(element, () => page.text(line, [MARGIN, y], size, look));
    }
  }
  return y - 4;
}

/** The finished card, at the head of the page. */
const PICTURE = { width: 46, height: 30 } as const;

function finished(page: MmPage, evaluation: Evaluation, frame: Frame): void {
  const at = evaluation.design.base.rest.says;
  page.as('Figure', () => page.picture(standingPicture(evaluation), frame), `The finished card, ${at}`);
}

/** Every layer with its size, and that of its panel beside it: they are mixed up easily. */
function layerLines({ dressed, design }: Evaluation): TextLine[] {
  if (dressed.layers.length === 0) return [];
  const size = ({ width, height }: { width: Mm; height: Mm }): string =>
    `${sayLength(width, design.card.notation)} × ${sayLength(height, design.card.notation)}`;
  const line = ({ name, box, panelBox, stock, liner, sheet }: DressedLayer): TextLine => ({
    words: liner
      ? `${name}: in one piece, ${size(sheet)}; ${stock.name}`
      : `${name}: layer ${size(box)}, panel ${size(panelBox)}; ${stock.name}`,
  });
  return [{ words: 'Layers', bold: true, space: true }, ...cutOnce(dressed.layers).map(line)];
}

function textOf(evaluation: Evaluation, workshop: Workshop, steps: readonly BenchStep[]): TextLine[] {
  const numbers = scoreNumbers(steps);
  const numberOf = ({ picture }: BenchStep, { scores }: NonNullable<BenchStep['scores']>[number]): number | undefined =>
    picture?.kind === 'flat' ? numbers.get(picture.piece)?.get(scores[0]!.id) : undefined;
  const { notation } = evaluation.design.card;
  const heading = (words: string): TextLine => ({ words, bold: true, space: true });
  const { note } = evaluation.design.card;
  return [
    ...(note ? [heading('Note'), ...note.split(/\n+/).map((words) => ({ words }))] : []),
    heading('Have ready'),
    ...materialsOf(evaluation, workshop).map(({ what, detail }) => ({ words: `${what}: ${detail}` })),
    heading('Measures'),
    ...evaluation.measures.map(({ label, value, unit }) => ({
      words: `${label}: ${unit === 'rad' ? printAngle(value, notation) : sayLength(value, notation)}`,
    })),
    ...layerLines(evaluation),
    heading('Steps'),
    ...steps.slice(1).flatMap((step, i): TextLine[] => [
      { words: `${i + 1}. ${step.title}`, bold: true },
      {
        words: [...step.says, ...(step.scores ?? []).map((r) => `${numberOf(step, r)}: ${sayLength(r.at, notation)} (${r.words})`)].join(
          ' ',
        ),
      },
    ]),
  ];
}
