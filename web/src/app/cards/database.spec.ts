import { TestBed } from '@angular/core/testing';
import { DEMO_CARDS } from '@diptychon/core';
import { IDBFactory } from 'fake-indexeddb';
import { openDB } from 'idb';
import { CardStore } from './card-store';
import { Database, notKeptWords, STORAGE_PATIENCE, type NotKept } from './database';

/** A page in a browser whose storage is like that. */
function pageOver(factory: unknown): { store: CardStore; database: Database } {
  vi.stubGlobal('indexedDB', factory);
  TestBed.resetTestingModule();
  TestBed.configureTestingModule({ providers: [{ provide: STORAGE_PATIENCE, useValue: 80 }] });
  return { store: TestBed.inject(CardStore), database: TestBed.inject(Database) };
}

const throwing = {
  open: () => {
    throw new DOMException('denied', 'SecurityError');
  },
};
const silent = { open: () => new IDBOpenDBRequest() };

async function newer(): Promise<IDBFactory> {
  const factory = new IDBFactory();
  vi.stubGlobal('indexedDB', factory);
  (await openDB('diptychon', 99)).close();
  return factory;
}

describe('a browser that keeps nothing', () => {
  afterEach(() => vi.unstubAllGlobals());

  it.each<[NotKept, () => unknown]>([
    ['missing', () => undefined],
    ['missing', () => null],
    ['refused', () => throwing],
    ['silent', () => silent],
    ['newer', newer],
  ])('%s: the page works in memory, and says so', async (why, factory) => {
    const { store, database } = pageOver(await factory());
    const card = { ...DEMO_CARDS[0]!, id: 'in-memory' };
    await store.addAll([card]);
    expect(await store.save({ card: { ...card, name: 'Once more' }, over: 1 })).toBe(2);
    expect((await store.all()).map(({ card }) => card.name)).toContain('Once more');
    await expect(store.addAll([{ ...card, id: 'other' }, card])).rejects.toThrow();
    expect(await store.get('other')).toBeUndefined();
    expect(database.notKept()).toBe(why);
    expect(notKeptWords(why)).toMatch(/save it to a file/);
  });

  it('lets a newer version open, and says that it made way', async () => {
    const { store, database } = pageOver(new IDBFactory());
    await store.all();
    const later = await openDB('diptychon', 99, { upgrade: () => undefined });
    expect(later.version).toBe(99);
    expect(database.notKept()).toBe('stepped-aside');
  });

  it('says nothing where all is well', async () => {
    const { store, database } = pageOver(new IDBFactory());
    await store.all();
    expect(database.notKept()).toBeUndefined();
  });
});
