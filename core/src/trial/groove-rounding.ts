import { claimsOf, draw, partsOf } from '../card/draw.js';
import type { Design } from '../card/join.js';
import { setSize } from '../card/set-size.js';

import type { CardDocument } from '../card/document.js';
import type { Fix } from '../check/finding.js';
import { GROOVE_CATCH } from '../measure/ruler.js';
import { nearestGrooveSet, outOfStep, type GuidedReading } from '../measure/groove-set.js';
import type { Mm } from '../measure/units.js';
import { cutSheet, type CutSheet, type Eases } from '../sheet/cut-sheet.js';
import { changedSizes, freeRows } from './changed-sizes.js';
import { keptPlace, offKeptGroove, type Board } from '../supplies/boards.js';

/** Far enough to see a score move, near enough that it moves evenly. */
const NUDGE: Mm = 0.25;
/** What was left out changes more dearly than what the maker set: it is usually left out on purpose. */
const UNSET_WEIGHT = 3;
/** Where scores do not move evenly with a size, the search is gone through again from where it led. */
const ROUNDS = 3;

/** Where a score is set, and how far allowances for thickness moved it there. */
interface Reading {
  at: Mm;
  allowed: Mm | undefined;
}

type Readings = (card: CardDocument) => ReadonlyMap<string, Reading>;

/** Which scores of a sheet are set on the board. */
export type Readable = (sheet: CutSheet) => CutSheet['scores'];

/**
 * The least change of free sizes, of all parts, after which all scores fall into grooves; what follows from those
 * sizes follows. Scores that are out of step with the others, whatever the sizes (an allowance for thickness lies between
 * them), are left out, and it is said how many. Nothing where no such change is found near by.
 */
export function roundedToGrooves(design: Design, board: Board, spines: Eases, readable: Readable): Fix | undefined {
  const spined = claimsOf(design, 'closing').filter((closing) => closing.spined);
  const eases = Object.fromEntries(spined.map(({ hinge }) => [hinge, spines[hinge] ?? 0]));
  const readings = readingsOn(board, eases, readable);
  const inGroove = ({ at, allowed }: Reading): boolean =>
    at <= board.length + GROOVE_CATCH && offKeptGroove(at, allowed, board) === undefined;
  const outside = (some: CardDocument): string[] => [...readings(some)].filter(([, reading]) => !inGroove(reading)).map(([id]) => id);
  const before = outside(design.card).length;
  let card: CardDocument | undefined = design.card;
  for (let round = 0; round < ROUNDS; round++) {
    const found: { card: CardDocument; left: ReadonlySet<string> } | undefined = nearerToGrooves(card, readings, board);
    card = found?.card;
    if (!found || !card || partsOf(card).problems.length > 0) return undefined;
    const off = outside(card);
    if (off.every((id) => found.left.has(id))) return off.length < before ? rounding(design.card, card, off.length) : undefined;
  }
  return undefined;
}

/** Where every score is set on the board: from the fence or, beyond the board, from the other end. */
function readingsOn(board: Board, eases: Eases, readable: Readable): Readings {
  return (card) => {
    const drawn = draw(card);
    const found = new Map<string, Reading>();
    for (const piece of drawn.ok ? drawn.drawing.pieces : []) {
      const sheet = cutSheet(piece, eases);
      for (const { id, from, allowed } of readable(sheet)) {
        const turned = from[0] > board.length;
        // Read from the other end, an allowance moves it the other way.
        const moved = turned && allowed !== undefined ? -allowed : allowed;
        found.set(`${piece.id}/${id}`, { at: turned ? sheet.width - from[0] : from[0], allowed: moved });
      }
    }
    return found;
  };
}

/** A card whose scores lie in grooves, as far as they move evenly with its sizes, and the scores that were left out. */
function nearerToGrooves(
  card: CardDocument,
  readings: Readings,
  board: Board,
): { card: CardDocument; left: ReadonlySet<string> } | undefined {
  const now = readings(card);
  const sizes = freeRows(card).flatMap((row) => {
    const range = row.kind === 'length' && !row.asCut && !row.insteadOf ? row.range : undefined;
    if (!range || range.max - range.min < 2 * NUDGE) return [];
    const value = Number(row.value);
    const nudge = value + NUDGE <= range.max ? NUDGE : -NUDGE;
    const nudged = readings(setSize(card, row.owner, row.name, value + nudge));
    const per = new Map([...now].map(([id, { at }]) => [id, ((nudged.get(id)?.at ?? at) - at) / nudge]));
    const movable = { now: value, least: range.min, most: range.max, weight: row.given ? 1 : UNSET_WEIGHT };
    return [...per.values()].some((rate) => Math.abs(rate) > 1e-6) ? [{ owner: row.owner, name: row.name, per, movable }] : [];
  });
  const guided = [...now].map(([id, { at, allowed }]): GuidedReading => ({
    at: keptPlace(at, allowed),
    per: sizes.map(({ per }) => per.get(id)!),
  }));
  const out = outOfStep(guided, board);
  const changes = nearestGrooveSet(
    guided.filter((_, i) => !out.has(i)),
    sizes.map(({ movable }) => movable),
    board,
  );
  if (!changes) return undefined;
  const changed = changes.reduce((before, change, i) => {
    const { owner, name, movable } = sizes[i]!;
    return change === 0 ? before : setSize(before, owner, name, Math.round((movable.now + change) * 1e6) / 1e6);
  }, card);
  return { card: changed, left: new Set([...now.keys()].filter((_, i) => out.has(i))) };
}

function rounding(before: CardDocument, after: CardDocument, left: number): Fix {
  const { words, changes } = changedSizes(before, after);
  const then =
    left === 0 ? 'Every score then falls into a groove.' : `All scores but ${left === 1 ? 'one' : left} then fall into a groove.`;
  return { says: `Round to the board: ${words}. ${then}`, changes };
}
