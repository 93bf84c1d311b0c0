import type { Box } from '../plane/outline.js';
import type { Point } from '../plane/point.js';
import { toDegrees, type Notation } from '../measure/units.js';
import { plainMm, sayCut, sayLength } from '../measure/print.js';
import { boardOf } from '../card/document.js';
import type { Evaluation } from '../evaluate.js';
import { readTracked } from '../evaluate.js';
import { readsOffRuler, type CutSheet } from '../sheet/cut-sheet.js';
import { halfTemplate } from '../sheet/half-template.js';
import { smallestEnvelope } from '../supplies/envelopes.js';
import { starterFor } from '../supplies/starter-workshops.js';
import type { Workshop } from '../supplies/workshop.js';
import { innerCuts, middleOf, tracedOpenings } from './cut-runs.js';
import { materialsOf, type Material } from './materials.js';
import { scoreRuns, type ScoreRun } from './score-runs.js';

export type StepKind = 'ready' | 'trim' | 'score' | 'mark' | 'cut' | 'fold' | 'dry-fit' | 'burnish' | 'glue' | 'test' | 'post';

/** What the drawing of a step shows: a flat piece with only what this step needs, or the standing card. */
export type StepPicture =
  | {
      kind: 'flat';
      piece: string;
      face: 'up' | 'down';
      turned: boolean;
      scores: string[];
      zones: string[];
      marks: boolean;
      cuts: boolean;
      /** numbers of readings that are told in words, each at its cut */
      numbers?: { order: number; at: Point }[];
    }
  | { kind: 'standing'; at: number };

/** One thing to do, with the numbers of just this step. */
export interface BenchStep {
  id: string;
  kind: StepKind;
  title: string;
  says: string[];
  readings?: ScoreRun['readings'];
  materials?: Material[];
  picture?: StepPicture;
  cautions: string[];
  /** to wait before the next step */
  dryMinutes?: number;
}

const KNIFE = 'Knife and trimmer: cut away from your fingers, on a cutting mat, with a fresh blade. Follow your local workshop rules.';
const GLUE = 'Strong glues: open a window, keep them off skin, follow the label and your local rules.';
const FOAM = 'Small parts and foam: keep away from small children.';

/** The steps of making a card by hand with the maker's own board, in the order of the work. */
export function benchSteps(evaluation: Evaluation, workshop: Workshop = starterFor(evaluation.design.card.notation)): BenchStep[] {
  const { sheets } = evaluation;
  return [
    ready(evaluation, workshop),
    ...sheets.flatMap((sheet) => [
      ...trim(sheet, evaluation),
      ...score(sheet, evaluation),
      ...pencil(sheet, evaluation),
      ...cut(sheet, evaluation),
    ]),
    ...sheets.filter((sheet) => sheet.scores.length > 0).map(fold),
    dryFit(evaluation),
    {
      id: 'burnish',
      kind: 'burnish',
      title: 'Crease hard',
      says: ['Everything lines up? Now run the bone folder along every fold.', 'Work folds that move both ways a few times.'],
      picture: { kind: 'standing', at: 0.3 },
      cautions: [],
    },
    ...glueSteps(evaluation),
    test(evaluation),
    post(evaluation, workshop),
  ];
}

function ready(evaluation: Evaluation, workshop: Workshop): BenchStep {
  return {
    id: 'ready',
    kind: 'ready',
    title: 'Put everything on the table',
    says: [
      'Check it off before the first cut.',
      evaluation.design.linkage.bonds.length > 0
        ? 'Try one fold and one glued tab on scrap: does this card crack, does this glue hold?'
        : 'Try one fold on scrap: does this card crack?',
    ],
    materials: materialsOf(evaluation, workshop),
    cautions: [],
  };
}

const isRectangle = (sheet: CutSheet): boolean => sheet.outline.length === 4;

function flat(sheet: CutSheet, shown: Partial<Extract<StepPicture, { kind: 'flat' }>> = {}): StepPicture {
  return { kind: 'flat', piece: sheet.piece.id, face: 'up', turned: false, scores: [], zones: [], marks: false, cuts: false, ...shown };
}

function trim(sheet: CutSheet, { design }: Evaluation): BenchStep[] {
  const say = (mm: number): string => sayLength(mm, design.card.notation);
  const { piece, width, height } = sheet;
  const size = `${say(width)} across × ${say(height)} along`;
  return [
    {
      id: `trim-${piece.id}`,
      kind: 'trim',
      title: `Trim: ${piece.name}`,
      says: isRectangle(sheet)
        ? [
            `Cut it to ${size}.`,
            sheet.scores.length > 0 ? 'Across means: the scores run at right angles to this length.' : 'No scores on this piece.',
          ]
        : [`Cut a piece a little larger than ${size}.`, 'Print the true-size template, or draw the outline from the measures.'],
      picture: flat(sheet),
      cautions: [KNIFE],
    },
  ];
}

function score(sheet: CutSheet, { design }: Evaluation): BenchStep[] {
  const { piece } = sheet;
  const { notation } = design.card;
  const runs = scoreRuns(sheet, boardOf(design.card), design.card.notation).map((run, i): BenchStep => {
    const lying = [
      run.face === 'up'
        ? `Lay it ${piece.faceUp}.`
        : 'Turn it face over like a page: the other face is up now, and the far end lies at zero.',
      run.turned ? 'Turn it end for end: these lie beyond the board from the first end.' : 'Push its edge against the fence.',
    ];
    const off = run.readings.some((reading) => reading.offGroove !== undefined);
    return {
      id: `score-${piece.id}-${i + 1}`,
      kind: 'score',
      title: `Score: ${piece.name}${i > 0 ? ', turned' : ''}`,
      says: [...lying, ...(off ? ['A reading off the groove is set by pencil marks at both edges and a rule.'] : [])],
      readings: run.readings,
      picture: flat(sheet, { face: run.face, turned: run.turned, scores: run.readings.map((r) => r.score.id) }),
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
        'Make a pencil mark at both ends of each line, lay the rule on both, score along it.',
        ...slanted.map((s) => `${s.name}: ${whereOf(s, sheet.height, notation)}, ${s.fold === 'valley' ? 'toward you' : 'away from you'}.`),
        'Rub the marks out afterwards.',
      ],
      picture: flat(sheet, { scores: slanted.map((s) => s.id), marks: true }),
      cautions: [],
    },
  ];
}

/** Placing lines: said as distances from the edges, since most are not read off the board. Those of the back come last. */
function pencil(sheet: CutSheet, { design }: Evaluation): BenchStep[] {
  const { piece, width } = sheet;
  const { notation } = design.card;
  const over = ([x, y]: Point): Point => [width - x, y];
  const front = sheet.marks.filter(({ face }) => face !== 'down');
  const back = sheet.marks.filter(({ face }) => face === 'down').map((mark) => ({ ...mark, from: over(mark.from), to: over(mark.to) }));
  const step = (marks: CutSheet['marks'], says: string, shown: Pick<BenchStep, 'id' | 'title'>, face: 'up' | 'down'): BenchStep[] =>
    marks.length === 0
      ? []
      : [
          {
            ...shown,
            kind: 'mark',
            says: [says, ...marks.map((mark) => `${whereOf(mark, sheet.height, notation)}: ${mark.says}.`)],
            picture: flat(sheet, { face, marks: true, scores: sheet.scores.map((s) => s.id) }),
            cautions: [],
          },
        ];
  return [
    ...step(
      front,
      `Lay it ${piece.faceUp}, lower left corner toward you. Draw lightly.`,
      { id: `mark-${piece.id}`, title: `Pencil lines: ${piece.name}` },
      'up',
    ),
    ...step(
      back,
      `From ${piece.faceUp}, turn it face over like a page: the other face is up now, and the edge that was right is left. Draw lightly.`,
      { id: `mark-${piece.id}-back`, title: `Pencil lines on the back: ${piece.name}` },
      'down',
    ),
  ];
}

/** A line by distances from the edges; one that runs right up the piece needs no ends. */
function whereOf({ from, to }: Pick<CutSheet['marks'][number], 'from' | 'to'>, height: number, notation: Notation): string {
  const say = (mm: number): string => sayLength(Math.max(0, mm), notation);
  if (Math.abs(from[0] - to[0]) < 1e-6) {
    const [low, high] = [Math.min(from[1], to[1]), Math.max(from[1], to[1])];
    const ends = low > 1e-6 || high < height - 1e-6 ? `, from ${say(low)} to ${say(high)} up` : '';
    return `straight up, ${say(from[0])} from the left edge${ends}`;
  }
  if (Math.abs(from[1] - to[1]) < 1e-6) {
    return `straight across, ${say(from[1])} from the lower edge, from ${say(Math.min(from[0], to[0]))} to ${say(Math.max(from[0], to[0]))}`;
  }
  return `from ${say(from[0])} across and ${say(from[1])} up, to ${say(to[0])} across and ${say(to[1])} up`;
}

function cut(sheet: CutSheet, { design }: Evaluation): BenchStep[] {
  const { piece } = sheet;
  const inside = [...sheet.windows, ...sheet.cuts];
  if (isRectangle(sheet) && inside.length === 0) return [];
  const half = halfTemplate(sheet) !== undefined;
  const inner = innerCuts(sheet, design.card.notation);
  const repeats = (again: (typeof inner)[number]['again']): string =>
    again.length > 0 ? `; again ${again.map(({ turn }) => turn).join(', and ')}` : '';
  return [
    {
      id: `cut-${piece.id}`,
      kind: 'cut',
      title: isRectangle(sheet) ? `Cut inside: ${piece.name}` : `Cut out: ${piece.name}`,
      says: [
        ...(inside.length > 0
          ? [`Lay it ${piece.faceUp}. Cut inside first, while the piece is easy to hold; stop exactly, and finish corners with a knife.`]
          : []),
        ...inner.map(({ words, again }, i) => `${i + 1}: ${words}${repeats(again)}.`),
        ...tracedOpenings(sheet).map(({ box }) => traced(box, design.card.notation)),
        ...(isRectangle(sheet)
          ? []
          : [
              half
                ? 'It is the same on both sides: fold it along its middle and cut both halves at once, or cut along the outline.'
                : 'Cut along the outline.',
            ]),
      ],
      picture: flat(sheet, {
        cuts: true,
        scores: sheet.scores.map((s) => s.id),
        numbers: inner.map((reading, i) => ({ order: i + 1, at: middleOf(reading) })),
      }),
      cautions: [KNIFE],
    },
  ];
}

/** An opening that is not cut along straight readings: where it lies, and from what it is traced. */
function traced({ minX, maxX, minY, maxY }: Box, notation: Notation): string {
  const say = (mm: number): string => sayCut(mm, notation);
  return `An opening is traced from its template: it lies from ${say(minX)} to ${say(maxX)} across and from ${say(minY)} to ${say(maxY)} up.`;
}

function fold(sheet: CutSheet): BenchStep {
  // A fold that something cuts into stretches is still one fold.
  const folds = [...new Set(sheet.scores.map((s) => `${s.name}: ${s.fold === 'valley' ? 'toward you' : 'away from you'}`))];
  return {
    id: `fold-${sheet.piece.id}`,
    kind: 'fold',
    title: `Fold lightly: ${sheet.piece.name}`,
    says: [`With ${sheet.piece.faceUp}: ${folds.join('; ')}.`, 'Do the edges line up? Nudge them now; do not crease hard yet.'],
    picture: flat(sheet, { scores: sheet.scores.map((s) => s.id) }),
    cautions: [],
  };
}

function dryFit({ design }: Evaluation): BenchStep {
  const joins = design.linkage.bonds.map((bond) => bond.source.name);
  return {
    id: 'dry-fit',
    kind: 'dry-fit',
    title: joins.length > 0 ? 'Try it without glue' : 'Try it before you crease hard',
    says: [
      ...(joins.length > 0 ? [`Hold the parts where they belong: ${joins.join('; ')}.`] : []),
      'Close and open it gently. Trim now what shows past an edge.',
      ...design.words.fitting,
    ],
    picture: { kind: 'standing', at: 0.5 },
    cautions: [],
  };
}

/** Glue in the order of the joins; the last joint of a loop is closed onto, so that the closed card sets it. */
function glueSteps({ design, sheets, motion }: Evaluation): BenchStep[] {
  const closing = new Set(motion.tree.openBonds.map((bond) => bond.id));
  const ordered = [...design.linkage.bonds].sort((a, b) => Number(closing.has(a.id)) - Number(closing.has(b.id)));
  return ordered.map(({ id, source, a }) => {
    const { piece } = design.panels[a]!;
    const sheet = sheets.find((s) => s.piece.id === piece.id)!;
    const zone = piece.zones.find(({ id: own }) => own === source.zone);
    const last = closing.has(id);
    const isStop = piece.thickness !== undefined;
    return {
      id: `glue-${id}`,
      kind: 'glue',
      title: last ? `Close onto the glue: ${source.name}` : `Glue: ${source.name}`,
      says: [
        `Glue goes on the ${source.face === 'up' ? 'upper' : 'back'} face, only where it is hatched${zone ? `: ${zone.says}` : ''}.`,
        ...(last
          ? [
              `${marked(design, source.partner) ? 'Lay it on its pencil line' : 'Lay it where it belongs'}, then close the card onto it and press: the closed card sets the place.`,
            ]
          : []),
        ...(isStop ? ['Set its near side on the pencil line. The foot will rest against it.'] : []),
        'Wipe off what squeezes out before it reaches a fold.',
      ],
      picture: flat(sheet, { face: source.face, zones: zone ? [zone.id] : [], scores: sheet.scores.map((s) => s.id) }),
      cautions: isStop ? [GLUE, FOAM] : [GLUE],
      dryMinutes: 5,
    } satisfies BenchStep;
  });
}

/** Whether the piece that a part is glued to has pencil lines to place it by. */
function marked(design: Evaluation['design'], panel: string): boolean {
  return design.pieces.some((piece) => panel.startsWith(`${piece.id}/`) && piece.marks.length > 0);
}

function test(evaluation: Evaluation): BenchStep {
  const { design, resting } = evaluation;
  const readings = design.tracked.map((tracked) => {
    const value = readTracked(evaluation, tracked, resting);
    return `${tracked.label}: ${tracked.kind === 'angle' ? `${toDegrees(value).toFixed(0)}°` : sayLength(value, design.card.notation)}`;
  });
  return {
    id: 'test',
    kind: 'test',
    title: 'Open and close it, slowly',
    says: [
      'Look from the side: does anything catch, gape, lean the wrong way or stick out?',
      ...design.words.settingUp,
      readings.length > 0
        ? `Put down ${design.base.rest.says}, it should read: ${readings.join('; ')}.`
        : `Put it down: ${design.base.rest.says}.`,
      'A fold that springs back needs creasing again.',
      ...(design.base.rest.stop ? ['A wrong lean needs its stop moved.'] : []),
    ],
    picture: { kind: 'standing', at: design.base.rest.at },
    cautions: [],
  };
}

function post({ design, closed }: Evaluation, workshop: Workshop): BenchStep {
  const { notation } = design.card;
  const { minX, maxX, minY, maxY } = closed.box;
  const chosen = design.card.supplies.envelopes.find((e) => e.id === design.card.envelope);
  const smallest = smallestEnvelope(maxX - minX, maxY - minY, closed.thickest.thickness, workshop.envelopes);
  const fitting = smallest ? `The smallest that takes it: ${smallest.name}.` : 'No listed envelope takes it: fold one.';
  return {
    id: 'post',
    kind: 'post',
    title: 'Into the envelope',
    says: [
      `Closed it is ${sayLength(maxX - minX, notation)} across the fold, ${sayLength(maxY - minY, notation)} along it and ${plainMm(closed.thickest.thickness)} thick.`,
      chosen ? `Envelope: ${chosen.name}.` : fitting,
      design.words.posting ?? 'Post it folded the way it closes, never bent back: a panel folded backward for a week leans backward.',
      'Ask your post for its limits of size, thickness and weight.',
    ],
    picture: { kind: 'standing', at: 0 },
    cautions: [],
  };
}
