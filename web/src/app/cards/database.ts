import { Injectable } from '@angular/core';
import { openDB, type DBSchema, type IDBPDatabase } from 'idb';

/** A card as kept: with the state before its last save, and a count of saves to notice another tab. */
export interface KeptCard {
  id: string;
  card: unknown;
  previous: unknown;
  revision: number;
  savedAt: number;
}

/** The workshop as kept, in the same way. */
export interface KeptWorkshop {
  workshop: unknown;
  previous: unknown;
  revision: number;
}

export interface Shelf extends DBSchema {
  cards: { key: string; value: KeptCard };
  notes: { key: string; value: unknown };
  workshop: { key: string; value: KeptWorkshop };
}

const NAME = 'diptychon';
const VERSION = 2;

/** What this browser keeps: cards, notes to them, and the workshop. A thin typed layer over IndexedDB. */
@Injectable({ providedIn: 'root' })
export class Database {
  readonly db: Promise<IDBPDatabase<Shelf>> = openDB<Shelf>(NAME, VERSION, {
    upgrade(db, from) {
      if (from < 1) {
        db.createObjectStore('cards', { keyPath: 'id' });
        db.createObjectStore('notes');
      }
      if (from < 2) db.createObjectStore('workshop');
    },
    // A page of an older version steps aside, so that a newer one can open.
    blocking: (_, __, event) => (event.target as IDBDatabase).close(),
  });
}
