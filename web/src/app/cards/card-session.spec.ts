import { TestBed } from '@angular/core/testing';
import { DEMO_CARDS, setSize, type CardDocument } from '@diptychon/core';
import { CardSession } from './card-session';
import { CardStore, SavedElsewhere } from './card-store';
import { UnsavedJournal } from './unsaved-journal';

const easel = DEMO_CARDS[0]!;
const deeper = (depth: number) => (card: CardDocument) => setSize(card, 'base', 'depth', depth);
const depthOf = (card: CardDocument | undefined): unknown => card?.parts[0]!.sizes['depth'];
const pause = (ms: number): Promise<void> => new Promise((done) => setTimeout(done, ms));

describe('CardSession', () => {
  let session: CardSession;
  let store: CardStore;

  beforeEach(async () => {
    localStorage.clear();
    TestBed.configureTestingModule({ providers: [CardSession] });
    store = TestBed.inject(CardStore);
    const kept = await store.get(easel.id);
    await store.save(easel, kept!.revision);
    session = TestBed.inject(CardSession);
    await session.open(easel.id);
  });

  it('undoes and redoes, naming what changes', () => {
    session.change('Depth', deeper(140));
    session.change('Name', (card) => ({ ...card, name: 'Fern easel' }));
    expect(session.undoWhat()).toBe('Name');
    session.undo();
    expect(session.card()?.name).toBe(easel.name);
    expect(session.redoWhat()).toBe('Name');
    session.undo();
    expect(depthOf(session.card())).toBe(150);
    session.redo();
    session.redo();
    expect(session.card()?.name).toBe('Fern easel');
    expect(depthOf(session.card())).toBe(140);
  });

  it('takes a drag as one step', () => {
    for (const depth of [149, 148, 147]) session.change('Depth', deeper(depth));
    session.undo();
    expect(depthOf(session.card())).toBe(150);
  });

  it('saves what changed, and keeps the state before', async () => {
    session.change('Depth', deeper(133));
    expect(session.saveState()).toBe('saving');
    await pause(400);
    expect(session.saveState()).toBe('saved');
    expect(depthOf((await store.get(easel.id))?.card)).toBe(133);
  });

  it('saves one after the other where the storage is slow, and never takes itself for another tab', async () => {
    const { save } = store;
    store.save = async (...given) => {
      await pause(350);
      return save.apply(store, given);
    };
    for (const depth of [139, 138, 137]) {
      session.change('Depth', deeper(depth));
      await pause(200);
      expect(session.saveState()).toBe('saving');
    }
    await pause(1500);
    expect(session.saveState()).toBe('saved');
    expect(depthOf((await store.get(easel.id))?.card)).toBe(137);
  });

  it('finds a change made during a save, though its page was closed before its own', async () => {
    const { save } = store;
    session.change('Depth', deeper(129));
    store.save = async (...given) => {
      const revision = await save.apply(store, given);
      session.change('Depth', deeper(128));
      // The page is closed here: nothing more is saved.
      store.save = () => new Promise(() => undefined);
      return revision;
    };
    await pause(600);
    expect(depthOf((await store.get(easel.id))?.card)).toBe(128);
  });

  it('finds a change again that was made just before the page was closed', async () => {
    session.change('Depth', deeper(121));
    const kept = await store.get(easel.id);
    expect(depthOf(kept?.card)).toBe(121);
    expect(TestBed.inject(UnsavedJournal).read(easel.id, kept!.revision + 1)).toBeUndefined();
  });

  it('never writes over what another tab saved, until told to', async () => {
    const kept = (await store.get(easel.id))!;
    await store.save(setSize(kept.card, 'base', 'depth', 111), kept.revision);
    session.change('Depth', deeper(99));
    await pause(400);
    expect(session.saveState()).toBe('conflict');
    expect(depthOf((await store.get(easel.id))?.card)).toBe(111);
    await session.keepMine();
    expect(session.saveState()).toBe('saved');
    expect(depthOf((await store.get(easel.id))?.card)).toBe(99);
  });
});

describe('CardStore', () => {
  it('refuses a save over an older revision', async () => {
    const store = TestBed.inject(CardStore);
    const kept = (await store.get(easel.id))!;
    await expect(store.save(kept.card, kept.revision - 1)).rejects.toBeInstanceOf(SavedElsewhere);
  });

  it('knows no card that is not there', async () => {
    expect(await TestBed.inject(CardStore).get('nothing')).toBeUndefined();
  });
});
