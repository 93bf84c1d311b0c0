import { builtBase, problemsOf, type Design } from '../card/compose.js';
import { setSize } from '../card/set-size.js';
import { listRows, sizeRows, type SizeRow } from '../card/size-rows.js';
import type { CardDocument } from '../card/document.js';
import { GROOVE_CATCH, nearestGroove } from '../measure/ruler.js';
import { nearestGrooveSet, type GuidedReading } from '../measure/groove-set.js';
import { sayLength } from '../measure/print.js';
import type { Mm } from '../measure/units.js';
import { cutSheet, type CutSheet } from '../sheet/cut-sheet.js';
import type { Board } from '../supplies/boards.js';
import type { Fix } from './finding.js';

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
 * The least change of the base's free sizes after which all its scores fall into grooves; what follows from those
 * sizes follows. Nothing where none is found near by.
 */
export function roundedToGrooves(design: Design, board: Board, readable: Readable): Fix | undefined {
  const readings = readingsOn(design, board, readable);
  const inGroove = (at: Mm): boolean => at <= board.length + GROOVE_CATCH && Math.abs(nearestGroove(at, board).off) <= GROOVE_CATCH;
  let card: CardDocument | undefined = design.card;
  for (let round = 0; round < ROUNDS; round++) {
    card = nearerToGrooves(card, readings, board);
    if (!card || problemsOf(card).length > 0) return undefined;
    if ([...readings(card).values()].every(inGroove)) return told(design.card, card);
  }
  return undefined;
}

/** Where every score of the base is set on the board: from the fence or, beyond the board, from the other end. */
function readingsOn(design: Design, board: Board, readable: Readable): Readings {
  const eases = new Map(design.base.pieces.flatMap((piece) => piece.creases.map(({ id, ease }) => [`${piece.id}/${id}`, ease])));
  return (card) => {
    const { pieces } = builtBase(card);
    const found = new Map<string, Mm>();
    for (const piece of pieces) {
      const creases = piece.creases.map((crease) => ({ ...crease, ease: eases.get(`${piece.id}/${crease.id}`) ?? 0 }));
      const sheet = cutSheet({ ...piece, creases });
      for (const { id, from } of readable(sheet)) found.set(`${piece.id}/${id}`, from[0] > board.length ? sheet.width - from[0] : from[0]);
    }
    return found;
  };
}

/** A card whose scores lie in grooves, as far as they move evenly with its sizes. */
function nearerToGrooves(card: CardDocument, readings: Readings, board: Board): CardDocument | undefined {
  const now = readings(card);
  const sizes = sizeRows(card, 'base').flatMap((row) => {
    // What a list holds by itself follows other sizes; once set, it is the maker's.
    const follows = row.list !== undefined && !row.given;
    const range = row.kind === 'length' && !row.asCut && !row.insteadOf && !follows ? row.range : undefined;
    if (!range || range.max - range.min < 2 * NUDGE) return [];
    const value = Number(row.value);
    const nudge = value + NUDGE <= range.max ? NUDGE : -NUDGE;
    const nudged = readings(setSize(card, 'base', row.name, value + nudge));
    const per = new Map([...now].map(([id, at]) => [id, ((nudged.get(id) ?? at) - at) / nudge]));
    const movable = { now: value, least: range.min, most: range.max, weight: row.given ? 1 : UNSET_WEIGHT };
    return [...per.values()].some((rate) => Math.abs(rate) > 1e-6) ? [{ name: row.name, per, movable }] : [];
  });
  const guided = [...now].map(([id, at]): GuidedReading => ({ at, per: sizes.map(({ per }) => per.get(id)!) }));
  const changes = nearestGrooveSet(
    guided,
    sizes.map(({ movable }) => movable),
    board,
  );
  return changes?.reduce((changed, change, i) => {
    const { name, movable } = sizes[i]!;
    return change === 0 ? changed : setSize(changed, 'base', name, Math.round((movable.now + change) * 1e6) / 1e6);
  }, card);
}

/** The sizes that changed, in words and as changes. */
function told(before: CardDocument, after: CardDocument): Fix {
  const present = new Map(sizeRows(before, 'base').map((row) => [row.name, row]));
  // One that was left out and stays as it is must be set all the same: it would follow the others.
  const isNew = ({ name, given, value }: SizeRow): boolean => given && !(present.get(name)?.given && present.get(name)?.value === value);
  const lists = listRows(before, 'base');
  const changed = sizeRows(after, 'base').filter((row) => isNew(row) && !row.insteadOf);
  const parts = changed.map(({ label, value, list }) => {
    const of = list ? `${lists.find(({ name }) => name === list.name)!.itemLabel} ${list.index + 1}, ` : '';
    return `${of}${label.charAt(0).toLowerCase()}${label.slice(1)} ${sayLength(Number(value), before.notation)}`;
  });
  return {
    says: `Round to the board: ${parts.join('; ')}. Every score then falls into a groove.`,
    changes: changed.map(({ name, value }) => ({ owner: 'base', size: name, value })),
    untried: true,
  };
}
