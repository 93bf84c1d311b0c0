import { claimsOf, draw, partsOf } from '../card/draw.js';
import type { Design } from '../card/join.js';
import { setSize } from '../card/set-size.js';
import { listRows, sizeRows, type SizeRow } from '../card/size-rows.js';
import type { CardDocument } from '../card/document.js';
import type { Fix } from '../check/finding.js';
import { GROOVE_CATCH } from '../measure/ruler.js';
import { nearestGrooveSet, type GuidedReading } from '../measure/groove-set.js';
import { sayLength } from '../measure/print.js';
import type { Mm } from '../measure/units.js';
import { cutSheet, type CutSheet, type Eases } from '../sheet/cut-sheet.js';
import { offGroove, type Board } from '../supplies/boards.js';

/** Far enough to see a score move, near enough that it moves evenly. */
const NUDGE: Mm = 0.25;
/** What was left out changes more dearly than what the maker set: it is usually left out on purpose. */
const UNSET_WEIGHT = 3;
/** Where scores do not move evenly with a size, the search is gone through again from where it led. */
const ROUNDS = 3;

type Readings = (card: CardDocument) => ReadonlyMap<string, Mm>;

/** Which scores of a sheet are set on the board. */
export type Readable = (sheet: CutSheet) => CutSheet['scores'];

/**
 * The least change of free sizes, of all parts, after which all scores fall into grooves; what follows from those
 * sizes follows. Nothing where none is found near by.
 */
export function roundedToGrooves(design: Design, board: Board, spines: Eases, readable: Readable): Fix | undefined {
  const spined = claimsOf(design, 'closing').filter((closing) => closing.spined);
  const eases = Object.fromEntries(spined.map(({ hinge }) => [hinge, spines[hinge] ?? 0]));
  const readings = readingsOn(board, eases, readable);
  const inGroove = (at: Mm): boolean => at <= board.length + GROOVE_CATCH && offGroove(at, board) === undefined;
  let card: CardDocument | undefined = design.card;
  for (let round = 0; round < ROUNDS; round++) {
    card = nearerToGrooves(card, readings, board);
    if (!card || partsOf(card).problems.length > 0) return undefined;
    if ([...readings(card).values()].every(inGroove)) return offered(design.card, card);
  }
  return undefined;
}

/** Where every score is set on the board: from the fence or, beyond the board, from the other end. */
function readingsOn(board: Board, eases: Eases, readable: Readable): Readings {
  return (card) => {
    const drawn = draw(card);
    const found = new Map<string, Mm>();
    for (const piece of drawn.ok ? drawn.drawing.pieces : []) {
      const sheet = cutSheet(piece, eases);
      for (const { id, from } of readable(sheet)) found.set(`${piece.id}/${id}`, from[0] > board.length ? sheet.width - from[0] : from[0]);
    }
    return found;
  };
}

const allRows = (card: CardDocument): SizeRow[] => card.parts.flatMap(({ id }) => sizeRows(card, id));

/** A card whose scores lie in grooves, as far as they move evenly with its sizes. */
function nearerToGrooves(card: CardDocument, readings: Readings, board: Board): CardDocument | undefined {
  const now = readings(card);
  const sizes = allRows(card).flatMap((row) => {
    // What a list holds by itself follows other sizes; once set, it is the maker's.
    const follows = row.list !== undefined && !row.given;
    const range = row.kind === 'length' && !row.asCut && !row.insteadOf && !follows ? row.range : undefined;
    if (!range || range.max - range.min < 2 * NUDGE) return [];
    const value = Number(row.value);
    const nudge = value + NUDGE <= range.max ? NUDGE : -NUDGE;
    const nudged = readings(setSize(card, row.owner, row.name, value + nudge));
    const per = new Map([...now].map(([id, at]) => [id, ((nudged.get(id) ?? at) - at) / nudge]));
    const movable = { now: value, least: range.min, most: range.max, weight: row.given ? 1 : UNSET_WEIGHT };
    return [...per.values()].some((rate) => Math.abs(rate) > 1e-6) ? [{ owner: row.owner, name: row.name, per, movable }] : [];
  });
  const guided = [...now].map(([id, at]): GuidedReading => ({ at, per: sizes.map(({ per }) => per.get(id)!) }));
  const changes = nearestGrooveSet(
    guided,
    sizes.map(({ movable }) => movable),
    board,
  );
  return changes?.reduce((changed, change, i) => {
    const { owner, name, movable } = sizes[i]!;
    return change === 0 ? changed : setSize(changed, owner, name, Math.round((movable.now + change) * 1e6) / 1e6);
  }, card);
}

/** The sizes that changed, in words and as changes. */
function offered(before: CardDocument, after: CardDocument): Fix {
  const key = ({ owner, name }: SizeRow): string => `${owner}/${name}`;
  const present = new Map(allRows(before).map((row) => [key(row), row]));
  // One that was left out and stays as it is must be set all the same: it would follow the others.
  const isNew = (row: SizeRow): boolean => row.given && !(present.get(key(row))?.given && present.get(key(row))?.value === row.value);
  const changed = allRows(after).filter((row) => isNew(row) && !row.insteadOf);
  const parts = changed.map(({ owner, label, value, list }) => {
    const of = list ? `${listRows(before, owner).find(({ name }) => name === list.name)!.itemLabel} ${list.index + 1}, ` : '';
    return `${of}${label.charAt(0).toLowerCase()}${label.slice(1)} ${sayLength(Number(value), before.notation)}`;
  });
  return {
    says: `Round to the board: ${parts.join('; ')}. Every score then falls into a groove.`,
    changes: changed.map(({ owner, name, value }) => ({ owner, size: name, value })),
  };
}
