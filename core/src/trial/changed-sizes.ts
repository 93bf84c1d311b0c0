import type { CardDocument } from '../card/document.js';
import { inSentence } from '../card/part-titles.js';
import { listRows, sizeRows, type SizeRow } from '../card/size-rows.js';
import type { Fix } from '../check/finding.js';
import { sayLength } from '../measure/print.js';

/** All sizes of all parts of a card. */
export const freeRows = (card: CardDocument): SizeRow[] => card.parts.flatMap(({ id }) => sizeRows(card, id));

/** What leads from one card to another of the same parts whose lengths differ: as changes, and in words (“depth 150 mm; height 20 mm”). */
export function changedSizes(before: CardDocument, after: CardDocument): { changes: Fix['changes']; words: string } {
  const key = ({ owner, name }: SizeRow): string => `${owner}/${name}`;
  const present = new Map(freeRows(before).map((row) => [key(row), row]));
  // One that was left out and stays as it is must be set all the same: it would follow the others.
  const isNew = (row: SizeRow): boolean => row.given && !(present.get(key(row))?.given && present.get(key(row))?.value === row.value);
  const changed = freeRows(after).filter((row) => isNew(row) && !row.insteadOf);
  const words = changed.map(({ owner, label, value, list }) => {
    const of = list ? `${listRows(before, owner).find(({ name }) => name === list.name)!.itemLabel} ${list.index + 1}, ` : '';
    return `${of}${inSentence(label)} ${sayLength(Number(value), before.notation)}`;
  });
  return { changes: changed.map(({ owner, name, value }) => ({ owner, size: name, value })), words: words.join('; ') };
}
