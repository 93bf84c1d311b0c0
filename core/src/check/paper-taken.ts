import { inSentence } from '../card/part-titles.js';
import { spoken } from '../measure/sentence.js';
import type { Overlap } from '../card/edits.js';
import { ofBoth, type Check } from './finding.js';

/** Do two parts take the same paper? Neither can be cut then; both are left out of the card, with all that stands on them. */
export const paperTaken: Check = ({ design }) => {
  const title = (id: string): string => design.parts.find((part) => part.id === id)!.title;
  const worst = new Map<string, Overlap>();
  for (const overlap of design.overlaps) {
    const key = `${ofBoth(...overlap.parts)}/${overlap.piece}`;
    if (overlap.by > (worst.get(key)?.by ?? 0)) worst.set(key, overlap);
  }
  return [...worst].map(
    ([
      key,
      {
        parts: [first, second],
        piece,
        by,
      },
    ]) => ({
      id: `paper-taken/${key}`,
      check: 'paper-taken',
      severity: 'fail' as const,
      value: by,
      limit: 0,
      unit: 'mm' as const,
      shortfall: by,
      owner: second,
      says: `${title(second)} and ${inSentence(title(first))} take the same paper of ${design.pieces.find(({ id }) => id === piece)!.name}, ${spoken(by)} of it: neither is in the card now. Move one along the fold by ${spoken(by)}, or make one narrower.`,
    }),
  );
};
