import { inject, Injectable, signal } from '@angular/core';
import { DEMO_CARDS, readCard, readCardFile, writeCardFile, type CardDocument, type FileProblem } from '@diptychon/core/records';
import { Database, type KeptCard, type Tray } from './database';
import { besides, continued, isSaved, readKept, savedOver, type OpenedCard, type Reading, type UnreadableCard } from './kept-card';
import { Tabs } from './tabs';
import { changed, keyOf, readChange, UnsavedChanges, type UnsavedChange } from './unsaved-changes';

export type { OpenedCard, UnreadableCard } from './kept-card';

/** A save was refused because the card was saved elsewhere since it was opened here. */
export class SavedElsewhere extends Error {
  constructor(readonly revision: number) {
    super('This card was changed in another tab.');
  }
}

/** A save was refused because the card was taken off the shelf elsewhere. */
export class TakenOff extends Error {
  constructor() {
    super('This card was taken off the shelf in another tab.');
  }
}

/** A save was refused because what it would write could not be read again. */
export class Unreadable extends Error {
  constructor(problems: readonly FileProblem[]) {
    super(problems.map(({ path, says }) => `${path} ${says}.`).join(' '));
  }
}

/** All that is on the shelf. */
export interface ShelfContents {
  cards: OpenedCard[];
  unreadable: UnreadableCard[];
}

/** A change to save: the card, the state that it was made over, and which unsaved changes it holds. */
export interface Save {
  card: CardDocument;
  over: number;
  count?: number;
  /** changes left by tabs that are gone, which this save takes up */
  takes?: readonly UnsavedChange[];
}

/** The maker's cards. Every save passes the reader, is one transaction, and comes after the one before it. */
@Injectable({ providedIn: 'root' })
export class CardStore {
  private readonly database = inject(Database);
  private readonly unsaved = inject(UnsavedChanges);
  private readonly tabs = inject(Tabs);
  private saving: Promise<unknown> = Promise.resolve();
  /** cards put on the shelf of themselves: what was drawn in a tab that is gone, while their card went on elsewhere */
  readonly rescued = signal<readonly CardDocument[]>([]);

  /** All cards that can be read, last saved first, as they were drawn last. */
  async all(): Promise<OpenedCard[]> {
    return (await this.shelf()).cards;
  }

  /** The whole shelf. Puts the sample cards on an empty first one. */
  async shelf(): Promise<ShelfContents> {
    await this.saving;
    await this.shelveDemo();
    await this.rescue();
    const [records, left] = [await this.database.look(['cards'], (tray) => tray.all('cards')), await this.unsaved.left()];
    const read = records.map((record) => this.asDrawn(record, left));
    return {
      cards: read.flatMap(({ opened }) => opened ?? []).sort((a, b) => b.savedAt - a.savedAt),
      unreadable: read.flatMap(({ unreadable }) => unreadable ?? []),
    };
  }

  async get(id: string): Promise<OpenedCard | undefined> {
    await this.saving;
    await this.shelveDemo();
    await this.rescue();
    const record = await this.database.look(['cards'], (tray) => tray.get('cards', id));
    if (!record) return undefined;
    return this.asDrawn(record, await this.unsaved.left()).opened;
  }

  /**
   * Saves a card over the revision it was opened at, keeping the last state that can be read before it.
   * @throws SavedElsewhere when another tab saved it meanwhile
   * @throws TakenOff when it is no longer on the shelf
   * @throws Unreadable when what was to be saved could not be read again
   */
  save(given: Save): Promise<number> {
    const turn = this.saving.then(() => this.saveNow(given));
    this.saving = turn.catch(() => undefined);
    return turn;
  }

  /** Puts new cards on the shelf: all of them or, when one is already there or the storage is full, none. */
  async addAll(cards: readonly CardDocument[]): Promise<void> {
    for (const card of cards) refuseUnreadable(card);
    await this.database.change(['cards'], async (tray) => {
      for (const [i, card] of cards.entries()) await tray.add('cards', newRecord(card, Date.now() - i));
    });
  }

  /**
   * Takes a card off the shelf.
   * @throws SavedElsewhere when it was changed since `revision` was read
   */
  async remove(id: string, revision: number): Promise<void> {
    await this.saving;
    const left = (await this.unsaved.left()).filter((change) => change.id === id);
    await this.database.change(['cards', 'unsaved'], async (tray) => {
      const record = await tray.get('cards', id);
      if (record && record.revision !== revision) throw new SavedElsewhere(record.revision);
      await tray.remove('cards', id);
      for (const change of left) await tray.remove('unsaved', keyOf(change));
    });
    this.forget(left);
  }

  /** Throws away what could not be read of a card; what could be read stays. */
  async discardUnreadable(id: string): Promise<void> {
    await this.database.change(['cards'], async (tray) => {
      const record = await tray.get('cards', id);
      const { opened, unreadable } = record ? readKept(record) : {};
      if (!record || !unreadable) return;
      const { damaged: _, ...rest } = record;
      if (opened) await tray.put('cards', { ...rest, card: opened.card });
      else await tray.remove('cards', id);
    });
  }

  /** How often a card was saved, whether it can be read or not; nothing when it is not on the shelf. */
  async revisionOf(id: string): Promise<number | undefined> {
    return (await this.database.look(['cards'], (tray) => tray.get('cards', id)))?.revision;
  }

  /** Steps ticked off while making a card. */
  async ticked(id: string): Promise<string[]> {
    const kept = await this.database.look(['notes'], (tray) => tray.get('notes', `ticked:${id}`));
    return Array.isArray(kept) ? kept.filter((step): step is string => typeof step === 'string') : [];
  }

  async keepTicked(id: string, steps: readonly string[]): Promise<void> {
    await this.database.put('notes', [...steps], `ticked:${id}`);
  }

  /** Something small that this browser remembers. */
  async note(name: string): Promise<unknown> {
    return this.database.look(['notes'], (tray) => tray.get('notes', name));
  }

  async keepNote(name: string, value: boolean): Promise<void> {
    await this.database.put('notes', value, name);
  }

  private async saveNow({ card, over, count, takes = [] }: Save): Promise<number> {
    refuseUnreadable(card);
    const own = { tab: this.tabs.own, id: card.id };
    const taken = takes.flatMap(({ tab, count, holds }) => [{ tab, count }, ...holds]);
    // What is typed meanwhile must reach the disk at once: where no other tab is in it, the unsaved changes are left alone.
    const alone = taken.length === 0 && !this.unsaved.mayHaveOthers(card.id);
    await this.database.change(alone ? ['cards'] : ['cards', 'unsaved'], async (tray) => {
      const before = await tray.get('cards', card.id);
      if (!before) throw new TakenOff();
      if (before.revision !== over) throw new SavedElsewhere(before.revision);
      if (!alone) await makeWhole(tray, before, new Set([own, ...taken].map(({ tab }) => keyOf({ tab, id: card.id }))));
      const by = count === undefined ? undefined : { tab: own.tab, count };
      await tray.put(
        'cards',
        savedOver(before, {
          id: card.id,
          card,
          revision: over + 1,
          savedAt: Date.now(),
          ...(by && { by }),
          took: [...taken, ...(before.by && before.by.tab !== own.tab ? [before.by] : []), ...(before.took ?? [])].slice(0, MOST_TOOK),
        }),
      );
      for (const done of alone ? [] : [...taken, ...(count === undefined ? [] : [{ tab: own.tab, count }])]) {
        const key = keyOf({ tab: done.tab, id: card.id });
        const kept = readChange(await tray.get('unsaved', key));
        if (kept && kept.count <= done.count) await tray.remove('unsaved', key);
      }
    });
    if (count !== undefined) this.unsaved.forget(keyOf(own), count);
    if (count !== undefined && alone) void this.unsaved.clear(keyOf(own), count);
    for (const { tab, count: upTo } of taken) this.unsaved.forget(keyOf({ tab, id: card.id }), upTo);
    return over + 1;
  }

  /** A record as it was drawn last, with the unsaved changes that this takes up. */
  private asDrawn(record: KeptCard, left: readonly UnsavedChange[]): Reading {
    const reading = readKept(record);
    if (!reading.opened) return reading;
    for (const change of left.filter(({ id }) => id === record.id)) {
      const card = isSaved(record, change) ? undefined : continued(record, change);
      if (card) return { ...reading, opened: { ...reading.opened, card, takes: [change] } };
    }
    return reading;
  }

  /**
   * Puts what tabs that are gone had drawn onto the shelf as cards of their own, where their card was saved or taken off
   * elsewhere meanwhile; forgets what is there already.
   */
  private async rescue(): Promise<void> {
    const left = (await this.unsaved.left()).filter(({ tab }) => tab !== this.tabs.own);
    if (left.length === 0) return;
    const over: UnsavedChange[] = [];
    const rescued = await this.database.change(['cards', 'unsaved'], async (tray) => {
      const found: CardDocument[] = [];
      const taken = new Set<string>();
      for (const change of left) {
        const record = await tray.get('cards', change.id);
        if (record && !taken.has(record.id) && !isSaved(record, change) && continued(record, change)) {
          taken.add(record.id);
          await onDisk(tray, change);
          continue;
        }
        const card = besides(record, change);
        if (card && !(record && isSaved(record, change)) && !sameCard(card, record?.card)) {
          // Two tabs may come upon the same one at once: its id is made from what it was.
          const own = { ...card, id: `kept-${change.tab}-${change.count}`, name: `${card.name.slice(0, 100)} (other version)` };
          if (!(await tray.get('cards', own.id))) {
            await tray.add('cards', newRecord(own, Date.now()));
            found.push(own);
          }
        }
        await tray.remove('unsaved', keyOf(change));
        over.push(change);
      }
      return found;
    });
    this.forget(over);
    if (rescued.length > 0) this.rescued.update((known) => [...known, ...rescued]);
  }

  private forget(changes: readonly UnsavedChange[]): void {
    for (const change of changes) this.unsaved.forget(keyOf(change), change.count);
  }

  private async shelveDemo(): Promise<void> {
    if (await this.database.look(['notes'], (tray) => tray.get('notes', 'demo-shelved'))) return;
    await this.database.change(['cards', 'notes'], async (tray) => {
      // Another tab may have been quicker.
      if (await tray.get('notes', 'demo-shelved')) return;
      for (const [i, card] of DEMO_CARDS.entries()) {
        if (!(await tray.get('cards', card.id))) await tray.put('cards', newRecord(card, Date.now() - i));
      }
      await tray.put('notes', true, 'demo-shelved');
    });
  }
}

/** Tabs whose changes a record remembers to have: those that are gone, and those that saved before the last one. */
const MOST_TOOK = 12;

const newRecord = (card: CardDocument, savedAt: number): KeptCard => ({ id: card.id, card, previous: null, revision: 1, savedAt });

/** What is kept must also go into a file and come back from it. */
function refuseUnreadable(card: CardDocument): void {
  const reading = readCardFile(writeCardFile(card));
  if (!reading.ok) throw new Unreadable(reading.problems);
}

/** Whether what is kept is a card of the same content, whatever the order of its keys. */
function sameCard(one: CardDocument, kept: unknown): boolean {
  const reading = readCard(kept);
  return reading.ok && writeCardFile(reading.card) === writeCardFile(one);
}

/**
 * What a closed page left in its own storage alone is a killed browser’s to lose: that storage reaches the disk some seconds
 * later. Once it was seen again, it is on the disk.
 */
async function onDisk(tray: Tray, change: UnsavedChange): Promise<void> {
  const kept = readChange(await tray.get('unsaved', keyOf(change)));
  if (!kept || kept.count < change.count) await tray.put('unsaved', change, keyOf(change));
}

/** What other tabs changed over the state that is being saved over is made whole: that state will be gone. */
async function makeWhole(tray: Tray, before: KeptCard, but: ReadonlySet<string>): Promise<void> {
  for (const raw of await tray.all('unsaved')) {
    const kept = readChange(raw);
    if (kept?.id !== before.id || kept.whole || kept.over !== before.revision || but.has(keyOf(kept))) continue;
    const card = changed(before.card, kept);
    if (card) await tray.put('unsaved', { ...kept, whole: true, fields: { ...card }, gone: [] }, keyOf(kept));
  }
}
