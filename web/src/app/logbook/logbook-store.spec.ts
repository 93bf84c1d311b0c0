import 'fake-indexeddb/auto';
import { TestBed } from '@angular/core/testing';
import { DEMO_CARDS, withStep } from '@diptychon/core';
import { Database } from '../cards/database';
import { LogbookStore, NotLogged } from './logbook-store';

describe('LogbookStore', () => {
  let store: LogbookStore;
  let database: Database;
  beforeEach(() => {
    store = TestBed.inject(LogbookStore);
    database = TestBed.inject(Database);
  });

  it('changes a build as it is kept by then: two changes at once are both in it', async () => {
    const { id } = await store.begin(DEMO_CARDS[0]!, 10);
    await Promise.all([
      store.change(id, (build) => withStep(build, { id: 'trim', title: 'Trim' }, 1, 10)),
      store.change(id, (build) => withStep(build, { id: 'trim', title: 'Trim' }, 2, 5)),
      store.change(id, (build) => ({ ...build, forWhom: 'the moss walkers' })),
    ]);
    const build = await store.begun(DEMO_CARDS[0]!.id);
    expect(build?.steps).toEqual([{ id: 'trim', title: 'Trim', done: 3, seconds: 15 }]);
    expect(build?.forWhom).toBe('the moss walkers');
    await store.remove(id);
  });

  it('keeps nothing that could not be read again, and what stood there stays', async () => {
    const { id } = await store.begin(DEMO_CARDS[0]!, 1);
    await expect(store.change(id, (build) => ({ ...build, copies: 0 }))).rejects.toThrow(NotLogged);
    expect((await store.all()).builds.find((build) => build.id === id)?.copies).toBe(1);
    await store.remove(id);
    await expect(store.change(id, (build) => build)).rejects.toThrow('no longer');
  });

  it('takes up what was typed in a page that was closed before it was kept', async () => {
    const { id } = await store.begin(DEMO_CARDS[0]!, 1);
    localStorage.setItem(`diptychon-logbook-typed/${id}/wouldChange`, 'thinner stock');
    localStorage.setItem('diptychon-logbook-typed/gone/forWhom', 'nobody');
    expect((await store.all()).builds.find((build) => build.id === id)?.wouldChange).toBe('thinner stock');
    await store.write(id, 'forWhom', 'the moss walkers');
    expect((await store.all()).builds.find((build) => build.id === id)?.forWhom).toBe('the moss walkers');
    expect(Object.keys(localStorage).filter((key) => key.includes('logbook-typed'))).toEqual([]);
    await store.remove(id);
  });

  it('lists what it cannot read with what is wrong, beside all others', async () => {
    const { id } = await store.begin(DEMO_CARDS[0]!, 1);
    await database.change(['builds'], async (tray) => {
      const kept = (await tray.get('builds', id)) as object;
      await tray.put('builds', { ...kept, id: 'broken', copies: 'many' } as never);
    });
    const { builds, unreadable } = await store.all();
    expect(builds.map((build) => build.id)).toContain(id);
    expect(unreadable.map(({ id, problems }) => [id, problems[0]!.path])).toEqual([['broken', 'copies']]);
    await store.remove(id);
    await store.remove('broken');
  });
});
