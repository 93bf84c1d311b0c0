import { readCard, type CardDocument, type FileProblem } from '@diptychon/core/records';
import type { KeptCard } from './database';
import { changed, type UnsavedChange } from './unsaved-changes';

export interface OpenedCard {
  card: CardDocument;
  revision: number;
  savedAt: number;
  /** the last save could not be read; this is the one before */
  recovered: boolean;
  /** unsaved changes that `card` holds already: saving it takes them up */
  takes: readonly UnsavedChange[];
}

/** Something on the shelf that cannot be read: what is wrong with it, and what is there. */
export interface UnreadableCard {
  id: string;
  title: string;
  says: string;
  raw: unknown;
  /** whether the state before it could be opened in its place */
  recovered: boolean;
}

/** What a record comes to. */
export interface Reading {
  opened?: OpenedCard;
  unreadable?: UnreadableCard;
}

/** Reads a record of the shelf: its card or, where that is damaged, the state before it; and says what could not be read. */
export function readKept(record: KeptCard): Reading {
  const { id, revision, savedAt } = record;
  const now = readCard(record.card);
  if (now.ok) {
    const opened = { card: now.card, revision, savedAt, recovered: false, takes: [] };
    if (record.damaged === undefined) return { opened };
    const old = readCard(record.damaged);
    return { opened, unreadable: told(id, record.damaged, old.ok ? [] : old.problems, true) };
  }
  // What a newer version wrote is not damaged: going on from an older state would lose it.
  const before = isNewer(now.problems) ? undefined : readCard(record.previous);
  const unreadable = told(id, record.card, now.problems, before?.ok === true);
  return before?.ok ? { opened: { card: before.card, revision, savedAt, recovered: true, takes: [] }, unreadable } : { unreadable };
}

/** The record that saves a card over another: the last state that can be read is kept before it, and what cannot be read too. */
export function savedOver(
  before: KeptCard | undefined,
  next: Pick<KeptCard, 'id' | 'card' | 'revision' | 'savedAt' | 'by' | 'took'>,
): KeptCard {
  if (!before) return { ...next, previous: null };
  if (readCard(before.card).ok) {
    return { ...next, previous: before.card, ...(before.damaged !== undefined && { damaged: before.damaged }) };
  }
  return { ...next, previous: before.previous, damaged: before.card };
}

/** What an unsaved change makes of the record that it belongs to; nothing where that was saved by someone else since. */
export function continued(record: KeptCard, change: UnsavedChange): CardDocument | undefined {
  if (change.over === record.revision) return changed(record.card, change) ?? changed(record.previous, change);
  const own = record.by?.tab === change.tab && record.by.count < change.count;
  return own && change.over === record.revision - 1 ? changed(record.previous, change) : undefined;
}

/** Whether a change is in the record already. */
export const isSaved = (record: KeptCard, { tab, count }: UnsavedChange): boolean =>
  [record.by, ...(record.took ?? [])].some((saved) => saved?.tab === tab && saved.count >= count);

/** What an unsaved change comes to by itself, when its card went on without it. */
export function besides(record: KeptCard | undefined, change: UnsavedChange): CardDocument | undefined {
  return changed(record && change.over === record.revision - 1 ? record.previous : record?.card, change);
}

const isNewer = (problems: readonly FileProblem[]): boolean => problems.some(({ path }) => path === 'version');

function told(id: string, raw: unknown, problems: readonly FileProblem[], recovered: boolean): UnreadableCard {
  const name: unknown = typeof raw === 'object' && raw !== null ? (raw as { name?: unknown }).name : undefined;
  const says = problems.map(({ path, says }) => `${path} ${says}.`).join(' ') || 'It could not be read before.';
  return { id, title: typeof name === 'string' && name.trim() ? name.slice(0, 120) : 'A card without a name', says, raw, recovered };
}
