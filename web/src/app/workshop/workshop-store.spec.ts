import { TestBed } from '@angular/core/testing';
import { INCH_WORKSHOP, METRIC_WORKSHOP } from '@diptychon/core';
import { IDBFactory } from 'fake-indexeddb';
import { Database } from '../cards/database';
import { WorkshopStore } from './workshop-store';

const JOURNAL = 'diptychon-workshop-unsaved';

describe('WorkshopStore', () => {
  /** The workshop of a page that is opened now, over what this browser keeps. */
  async function opened(): Promise<WorkshopStore> {
    TestBed.resetTestingModule();
    const store = TestBed.inject(WorkshopStore);
    await store.ready;
    return store;
  }
  const saved = async (store: WorkshopStore): Promise<void> => vi.waitFor(() => expect(store.saveState()).toBe('saved'));

  beforeEach(() => {
    localStorage.clear();
    globalThis.indexedDB = new IDBFactory();
  });

  it('is a starter workshop that is not kept until the first questions are answered', async () => {
    const store = await opened();
    expect([store.begun(), store.workshop()]).toEqual([false, METRIC_WORKSHOP]);
    store.begin('inch/16', 'eighths-12');
    expect(store.workshop()).toMatchObject({ notation: 'inch/16', usual: { board: 'eighths-12' }, stocks: INCH_WORKSHOP.stocks });
    await saved(store);
    const again = await opened();
    expect([again.begun(), again.workshop().notation]).toEqual([true, 'inch/16']);
  });

  it('undoes and redoes every change by its name, and keeps what it shows', async () => {
    const store = await opened();
    store.begin('mm', 'five-mm-300');
    store.change('Tab width', (workshop) => ({ ...workshop, habits: { ...workshop.habits, tabWidth: 12 } }));
    expect(store.undoWhat()).toBe('Tab width');
    store.undo();
    expect(store.workshop().habits.tabWidth).toBe(METRIC_WORKSHOP.habits.tabWidth);
    store.redo();
    await saved(store);
    expect((await opened()).workshop().habits.tabWidth).toBe(12);
  });

  it('finds a change again that was made just before the page was closed', async () => {
    const store = await opened();
    const changed = { ...METRIC_WORKSHOP, habits: { ...METRIC_WORKSHOP.habits, tabWidth: 9 } };
    await store.ready;
    localStorage.setItem(JOURNAL, JSON.stringify(changed));
    expect((await opened()).workshop()).toEqual(changed);
  });

  it('opens the state before when the last save cannot be read, and says so', async () => {
    const store = await opened();
    store.begin('mm', 'rule');
    await saved(store);
    await TestBed.inject(Database).put('workshop', { workshop: { broken: true }, previous: INCH_WORKSHOP, revision: 7 }, 'mine');
    const again = await opened();
    expect(again.damaged()).toEqual({ broken: true });
    expect([again.recovered(), again.workshop()]).toEqual([true, INCH_WORKSHOP]);
  });
});
