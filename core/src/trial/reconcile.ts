import type { CardDocument } from '../card/document.js';
import { partsOf } from '../card/draw.js';
import { listRows } from '../card/size-rows.js';
import { setCount, setSize } from '../card/set-size.js';
import { cardToTry, sizesForClosed } from '../card/try-out.js';
import { leastSlips, type EvenSystem } from '../measure/least-slips.js';
import { capitalised, sayLength } from '../measure/print.js';
import { rulerStep, type Mm } from '../measure/units.js';
import { CATALOGUE, mechanismById } from '../mechanism/catalogue.js';
import type { Mechanism } from '../mechanism/contract.js';
import type { Workshop } from '../supplies/workshop.js';
import { freeRows } from './changed-sizes.js';
import { fitted } from './list-fit.js';
import { readingOf } from './list-model.js';
import { BESIDE_MARK, USUAL_BORDER } from './list-steps.js';
import { saidOf, wordsOfEntry, type SaidNumber } from './said-list.js';

/** Numbers of a list that cannot all be right. */
export interface Contradiction {
  entries: string[];
  says: string;
}

/** A number that was said, and what it would have to be for the others to be right. */
export interface Correction {
  entry: string;
  from: Mm;
  to: Mm;
  /** how many numbers still disagree with the rest once it is changed */
  leaves: number;
  says: string;
}

/** What comes of holding a list against a mechanism. */
export interface Reconciled {
  mechanism: string;
  /** entries that the mechanism has no place for, and why it cannot be this list at all */
  strange: string[];
  contradictions: Contradiction[];
  /** changes of one number each, most likely slip first; where no single one will do, those of the smallest set together */
  corrections: Correction[];
  /** said where too much disagrees to be told from a card that was looked for in vain */
  unsure?: string;
  /** the card that the list describes, as far as its numbers agree; nothing where no sizes come near it */
  card?: CardDocument;
}

/** Numbers agree when they are off by less: hands and rulers give no more. @unit share of a mark */
const AGREES = 0.3;
/** More numbers that are off are hardly all slips: the card that they are of may not have been found. */
const MOST_SURE = 2;
/** Numbers that are offered to be changed at once, at the most. */
const MOST_CHANGED = 4;

/**
 * Holds a list of numbers from elsewhere against a mechanism: the sizes with which most numbers agree are looked for, and what
 * disagrees then is told, with the single number whose change makes all agree.
 */
export function reconcile(
  mechanism: string,
  said: readonly SaidNumber[],
  workshop: Workshop,
  given: Partial<CardDocument> = {},
): Reconciled {
  const kind = mechanismById(mechanism);
  return heldAgainst(kind.id, cardsFor(kind, said, workshop, given), said, workshop);
}

/** Every base that a list could be of, those first with which it agrees; where some have as many scores as it says, none but them. */
export function couldBe(said: readonly SaidNumber[], workshop: Workshop, given: Partial<CardDocument> = {}): Reconciled[] {
  const bases = CATALOGUE.filter(({ kind }) => kind === 'base');
  const alike = bases.filter((base) => fittingCards(base, said, workshop, given).length > 0);
  return (alike.length > 0 ? alike : bases)
    .map(({ id }) => reconcile(id, said, workshop, given))
    .filter(({ strange, card }) => strange.length === 0 && card !== undefined)
    .sort((a, b) => a.contradictions.length - b.contradictions.length || a.corrections.length - b.corrections.length);
}

/** Cards to begin with: those that have as many scores as the list says, else the plain one. */
function cardsFor(mechanism: Mechanism, said: readonly SaidNumber[], workshop: Workshop, given: Partial<CardDocument>): CardDocument[] {
  const fitting = fittingCards(mechanism, said, workshop, given);
  return fitting.length > 0 ? fitting : [plainFor(mechanism, said, workshop, given)];
}

/** A card of the closed size that the list says, where it says one. */
function plainFor(mechanism: Mechanism, said: readonly SaidNumber[], workshop: Workshop, given: Partial<CardDocument>): CardDocument {
  const closed = (entry: string): Mm | undefined => said.find((number) => number.entry === entry)?.value;
  const [across, along] = [closed('closedWidth'), closed('closedHeight')];
  const usual = cardToTry(mechanism, given, workshop);
  const sized =
    mechanism.kind === 'base' && across !== undefined && along !== undefined
      ? cardToTry(mechanism, { ...given, sizes: sizesForClosed(mechanism, across, along) }, workshop)
      : usual;
  return partsOf(sized).problems.length === 0 ? sized : usual;
}

/** Cards of a mechanism that have as many scores as the list: its lists of parts counted, and its choices made, otherwise. */
function fittingCards(mechanism: Mechanism, said: readonly SaidNumber[], workshop: Workshop, given: Partial<CardDocument>): CardDocument[] {
  const plain = plainFor(mechanism, said, workshop, given);
  const owner = mechanism.kind === 'base' ? plain.parts[0]!.id : plain.parts[1]!.id;
  const counted = listRows(plain, owner).reduce<CardDocument[]>(
    (cards, { name, least, most }) =>
      cards.flatMap((card) => {
        const counts = Array.from({ length: Math.min(most, 8) - least + 1 }, (_, i) => least + i);
        return [card, ...counts.map((count) => setCount(card, owner, name, count))];
      }),
    [plain],
  );
  const chosen = mechanism.sizes.flatMap((size) =>
    size.kind === 'choice' ? size.options.map(({ value }) => setSize(plain, owner, size.name, value)) : [],
  );
  const counts = countsOf(said);
  const fitting = [...new Set([...counted, ...chosen])].filter(
    (card) => partsOf(card).problems.length === 0 && hasCounts(card, said, counts, workshop),
  );
  return fitting.slice(0, MOST_TRIED);
}

/** So many kinds of one mechanism are looked at. */
const MOST_TRIED = 3;

/** How many scores of each piece are said. */
function countsOf(said: readonly SaidNumber[]): number {
  return said.filter(({ entry }) => entry.startsWith('scores')).length;
}

function hasCounts(card: CardDocument, said: readonly SaidNumber[], count: number, workshop: Workshop): boolean {
  const scores = said.filter(({ entry }) => entry.startsWith('scores'));
  if (count === 0) return true;
  const oneMore = scores.filter(({ entry }) => entry.startsWith('scores[')).length;
  const read = readingOf(
    [...scores, ...(oneMore > 0 ? [{ entry: `scores[${oneMore + 1}]`, value: 0 }] : [])],
    card,
    USUAL_BORDER,
    workshop,
  )(card);
  if (!read) return false;
  const all = read.slice(0, scores.length).every((at) => at !== undefined);
  return all && (oneMore === 0 || read[scores.length] === undefined);
}

function heldAgainst(mechanism: string, starts: readonly CardDocument[], said: readonly SaidNumber[], workshop: Workshop): Reconciled {
  const start = starts[0]!;
  const fit = fitted(starts, said, workshop);
  if (!fit) return { mechanism, strange: [], ...notAtAll(said, start) };
  const { system, left, places } = fit;
  const card = onMarks(fit.card);
  const strange = said.flatMap(({ entry }, i) => (places.includes(i) ? [] : [entry]));
  // A panel that wears no layer says nothing against the rest; a score that is not there is another card.
  if (strange.some((entry) => saidOf(entry)?.of !== 'layer')) return { mechanism, strange, contradictions: [], corrections: [] };
  const known = places.map((i) => said[i]!);
  const step = rulerStep(start.notation);
  const isOff = (rest: Mm): boolean => Math.abs(rest) > AGREES * step;
  if (!left.some(isOff)) return { mechanism, strange, contradictions: [], corrections: [], card };
  const off = left.flatMap((rest, i) => (isOff(rest) ? [i] : []));
  const corrections = correctionsOf(known, system, step, card, off);
  const contradictions = off.map((i) => contradiction(known, system, i, step, card));
  return {
    mechanism,
    strange,
    contradictions,
    corrections,
    card,
    ...(off.length > MOST_SURE && { unsure: unsureOf(off.length, known.length) }),
  };
}

const unsureOf = (off: number, all: number): string =>
  `${off} of ${all} numbers do not agree with the nearest card that was found. There may be one with which more of them do: what follows is told from this one.`;

/** Sizes that come to lie beside a mark by the last digits of arithmetic lie on it. */
function onMarks(card: CardDocument): CardDocument {
  const step = rulerStep(card.notation);
  return freeRows(card).reduce((before, { owner, name, value, kind, given }) => {
    const mark = Math.round(Number(value) / step) * step;
    const isBeside = kind === 'length' && given && Math.abs(Number(value) - mark) < BESIDE_MARK && value !== mark;
    return isBeside ? setSize(before, owner, name, mark) : before;
  }, card);
}

/** Changes of one number that make all agree, the most likely slip first; else the numbers that are off together. */
function correctionsOf(
  said: readonly SaidNumber[],
  system: EvenSystem,
  step: Mm,
  card: CardDocument,
  off: readonly number[],
): Correction[] {
  const single = said.flatMap((number, i): Correction[] => {
    const { to, worst } = without(said, system, [i]);
    if (worst > AGREES * step || Math.abs(to[0]! - number.value) <= AGREES * step) return [];
    return [correction(number, to[0]!, 0, card)];
  });
  const slip = ({ entry, from, to }: Correction): number => slipOf(from, to, step, lengthBeside(said, entry));
  if (single.length > 0) return single.sort((a, b) => slip(a) - slip(b) || Math.abs(a.to - a.from) - Math.abs(b.to - b.from));
  if (off.length > MOST_CHANGED) return [];
  const together = off;
  const { to } = without(said, system, together);
  return together.map((i, k) => correction(said[i]!, to[k]!, off.length - 1, card));
}

function correction({ entry, value }: SaidNumber, to: Mm, leaves: number, { notation }: CardDocument): Correction {
  const rounded = Math.round(to * 1e4) / 1e4;
  return {
    entry,
    from: value,
    to: rounded,
    leaves,
    says: `${capitalised(wordsOfEntry(entry))}: ${sayLength(rounded, notation)} instead of ${sayLength(value, notation)}.`,
  };
}

/** What some numbers would have to be by the others, and how far those others disagree among themselves. */
function without(said: readonly SaidNumber[], { rows, wanted }: EvenSystem, leftOut: readonly number[]): { to: Mm[]; worst: Mm } {
  const kept = rows.map((_, i) => i).filter((i) => !leftOut.includes(i));
  const { x, left } = leastSlips({ rows: kept.map((i) => rows[i]!), wanted: kept.map((i) => wanted[i]!) });
  const to = leftOut.map((i) => said[i]!.value - wanted[i]! + rows[i]!.reduce((sum, per, k) => sum + per * x[k]!, 0));
  return { to, worst: left.reduce((worst, rest) => Math.max(worst, Math.abs(rest)), 0) };
}

/** The fewest numbers that cannot be right together with one that is off: each other left out that is not needed. */
function contradiction(said: readonly SaidNumber[], system: EvenSystem, off: number, step: Mm, card: CardDocument): Contradiction {
  let kept = said.map((_, i) => i);
  for (const i of kept.filter((other) => other !== off)) {
    const rest = kept.filter((other) => other !== i);
    const { left } = leastSlips({ rows: rest.map((k) => system.rows[k]!), wanted: rest.map((k) => system.wanted[k]!) });
    if (left.some((value) => Math.abs(value) > AGREES * step)) kept = rest;
  }
  const others = kept.filter((i) => i !== off).map((i) => said[i]!);
  const part = { rows: kept.map((k) => system.rows[k]!), wanted: kept.map((k) => system.wanted[k]!) };
  const { to } = without(
    kept.map((k) => said[k]!),
    part,
    [kept.indexOf(off)],
  );
  const say = (mm: Mm): string => sayLength(mm, card.notation);
  const named = others.map((other) => `${wordsOfEntry(other.entry)}, ${say(other.value)}`).join('; ');
  const { entry, value } = said[off]!;
  return {
    entries: kept.map((i) => said[i]!.entry),
    says:
      others.length === 0
        ? `${capitalised(wordsOfEntry(entry))} cannot be ${say(value)} here.`
        : `${capitalised(wordsOfEntry(entry))} is said to be ${say(value)}, but ${say(to[0]!)} follows from ${named}.`,
  };
}

/** No sizes at all come near the list. */
function notAtAll(said: readonly SaidNumber[], { notation }: CardDocument): Pick<Reconciled, 'contradictions' | 'corrections'> {
  const numbers = said.map(({ entry, value }) => `${wordsOfEntry(entry)}, ${sayLength(value, notation)}`).join('; ');
  return {
    contradictions: [{ entries: said.map(({ entry }) => entry), says: `No sizes of this mechanism come near this list: ${numbers}.` }],
    corrections: [],
  };
}

/** The length that a score may have been read off from the other side. */
function lengthBeside(said: readonly SaidNumber[], entry: string): Mm | undefined {
  const place = saidOf(entry);
  if (place?.of !== 'score') return undefined;
  const blank = place.piece === undefined ? 'blank.width' : `blank.${place.piece}.width`;
  return said.find((other) => other.entry === blank)?.value;
}

/** How unlike a slip of eye or hand a change is: one mark off, half or double, read from the other side, a border once for twice, digits changed over. */
function slipOf(from: Mm, to: Mm, step: Mm, across: Mm | undefined): number {
  const by = Math.abs(to - from);
  const is = (a: number, b: number): boolean => Math.abs(a - b) < AGREES * step;
  if (is(by, step)) return 0;
  if (is(2 * to, from) || is(to, 2 * from) || is(by, step / 2)) return 1;
  if (across !== undefined && is(to, across - from)) return 1;
  if (digitsChangedOver(from, to)) return 1;
  if (is(by, 10 * step) || is(by, 100 * step)) return 2;
  return 3 + Math.min(1, by / Math.max(1, Math.abs(from)));
}

function digitsChangedOver(from: Mm, to: Mm): boolean {
  const digits = (mm: Mm): string => [...String(Math.round(mm))].sort().join('');
  return (
    Math.abs(from - Math.round(from)) < 0.01 &&
    Math.abs(to - Math.round(to)) < 0.01 &&
    Math.round(from) !== Math.round(to) &&
    digits(from) === digits(to)
  );
}
