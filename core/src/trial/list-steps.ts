import type { CardDocument } from '../card/document.js';
import { partsOf } from '../card/draw.js';
import { setSize } from '../card/set-size.js';
import type { SizeRow } from '../card/size-rows.js';
import { fewestSlips, type EvenSystem } from '../measure/least-slips.js';
import { rulerStep, type Mm } from '../measure/units.js';
import type { Workshop } from '../supplies/workshop.js';
import { freeRows } from './changed-sizes.js';
import { readAfresh, readingOf, unknownsOf, type Reading } from './list-model.js';
import { saidOf, type SaidNumber } from './said-list.js';

/** A border that most makers keep, to begin with. */
export const USUAL_BORDER: Mm = 3;
const MOST_STEPS = 12;
/** Steps after which so much is still wrong lead nowhere. */
const SLOW = 0.95;
const MOST_SLOW = 2;
/** So often it is looked anew how numbers follow sizes. */
const MOST_ANEW = 2;
/** So often a step that makes it no better is tried by half of it. */
const MOST_SHORTER = 5;
const NUDGE = 0.25;
const NUDGE_ANGLE = 0.004;
/** Sizes that arithmetic leaves so near to a mark lie on it. */
export const BESIDE_MARK: Mm = 0.01;
/** A radian moves what it turns by about so much: angles are looked for by that, beside lengths. */
const LEVER: Mm = 60;
/** A number that a card has no place for counts as off by so much. */
const NO_PLACE: Mm = 20;

/** The sizes with which most numbers agree, the system about them, and what each number is off by there. */
export interface Fit {
  card: CardDocument;
  system: EvenSystem;
  left: readonly Mm[];
  /** which numbers the card has a place for */
  places: number[];
}

/** Whether the allowances of a card are taken over for those beside it, or each is laid closed and dressed for itself. */
type Allowing = 'taken over' | 'anew';

/** A card beside a list: what each number reads there, and how wrong they are together. */
export interface Spot {
  card: CardDocument;
  border: Mm;
  places: number[];
  at: Mm[];
  wrong: Mm;
}

/** What a card says to a list, dressed with a border. @returns nothing where the card cannot be laid closed */
export function spotOf(card: CardDocument, border: Mm, said: readonly SaidNumber[], workshop: Workshop): Spot | undefined {
  const now = readAfresh(said, card, border, workshop);
  if (!now) return undefined;
  const places = now.flatMap((at, i) => (at === undefined ? [] : [i]));
  const at = places.map((i) => now[i]!);
  return { card, border, places, at, wrong: places.reduce((sum, i, k) => sum + Math.abs(said[i]!.value - at[k]!), 0) };
}

const isBetter = (one: Spot, other: Spot, most: number): boolean => lossOf(one, most) < lossOf(other, most) - SETTLED;
/** How wrong a card is, with numbers that it has no place for. */
const lossOf = ({ wrong, places }: Spot, most: number): Mm => wrong + NO_PLACE * (most - places.length);

/** By how much each number follows each size, and the border last where there are layers. */
interface Slopes {
  rows: SizeRow[];
  isLayered: boolean;
  /** for each of the rows, and the border */
  per: number[][];
  /** learned from the steps that were taken, and not looked at by itself */
  isLearned: boolean;
}

/**
 * From a card on, step by step, to the sizes with which most numbers agree: no step that makes it worse, shorter ones instead.
 * How numbers follow sizes is looked at where it begins, and learned from each step that is taken; looked at again where that
 * leads no farther.
 */
export function stepsFrom(start: CardDocument, said: readonly SaidNumber[], workshop: Workshop, allowing: Allowing): Fit | undefined {
  let here = spotOf(start, USUAL_BORDER, said, workshop);
  if (!here) return undefined;
  let slopes = slopesAt(here, said, workshop, allowing);
  let [reach, slow, anew] = [Infinity, 0, 0];
  for (let step = 0; step < MOST_STEPS; step++) {
    const { x } = fewestSlips(systemAt(here, slopes, said));
    const next = nextSpot(here, slopes, x, reach, said, workshop);
    reach = next.reach;
    slow = next.there && next.there.places.length === here.places.length && next.there.wrong > SLOW * here.wrong ? slow + 1 : 0;
    if (next.there && slow < MOST_SLOW) {
      const isAlike = next.there.places.length === here.places.length;
      slopes = isAlike && allowing === 'anew' ? learned(slopes, next.by, here, next.there) : slopesAt(next.there, said, workshop, allowing);
      here = next.there;
    } else if (slopes.isLearned && here.wrong > SETTLED && anew++ < MOST_ANEW) {
      slopes = slopesAt(here, said, workshop, allowing);
      [reach, slow] = [Infinity, 0];
    } else break;
  }
  const system = systemAt(here, slopes, said);
  return { card: here.card, system, left: system.wanted, places: here.places };
}

const systemAt = ({ places, at }: Spot, { per }: Slopes, said: readonly SaidNumber[]): EvenSystem => ({
  rows: places.map((_, k) => per.map((slope) => slope[k]!)),
  wanted: places.map((i, k) => said[i]!.value - at[k]!),
});

/** The next card on the way, by how much each size was moved to it, and how far the next step may go. */
function nextSpot(
  here: Spot,
  { rows, isLayered }: Slopes,
  x: readonly number[],
  within: number,
  said: readonly SaidNumber[],
  workshop: Workshop,
): { there?: Spot; by: number[]; reach: number } {
  let reach = within;
  const far = Math.max(0, ...x.map(Math.abs));
  for (let tries = 0; far >= SETTLED && tries < MOST_SHORTER; tries++) {
    const share = Math.min(1, reach / far);
    const moved = furthest(
      here.card,
      rows,
      rows.map((_, i) => share * x[i]!),
    );
    const wider = isLayered && moved ? share * x.at(-1)! * moved.share : 0;
    const there = moved && spotOf(moved.card, here.border + wider, said, workshop);
    if (there && isBetter(there, here, said.length)) return { there, by: isLayered ? [...moved.by, wider] : moved.by, reach: 2 * reach };
    reach = Math.min(reach, far, LONGEST_REACH) / 2;
  }
  return { by: [], reach };
}

/** Slopes turned by the least that makes them say what a step did (Broyden’s update). */
function learned({ rows, isLayered, per }: Slopes, by: readonly number[], from: Spot, to: Spot): Slopes {
  const length = by.reduce((sum, moved) => sum + moved ** 2, 0);
  if (length === 0) return { rows, isLayered, per, isLearned: true };
  const missed = to.at.map((at, k) => at - from.at[k]! - by.reduce((sum, moved, i) => sum + per[i]![k]! * moved, 0));
  return {
    ...{ rows, isLayered, isLearned: true },
    per: per.map((slope, i) => slope.map((value, k) => value + (missed[k]! * by[i]!) / length)),
  };
}

/** Looks at every size by itself; those that no number follows are left out. */
function slopesAt({ card, border, places, at }: Spot, said: readonly SaidNumber[], workshop: Workshop, allowing: Allowing): Slopes {
  const afresh: Reading = (near) => readAfresh(said, near, border, workshop);
  const reading = allowing === 'anew' ? afresh : readingOf(said, card, border, workshop);
  const follows = (slope: readonly number[]): boolean => slope.some((per) => Math.abs(per) > 1e-9);
  const found = unknownsOf(card).flatMap((row) => {
    const slope = slopeOf(reading, card, row, places, at);
    if (follows(slope)) return [{ row, slope }];
    // What nothing drawn follows may make the closed card thicker, and so spines wider.
    const thicker = allowing !== 'anew' && IS_THICKNESS.test(row.name) ? slopeOf(afresh, card, row, places, at) : [];
    return follows(thicker) ? [{ row, slope: thicker }] : [];
  });
  const isLayered = said.some(({ entry }) => saidOf(entry)?.of === 'layer');
  const perBorder = isLayered ? [borderSlope(readAfresh(said, card, border + 1, workshop), places, at)] : [];
  return { rows: found.map(({ row }) => row), isLayered, per: [...found.map(({ slope }) => slope), ...perBorder], isLearned: false };
}

/** Sizes that make the closed card thicker. */
const IS_THICKNESS = /thick|stopHeight|foam/i;

/** Where a step makes it no better, sizes are moved by no more than half of this, then a quarter. */
const LONGEST_REACH: Mm = 16;

/** A size that is not moved by more has come to rest. */
const SETTLED = 1e-4;

const leverOf = (kind: SizeRow['kind']): number => (kind === 'angle' ? LEVER : 1);

/** A card with sizes moved: by what share of what was wanted, and by how much each. */
interface Moved {
  card: CardDocument;
  share: number;
  by: number[];
}

/**
 * As far toward the sizes that are wanted as the card can still be drawn. What no number follows gives way where it is all that
 * holds them back.
 */
function furthest(card: CardDocument, rows: readonly SizeRow[], change: readonly number[]): Moved | undefined {
  const whole = movedWhole(card, rows, change);
  if (whole) return whole;
  const silent = unknownsOf(card).filter(({ owner, name }) => !rows.some((row) => row.owner === owner && row.name === name));
  for (const { owner, name, range } of silent) {
    for (const to of [range!.min, (range!.min + range!.max) / 2, range!.max]) {
      const freed = movedWhole(setSize(card, owner, name, to), rows, change);
      if (freed) return freed;
    }
  }
  for (const share of [1, 0.9, 0.7, 0.4, 0.15]) {
    const { card: moved, by } = movedAll(
      card,
      rows,
      change.map((all) => share * all),
    );
    if (partsOf(moved).problems.length === 0) return { card: moved, share, by };
  }
  return undefined;
}

/** A card with all its sizes where they are wanted; nothing where one meets its limits, or the card cannot be drawn so. */
function movedWhole(card: CardDocument, rows: readonly SizeRow[], change: readonly number[]): Moved | undefined {
  const { card: moved, by, isWhole } = movedAll(card, rows, change);
  return isWhole && partsOf(moved).problems.length === 0 ? { card: moved, share: 1, by } : undefined;
}

/** Sizes changed from where they lie by now, inside their limits: one that follows has gone along with those before it. */
function movedAll(card: CardDocument, rows: readonly SizeRow[], change: readonly number[]): Omit<Moved, 'share'> & { isWhole: boolean } {
  const moves = rows.map(() => 0);
  let isWhole = true;
  const step = rulerStep(card.notation);
  const moved = rows.reduce((before, { owner, name, kind }, i) => {
    const by = change[i]! / leverOf(kind);
    if (Math.abs(by) < 1e-6) return before;
    const now = freeRows(before).find((row) => row.owner === owner && row.name === name);
    if (!now) return before;
    const exact = Math.round((Number(now.value) + by) * 1e7) / 1e7;
    const mark = Math.round(exact / step) * step;
    // What arithmetic leaves beside a mark lies on it: a size at the very end of what is allowed would be refused for it.
    const to = kind === 'length' && Math.abs(exact - mark) < BESIDE_MARK ? mark : exact;
    const inside = now.range ? Math.min(now.range.max, Math.max(now.range.min, to)) : to;
    isWhole &&= inside === to;
    moves[i] = (inside - Number(now.value)) * leverOf(kind);
    return setSize(before, owner, name, inside);
  }, card);
  return { card: moved, by: moves, isWhole };
}

/** By how much each number follows a size: nothing where the card cannot be drawn with it a little otherwise. */
function slopeOf(reading: Reading, card: CardDocument, row: SizeRow, places: readonly number[], now: readonly Mm[]): number[] {
  const nudge = row.kind === 'angle' ? NUDGE_ANGLE : NUDGE;
  for (const by of [nudge, -nudge]) {
    const read = reading(setSize(card, row.owner, row.name, Number(row.value) + by));
    if (read && places.every((i) => read[i] !== undefined)) return places.map((i, k) => (read[i]! - now[k]!) / by / leverOf(row.kind));
  }
  return now.map(() => 0);
}

const borderSlope = (read: readonly (Mm | undefined)[] | undefined, places: readonly number[], now: readonly Mm[]): number[] =>
  places.map((i, k) => (read?.[i] ?? now[k]!) - now[k]!);
