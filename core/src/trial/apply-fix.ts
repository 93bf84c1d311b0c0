import type { CardDocument } from '../card/document.js';
import { setSize } from '../card/set-size.js';
import type { Fix } from '../check/finding.js';

/** A card with the changes of a fix made, in order. */
export function applyFix(card: CardDocument, { changes, dressing }: Fix): CardDocument {
  const sized = changes.reduce((changed, { owner, size, value }) => setSize(changed, owner, size, value), card);
  return dressing ? { ...sized, dressing } : sized;
}
