import type { CardDocument } from '@diptychon/core';

/** A change of the card, with its name for undo. Applied to the card as it is then, never to an older one. */
export interface CardChange {
  what: string;
  apply: (card: CardDocument) => CardDocument;
}
