import { Injectable } from '@angular/core';
import { readCard, type CardDocument } from '@diptychon/core';

const KEY = 'diptychon-unsaved';

/**
 * The last change before its save is done. Saving to IndexedDB takes a moment in which the page may be
 * closed; this is written at once, in the same turn as the change, and wiped when the save is done.
 */
@Injectable({ providedIn: 'root' })
export class UnsavedJournal {
  write(card: CardDocument, overRevision: number): void {
    try {
      localStorage.setItem(KEY, JSON.stringify({ card, overRevision }));
    } catch {
      // Without it the ordinary save still runs.
    }
  }

  clear(): void {
    try {
      localStorage.removeItem(KEY);
    } catch {
      // Nothing was kept, so there is nothing to wipe.
    }
  }

  /** The unsaved state of a card, if it was made over this very revision. */
  read(id: string, revision: number): CardDocument | undefined {
    try {
      const { card, overRevision } = JSON.parse(localStorage.getItem(KEY) ?? '{}') as { card?: unknown; overRevision?: unknown };
      const reading = readCard(card);
      return reading.ok && reading.card.id === id && overRevision === revision ? reading.card : undefined;
    } catch {
      return undefined;
    }
  }
}
