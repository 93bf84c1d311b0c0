import type { CardDocument } from '../card/document.js';
import { ROOT } from '../card/document.js';
import { contextFor } from '../card/set-size.js';
import { cardToTry } from '../card/try-out.js';
import { told } from '../measure/sentence.js';
import { evaluate, type Evaluation } from '../evaluate.js';
import { plainMm, printAngle, printGrams } from '../measure/print.js';
import type { Mechanism } from '../mechanism/contract.js';
import { fillSizes, items, type PlainSize, type SizeContext, type Sizes, type SizeValue } from '../mechanism/sizes.js';
import type { Point } from '../plane/point.js';
import { linesOf } from '../sheet/cut-lines.js';
import { partOf, readsOffRuler, type CutSheet } from '../sheet/cut-sheet.js';
import { pieceDrawing, type DrawingRole } from '../sheet/piece-drawing.js';
import { standingPicture } from './standing-picture.js';

const WIDTH = 760;
const GAP = 16;
const PICTURE_HEIGHT = 190;
const INK = '#24231f';
/** Width of a letter of a caption, about. */
const LETTER = 5.8;

const EDGE = `stroke="${INK}" stroke-width="1.3"`;
/** How each part of a flat piece looks on a page of the handbook; what is left out is not drawn. */
const LOOKS: Partial<Record<DrawingRole, string>> = {
  outline: EDGE,
  window: EDGE,
  slit: EDGE,
  mountain: 'stroke="#8a4e0c" stroke-width="1.4" stroke-dasharray="10 3 2 3"',
  valley: 'stroke="#405426" stroke-width="1.4" stroke-dasharray="6 4"',
  glue: 'fill="#e2a544" fill-opacity="0.22"',
};

/** A page of the handbook: text, and the drawing that goes with it. */
export interface HandbookPage {
  id: string;
  markdown: string;
  drawing: string;
}

/**
 * What there is to know of a mechanism at its own sizes, made from the mechanism itself: drawing, sizes with
 * limits, scores, and every number that follows with its reason.
 * @throws Error when its own sizes are refused, which would be a fault of the mechanism
 */
export function handbookPage(mechanism: Mechanism): HandbookPage {
  const card = cardToTry(mechanism);
  const outcome = evaluate(card);
  if (!outcome.ok) throw new Error(`${mechanism.id}: ${outcome.problems.map((p) => p.says).join(' ')}`);
  return { id: mechanism.id, markdown: textOf(mechanism, card, outcome.evaluation), drawing: drawingOf(outcome.evaluation) };
}

function textOf(mechanism: Mechanism, card: CardDocument, evaluation: Evaluation): string {
  const { sheets, measures, closed } = evaluation;
  const owner = mechanism.kind === 'base' ? ROOT : mechanism.usualId;
  const { minX, maxX, minY, maxY } = closed.box;
  const own = measures.filter((m) => mechanism.kind === 'base' || m.owner === owner);
  return [
    `# ${mechanism.name}`,
    '',
    `\`${mechanism.id}\`. ${mechanism.summary}`,
    '',
    `![${mechanism.name}: closed, half open and open, and its flat pieces](${mechanism.id}.svg)`,
    '',
    `Needs ${mechanism.needs.join(', ')}. What may go wrong: ${mechanism.mayGoWrong.join('; ')}.`,
    '',
    'All numbers on this page are those of the sizes it begins with; they are worked out by the program, as is the drawing.',
    '',
    '## Sizes you set',
    '',
    '| name | what | begins at | allowed | why these limits |',
    '| --- | --- | --- | --- | --- |',
    ...sizeLines(mechanism, card, owner, evaluation.design.sizes[owner]!),
    ...(mechanism.alternatives ?? []).map((a) => `| \`${a.name}\` | ${a.label}, in place of \`${a.insteadOf}\` | | | ${a.help} |`),
    '',
    '## Pieces and scores',
    '',
    ...sheets.flatMap((sheet) => pieceLines(sheet)),
    '## Every number that follows',
    '',
    `Closed it is ${plainMm(maxX - minX)} × ${plainMm(maxY - minY)}. Put down: ${evaluation.design.base.rest.says}. With its drive held ${loose(evaluation.motion.freedom)}.`,
    '',
    '| number | value | why |',
    '| --- | --- | --- |',
    ...own.map(({ label, value, unit, because }) => `| ${label} | ${unit === 'rad' ? printAngle(value) : plainMm(value)} | ${because} |`),
    '',
  ].join('\n');
}

const loose = (freedom: number): string => (freedom === 0 ? 'nothing is left loose' : `${freedom} parts are left loose`);

function sizeLines(mechanism: Mechanism, card: CardDocument, owner: string, sizes: Sizes): string[] {
  const context: SizeContext = { ...contextFor(card, owner), sizes };
  return mechanism.sizes.flatMap((size): string[] => {
    if (size.kind !== 'list') return [sizeLine(size, sizes[size.name], context)];
    const entries = items(fillSizes(mechanism.sizes, {}, contextFor(card, owner)), size.name);
    const head = `| \`${size.name}\` | ${size.label}: ${size.help} | ${entries.length} | ${size.least} to ${size.most} | each with the sizes below |`;
    const item = entries[0];
    if (!item) return [head];
    return [head, ...size.item.map((own) => sizeLine(own, item[own.name], { ...context, item, index: 0 }, `${size.name}[1].`))];
  });
}

function sizeLine(size: PlainSize, value: SizeValue | undefined, context: SizeContext, prefix = ''): string {
  const head = `| \`${prefix}${size.name}\` | ${size.label}: ${size.help}`;
  if (size.kind === 'choice' || size.kind === 'outline') {
    return `${head} | ${String(value)} | ${size.options.map((o) => o.value).join(', ')} | |`;
  }
  const say = { length: plainMm, angle: printAngle, count: String, weight: printGrams }[size.kind];
  const { min, max, because } = size.range(context);
  return `${head} | ${say(value as number)} | ${say(min)} to ${say(max)} | ${told(because, 'mm')} |`;
}

function pieceLines(sheet: CutSheet): string[] {
  const { piece, width, height, scores, windows, cuts } = sheet;
  const slits = cuts.filter(({ line }) => !line).length + linesOf(cuts).length;
  const more = [windows.length > 0 && `${windows.length} opening${windows.length > 1 ? 's' : ''}`, slits > 0 && `${slits} cuts`];
  const also = more.filter(Boolean).join(', ');
  return [
    `**${piece.name}**, ${plainMm(width)} × ${plainMm(height)}, ${piece.faceUp}: ${piece.because}.${also ? ` Also ${also}.` : ''}`,
    '',
    ...scores.map((score) => {
      const { name, fold, from, to } = score;
      const at = ([x, y]: Point): string => `${plainMm(x)} / ${plainMm(y)}`;
      const part = partOf(score, sheet);
      const stretch = part ? `, from ${plainMm(part[0])} to ${plainMm(part[1])} along it` : '';
      return `- ${name}, ${fold}: ${readsOffRuler(score) ? `at ${plainMm(from[0])}${stretch}` : `from ${at(from)} to ${at(to)}`}`;
    }),
    ...(scores.length > 0 ? [''] : []),
  ];
}

/** Closed, half open and open side by side; below them the flat pieces with their scores numbered. */
function drawingOf(evaluation: Evaluation): string {
  const { base } = evaluation.design;
  const poses = [0, base.rest.at / 2, base.rest.at].map((s) => standingPicture(evaluation, s));
  const scale = Math.min(...poses.map(({ box }) => Math.min(PICTURE_HEIGHT / box.height, (WIDTH - 4 * GAP) / poses.length / box.width)));
  const cell = (WIDTH - 2 * GAP) / poses.length;
  const pictures = poses.map(({ facets, box }, i) => {
    const x = GAP + i * cell + (cell - box.width * scale) / 2;
    const y = GAP + PICTURE_HEIGHT - box.height * scale;
    const paths = facets
      .map(
        (f) =>
          `<path d="${f.path}" fill="${f.fill}" fill-opacity="${f.opacity}" fill-rule="evenodd"${f.bent ? ` stroke="${f.fill}"` : ''}/>`,
      )
      .join('');
    return `<g transform="translate(${n(x - box.x * scale)} ${n(y - box.y * scale)}) scale(${n(scale, 4)})" stroke="#6b5f49" stroke-width="${n(0.7 / scale, 3)}" stroke-linejoin="round">${paths}</g>`;
  });
  const pieces = piecesOf(evaluation.sheets, PICTURE_HEIGHT + 3 * GAP);
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${WIDTH} ${n(pieces.bottom)}" width="${WIDTH}" height="${n(pieces.bottom)}" font-family="sans-serif" font-size="11" fill="${INK}">`,
    `<rect width="100%" height="100%" fill="#fffdf8"/>`,
    ...pictures,
    ...pieces.drawn,
    '</svg>',
    '',
  ].join('\n');
}

function piecesOf(sheets: readonly CutSheet[], top: number): { drawn: string[]; bottom: number } {
  const widest = Math.max(...sheets.map((sheet) => sheet.width));
  const scale = Math.min((WIDTH - 2 * GAP) / widest, 1.6);
  const drawn: string[] = [];
  let [x, y, row] = [GAP, top, 0];
  for (const sheet of sheets) {
    const [width, height] = [sheet.width * scale, sheet.height * scale];
    const wide = Math.max(width, captionOf(sheet).length * LETTER);
    if (x > GAP && x + wide > WIDTH - GAP) [x, y, row] = [GAP, y + row + 40, 0];
    drawn.push(flatPiece(sheet, [x, y], scale));
    x += wide + 24;
    row = Math.max(row, height);
  }
  return { drawn, bottom: y + row + 30 };
}

const captionOf = ({ piece, width, height }: CutSheet): string => `${piece.name}, ${plainMm(width)} × ${plainMm(height)}`;

function flatPiece(sheet: CutSheet, [left, top]: Point, scale: number): string {
  const at = ([x, y]: Point): string => `${n(left + x * scale)} ${n(top + (sheet.height - y) * scale)}`;
  /** An upright score has its number above it, another at its middle. */
  const numberAt = ({ from, to }: CutSheet['scores'][number], number: number): string => {
    const upright = Math.abs(from[0] - to[0]) < 1e-6;
    const y = upright ? Math.max(from[1], to[1]) : (from[1] + to[1]) / 2;
    return `<text x="${n(left + ((from[0] + to[0]) / 2) * scale)}" y="${n(top + (sheet.height - y) * scale - 3)}" text-anchor="middle">${number}</text>`;
  };
  const drawn = pieceDrawing(sheet).map(({ role, points, closed }) => {
    const look = LOOKS[role];
    return look ? `<path d="M${points.map(at).join('L')}${closed ? 'Z' : ''}" ${look}/>` : '';
  });
  return [
    `<g fill="none">${drawn.join('')}`,
    `<g fill="${INK}">${sheet.scores.map((score, i) => numberAt(score, i + 1)).join('')}`,
    `<text x="${n(left)}" y="${n(top + sheet.height * scale + 13)}">${captionOf(sheet)}</text></g></g>`,
  ].join('');
}

const n = (value: number, decimals = 1): string => String(Number(value.toFixed(decimals)));

/** The handbook's first page: every mechanism with its summary. */
export function handbookIndex(mechanisms: readonly Mechanism[]): string {
  const rows = mechanisms.map(({ id, name, kind, summary }) => `| [${name}](${id}.md) | ${kind} | ${summary} |`);
  return [
    '# Every mechanism and its numbers',
    '',
    'These pages are written by `npm run handbook` from the catalogue itself; a test holds them against it.',
    '',
    '| mechanism | kind | what it does |',
    '| --- | --- | --- |',
    ...rows,
    '',
  ].join('\n');
}
