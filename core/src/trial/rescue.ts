import type { CardDocument } from '../card/document.js';
import { draw } from '../card/draw.js';
import { join } from '../card/join.js';
import { inSentence } from '../card/part-titles.js';
import { setSize } from '../card/set-size.js';
import type { SizeRow } from '../card/size-rows.js';
import type { Finding } from '../check/finding.js';
import { closedOnly, closeUp, evaluate, judge, move, type Evaluation } from '../evaluate.js';
import { sayLength } from '../measure/print.js';
import { rulerStep, type Mm } from '../measure/units.js';
import { readsOffRuler, type CutSheet } from '../sheet/cut-sheet.js';
import { CLOSING_PLAY } from '../supplies/limits.js';
import type { Workshop } from '../supplies/workshop.js';
import { asMade, type MadeOff } from './as-made.js';
import { freeRows } from './changed-sizes.js';
import { costOf, repair, type SizeChange } from './repair.js';

/** A line as it was really made: a score, or the width or height of a blank, mm from the left or lower end. */
export interface MadeLine {
  piece: string;
  line: string;
  at: Mm;
}

export type RescueKind = 'leave' | 'turn' | 'change-size' | 'trim' | 'second-score' | 'another-part' | 'start-again';

/** One way of going on from what was made. */
export interface RescueWay {
  kind: RescueKind;
  says: string;
  /** how dear it is: mm of change, or what a hand would rather not do */
  cost: number;
  changes: SizeChange[];
  /** the card to go on with, where its sizes change */
  card?: CardDocument;
  /** what is said against the card then */
  leaves: Finding[];
}

/** What was made, how the card works with it, and ways to go on, the least first. */
export interface Rescue {
  made: (MadeLine & { meant: Mm; off: Mm })[];
  /** the card as it was made: judged, or why it cannot be */
  asMade: { ok: true; evaluation: Evaluation } | { ok: false; says: string };
  ways: RescueWay[];
}

/** A line that a card has not: what was said, and what there is. */
export interface NoSuchLine {
  says: string;
}

/** A hand would rather turn a piece than change sizes by a mm, and change sizes rather than score twice. */
const COST = { turn: 0.5, trim: 2, secondScore: 25, anotherPart: 60, startAgain: 100 };
/** Two scores nearer than this tear into one. */
const LEAST_APART: Mm = 1;
/** So many changes of sizes are told. */
const MOST_CHANGES = 3;
/** For so many changes that fail alone, others are looked for that go along with them. */
const MOST_MENDED = 2;
const NUDGE: Mm = 0.25;

/**
 * The card worked out again from what was really made, and the least repair: leave it, turn the piece, change a size that is not
 * cut yet so that the line lies where it is meant, trim the blank besides, score again, take the piece for another, start again.
 * Each way is tried out whole.
 */
export function rescue(card: CardDocument, made: readonly MadeLine[], workshop: Workshop): Rescue | NoSuchLine {
  const outcome = evaluate(card, workshop);
  if (!outcome.ok) return { says: outcome.problems[0]!.says };
  const { sheets } = outcome.evaluation;
  const told = made.map((line) => meantOf(line, sheets));
  const wrong = told.find((line): line is NoSuchLine => 'says' in line);
  if (wrong) return wrong;
  const lines = told as Rescue['made'];
  const judged = judgedAsMade(
    card,
    lines.map(({ piece, line, off }) => ({ piece, line, by: off })),
    workshop,
  );
  const failing = judged.ok ? judged.evaluation.findings.filter(({ severity }) => severity === 'fail') : [];
  const ways: RescueWay[] = [];
  if (judged.ok && failing.length === 0) ways.push(leave(card, lines, judged.evaluation));
  if (lines.length === 1) {
    const [line] = lines as [Rescue['made'][number]];
    const sheet = sheets.find(({ piece }) => piece.id === line.piece)!;
    ways.push(
      ...turned(card, line, sheet, outcome.evaluation),
      ...otherSizes(card, line, sheet, workshop),
      ...scoredAgain(card, line, outcome.evaluation),
    );
    ways.push(...forAnother(card, line, sheet, outcome.evaluation));
  }
  ways.push(startAgain(lines, outcome.evaluation));
  return { made: lines, asMade: judged, ways: ways.sort((a, b) => a.cost - b.cost) };
}

function meantOf(made: MadeLine, sheets: readonly CutSheet[]): Rescue['made'][number] | NoSuchLine {
  const sheet = sheets.find(({ piece }) => piece.id === made.piece);
  if (!sheet) return { says: `There is no piece “${made.piece}”; there are ${sheets.map(({ piece }) => piece.id).join(', ')}.` };
  // The second score of a spine goes with its first.
  const upright = sheet.scores.filter((score) => readsOffRuler(score) && !score.secondOfSpine);
  const score = upright.find(({ id }) => id === made.line);
  const meant = made.line === 'width' ? sheet.width : made.line === 'height' ? sheet.height : score?.from[0];
  if (meant === undefined) {
    const names = [...new Set(upright.map(({ id }) => id)), 'width', 'height'];
    return { says: `${made.piece} has no line “${made.line}” that is read off a ruler; there are ${names.join(', ')}.` };
  }
  return { ...made, meant, off: made.at - meant };
}

function judgedAsMade(card: CardDocument, off: readonly MadeOff[], workshop: Workshop): Rescue['asMade'] {
  const drawn = draw(card);
  if (!drawn.ok) return { ok: false, says: drawn.problems[0]!.says };
  const joined = join(asMade(drawn.drawing, off));
  if (!joined.ok) return { ok: false, says: joined.problems[0]!.says };
  const meant = join(drawn.drawing);
  const lost = meant.ok ? meant.design.panels.find(({ id }) => !joined.design.linkage.bodyOf.has(id)) : undefined;
  if (lost)
    return {
      ok: false,
      says: `Made so, the ${inSentence(lost.name)} is no panel any more: two lines run over each other, or one off its paper.`,
    };
  return { ok: true, evaluation: judge(closeUp(move(joined.design)), workshop) };
}

const against = ({ findings }: Pick<Evaluation, 'findings'>): Finding[] => findings.filter(({ severity }) => severity !== 'pass');
const fails = (findings: readonly Finding[]): boolean => findings.some(({ severity }) => severity === 'fail');

function leave({ notation }: CardDocument, lines: Rescue['made'], evaluation: Evaluation): RescueWay {
  const off = lines.map(({ off: by }) => sayLength(Math.abs(by), notation)).join(' and ');
  const leaves = against(evaluation);
  return { kind: 'leave', says: `Leave it: the card works with it ${off} off.`, cost: 0, changes: [], leaves };
}

/** Turned end for end, what was scored may lie where another score is meant. */
function turned({ notation }: CardDocument, { line, at }: MadeLine, sheet: CutSheet, evaluation: Evaluation): RescueWay[] {
  const own = sheet.scores.find(({ id }) => id === line);
  // What lies where it is meant needs no turning.
  if (!own || Math.abs(at - own.from[0]) <= CLOSING_PLAY) return [];
  const there = sheet.width - at;
  const other = sheet.scores.find(
    (score) => readsOffRuler(score) && score.fold === own.fold && Math.abs(score.from[0] - there) <= CLOSING_PLAY,
  );
  if (!other) return [];
  const says = `Turn the ${inSentence(sheet.piece.name)} end for end: the score then lies at ${sayLength(there, notation)}, where the ${inSentence(other.name)} belongs. Score the others from there.`;
  return [{ kind: 'turn', says, cost: COST.turn, changes: [], leaves: against(evaluation) }];
}

/** Sizes with which the line lies where it was made, on the blank as it is or on one trimmed at either end. */
function otherSizes(card: CardDocument, made: Rescue['made'][number], sheet: CutSheet, workshop: Workshop): RescueWay[] {
  const rows = freeRows(card).filter(({ kind, range, insteadOf, asCut }) => kind === 'length' && range && !insteadOf && !asCut);
  const failing: { changed: CardDocument; changes: SizeChange[] }[] = [];
  const ways = rows.flatMap((row): RescueWay[] => {
    const value = Number(row.value);
    const slopes = slopesOf(card, made, sheet, row);
    if (!slopes) return [];
    const { line, across } = slopes;
    const isScore = made.line !== 'width' && made.line !== 'height';
    // With nothing trimmed at the left the line itself must come to where it was made; else the right end stays where it is.
    const steps = [line !== 0 ? made.off / line : 0, isScore && across !== line ? -made.off / (across - line) : 0].filter((by) => by !== 0);
    return steps.flatMap((by): RescueWay[] => {
      const to = Math.round((value + by) * 1e6) / 1e6;
      if (to < row.range!.min - 1e-9 || to > row.range!.max + 1e-9) return [];
      const changes = [{ owner: row.owner, size: row.name, label: row.label, from: value, to }];
      const changed = setSize(card, row.owner, row.name, to);
      const outcome = evaluate(changed, workshop);
      if (!outcome.ok || !trimmed(made, sheet, outcome.evaluation)) return [];
      if (!fails(outcome.evaluation.findings)) return wayWith(card, made, sheet, changes, outcome.evaluation);
      failing.push({ changed, changes });
      return [];
    });
  });
  // Where one size alone will not do, others may go along with it.
  const costly = failing.sort((a, b) => costOf(card, a.changes) - costOf(card, b.changes)).slice(0, ways.length > 0 ? 0 : MOST_MENDED);
  ways.push(
    ...costly.flatMap(({ changed, changes }): RescueWay[] =>
      repair(changed, workshop).offers.flatMap((offer): RescueWay[] => {
        const outcome = evaluate(offer.card, workshop);
        const isOwn = offer.changes.some((other) => other.owner === changes[0]!.owner && other.size === changes[0]!.size);
        return isOwn || !outcome.ok ? [] : wayWith(card, made, sheet, [...changes, ...offer.changes], outcome.evaluation);
      }),
    ),
  );
  const isOnMark = ({ changes }: RescueWay): boolean =>
    changes.every(({ to }) => Math.abs(to / rulerStep(card.notation) - Math.round(to / rulerStep(card.notation))) < 1e-6);
  return ways.sort((a, b) => Number(isOnMark(b)) - Number(isOnMark(a)) || a.cost - b.cost).slice(0, MOST_CHANGES);
}

/** The way of some changed sizes, where the blank that is there is large enough for them. */
function wayWith(card: CardDocument, made: MadeLine, sheet: CutSheet, changes: SizeChange[], evaluation: Evaluation): RescueWay[] {
  const cutOff = trimmed(made, sheet, evaluation);
  if (!cutOff) return [];
  const { notation } = card;
  const trims = trimWords(cutOff, card);
  const words = changes.map(
    ({ label, from, to }) => `${inSentence(label)} from ${sayLength(from, notation)} to ${sayLength(to, notation)}`,
  );
  const trim = trims.length > 0 ? `, and trim the ${inSentence(sheet.piece.name)} ${trims.join(' and ')}` : '';
  return [
    {
      kind: trims.length > 0 ? 'trim' : 'change-size',
      says: `Change ${words.join(' and ')}${trim}: the line then lies where it is meant. Cut what is not cut yet for that.`,
      cost: costOf(card, changes) + (trims.length > 0 ? COST.trim : 0),
      changes,
      card: evaluation.design.card,
      leaves: against(evaluation),
    },
  ];
}

/** What must be cut off the blank that is there so that it becomes that of another card; nothing where it is too small for that. */
function trimmed({ piece, line, at }: MadeLine, made: CutSheet, { sheets }: Evaluation): { left: Mm; right: Mm; top: Mm } | undefined {
  const wanted = sheets.find((sheet) => sheet.piece.id === piece);
  const score = wanted?.scores.find(({ id }) => id === line);
  if (!wanted || (!score && line !== 'width' && line !== 'height')) return undefined;
  const left = score ? at - score.from[0] : 0;
  const right = (line === 'width' ? at : made.width) - left - wanted.width;
  const top = (line === 'height' ? at : made.height) - wanted.height;
  return Math.min(left, right, top) < -0.01 ? undefined : { left, right, top };
}

function trimWords({ left, right, top }: { left: Mm; right: Mm; top: Mm }, { notation }: CardDocument): string[] {
  const at = (mm: Mm, where: string): string[] => (mm > 0.01 ? [`by ${sayLength(mm, notation)} at its ${where}`] : []);
  return [...at(left, 'left end'), ...at(right, 'right end'), ...at(top, 'upper edge')];
}

/** By how much the line, and the blank across, follow a size; nothing where neither does. */
function slopesOf(
  card: CardDocument,
  { piece, line, meant }: Rescue['made'][number],
  made: CutSheet,
  row: SizeRow,
): { line: number; across: number } | undefined {
  for (const by of [NUDGE, -NUDGE]) {
    const sheets = closedOnly(setSize(card, row.owner, row.name, Number(row.value) + by))?.sheets;
    const sheet = sheets?.find((one) => one.piece.id === piece);
    const score = sheet?.scores.find(({ id }) => id === line);
    const at = line === 'width' ? sheet?.width : line === 'height' ? sheet?.height : score?.from[0];
    if (!sheet || at === undefined) continue;
    const per = (then: Mm, now: Mm): number => Math.round(((then - now) / by) * 1e6) / 1e6;
    const slopes = { line: per(at, meant), across: per(sheet.width, made.width) };
    return slopes.line === 0 && slopes.across === 0 ? undefined : slopes;
  }
  return undefined;
}

function scoredAgain(
  { notation }: CardDocument,
  { line, off, meant, at, piece }: Rescue['made'][number],
  evaluation: Evaluation,
): RescueWay[] {
  if (line === 'width' || line === 'height' || Math.abs(off) < LEAST_APART) return [];
  const sheet = evaluation.sheets.find((one) => one.piece.id === piece)!;
  const seen = evaluation.dressed.layers.some((layer) =>
    evaluation.design.panels.some((panel) => panel.id === layer.panel && panel.piece === sheet.piece),
  );
  const says = `Score the ${inSentence(sheet.piece.name)} again at ${sayLength(meant, notation)}, and press the line at ${sayLength(at, notation)} flat: it can still be seen${seen ? ' where no layer covers it' : ''}, and that panel is weaker there.`;
  return [{ kind: 'second-score', says, cost: COST.secondScore, changes: [], leaves: against(evaluation) }];
}

/** Another piece of the same stock that comes out of the blank beside the line that was made. */
function forAnother(
  { notation }: CardDocument,
  { line, at }: Rescue['made'][number],
  sheet: CutSheet,
  { sheets }: Evaluation,
): RescueWay[] {
  if (line === 'width' || line === 'height') return [];
  const free = Math.max(at, sheet.width - at);
  const fits = (other: CutSheet): boolean =>
    Math.max(other.width, other.height) <= Math.max(free, sheet.height) + 1e-6 &&
    Math.min(other.width, other.height) <= Math.min(free, sheet.height) + 1e-6;
  const other = sheets.find((one) => one !== sheet && one.piece.stock === sheet.piece.stock && fits(one));
  if (!other) return [];
  const says = `Cut the ${inSentence(other.piece.name)}, ${sayLength(other.width, notation)} × ${sayLength(other.height, notation)}, from it beside the line, and take a new sheet for the ${inSentence(sheet.piece.name)}.`;
  return [{ kind: 'another-part', says, cost: COST.anotherPart, changes: [], leaves: [] }];
}

function startAgain(lines: Rescue['made'], { sheets }: Evaluation): RescueWay {
  const names = [...new Set(lines.map(({ piece }) => inSentence(sheets.find((sheet) => sheet.piece.id === piece)!.piece.name)))];
  return {
    kind: 'start-again',
    says: `Start again: cut the ${names.join(' and the ')} once more.`,
    cost: COST.startAgain,
    changes: [],
    leaves: [],
  };
}
