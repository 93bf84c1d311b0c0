import type { CardDocument } from '../card/document.js';
import { ROOT } from '../card/document.js';
import { contextFor } from '../card/set-size.js';
import { cardToTry } from '../card/try-out.js';
import { told } from '../measure/sentence.js';
import { evaluate, type Evaluation } from '../evaluate.js';
import type { Mm } from '../measure/units.js';
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
  const facts = factsOf(mechanism);
  return { id: mechanism.id, markdown: textOf(mechanism, facts), drawing: facts.drawing };
}

/** A size that the maker sets: where it begins, what is allowed and why. */
export interface SizeFact {
  name: string;
  label: string;
  help: string;
  begins: string;
  allowed: string;
  because: string;
}

/** A flat piece with its scores, in words. */
export interface PieceFact {
  name: string;
  size: string;
  says: string;
  scores: string[];
}

/** What there is to know of a mechanism at the sizes that it begins with. */
export interface MechanismFacts {
  closed: string;
  putDown: string;
  /** movements that are left when its drive is held */
  freedom: number;
  sizes: SizeFact[];
  pieces: PieceFact[];
  numbers: { label: string; value: string; because: string }[];
  /** closed, half open and open, and its flat pieces; an SVG */
  drawing: string;
}

/**
 * The facts of a mechanism, worked out by the same calculation as every card.
 * @param say how lengths are told; in millimetres where left out
 * @throws Error when its own sizes are refused, which would be a fault of the mechanism
 */
export function factsOf(mechanism: Mechanism, say: (mm: Mm) => string = plainMm): MechanismFacts {
  const card = cardToTry(mechanism);
  const outcome = evaluate(card);
  if (!outcome.ok) throw new Error(`${mechanism.id}: ${outcome.problems.map((p) => p.says).join(' ')}`);
  const { evaluation } = outcome;
  const { sheets, measures, closed, design, motion } = evaluation;
  const owner = mechanism.kind === 'base' ? ROOT : mechanism.usualId;
  const { minX, maxX, minY, maxY } = closed.box;
  const own = measures.filter((m) => mechanism.kind === 'base' || m.owner === owner);
  return {
    closed: `${say(maxX - minX)} × ${say(maxY - minY)}`,
    putDown: design.base.rest.says,
    freedom: motion.freedom,
    sizes: sizeFacts(mechanism, card, owner, design.sizes[owner]!, say),
    pieces: sheets.map((sheet) => pieceFact(sheet, say)),
    numbers: own.map(({ label, value, unit, because }) => ({ label, value: unit === 'rad' ? printAngle(value) : say(value), because })),
    drawing: drawingOf(evaluation, say),
  };
}

function textOf(mechanism: Mechanism, { closed, putDown, freedom, sizes, pieces, numbers }: MechanismFacts): string {
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
    ...sizes.map(
      ({ name, label, help, begins, allowed, because }) =>
        `| \`${name}\` | ${label}: ${help} | ${begins} | ${allowed} |${because ? ` ${because} ` : ' '}|`,
    ),
    ...(mechanism.alternatives ?? []).map((a) => `| \`${a.name}\` | ${a.label}, in place of \`${a.insteadOf}\` | | | ${a.help} |`),
    '',
    '## Pieces and scores',
    '',
    ...pieces.flatMap(({ name, size, says, scores }) => [
      `**${name}**, ${size}, ${says}`,
      '',
      ...scores.map((score) => `- ${score}`),
      ...(scores.length > 0 ? [''] : []),
    ]),
    '## Every number that follows',
    '',
    `Closed it is ${closed}. Put down: ${putDown}. With its drive held ${loose(freedom)}.`,
    '',
    '| number | value | why |',
    '| --- | --- | --- |',
    ...numbers.map(({ label, value, because }) => `| ${label} | ${value} | ${because} |`),
    '',
  ].join('\n');
}

const loose = (freedom: number): string => (freedom === 0 ? 'nothing is left loose' : `${freedom} parts are left loose`);

function sizeFacts(mechanism: Mechanism, card: CardDocument, owner: string, sizes: Sizes, say: (mm: Mm) => string): SizeFact[] {
  const context: SizeContext = { ...contextFor(card, owner), sizes };
  return mechanism.sizes.flatMap((size): SizeFact[] => {
    if (size.kind !== 'list') return [sizeFact(size, sizes[size.name], context, say)];
    const { name, label, help, least, most } = size;
    const entries = items(fillSizes(mechanism.sizes, {}, contextFor(card, owner)), name);
    const head = {
      name,
      label,
      help,
      begins: String(entries.length),
      allowed: `${least} to ${most}`,
      because: 'each with the sizes below',
    };
    const item = entries[0];
    if (!item) return [head];
    return [head, ...size.item.map((own) => sizeFact(own, item[own.name], { ...context, item, index: 0 }, say, `${name}[1].`))];
  });
}

function sizeFact(size: PlainSize, value: SizeValue | undefined, context: SizeContext, sayMm: (mm: Mm) => string, prefix = ''): SizeFact {
  const { label, help } = size;
  const head = { name: `${prefix}${size.name}`, label, help };
  if (size.kind === 'choice' || size.kind === 'outline') {
    return { ...head, begins: String(value), allowed: size.options.map((o) => o.value).join(', '), because: '' };
  }
  const say = { length: sayMm, angle: (angle: number) => printAngle(angle), count: String, weight: printGrams }[size.kind];
  const { min, max, because } = size.range(context);
  return { ...head, begins: say(value as number), allowed: `${say(min)} to ${say(max)}`, because: told(because, 'mm') };
}

function pieceFact(sheet: CutSheet, say: (mm: Mm) => string): PieceFact {
  const { piece, width, height, scores, windows, cuts } = sheet;
  const slits = cuts.filter(({ line }) => !line).length + linesOf(cuts).length;
  const more = [windows.length > 0 && `${windows.length} opening${windows.length > 1 ? 's' : ''}`, slits > 0 && `${slits} cuts`];
  const also = more.filter(Boolean).join(', ');
  return {
    name: piece.name,
    size: `${say(width)} × ${say(height)}`,
    says: `${piece.faceUp}: ${piece.because}.${also ? ` Also ${also}.` : ''}`,
    scores: scores.map((score) => {
      const { name, fold, from, to } = score;
      const at = ([x, y]: Point): string => `${say(x)} / ${say(y)}`;
      const part = partOf(score, sheet);
      const stretch = part ? `, from ${say(part[0])} to ${say(part[1])} along it` : '';
      return `${name}, ${fold}: ${readsOffRuler(score) ? `at ${say(from[0])}${stretch}` : `from ${at(from)} to ${at(to)}`}`;
    }),
  };
}

/** Closed, half open and open side by side; below them the flat pieces with their scores numbered. */
function drawingOf(evaluation: Evaluation, say: (mm: Mm) => string): string {
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
  const pieces = piecesOf(evaluation.sheets, PICTURE_HEIGHT + 3 * GAP, say);
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${WIDTH} ${n(pieces.bottom)}" width="${WIDTH}" height="${n(pieces.bottom)}" font-family="sans-serif" font-size="11" fill="${INK}">`,
    `<rect width="100%" height="100%" fill="#fffdf8"/>`,
    ...pictures,
    ...pieces.drawn,
    '</svg>',
    '',
  ].join('\n');
}

function piecesOf(sheets: readonly CutSheet[], top: number, say: (mm: Mm) => string): { drawn: string[]; bottom: number } {
  const widest = Math.max(...sheets.map((sheet) => sheet.width));
  const scale = Math.min((WIDTH - 2 * GAP) / widest, 1.6);
  const drawn: string[] = [];
  let [x, y, row] = [GAP, top, 0];
  for (const sheet of sheets) {
    const [width, height] = [sheet.width * scale, sheet.height * scale];
    const wide = Math.max(width, captionOf(sheet, say).length * LETTER);
    if (x > GAP && x + wide > WIDTH - GAP) [x, y, row] = [GAP, y + row + 40, 0];
    drawn.push(flatPiece(sheet, [x, y], scale, captionOf(sheet, say)));
    x += wide + 24;
    row = Math.max(row, height);
  }
  return { drawn, bottom: y + row + 30 };
}

const captionOf = ({ piece, width, height }: CutSheet, say: (mm: Mm) => string): string => `${piece.name}, ${say(width)} × ${say(height)}`;

function flatPiece(sheet: CutSheet, [left, top]: Point, scale: number, caption: string): string {
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
    `<text x="${n(left)}" y="${n(top + sheet.height * scale + 13)}">${caption}</text></g></g>`,
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
