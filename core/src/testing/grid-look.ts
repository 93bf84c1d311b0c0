import type { CardDocument } from '../card/document.js';
import { setSize } from '../card/set-size.js';
import type { SizeRow } from '../card/size-rows.js';
import type { Workshop } from '../supplies/workshop.js';
import { freeRows } from '../trial/changed-sizes.js';
import { tried } from '../trial/trouble.js';

/**
 * Looks at a coarse grid for a card against which nothing fails: every two lengths or angles at so many places each, from one end
 * of what is allowed to the other, and all lengths together made smaller and larger. It knows nothing of what a finding says of
 * the way to go, as a search does: it only tries.
 * @param places of each size, ends included
 */
export function workingOnGrid(card: CardDocument, workshop: Workshop, places: number): CardDocument | undefined {
  const works = (one: CardDocument): boolean => tried(one, workshop, 'fail').trouble === 0;
  if (works(card)) return card;
  const rows = movable(card);
  for (const share of [0.3, 0.4, 0.5, 0.6, 0.7, 0.8, 0.9, 1.1, 1.25, 1.5, 2]) {
    const scaled = rows.reduce((one, row) => (row.kind === 'length' ? at(one, row, share * Number(row.value)) : one), card);
    if (works(scaled)) return scaled;
  }
  const grid = rows.map(({ range }) =>
    Array.from({ length: places }, (_, k) => range!.min + ((range!.max - range!.min) * k) / (places - 1)),
  );
  for (const [i, row] of rows.entries()) {
    for (const to of grid[i]!) {
      const one = at(card, row, to);
      if (works(one)) return one;
      // What the second may be follows the first.
      for (const other of movable(one).slice(i + 1)) {
        for (let k = 0; k < places; k++) {
          const two = at(one, other, other.range!.min + ((other.range!.max - other.range!.min) * k) / (places - 1));
          if (works(two)) return two;
        }
      }
    }
  }
  return undefined;
}

const movable = (card: CardDocument): SizeRow[] =>
  freeRows(card).filter(
    ({ kind, insteadOf, asCut, range }) =>
      (kind === 'length' || kind === 'angle') && !insteadOf && !asCut && range !== undefined && range.max >= range.min,
  );

const at = (card: CardDocument, { owner, name }: SizeRow, to: number): CardDocument => setSize(card, owner, name, to);
