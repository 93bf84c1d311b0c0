import { sayInWords } from '../measure/sentence.js';
import { boardOf } from '../card/document.js';
import { claimsOf } from '../card/draw.js';
import { ownOutlines } from '../card/own-outlines.js';
import { stockOf } from '../card/card-stocks.js';
import type { Evaluation } from '../evaluate.js';
import { capitalised, sayLength } from '../measure/print.js';
import type { Mm, Notation } from '../measure/units.js';
import { boxOf, isRectangle, type Box } from '../plane/outline.js';
import type { Point } from '../plane/point.js';
import { inner, outer, type CutKind, type CutLines, type StraightCut } from '../sheet/cut-lines.js';
import { readsOffRuler, type CutSheet } from '../sheet/cut-sheet.js';
import { halfTemplate } from '../sheet/half-template.js';
import { isClear } from '../supplies/stocks.js';
import type { Workshop } from '../supplies/workshop.js';
import { boardOffsetWords, foldWords, trimmerWords } from './calibrated.js';
import { dieWords, PRESS } from './die-words.js';
import { cutRun, middleOf, middleOfLine, type CutRun } from './cut-runs.js';
import { edgeAtZero, firstLayUp, lies, TURNED } from './lay-up.js';
import { ordinateWords } from './ordinates.js';
import { readingFrom } from './reading.js';
import { extentOf, scoreRuns } from './score-runs.js';
import type { Face } from '../sheet/piece.js';
import { blankOf, flat, KNIFE, plainStep, type BenchStep } from './step.js';

/** Thicker card cracks where it is folded without a score. */
const MUST_BE_SCORED: Mm = 0.4;

/**
 * What is done to one flat piece, in order. Scores that end at a cut are made after it, so that the cut shows where they
 * end; all others before anything is cut away, while the blank still has its edges.
 */
export function flatSteps(sheet: CutSheet, evaluation: Evaluation, workshop: Workshop): BenchStep[] {
  const scores = score(sheet, evaluation, workshop);
  const pencilled = pencil(sheet, evaluation);
  const inside = cut(sheet, inner(sheet), evaluation, workshop, 'inside');
  const out = cut(sheet, outer(sheet), evaluation, workshop, 'out');
  const cutsShowTheWay = sheet.scores.some((line) => readsOffRuler(line) && extentOf(line, sheet).stopsAtCut);
  const worked = cutsShowTheWay ? [...inside, ...scores, ...pencilled] : [...scores, ...pencilled, ...inside];
  const before = [trim(sheet, evaluation, workshop, worked.length + out.length > 0 || carriesGlued(sheet, evaluation)), ...worked];
  return [...(out.length > 0 ? before.map(asBlank) : before), ...out];
}

/** Whether something is glued to it, measured from its edges. */
const carriesGlued = ({ piece }: CutSheet, { design }: Evaluation): boolean =>
  design.linkage.bonds.some(({ b }) => design.panels[b]!.piece === piece);

/** Whether any of its steps lays a blank another way than it is drawn. */
function isEverTurned(sheet: CutSheet, { design }: Evaluation, { schools }: Workshop): boolean {
  const { notation } = design.card;
  const runs = scoreRuns(sheet, boardOf(design.card), notation, schools.scoring);
  const cuts = [inner(sheet), outer(sheet)].flatMap((lines) => cutRun(sheet, lines, notation, schools.cutting).numbered);
  return (
    runs.some(({ face, turned, readings }) => face === 'down' || turned || readings.some(({ again }) => again.length > 0)) ||
    cuts.some(({ again }) => again.length > 0) ||
    sheet.marks.some(({ face }) => face === 'down')
  );
}

/** A step whose piece has its outline still to be cut. */
const asBlank = (step: BenchStep): BenchStep =>
  step.picture?.kind === 'flat' ? { ...step, picture: { ...step.picture, blank: true } } : step;

function trim(sheet: CutSheet, evaluation: Evaluation, workshop: Workshop, isWorked: boolean): BenchStep {
  const { design } = evaluation;
  const { notation } = design.card;
  const say = (mm: number): string => sayLength(mm, notation);
  const { piece, width, height } = sheet;
  const slides = claimsOf(design, 'slot').some(({ film }) => film.startsWith(`${piece.id}/`));
  const isPlain = isRectangle(sheet.outline);
  return plainStep({
    id: `trim-${piece.id}`,
    kind: 'trim',
    title: `Trim: ${piece.name}`,
    says: [
      `Cut it to ${say(width)} across × ${say(height)} along.`,
      ...(isPlain ? [] : ['This is the blank; its outline is cut later, so that its edges can be measured from.']),
      // Of slanted scores alone that cannot be said.
      ...(sheet.scores.length === 0
        ? ['No scores on this piece.']
        : sheet.scores.some(readsOffRuler)
          ? ['Across means: the scores run at right angles to this length.']
          : []),
      ...(isWorked ? [firstLayUp(sheet, notation, isEverTurned(sheet, evaluation, workshop))] : []),
      ...(slides ? ['Cut it exactly square: out of square it binds in its slot.'] : []),
      ...trimmerWords(workshop, evaluation),
    ],
    blanks: [blankOf(sheet)],
    picture: flat(sheet),
    cautions: [KNIFE],
  });
}

function score(sheet: CutSheet, evaluation: Evaluation, workshop: Workshop): BenchStep[] {
  const { design } = evaluation;
  const { schools } = workshop;
  const { piece } = sheet;
  const { notation } = design.card;
  const board = boardOf(design.card);
  const stock = stockOf(design, piece);
  const thick =
    stock.caliper >= MUST_BE_SCORED && !isClear(stock)
      ? [
          `This card is ${sayInWords(stock.caliper, notation)} thick: folded without a score it cracks, so score every line, twice if need be.`,
        ]
      : [];
  const all = scoreRuns(sheet, board, notation, schools.scoring);
  const runs = all.map((run, i): BenchStep => {
    const { face, turned, readings } = run;
    const lying = `Lay it ${lies(sheet, run)}, its ${edgeAtZero(run)} at zero${board.free ? '' : ', against the fence'}.`;
    const off = readings.some((reading) => reading.offGroove !== undefined);
    const twice = readings.some(({ again }) => again.length > 0);
    const both = schools.scoring === 'one-face' && new Set(readings.map(({ fold }) => fold)).size > 1;
    return {
      id: `score-${piece.id}-${i + 1}`,
      kind: 'score',
      title: `Score: ${piece.name}${i === 0 ? '' : runTitle(run)}`,
      says: [
        lying,
        ...(i === 0 ? boardOffsetWords(workshop, evaluation) : []),
        ...(turned ? ['These lie beyond the board from the other end.'] : []),
        ...(both ? ['All lines are scored on this face; each is folded its own way afterwards.'] : []),
        ...(twice
          ? [`It is the same from both ends: score these, lay it ${lies(sheet, { face, turned: !turned })}, and score the same once more.`]
          : []),
        ...(off ? ['A reading off the groove is set by pencil marks at both edges and a rule.'] : []),
        ...(i === 0 ? thick : []),
      ],
      scores: readings,
      readings: readings.flatMap((reading) => reading.readings),
      picture: flat(sheet, {
        face,
        turned,
        scores: readings.flatMap((reading) => [...reading.scores, ...reading.again].map(({ id }) => id)),
      }),
      cautions: [],
    };
  });
  const slanted = sheet.scores.filter((s) => !readsOffRuler(s));
  if (slanted.length === 0) return runs;
  return [
    ...runs,
    {
      id: `score-${piece.id}-marks`,
      kind: 'score',
      title: `Score between marks: ${piece.name}`,
      says: [
        `Lay it ${piece.faceUp}. Make a pencil mark at both ends of each line, lay the rule on both, score along it.`,
        ...slanted.map((s) => `${s.name}: ${whereOf(s, sheet.height, notation)}, ${s.fold === 'valley' ? 'toward you' : 'away from you'}.`),
        'Rub the marks out afterwards.',
        ...(runs.length === 0 ? thick : []),
      ],
      readings: slanted.map(({ id, fold, from, to }) => {
        const across = Math.abs(from[1] - to[1]) < 1e-6;
        return readingFrom(across ? 'lower edge' : 'left edge', sheet, { id, kind: 'score', fold, from, to });
      }),
      picture: flat(sheet, { scores: slanted.map((s) => s.id), marks: true }),
      cautions: [],
    },
  ];
}

/** What tells a later run of scores of a piece from the first: it lies another way. */
function runTitle({ face, turned }: { face: string; turned: boolean }): string {
  return `${face === 'down' ? ', face over' : ''}${turned ? ', turned end for end' : ''}`;
}

/** Placing lines: said as distances from the edges, since most are not read off the board. Those of the back come last. */
function pencil(sheet: CutSheet, { design }: Evaluation): BenchStep[] {
  const { piece, width } = sheet;
  // Pencil does not take on film: what a line would say is said where the film is taped.
  if (isClear(stockOf(design, piece))) return [];
  const { notation } = design.card;
  const over = ([x, y]: Point): Point => [width - x, y];
  const front = sheet.marks.filter(({ face }) => face !== 'down');
  const back = sheet.marks.filter(({ face }) => face === 'down').map((mark) => ({ ...mark, from: over(mark.from), to: over(mark.to) }));
  const step = (marks: CutSheet['marks'], shown: Pick<BenchStep, 'id' | 'title'>, face: Face): BenchStep[] =>
    marks.length === 0
      ? []
      : [
          plainStep({
            ...shown,
            kind: 'mark',
            says: [
              `Lay it ${lies(sheet, { face, turned: false })}. Draw lightly${face === 'down' ? '; across is counted from the edge at your left' : ''}.`,
              ...marks.map((mark) => `${capitalised(whereOf(mark, sheet.height, notation, face))}: ${mark.says}.`),
            ],
            picture: flat(sheet, { face, marks: true, scores: sheet.scores.map((s) => s.id) }),
          }),
        ];
  return [
    ...step(front, { id: `mark-${piece.id}`, title: `Pencil lines: ${piece.name}` }, 'up'),
    ...step(back, { id: `mark-${piece.id}-back`, title: `Pencil lines on the back: ${piece.name}` }, 'down'),
  ];
}

/** A line by distances from the edges; one that runs right up the piece needs no ends. */
function whereOf(
  { from, to, cross }: Pick<CutSheet['marks'][number], 'from' | 'to' | 'cross'>,
  height: number,
  notation: Notation,
  face: Face = 'up',
): string {
  // Face over, the edge at the maker's left is the right one.
  const side = face === 'up' ? 'the left edge' : 'the edge at your left';
  const say = (mm: number): string => sayLength(Math.max(0, mm), notation);
  if (cross) return `a small cross, ${say(from[0])} from ${side} and ${say(from[1])} from the lower edge`;
  if (Math.abs(from[0] - to[0]) < 1e-6) {
    const [low, high] = [Math.min(from[1], to[1]), Math.max(from[1], to[1])];
    const ends = low > 1e-6 || high < height - 1e-6 ? `, from ${say(low)} to ${say(high)} up` : '';
    return `straight up, ${say(from[0])} from ${side}${ends}`;
  }
  if (Math.abs(from[1] - to[1]) < 1e-6) {
    return `straight across, ${say(from[1])} from the lower edge, from ${say(Math.min(from[0], to[0]))} to ${say(Math.max(from[0], to[0]))}`;
  }
  return `from ${say(from[0])} across and ${say(from[1])} up, to ${say(to[0])} across and ${say(to[1])} up`;
}

const KIND_NAMES: Readonly<Record<CutKind, string>> = { cut: 'slit', window: 'opening', slot: 'slot', notch: 'notch', outline: 'outline' };

function cut(sheet: CutSheet, lines: CutLines, { design }: Evaluation, workshop: Workshop, where: 'inside' | 'out'): BenchStep[] {
  if (lines.straight.length + lines.traced.length === 0) return [];
  const { piece } = sheet;
  const { notation } = design.card;
  const run = cutRun(sheet, lines, notation, workshop.schools.cutting);
  const dies = dieWords(sheet, where, workshop, ownOutlines(design.card), notation);
  return [
    {
      id: where === 'inside' ? `cut-${piece.id}` : `cut-out-${piece.id}`,
      kind: 'cut',
      title: where === 'inside' ? `Cut inside: ${piece.name}` : `Cut out: ${piece.name}`,
      says: [
        where === 'inside'
          ? `Lay it ${piece.faceUp}. Cut inside first, while the piece is easy to hold; stop exactly, and finish corners with a knife.`
          : `Lay it ${piece.faceUp}.`,
        ...(run.numbered.length > 0
          ? ['Where a cut begins and ends is measured along it: from the left edge, or for an upright one from the lower edge.']
          : []),
        ...cutWords(sheet, run, notation),
        ...(where === 'out' ? outlineWords(sheet, run, notation) : []),
        ...dies.says,
      ],
      readings: run.readings,
      picture: flat(sheet, { cuts: true, scores: sheet.scores.map((s) => s.id), numbers: numbersOf(run) }),
      cautions: dies.fits ? [KNIFE, PRESS] : [KNIFE],
    },
  ];
}

/** Numbered readings first, then lines between marks, then what is traced. */
function cutWords(sheet: CutSheet, { numbered, slanted, traced }: CutRun, notation: Notation): string[] {
  const { height } = sheet;
  const repeats = ({ again }: CutRun['numbered'][number]): string =>
    again.length > 0 ? `; again with it lying ${again.map(({ turn }) => lies(sheet, TURNED[turn])).join('; and ')}` : '';
  const inside = traced.filter(({ kind }) => kind !== 'outline');
  const overFold = inside.some(({ kind }) => kind === 'cut') && halfTemplate(sheet) !== undefined;
  return [
    ...numbered.map((reading, i) => `${i + 1}: ${KIND_NAMES[reading.kind]}, ${reading.words}${repeats(reading)}.`),
    ...slanted.map(
      (line, i) => `${numbered.length + i + 1}: ${KIND_NAMES[line.kind]}, between two marks, ${whereOf(line, height, notation)}.`,
    ),
    ...(overFold
      ? [
          'Slits over the fold are the same on both sides of it: trace half of them from the half template, its straight edge on the fold, fold the piece there and cut through both layers; or trace all of them. Bridges between their ends are not cut.',
        ]
      : []),
    ...inside.map(({ kind, points, box: { minX, maxX, minY, maxY } }) => {
      const say = (mm: number): string => sayLength(mm, notation);
      return `${kind === 'cut' ? 'A slit' : 'An opening'} is traced from its template: it lies from ${say(minX)} to ${say(maxX)} across and from ${say(minY)} to ${say(maxY)} up. ${ordinateWords(points, notation, boxOf(points))}`;
    }),
  ];
}

function outlineWords(sheet: CutSheet, { traced }: CutRun, notation: Notation): string[] {
  if (traced.length === 0) return [];
  return [
    halfTemplate(sheet) === undefined
      ? 'Trace the outline from the true-size template, its edges on those of the blank, and cut along it.'
      : 'It is the same on both sides: trace half its outline from the half template, fold it along its middle and cut both halves at once; or trace all of it.',
    ordinateWords(sheet.outline, notation, joinedBox(traced)),
  ];
}

/** What several traced lines take together. */
const joinedBox = (traced: CutRun['traced']): Box => boxOf(traced.flatMap(({ points }) => points));

function numbersOf({ numbered, slanted }: CutRun): { order: number; at: Point }[] {
  const places = [...numbered.map(middleOf), ...slanted.map((line: StraightCut) => middleOfLine(line))];
  return places.map((at, i) => ({ order: i + 1, at }));
}

/** Folding a piece along its scores, each its own way. */
export function fold(sheet: CutSheet, evaluation: Evaluation, workshop: Workshop): BenchStep {
  // A fold that something cuts into stretches is still one fold.
  const folds = [...new Set(sheet.scores.map((s) => `${s.name}: ${s.fold === 'valley' ? 'toward you' : 'away from you'}`))];
  return plainStep({
    id: `fold-${sheet.piece.id}`,
    kind: 'fold',
    title: `Fold lightly: ${sheet.piece.name}`,
    says: [
      `With ${sheet.piece.faceUp}: ${folds.join('; ')}.`,
      ...foldWords(workshop, evaluation, sheet),
      'Do the edges line up? Nudge them now; do not crease hard yet.',
    ],
    picture: flat(sheet, { scores: sheet.scores.map((s) => s.id) }),
  });
}
