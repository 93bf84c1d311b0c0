import type { CardDocument } from '../card/document.js';
import { inSentence } from '../card/part-titles.js';
import { setSize } from '../card/set-size.js';
import type { SizeRow } from '../card/size-rows.js';
import type { Finding } from '../check/finding.js';
import { closedOnly, evaluate, type Evaluation } from '../evaluate.js';
import { sayLength } from '../measure/print.js';
import { rulerStep, type Mm } from '../measure/units.js';
import { readsOffRuler, type CutSheet } from '../sheet/cut-sheet.js';
import { CLOSING_PLAY } from '../supplies/limits.js';
import type { Workshop } from '../supplies/workshop.js';
import { freeRows } from './changed-sizes.js';
import type { LineOff, MadeLine } from './made.js';
import { repairOffers } from './repair.js';
import { costOf, type SizeChange } from './size-search.js';
import { against, byHand, COST, fails, type RescueWay } from './rescue-way.js';

/** Two scores nearer than this tear into one. */
const LEAST_APART: Mm = 1;
/** So many changes of sizes are told. */
const MOST_CHANGES = 3;
/** For so many changes that fail alone, others are looked for that go along with them. */
const MOST_MENDED = 2;
const NUDGE: Mm = 0.25;

/**
 * Ways to go on from a line that lies elsewhere: turn the piece, change a size that is not cut yet so that the line lies where it is
 * meant, trim the blank besides, score again, take the piece for another.
 */
export function waysFromLine(card: CardDocument, line: LineOff, evaluation: Evaluation, workshop: Workshop): RescueWay[] {
  const sheet = evaluation.sheets.find(({ piece }) => piece.id === line.piece)!;
  return [
    ...turned(card, [line], evaluation, against(evaluation)),
    ...otherSizes(card, line, sheet, workshop),
    ...scoredAgain(card, line, evaluation),
    ...forAnother(card, line, sheet, evaluation),
  ];
}

/** Turned end for end, what was scored may lie where other scores are meant. @param made lines of one piece; its others are not made yet */
export function turned(
  { notation }: CardDocument,
  made: readonly LineOff[],
  { sheets }: Pick<Evaluation, 'sheets'>,
  leaves: Finding[],
): RescueWay[] {
  const sheet = sheets.find(({ piece }) => piece.id === made[0]!.piece)!;
  // What lies where it is meant needs no turning.
  if (made.some(({ piece }) => piece !== sheet.piece.id) || made.every(({ off }) => Math.abs(off) <= CLOSING_PLAY)) return [];
  const there = made.map(({ line, at }) => {
    const own = sheet.scores.find(({ id }) => id === line);
    return sheet.scores.find(
      (score) => own && readsOffRuler(score) && score.fold === own.fold && Math.abs(score.from[0] - (sheet.width - at)) <= CLOSING_PLAY,
    );
  });
  if (!there.every((score) => score !== undefined)) return [];
  const places = made.map(({ at }, i) => `at ${sayLength(sheet.width - at, notation)}, where the ${inSentence(there[i]!.name)} belongs`);
  const says = `Turn the ${inSentence(sheet.piece.name)} end for end: ${made.length === 1 ? 'the score then lies' : 'the scores then lie'} ${places.join(', and ')}. Score what is not scored yet from there.`;
  return [byHand('turn', COST.turn, says, leaves)];
}

/** Sizes with which the line lies where it was made, on the blank as it is or on one trimmed at either end. */
function otherSizes(card: CardDocument, made: LineOff, sheet: CutSheet, workshop: Workshop): RescueWay[] {
  const rows = freeRows(card).filter(({ kind, range, insteadOf, asCut }) => kind === 'length' && range && !insteadOf && !asCut);
  const mark = rulerStep(card.notation);
  const failing: { changed: CardDocument; changes: SizeChange[] }[] = [];
  const ways = rows.flatMap((row): RescueWay[] => {
    const value = Number(row.value);
    const slopes = slopesOf(card, made, sheet, row);
    if (!slopes) return [];
    const { line, across } = slopes;
    const isScore = made.line !== 'width' && made.line !== 'height';
    // With nothing trimmed at the left the line itself must come to where it was made; else the right end stays where it is.
    const steps = [line !== 0 ? made.off / line : 0, isScore && across !== line ? -made.off / (across - line) : 0].filter((by) => by !== 0);
    // On a mark beside it, both ends may be trimmed.
    const values = steps.flatMap((by) => {
      const to = Math.round((value + by) * 1e6) / 1e6;
      return [to, Math.floor(to / mark + 1e-6) * mark, Math.ceil(to / mark - 1e-6) * mark];
    });
    return [...new Set(values)].flatMap((to): RescueWay[] => {
      if (to === value || to < row.range!.min - 1e-9 || to > row.range!.max + 1e-9) return [];
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
      repairOffers(changed, workshop).flatMap((offer): RescueWay[] => {
        const outcome = evaluate(offer.card, workshop);
        const isOwn = offer.changes.some((other) => other.owner === changes[0]!.owner && other.size === changes[0]!.size);
        return isOwn || !outcome.ok ? [] : wayWith(card, made, sheet, [...changes, ...offer.changes], outcome.evaluation);
      }),
    ),
  );
  // Of one size by itself the cheapest value is enough.
  const sorted = ways.sort((a, b) => a.cost - b.cost);
  const key = ({ changes }: RescueWay): string => changes.map(({ owner, size }) => `${owner}/${size}`).join(' ');
  return sorted.filter((way, i) => sorted.findIndex((other) => key(other) === key(way)) === i).slice(0, MOST_CHANGES);
}

/** The way of some changed sizes, where the blank that is there is large enough for them. */
function wayWith(card: CardDocument, made: MadeLine, sheet: CutSheet, changes: SizeChange[], evaluation: Evaluation): RescueWay[] {
  const cutOff = trimmed(made, sheet, evaluation);
  if (!cutOff) return [];
  const { notation } = card;
  const mark = rulerStep(notation);
  const isOnMark = ({ to }: SizeChange): boolean => Math.abs(to / mark - Math.round(to / mark)) < 1e-6;
  const trims = trimWords(cutOff, card);
  const words = changes.map(
    ({ label, from, to }) => `${inSentence(label)} from ${sayLength(from, notation)} to ${sayLength(to, notation)}`,
  );
  const trim = trims.length > 0 ? `, and trim the ${inSentence(sheet.piece.name)} ${inList(trims)}` : '';
  return [
    {
      kind: trims.length > 0 ? 'trim' : 'change-size',
      says: `Change ${words.join(' and ')}${trim}: the line then lies where it is meant. Cut what is not cut yet for that.`,
      cost: costOf(card, changes) + (trims.length > 0 ? COST.trim : 0) + (changes.every(isOnMark) ? 0 : COST.offMark),
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

/** “a, b and c” */
const inList = (words: readonly string[]): string =>
  words.length < 2 ? words.join('') : `${words.slice(0, -1).join(', ')} and ${words.at(-1)!}`;

function trimWords({ left, right, top }: { left: Mm; right: Mm; top: Mm }, { notation }: CardDocument): string[] {
  const at = (mm: Mm, where: string): string[] => (mm > 0.01 ? [`by ${sayLength(mm, notation)} at its ${where}`] : []);
  return [...at(left, 'left end'), ...at(right, 'right end'), ...at(top, 'upper edge')];
}

/** By how much the line, and the blank across, follow a size; nothing where neither does. */
function slopesOf(
  card: CardDocument,
  { piece, line, meant }: LineOff,
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

function scoredAgain({ notation }: CardDocument, { line, off, meant, at, piece }: LineOff, evaluation: Evaluation): RescueWay[] {
  if (line === 'width' || line === 'height' || Math.abs(off) < LEAST_APART) return [];
  const sheet = evaluation.sheets.find((one) => one.piece.id === piece)!;
  const seen = evaluation.dressed.layers.some((layer) =>
    evaluation.design.panels.some((panel) => panel.id === layer.panel && panel.piece === sheet.piece),
  );
  const says = `Score the ${inSentence(sheet.piece.name)} again at ${sayLength(meant, notation)}, and press the line at ${sayLength(at, notation)} flat: it can still be seen${seen ? ' where no layer covers it' : ''}, and that panel is weaker there.`;
  return [{ kind: 'second-score', says, cost: COST.secondScore, changes: [], leaves: against(evaluation) }];
}

/** Another piece of the same stock that comes out of the blank beside the line that was made. */
function forAnother({ notation }: CardDocument, { line, at }: LineOff, sheet: CutSheet, { sheets }: Evaluation): RescueWay[] {
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
