import { inject, Injectable, InjectionToken, signal } from '@angular/core';
import { openDB, type DBSchema, type IDBPDatabase } from 'idb';

/** A card as kept: with the state before its last save, and a count of saves to notice another tab. */
export interface KeptCard {
  id: string;
  card: unknown;
  previous: unknown;
  revision: number;
  savedAt: number;
  /** what stood in `card` and could not be read, once it was saved over */
  damaged?: unknown;
  /** whose change was saved last: the tab, and the count of its change */
  by?: { tab: string; count: number };
  /** changes saved before that one, or taken up from tabs that were gone: what is left of them anywhere is in the card already */
  took?: { tab: string; count: number }[];
}

/** The workshop as kept, in the same way. */
export interface KeptWorkshop {
  workshop: unknown;
  previous: unknown;
  revision: number;
  damaged?: unknown;
}

/** A photo of a build, scaled down. */
export interface KeptPhoto {
  id: string;
  build: string;
  type: string;
  bytes: ArrayBuffer;
}

export interface Shelf extends DBSchema {
  cards: { key: string; value: KeptCard };
  notes: { key: string; value: unknown };
  workshop: { key: string; value: KeptWorkshop };
  /** changes that are drawn and not yet saved, one entry for each tab and card: see `unsaved-changes.ts` */
  unsaved: { key: string; value: unknown };
  /** what was made, and how it went; as it was written, to be read by `readBuild` */
  builds: { key: string; value: { id: string } };
  photos: { key: string; value: KeptPhoto };
}

export type Drawer = 'cards' | 'notes' | 'workshop' | 'unsaved' | 'builds' | 'photos';

/** What can be done within one transaction. */
export interface Tray {
  get<D extends Drawer>(drawer: D, key: string): Promise<Shelf[D]['value'] | undefined>;
  all<D extends Drawer>(drawer: D): Promise<Shelf[D]['value'][]>;
  put<D extends Drawer>(drawer: D, value: Shelf[D]['value'], key?: string): Promise<void>;
  /** like put, but refused where there is one of this key */
  add<D extends Drawer>(drawer: D, value: Shelf[D]['value'], key?: string): Promise<void>;
  remove(drawer: Drawer, key: string): Promise<void>;
}

/** Where things are kept: all of what `work` does takes effect, or none of it. */
export interface Cabinet {
  look<T>(drawers: readonly Drawer[], work: (tray: Tray) => Promise<T>): Promise<T>;
  change<T>(drawers: readonly Drawer[], work: (tray: Tray) => Promise<T>): Promise<T>;
  /** One entry, in a transaction that is on its way before this returns. */
  put<D extends Drawer>(drawer: D, value: Shelf[D]['value'], key?: string): Promise<void>;
  /** The same for one that goes. */
  remove(drawer: Drawer, key: string): Promise<void>;
}

const NAME = 'diptychon';
const VERSION = 4;

/** How long an answer is waited for before the page goes on without storage (ms). */
export const STORAGE_PATIENCE = new InjectionToken<number>('how long storage may take to open', { factory: () => 4000 });

/** Why this page keeps nothing beyond itself. */
export type NotKept = 'missing' | 'refused' | 'silent' | 'newer' | 'stepped-aside';

const WORDS: Readonly<Record<NotKept, string>> = {
  missing: 'This browser has no storage for cards.',
  refused: 'This browser’s storage is switched off or broken.',
  silent: 'This browser’s storage does not answer.',
  newer: 'What this browser keeps was written by a newer version of Diptychon.',
  'stepped-aside': 'A newer version of Diptychon was opened in another tab, and this one made way for it.',
};
/** What it means, the same for all of them. */
const MEANS = 'Everything works, but what you make here lasts only until this page is closed: save it to a file.';

/** What this browser keeps: cards, notes to them, the workshop and the logbook. Where it keeps nothing, this page does while it is open. */
@Injectable({ providedIn: 'root' })
export class Database {
  private readonly patience = inject(STORAGE_PATIENCE);
  private readonly memory = new MemoryCabinet();
  private cabinet: Promise<Cabinet> = this.open();
  readonly notKept = signal<NotKept | undefined>(undefined);

  /** Runs work over some drawers, in one transaction. */
  async look<T>(drawers: readonly Drawer[], work: (tray: Tray) => Promise<T>): Promise<T> {
    return (await this.cabinet).look(drawers, work);
  }

  /** The same for work that changes something. It is on the disk when this resolves. */
  async change<T>(drawers: readonly Drawer[], work: (tray: Tray) => Promise<T>): Promise<T> {
    return (await this.cabinet).change(drawers, work);
  }

  async put<D extends Drawer>(drawer: D, value: Shelf[D]['value'], key?: string): Promise<void> {
    return (await this.cabinet).put(drawer, value, key);
  }

  async remove(drawer: Drawer, key: string): Promise<void> {
    return (await this.cabinet).remove(drawer, key);
  }

  private async open(): Promise<Cabinet> {
    try {
      const db = await withinTime(this.request(), this.patience);
      return new BrowserCabinet(db);
    } catch (error) {
      this.notKept.set(reasonOf(error));
      return this.memory;
    }
  }

  private async request(): Promise<IDBPDatabase<Shelf>> {
    if (typeof indexedDB === 'undefined' || indexedDB === null) throw new NoStorage('missing');
    return openDB<Shelf>(NAME, VERSION, {
      upgrade(db, from) {
        if (from < 1) {
          db.createObjectStore('cards', { keyPath: 'id' });
          db.createObjectStore('notes');
        }
        if (from < 2) db.createObjectStore('workshop');
        if (from < 3) db.createObjectStore('unsaved');
        if (from < 4) {
          db.createObjectStore('builds', { keyPath: 'id' });
          db.createObjectStore('photos', { keyPath: 'id' });
        }
      },
      // A page of an older version steps aside, so that a newer one can open, and says so.
      blocking: (_, __, event) => {
        (event.target as IDBDatabase).close();
        this.notKept.set('stepped-aside');
      },
      // A browser that drops the connection (it was asked to clear its data, or ran out of memory) is asked again.
      terminated: () => (this.cabinet = this.open()),
    });
  }
}

/** Why a page keeps nothing, in sentences. */
export const notKeptWords = (why: NotKept): string => `${WORDS[why]} ${MEANS}`;

class NoStorage extends Error {
  constructor(readonly why: NotKept) {
    super(WORDS[why]);
  }
}

function reasonOf(error: unknown): NotKept {
  if (error instanceof NoStorage) return error.why;
  return error instanceof DOMException && error.name === 'VersionError' ? 'newer' : 'refused';
}

function withinTime<T>(work: Promise<T>, patience: number): Promise<T> {
  return new Promise((done, failed) => {
    const late = setTimeout(() => failed(new NoStorage('silent')), patience);
    work.then(done, failed).finally(() => clearTimeout(late));
  });
}

/** Over IndexedDB. Changes are asked to be on the disk before they count as done. */
class BrowserCabinet implements Cabinet {
  constructor(private readonly db: IDBPDatabase<Shelf>) {}

  look<T>(drawers: readonly Drawer[], work: (tray: Tray) => Promise<T>): Promise<T> {
    return this.within(drawers, 'readonly', work);
  }

  change<T>(drawers: readonly Drawer[], work: (tray: Tray) => Promise<T>): Promise<T> {
    return this.within(drawers, 'readwrite', work);
  }

  async put<D extends Drawer>(drawer: D, value: Shelf[D]['value'], key?: string): Promise<void> {
    const tx = this.db.transaction(drawer, 'readwrite', { durability: 'strict' });
    const written = tx.store.put(value, key);
    tx.commit();
    await Promise.all([written, tx.done]);
  }

  async remove(drawer: Drawer, key: string): Promise<void> {
    const tx = this.db.transaction(drawer, 'readwrite', { durability: 'strict' });
    const removed = tx.store.delete(key);
    tx.commit();
    await Promise.all([removed, tx.done]);
  }

  private async within<T>(drawers: readonly Drawer[], mode: 'readonly' | 'readwrite', work: (tray: Tray) => Promise<T>): Promise<T> {
    const tx = this.db.transaction([...drawers], mode, mode === 'readwrite' ? { durability: 'strict' } : {});
    const done = tx.done;
    done.catch(() => undefined);
    const writing = (drawer: Drawer) => tx.objectStore(drawer) as unknown as { put: Write; add: Write; delete: Write };
    type Write = (...given: unknown[]) => Promise<unknown>;
    try {
      const value = await work({
        get: (drawer, key) => tx.objectStore(drawer).get(key),
        all: (drawer) => tx.objectStore(drawer).getAll(),
        put: async (drawer, value, key) => void (await writing(drawer).put(value, key)),
        add: async (drawer, value, key) => void (await writing(drawer).add(value, key)),
        remove: async (drawer, key) => void (await writing(drawer).delete(key)),
      });
      await done;
      return value;
    } catch (error) {
      abort(tx);
      throw error;
    }
  }
}

function abort(tx: { abort: () => void }): void {
  try {
    tx.abort();
  } catch {
    // It is over already: what failed was its end.
  }
}

/** In this page alone, for a browser that keeps nothing. */
class MemoryCabinet implements Cabinet {
  private drawers: Readonly<Record<Drawer, ReadonlyMap<string, unknown>>> = {
    cards: new Map(),
    notes: new Map(),
    workshop: new Map(),
    unsaved: new Map(),
    builds: new Map(),
    photos: new Map(),
  };
  private last: Promise<unknown> = Promise.resolve();

  look<T>(_: readonly Drawer[], work: (tray: Tray) => Promise<T>): Promise<T> {
    return this.change(_, work);
  }

  change<T>(_: readonly Drawer[], work: (tray: Tray) => Promise<T>): Promise<T> {
    const turn = this.last.then(async () => {
      const copies = Object.fromEntries(Object.entries(this.drawers).map(([name, of]) => [name, new Map(of)])) as Record<
        Drawer,
        Map<string, unknown>
      >;
      const keyOf = (value: unknown, key?: string): string => key ?? (value as { id: string }).id;
      const value = await work({
        get: async (drawer, key) => structuredClone(copies[drawer].get(key)) as never,
        all: async (drawer) => structuredClone([...copies[drawer].values()]) as never,
        put: async (drawer, value, key) => void copies[drawer].set(keyOf(value, key), structuredClone(value)),
        add: async (drawer, value, key) => {
          if (copies[drawer].has(keyOf(value, key))) throw new DOMException('There is one of this key.', 'ConstraintError');
          copies[drawer].set(keyOf(value, key), structuredClone(value));
        },
        remove: async (drawer, key) => void copies[drawer].delete(key),
      });
      this.drawers = copies;
      return value;
    });
    this.last = turn.catch(() => undefined);
    return turn;
  }

  put<D extends Drawer>(drawer: D, value: Shelf[D]['value'], key?: string): Promise<void> {
    return this.change([drawer], (tray) => tray.put(drawer, value, key));
  }

  remove(drawer: Drawer, key: string): Promise<void> {
    return this.change([drawer], (tray) => tray.remove(drawer, key));
  }
}
