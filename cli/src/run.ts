import { readFileSync, writeFileSync } from 'node:fs';
import { join, parse } from 'node:path';
import {
  benchSteps,
  drawingsOf,
  evaluate,
  PAPER_IDS,
  report,
  ROOT,
  stepsRecord,
  verdictLine,
  withOffers,
  writeCsv,
  writeFold,
  writeSvg,
  type CsvDialect,
  type CutterDrawing,
  type Evaluation,
  type PaperId,
  type Workshop,
} from '@diptychon/core';
import { writeDxf, writeOnePage, writeArrangement, writeTemplates, type PdfFonts } from '@diptychon/core/files';
import { readArguments, UsageError, type Arguments } from './arguments.js';
import { cardFrom } from './card-from-arguments.js';
import { cut } from './cut.js';
import { PLANS } from './plans.js';
import { TRIALS } from './trials.js';
import { WRAPPERS } from './wrappers.js';

/** Commands with options of their own. */
const OWN = new Map([...WRAPPERS, ...TRIALS, ...PLANS]);
import { catalogueRecord, printCatalogue, printReport, printSteps } from './print.js';

interface Streams {
  stdout: { write: (text: string) => unknown };
  stderr: { write: (text: string) => unknown };
}

const HELP = `diptychon list [--json]
    the catalogue: each mechanism's free sizes, limits and defaults, and the folds that others may stand on
diptychon compute CARD.json|--mechanism ID [options] [--json]
    pieces, measures with reasons, findings and the motion's summary
diptychon steps CARD.json|--mechanism ID [options] [--json]
    how it is made, step by step, with my tools and school; as JSON also blanks {piece, width, height}, every line that a step
    makes, in mm: {piece, kind, at, from, to, edge, fold}, at: from that edge, from and to: along it, from the lower edge or, for
    lower and upper edge, from the left; points: of what is traced; and joins {glued, onto}, each {piece, face, outline, holes}
diptychon export CARD.json|--mechanism ID [options] --format FORMAT --out FILE
    FORMAT: svg or dxf for a cutter (--folds score|perforation; svg with --print-and-cut: marks, letters and pictures to print first), one drawing for each stock and bed: the first is FILE,
    others stand beside it as FILE-STOCK; csv of the measures (--decimal point|comma),
    pdf (one page), templates (true size) or arrangement (where the toppers go, true size), all --paper a4|a3|a5|letter|legal|tabloid,
    fold (open JSON of the crease pattern and folded states).
    A card that fails is not written (exit code 3) but with --anyway.
diptychon envelope --width W --height H [--thickness T] [--ease E] [--overlap O] [--json]
    the square that folds into an envelope for a closed card, laid on its corner: square is its side, firstFold where the first
    corner of the pocket lies along an edge
diptychon band --width W --height H --thickness T [--around width|height] [--slip S] [--overlap O] [--json]
    a band round a closed card: its length, its folds, and which way it slides off

diptychon repair CARD.json|--mechanism ID [options] [--json]
    the least changes of sizes after which nothing fails, each tried out whole; where there are none, what cannot be had together
diptychon rescue CARD.json|--mechanism ID [options] --made MADE [--made …] [--json]
    the card worked out from what was really made, and ways to go on, the least first: PIECE/SCORE=PLACE (PIECE/width, PIECE/height),
    PIECE/SCORE=FROM..TO how long it is, PIECE/SCORE=other-way how it folds, JOINT="2mm right" where a piece is glued
diptychon tolerance CARD.json|--mechanism ID [options] [--samples N] [--seed S] [--json]
    how many of such cards close, meet, swing, stay inside and fit with the errors of my hand, and what must be exact
diptychon resize CARD.json|--mechanism ID [options] --envelope ID|--closed WxH [--json]
    the same card for another envelope or closed size, on my marks; tabs, clearances and borders stay. Several, separated by
    semicolons, give one card in several sizes
diptychon reconcile [--mechanism ID] --say NAME=VALUE [--say …] [--json]
    a list of numbers from elsewhere: scores=A,B,…, blank=WxH, closedWidth=…, closedHeight=…, layer.PANEL=WxH (scores.PIECE and
    blank.PIECE of another piece; entries of scores count from 1). Which contradict which, and the one whose change mends it;
    without a mechanism, which mechanisms the list could be of
diptychon fit-sheet --mechanism ID --sheet WxH[:STOCK] [--copies N] [--look any|upright|square|wide] [--workshop FILE] [--json]
    the largest card of a kind of which all pieces come out of one sheet, of one stock where that is said
diptychon plan CARD.json|--mechanism ID [options] [--copies N] [--sheet WxH[:STOCK] …] [--tool trimmer|free] [--spares] [--json]
    how all pieces of N cards are cut from the sheets at hand: edge to edge along a fence, or each along its own outline; with
    --spares one more of each topper, as a sample
diptychon cut FILE.svg --server URL [--out PICTURE.svg] [--json]
    sends a drawing to a cutter, follows it to its end, and says what came free and what is cut badly; what the machine has cut
    goes into --out

Options of compute, steps, export, repair, rescue, tolerance, resize and plan:
    --part NAME=MECHANISM@PART/SITE   put a movement on a fold (several; PART/SITE: the base's first free fold)
    --set NAME.SIZE=VALUE             a size of the part NAME; a bare name is the base's (several)
    --stock ROLE=ID                   base, mechanism, display, film or stop from another stock (several)
    --board ID  --envelope ID         of the workshop
    --within outline|envelope         what the closed card must keep inside
    --layers BORDER                   a layer on every panel that is seen, smaller by this on each side; with
                                      --layer-steps 1|2|3 on one another, --layer-step STEP smaller each, --layer-stock ID
    --notation mm|cm|inch/8|inch/16|inch/32
    --workshop FILE                   my own stocks, boards and envelopes, saved from the Workshop screen
    --outline FILE.svg                an outline of your own: --outline leaf.svg --set outline=own-leaf

Lengths take a unit: 54mm, 5,4cm, 3 5/8, 3.625in. Angles: 45deg. Lists: layers=3, layers[1].depth=12mm.
`;

interface WriteOptions {
  folds: 'score' | 'perforation';
  printed: boolean;
  paper: PaperId;
  decimal: CsvDialect;
  workshop: Workshop;
}

/** What is written to one file; `suffix` tells it from others of the same card. */
interface Written {
  content: string | Uint8Array;
  suffix?: string;
  says?: string;
}

type Writer = (evaluation: Evaluation, options: WriteOptions) => Written[] | Promise<Written[]>;

const WRITERS: Readonly<Record<string, Writer>> = {
  svg: (evaluation, options) =>
    drawn(evaluation, options, (drawing) => writeSvg(drawing, evaluation.design.card.name, options, evaluation.design.card.images)),
  dxf: (evaluation, options) => drawn(evaluation, options, (drawing) => writeDxf(drawing, options)),
  csv: (evaluation, { decimal }) => [{ content: writeCsv(evaluation, decimal) }],
  fold: (evaluation) => [{ content: writeFold(evaluation) }],
  pdf: async (evaluation, { paper, workshop }) => [{ content: await writeOnePage(evaluation, paper, printFonts(), workshop) }],
  arrangement: async (evaluation, { paper }) => {
    if (evaluation.dressed.toppers.length === 0) throw new UsageError('--format: arrangement is of toppers, and this card carries none');
    return [{ content: (await writeArrangement(evaluation, paper, printFonts())).bytes }];
  },
  templates: async (evaluation, { paper }) => [{ content: (await writeTemplates(evaluation, paper, printFonts())).bytes }],
};

/** One file for each stock and bed. */
function drawn(evaluation: Evaluation, { workshop }: WriteOptions, write: (drawing: CutterDrawing) => string): Written[] {
  return drawingsOf(evaluation, workshop).map((drawing) => ({
    content: write(drawing),
    suffix: drawing.suffix,
    says: `${drawing.name}: ${drawing.placed.map(({ sheet }) => sheet.piece.name).join(', ')}${drawing.larger ? '; larger than the bed of my cutter' : ''}`,
  }));
}

/** The letters that go into a PDF: the same files that the page ships with. */
function printFonts(): PdfFonts {
  const font = (letters: 'latin' | 'latin-ext', weight: number): Uint8Array =>
    new Uint8Array(
      readFileSync(new URL(`../../web/public/print-fonts/atkinson-hyperlegible-next-${letters}-${weight}-normal.woff`, import.meta.url)),
    );
  return { regular: [font('latin', 400), font('latin-ext', 400)], bold: [font('latin', 700), font('latin-ext', 700)] };
}

/** Runs one command. @returns the exit code: 0 done, 2 something to put right, 3 not written because the card fails */
export async function run(argv: readonly string[], { stdout, stderr }: Streams): Promise<number> {
  try {
    const given = readArguments(argv);
    const command = given.flags.has('help') ? 'help' : (given.words[0] ?? 'help');
    const own = OWN.get(command);
    refuseStray(given, command);
    if (command === 'help') stdout.write(HELP);
    else if (own) {
      const { record, lines } = own.work(given);
      stdout.write(given.flags.has('json') ? json(record) : lines);
    } else if (command === 'list') stdout.write(given.flags.has('json') ? json(catalogueRecord()) : printCatalogue());
    else if (command === 'compute') {
      const { evaluation } = evaluated(given);
      stdout.write(given.flags.has('json') ? json(report(evaluation)) : printReport(report(evaluation), evaluation.design.card.notation));
    } else if (command === 'steps') {
      const { evaluation, workshop } = evaluated(given);
      const steps = benchSteps(evaluation, workshop);
      stdout.write(given.flags.has('json') ? json(stepsRecord(steps)) : printSteps(steps));
    } else if (command === 'export') return await exportTo(given, { stdout, stderr });
    else if (command === 'cut') return await cut(given, { stdout, stderr });
    else throw new UsageError(`${command}: no such command; allowed: list, compute, steps, export, cut, ${[...OWN.keys()].join(', ')}`);
    return 0;
  } catch (error) {
    if (!(error instanceof UsageError)) throw error;
    stderr.write(`${error.message}\n`);
    return 2;
  }
}

/** What only some commands may be given. */
const NOT_EVERYWHERE = [
  'width',
  'height',
  'thickness',
  'around',
  'ease',
  'slip',
  'overlap',
  'say',
  'made',
  'samples',
  'seed',
  'closed',
  'sheet',
  'copies',
  'look',
  'tool',
  'spares',
  'server',
];

/** What a drawing may be sent with. */
const CUT = ['server', 'out'];

/** An option that a command has no use for is told, not passed over. */
function refuseStray({ options: single, repeated, flags }: Arguments, command: string): void {
  const own = command === 'cut' ? CUT : OWN.get(command)?.options;
  const switches = [...flags].filter((flag) => flag !== 'json' && flag !== 'help');
  const given = [...single.keys(), ...Object.entries(repeated).flatMap(([name, values]) => (values.length > 0 ? [name] : [])), ...switches];
  const stray = own
    ? given.find((name) => (name !== 'notation' || command === 'cut') && !own.includes(name))
    : given.find((name) => NOT_EVERYWHERE.includes(name));
  if (stray === undefined) return;
  const takers = stray === 'server' ? ['cut'] : [...OWN].filter(([, { options }]) => options.includes(stray)).map(([name]) => name);
  throw new UsageError(
    own
      ? `--${stray}: not an option of ${command}; allowed: ${[...own, 'notation', 'json'].map((name) => `--${name}`).join(', ')}`
      : `--${stray}: not an option of ${command}; it belongs to ${takers.join(' and ')}`,
  );
}

/** A card worked out, with the fixes that have to be searched for. */
function evaluated(given: Arguments): { evaluation: Evaluation; workshop: Workshop } {
  const { card, workshop } = cardFrom(given);
  const outcome = evaluate(card, workshop);
  if (!outcome.ok) {
    const { owner, size, says } = outcome.problems[0]!;
    const name = owner === ROOT || size === '' ? size : `${owner}.${size}`;
    throw new UsageError(name && !says.startsWith(`${name}:`) ? `${name}: ${says}` : says);
  }
  const { evaluation } = outcome;
  return { evaluation: { ...evaluation, findings: withOffers(evaluation, workshop) }, workshop };
}

function choice<T extends string>(given: Arguments, name: string, allowed: readonly T[]): T {
  const value = given.options.get(name) ?? allowed[0]!;
  const known = allowed.find((option) => option === value);
  if (known === undefined) throw new UsageError(`--${name}: “${value}” is not allowed; allowed: ${allowed.join(', ')}`);
  return known;
}

async function exportTo(given: Arguments, { stdout, stderr }: Streams): Promise<number> {
  const format = given.options.get('format') ?? '';
  const writer = WRITERS[format];
  if (!writer) throw new UsageError(`--format: “${format}” is not a format; allowed: ${Object.keys(WRITERS).join(', ')}`);
  const out = given.options.get('out');
  if (!out) throw new UsageError('--out: say which file to write');
  const options = {
    folds: choice(given, 'folds', ['score', 'perforation'] as const),
    printed: given.flags.has('print-and-cut'),
    paper: choice(given, 'paper', PAPER_IDS),
    decimal: choice(given, 'decimal', ['point', 'comma'] as const),
  };
  if (options.printed && format !== 'svg') throw new UsageError('--print-and-cut: is for --format svg');
  const { evaluation, workshop } = evaluated(given);
  const verdict = verdictLine(evaluation);
  if (!verdict.works) {
    stderr.write(`${verdict.says}\n`);
    if (!given.flags.has('anyway')) {
      stderr.write('Nothing was written; --anyway writes it all the same.\n');
      return 3;
    }
  }
  const written = await writer(evaluation, { ...options, workshop });
  written.forEach(({ content, suffix, says }, i) => {
    const file = i === 0 ? out : beside(out, suffix!);
    try {
      writeFileSync(file, content);
    } catch {
      throw new UsageError(`--out: “${file}” cannot be written`);
    }
    stdout.write(`wrote ${file}${says ? ` (${says})` : ''}\n`);
  });
  return 0;
}

/** A file of the same name and ending, with something before the ending. */
function beside(file: string, suffix: string): string {
  const { dir, name, ext } = parse(file);
  return join(dir, `${name}-${suffix}${ext}`);
}

function json(value: unknown): string {
  return `${JSON.stringify(value, null, 2)}\n`;
}
