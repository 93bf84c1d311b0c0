import { inject, Injectable } from '@angular/core';
import { DEMO_CARDS, readCard, type CardDocument } from '@diptychon/core';
import { UnsavedJournal } from './unsaved-journal';
import type { IDBPDatabase } from 'idb';
import { Database, type KeptCard, type Shelf } from './database';

/** A save was refused because the card was saved elsewhere since it was opened here. */
export class SavedElsewhere extends Error {
  constructor(readonly revision: number) {
    super('This card was changed in another tab.');
  }
}

export interface OpenedCard {
  card: CardDocument;
  revision: number;
  savedAt: number;
  /** the last save could not be read; this is the one before */
  recovered: boolean;
}

/** The maker's cards in this browser. A thin typed layer over IndexedDB; every save is one transaction. */
@Injectable({ providedIn: 'root' })
export class CardStore {
  private readonly journal = inject(UnsavedJournal);
  private readonly db = inject(Database).db;

  /** All cards that can be read, last saved first. Puts the demo cards on an empty first shelf. */
  async all(): Promise<OpenedCard[]> {
    const db = await this.db;
    if (!(await db.get('notes', 'demo-shelved'))) await this.shelveDemo(db);
    const kept = await db.getAll('cards');
    return kept.flatMap((record) => this.opened(record) ?? []).sort((a, b) => b.savedAt - a.savedAt);
  }

  async get(id: string): Promise<OpenedCard | undefined> {
    await this.all();
    const record = await (await this.db).get('cards', id);
    return record && this.opened(record);
  }

  /**
   * Saves a card over the revision it was opened at, keeping the state before.
   * @throws SavedElsewhere when another tab saved it meanwhile
   */
  async save(card: CardDocument, overRevision: number): Promise<number> {
    const db = await this.db;
    const tx = db.transaction('cards', 'readwrite');
    const before = await tx.store.get(card.id);
    if (before && before.revision !== overRevision) {
      await tx.done;
      throw new SavedElsewhere(before.revision);
    }
    const revision = overRevision + 1;
    await tx.store.put({ id: card.id, card, previous: before?.card ?? null, revision, savedAt: Date.now() });
    await tx.done;
    return revision;
  }

  /** Puts new cards on the shelf: all of them or, when one is already there or the storage is full, none. */
  async addAll(cards: readonly CardDocument[]): Promise<void> {
    const tx = (await this.db).transaction('cards', 'readwrite');
    await Promise.all([
      ...cards.map((card, i) => tx.store.add({ id: card.id, card, previous: null, revision: 1, savedAt: Date.now() - i })),
      tx.done,
    ]);
  }

  /** Steps ticked off while making a card. */
  async ticked(id: string): Promise<string[]> {
    const kept = await (await this.db).get('notes', `ticked:${id}`);
    return Array.isArray(kept) ? kept.filter((step): step is string => typeof step === 'string') : [];
  }

  async keepTicked(id: string, steps: readonly string[]): Promise<void> {
    await (await this.db).put('notes', [...steps], `ticked:${id}`);
  }

  async remove(id: string): Promise<void> {
    await (await this.db).delete('cards', id);
  }

  private opened(record: KeptCard): OpenedCard | undefined {
    const now = readCard(record.card);
    const reading = now.ok ? now : readCard(record.previous);
    if (!reading.ok) return undefined;
    // A change made just before its page was closed is newer than what was saved.
    const unsaved = this.journal.read(record.id, record.revision);
    return { card: unsaved ?? reading.card, revision: record.revision, savedAt: record.savedAt, recovered: !now.ok };
  }

  private async shelveDemo(db: IDBPDatabase<Shelf>): Promise<void> {
    const tx = db.transaction(['cards', 'notes'], 'readwrite');
    for (const [i, card] of DEMO_CARDS.entries()) {
      await tx.objectStore('cards').put({ id: card.id, card, previous: null, revision: 1, savedAt: Date.now() - i });
    }
    await tx.objectStore('notes').put(true, 'demo-shelved');
    await tx.done;
  }
}
