import type { CardDocument } from '@diptychon/core';

/** A change of the card, with its name for undo. Applied to the card as it is then, never to an older one. */
export interface CardChange {
  what: string;
  apply: (card: CardDocument) => CardDocument;
  /** the field that it is typed into and not left yet: what is typed there is one step to undo */
  typed?: string;
}
