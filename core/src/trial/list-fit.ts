import type { CardDocument } from '../card/document.js';
import { partsOf } from '../card/draw.js';
import { setSize } from '../card/set-size.js';
import type { SizeRow } from '../card/size-rows.js';
import { leastSlips, type EvenSystem } from '../measure/least-slips.js';
import type { Mm } from '../measure/units.js';
import type { Workshop } from '../supplies/workshop.js';
import { freeRows } from './changed-sizes.js';
import { readAfresh, readingOf, unknownsOf, type Reading } from './list-model.js';
import { saidOf, type SaidNumber } from './said-list.js';

/** A border that most makers keep, to begin with. */
export const USUAL_BORDER: Mm = 3;
const ROUNDS = 9;
/** Looking at everything anew for each size takes long: so few steps. */
const FRESH_ROUNDS = 4;
/** So often a step that makes it no better is tried by half of it. */
const MOST_SHORTER = 5;
/** From so many cards it is begun anew. */
const MOST_STARTS = 3;
const NUDGE = 0.25;
const NUDGE_ANGLE = 0.004;

/** The sizes with which most numbers agree, the system about them, and what each number is off by there. */
export interface Fit {
  card: CardDocument;
  system: EvenSystem;
  left: Mm[];
  /** which numbers the card has a place for */
  places: number[];
}

/**
 * The sizes with which most numbers agree. First roughly, with allowances taken over from card to card, from each card to begin
 * with; then from the best of them with layers cut out anew for each size, as strips that others cover follow those that cover
 * them; and where that leaves more than one number off, from cards beside it.
 */
export function fitted(starts: readonly CardDocument[], said: readonly SaidNumber[], workshop: Workshop): Fit | undefined {
  const isLayered = said.some(({ entry }) => saidOf(entry)?.of === 'layer');
  const isWhole = (fit: Fit): boolean => fit.places.length === said.length && wrongIn(fit) < WHOLE;
  const rough = best(starts, isWhole, (start) => roughly(start, said, workshop));
  if (!rough || !isLayered || isWhole(rough)) return rough;
  const isOneOff = ({ places, left }: Fit): boolean =>
    places.length === said.length && left.filter((rest) => Math.abs(rest) > WHOLE).length === 1;
  // A movement is closed with the card that it stands on, which takes longer: it is not begun anew.
  const isMovement = rough.card.parts.length > 1;
  if (isMovement && isOneOff(rough)) return rough;
  const even = nearer(rough, fittedFrom(rough.card, said, workshop, true));
  if (isMovement || isWhole(even) || isOneOff(even)) return even;
  return nearer(
    even,
    best(startsBeside(even, said, workshop), isWhole, (card) => fittedFrom(card, said, workshop, true)),
  );
}

/** The nearest of the fits that cards lead to; none is looked at after one that is whole. */
function best(
  cards: readonly CardDocument[],
  isWhole: (fit: Fit) => boolean,
  fitOf: (card: CardDocument) => Fit | undefined,
): Fit | undefined {
  return cards.reduce<Fit | undefined>((found, card) => {
    if (found && isWhole(found)) return found;
    const fit = fitOf(card);
    return found ? nearer(found, fit) : fit;
  }, undefined);
}

/** Once with all numbers, and once with layers only after the rest is where it belongs: layers follow sizes unevenly. */
function roughly(start: CardDocument, said: readonly SaidNumber[], workshop: Workshop): Fit | undefined {
  const first = fittedFrom(start, said, workshop);
  const hard = said.filter(({ entry }) => saidOf(entry)?.of !== 'layer');
  if (!first || wrongIn(first) < WHOLE || hard.length === said.length || start.parts.length > 1) return first;
  const rest = fittedFrom(start, hard, workshop);
  return nearer(first, rest && fittedFrom(rest.card, said, workshop));
}

/** The fit that has a place for more numbers; of those alike, the one with which they agree better. */
function nearer(one: Fit, other: Fit | undefined): Fit {
  if (!other || other.places.length < one.places.length) return one;
  return other.places.length > one.places.length || wrongIn(other) < wrongIn(one) ? other : one;
}

/**
 * Cards to begin anew from where steps lead no farther: what sticks out of a card, or wears a layer, says nothing before it does.
 * One size each, a quarter, half and three quarters through its range; those with a place for most numbers first.
 */
function startsBeside({ card }: Fit, said: readonly SaidNumber[], workshop: Workshop): CardDocument[] {
  const spots = unknownsOf(card).flatMap((row) =>
    [0.25, 0.5, 0.75].flatMap((share) => {
      const to = row.range!.min + share * (row.range!.max - row.range!.min);
      return spotOf(setSize(card, row.owner, row.name, to), USUAL_BORDER, said, workshop) ?? [];
    }),
  );
  const sorted = spots.sort((a, b) => b.places.length - a.places.length || a.wrong - b.wrong);
  return sorted.slice(0, MOST_STARTS).map(({ card: beside }) => beside);
}

const wrongIn = ({ left }: Pick<Fit, 'left'>): Mm => left.reduce((sum, rest) => sum + Math.abs(rest), 0);
/** All numbers of a list together are off by less: nothing contradicts anything. */
const WHOLE: Mm = 0.05;

/** A card beside a list: what each number reads there, and how wrong they are together. */
interface Spot {
  card: CardDocument;
  border: Mm;
  places: number[];
  at: Mm[];
  wrong: Mm;
}

function spotOf(card: CardDocument, border: Mm, said: readonly SaidNumber[], workshop: Workshop): Spot | undefined {
  const now = readAfresh(said, card, border, workshop);
  if (!now) return undefined;
  const places = now.flatMap((at, i) => (at === undefined ? [] : [i]));
  const at = places.map((i) => now[i]!);
  return { card, border, places, at, wrong: wrongIn({ left: places.map((i, k) => said[i]!.value - at[k]!) }) };
}

const isBetter = (one: Spot, other: Spot): boolean =>
  one.places.length > other.places.length || (one.places.length === other.places.length && one.wrong < other.wrong - SETTLED);

/** From a card on, step by step, to the sizes with which most numbers agree: no step that makes it worse, shorter ones instead. */
function fittedFrom(start: CardDocument, said: readonly SaidNumber[], workshop: Workshop, isFresh = false): Fit | undefined {
  let spot = spotOf(start, USUAL_BORDER, said, workshop);
  let fit: Fit | undefined;
  let reach = Infinity;
  for (let round = 0; spot && round < (isFresh ? FRESH_ROUNDS : ROUNDS); round++) {
    const here: Spot = spot;
    const { rows, perBorder } = slopesAt(here, said, workshop, isFresh);
    const slopes = [...rows.map(({ slope }) => slope), ...(perBorder ? [perBorder] : [])];
    const system = {
      rows: here.places.map((_, k) => slopes.map((slope) => slope[k]!)),
      wanted: here.places.map((i, k) => said[i]!.value - here.at[k]!),
    };
    const { x, left } = leastSlips(system);
    fit = { card: here.card, system, left, places: here.places };
    const far = Math.max(...x.map(Math.abs));
    spot = undefined;
    for (let tries = 0; far >= SETTLED && tries < MOST_SHORTER && !spot; tries++) {
      const share = Math.min(1, reach / far);
      const moved = furthest(
        here.card,
        rows.map(({ row }) => row),
        x.map((change) => share * change),
      );
      const border = here.border + (perBorder && moved ? share * x.at(-1)! * moved.share : 0);
      const there = moved && spotOf(moved.card, border, said, workshop);
      if (there && isBetter(there, here)) spot = there;
      else reach = Math.min(reach, far, LONGEST_REACH) / 2;
    }
    reach *= 2;
  }
  return fit;
}

/** By how much each number follows each size, and the border; sizes that nothing follows are left out. */
function slopesAt(
  { card, border, places, at }: Spot,
  said: readonly SaidNumber[],
  workshop: Workshop,
  isFresh: boolean,
): { rows: { row: SizeRow; slope: number[] }[]; perBorder?: number[] } {
  const reading = readingOf(said, card, border, workshop);
  const afresh: Reading = (near) => readAfresh(said, near, border, workshop);
  const follows = (slope: readonly number[]): boolean => slope.some((per) => Math.abs(per) > 1e-9);
  const rows = unknownsOf(card).flatMap((row) => {
    const slope = slopeOf(isFresh ? afresh : reading, card, row, places, at);
    if (follows(slope)) return [{ row, slope }];
    // What nothing drawn follows may make the closed card thicker, and so spines wider.
    const thicker = IS_THICKNESS.test(row.name) ? slopeOf(afresh, card, row, places, at) : [];
    return follows(thicker) ? [{ row, slope: thicker }] : [];
  });
  const isLayered = said.some(({ entry }) => saidOf(entry)?.of === 'layer');
  return isLayered ? { rows, perBorder: borderSlope(readAfresh(said, card, border + 1, workshop), places, at) } : { rows };
}

/** Sizes that make the closed card thicker. */
const IS_THICKNESS = /thick|stopHeight|foam/i;

/** Where a step makes it no better, sizes are moved by no more than half of this, then a quarter. */
const LONGEST_REACH: Mm = 16;

/** A size that is not moved by more has come to rest. */
const SETTLED = 1e-4;

/** As far toward the sizes that are wanted as the card can still be drawn. */
function furthest(
  card: CardDocument,
  rows: readonly SizeRow[],
  change: readonly number[],
): { card: CardDocument; share: number } | undefined {
  for (const share of [1, 0.9, 0.7, 0.4, 0.15]) {
    const moved = rows.reduce((before, row, i) => movedBy(before, row, share * change[i]!), card);
    if (partsOf(moved).problems.length === 0) return { card: moved, share };
  }
  return undefined;
}

/** A size changed from where it lies by now, inside its limits: one that follows has gone along with those before it. */
function movedBy(card: CardDocument, { owner, name }: SizeRow, by: number): CardDocument {
  if (Math.abs(by) < 1e-6) return card;
  const now = freeRows(card).find((row) => row.owner === owner && row.name === name);
  if (!now) return card;
  const to = Math.round((Number(now.value) + by) * 1e7) / 1e7;
  return setSize(card, owner, name, now.range ? Math.min(now.range.max, Math.max(now.range.min, to)) : to);
}

/** By how much each number follows a size: nothing where the card cannot be drawn with it a little otherwise. */
function slopeOf(reading: Reading, card: CardDocument, row: SizeRow, places: readonly number[], now: readonly Mm[]): number[] {
  const nudge = row.kind === 'angle' ? NUDGE_ANGLE : NUDGE;
  for (const by of [nudge, -nudge]) {
    const read = reading(setSize(card, row.owner, row.name, Number(row.value) + by));
    if (read && places.every((i) => read[i] !== undefined)) return places.map((i, k) => (read[i]! - now[k]!) / by);
  }
  return now.map(() => 0);
}

const borderSlope = (read: readonly (Mm | undefined)[] | undefined, places: readonly number[], now: readonly Mm[]): number[] =>
  places.map((i, k) => (read?.[i] ?? now[k]!) - now[k]!);
