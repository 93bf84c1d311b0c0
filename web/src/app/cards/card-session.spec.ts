import { TestBed } from '@angular/core/testing';
import { DEMO_CARDS, setSize, type CardDocument } from '@diptychon/core';
import { IDBFactory } from 'fake-indexeddb';
import { CardSession } from './card-session';
import { CardStore, SavedElsewhere } from './card-store';
import { Database } from './database';
import { keyOf, readChange } from './unsaved-changes';

const easel = DEMO_CARDS[0]!;
const deeper = (depth: number) => (card: CardDocument) => setSize(card, 'base', 'depth', depth);
const depthOf = (card: CardDocument | undefined): unknown => card?.parts[0]!.sizes['depth'];
/** How it stands with saving sooner or later: a busy machine takes its time, and how long is measured elsewhere. */
const comesTo = (of: CardSession, state: ReturnType<CardSession['saveState']>): Promise<void> =>
  vi.waitFor(() => expect(of.saveState()).toBe(state), 5_000);
const pause = (ms: number): Promise<void> => new Promise((done) => setTimeout(done, ms));

describe('CardSession', () => {
  let session: CardSession;
  let store: CardStore;

  beforeEach(async () => {
    localStorage.clear();
    globalThis.indexedDB = new IDBFactory();
    TestBed.configureTestingModule({ providers: [CardSession] });
    store = TestBed.inject(CardStore);
    const kept = await store.get(easel.id);
    await store.save({ card: easel, over: kept!.revision });
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

  it('takes what is said once more, and changes nothing, as no step', () => {
    session.change('Depth', deeper(140), 'depth');
    // Left, the field says the same once more.
    session.leaveField();
    session.change('Depth', deeper(140));
    session.undo();
    expect(depthOf(session.card())).toBe(150);
    session.change('Depth', deeper(150));
    expect(session.redoWhat()).toBe('Depth');
  });

  it('saves what changed, and keeps the state before', async () => {
    session.change('Depth', deeper(133));
    expect(session.saveState()).toBe('saving');
    await comesTo(session, 'saved');
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
    await comesTo(session, 'saved');
    expect(depthOf((await store.get(easel.id))?.card)).toBe(137);
  });

  it('finds a change made during a save, though its page was closed before its own', async () => {
    const save = store.save.bind(store);
    session.change('Depth', deeper(129));
    store.save = async (...given) => {
      const revision = await save(...given);
      session.change('Depth', deeper(128));
      // The page is closed here: nothing more is saved.
      store.save = () => new Promise(() => undefined);
      return revision;
    };
    await pause(600);
    expect(depthOf((await store.get(easel.id))?.card)).toBe(128);
  });

  it('has a change on the disk though the save of the one before it is stuck', async () => {
    let free!: () => void;
    const freed = new Promise<void>((done) => (free = done));
    const database = TestBed.inject(Database);
    let over = false;
    void freed.then(() => (over = true));
    // Someone else writes cards for a long while.
    const busy = database.change(['cards'], async (tray) => {
      while (!over) await tray.get('cards', 'none');
    });
    session.change('Depth', deeper(127));
    await pause(250);
    session.change('Depth', deeper(126));
    await pause(30);
    expect(session.saveState()).toBe('saving');
    const kept = await database.look(['unsaved'], (tray) => tray.all('unsaved'));
    expect(kept.map((raw) => (readChange(raw)!.fields['parts'] as CardDocument['parts'])[0]!.sizes['depth'])).toEqual([126]);
    free();
    await busy;
    await comesTo(session, 'saved');
    await vi.waitFor(async () => expect(await database.look(['unsaved'], (tray) => tray.all('unsaved'))).toEqual([]));
    expect(depthOf((await store.get(easel.id))?.card)).toBe(126);
  });

  /** Another page of the same browser: everything anew but what is kept. The page before it never said goodbye. */
  async function pageAnew(): Promise<CardSession> {
    TestBed.resetTestingModule();
    TestBed.configureTestingModule({ providers: [CardSession] });
    store = TestBed.inject(CardStore);
    return TestBed.inject(CardSession);
  }
  /** The page is gone before anything more is saved. */
  /** Nothing unsaved reached the disk. */
  const wiped = async (): Promise<void> => {
    await pause(50);
    await TestBed.inject(Database).change(['unsaved'], async (tray) => {
      for (const key of (await tray.all('unsaved')).map((change) => keyOf(readChange(change)!))) await tray.remove('unsaved', key);
    });
  };
  const killed = (): void => void (store.save = () => new Promise(() => undefined));

  it('finds a change again that was made just before the page was closed', async () => {
    killed();
    session.change('Depth', deeper(121));
    const next = await pageAnew();
    await next.open(easel.id);
    expect(depthOf(next.card())).toBe(121);
    await comesTo(next, 'saved');
    localStorage.clear();
    expect(depthOf((await (await pageAnew(), store).get(easel.id))?.card)).toBe(121);
  });

  it('finds it on the disk alone, where the browser itself was killed', async () => {
    killed();
    session.change('Depth', deeper(122));
    await TestBed.inject(Database).look(['unsaved'], (tray) => tray.all('unsaved'));
    localStorage.clear();
    const next = await pageAnew();
    await next.open(easel.id);
    expect(depthOf(next.card())).toBe(122);
  });

  it('has on the disk what a closed page left in its own storage alone, once the shelf was seen', async () => {
    killed();
    session.change('Depth', deeper(124));
    await wiped();
    await pageAnew();
    expect((await store.all()).map(({ card }) => depthOf(card))).toContain(124);
    // Nothing was saved yet; then the browser was killed before it had written the page's own storage.
    localStorage.clear();
    await pageAnew();
    expect(depthOf((await store.get(easel.id))?.card)).toBe(124);
  });

  it('goes on from the latest of several pages that were each closed before they had saved', async () => {
    for (const depth of [131, 132, 133, 134]) {
      killed();
      session.change('Depth', deeper(depth));
      session = await pageAnew();
      await session.open(easel.id);
      expect(depthOf(session.card())).toBe(depth);
    }
    await comesTo(session, 'saved');
    // What is left of them anywhere is in the card already: nothing of it comes up again.
    await pageAnew();
    expect((await store.all()).filter(({ card }) => card.name.startsWith(easel.name))).toHaveLength(1);
    expect(Object.keys(localStorage).filter((name) => name.startsWith('diptychon-unsaved'))).toEqual([]);
  });

  it('does not take up again what a later page saved, though the page was closed before it could forget it', async () => {
    killed();
    session.change('Depth', deeper(135));
    const left = { ...localStorage };
    session = await pageAnew();
    await session.open(easel.id);
    await comesTo(session, 'saved');
    session.change('Depth', deeper(136));
    await comesTo(session, 'saved');
    // Wiped, but not yet on the disk when the page went.
    for (const [name, value] of Object.entries(left)) localStorage.setItem(name, value as string);
    await pageAnew();
    const found = (await store.all()).filter(({ card }) => card.name.startsWith(easel.name));
    expect(found.map(({ card }) => [card.name, depthOf(card)])).toEqual([[easel.name, 136]]);
  });

  it('does not take up again what its page saved before another page did, though it could not forget it', async () => {
    session.change('Depth', deeper(138));
    const left = { ...localStorage };
    await comesTo(session, 'saved');
    session = await pageAnew();
    await session.open(easel.id);
    session.change('Depth', deeper(139));
    await comesTo(session, 'saved');
    for (const [name, value] of Object.entries(left)) localStorage.setItem(name, value as string);
    await pageAnew();
    const found = (await store.all()).filter(({ card }) => card.name.startsWith(easel.name));
    expect(found.map(({ card }) => [card.name, depthOf(card)])).toEqual([[easel.name, 139]]);
  });

  it('leaves what is unsaved to a page that has its card, where this one keeps nothing', async () => {
    killed();
    session.change('Depth', deeper(137));
    const [shelf, left] = [globalThis.indexedDB, { ...localStorage }];
    vi.stubGlobal('indexedDB', undefined);
    await pageAnew();
    expect((await store.all()).map(({ card }) => card.name)).not.toContain(`${easel.name} (other version)`);
    expect({ ...localStorage }).toEqual(left);
    vi.stubGlobal('indexedDB', shelf);
    const next = await pageAnew();
    await next.open(easel.id);
    expect(depthOf(next.card())).toBe(137);
    vi.unstubAllGlobals();
  });

  it('saves by itself once there is room again', async () => {
    const save = vi.spyOn(store, 'save').mockRejectedValueOnce(new Error('full'));
    session.change('Depth', deeper(139));
    await comesTo(session, 'failed');
    await comesTo(session, 'saved');
    expect(save).toHaveBeenCalledTimes(2);
    expect(depthOf((await store.get(easel.id))?.card)).toBe(139);
    save.mockRestore();
  });

  it('says so when what was decided cannot be done', async () => {
    const kept = (await store.get(easel.id))!;
    await store.save({ card: setSize(kept.card, 'base', 'depth', 118), over: kept.revision });
    session.change('Depth', deeper(95));
    await comesTo(session, 'conflict');
    const get = vi.spyOn(store, 'get').mockRejectedValue(new Error('broken'));
    await session.takeTheirs();
    expect([session.saveState(), depthOf(session.card())]).toEqual(['failed', 95]);
    get.mockRestore();
  });

  it('keeps what is unsaved of one card when another is changed first', async () => {
    const other = DEMO_CARDS[1]!;
    killed();
    session.change('Depth', deeper(123));
    const next = await pageAnew();
    await next.open(other.id);
    next.change('Name', (card) => ({ ...card, name: 'Another' }));
    await comesTo(next, 'saved');
    const third = await pageAnew();
    await third.open(easel.id);
    expect(depthOf(third.card())).toBe(123);
  });

  it('writes no more than what changed, however large the rest is', async () => {
    killed();
    const spores = Array.from({ length: 400 }, (_, i): [number, number] => [i, i * i]);
    session.change('Outline', (card) => ({ ...card, outlines: [{ id: 'own-spores', name: 'Spores', points: spores }] }));
    TestBed.resetTestingModule();
    const size = (): number => Object.values({ ...localStorage }).join('').length;
    const large = size();
    expect(large).toBeGreaterThan(4000);
    const next = await pageAnew();
    await next.open(easel.id);
    await comesTo(next, 'saved');
    killed();
    next.change('Name', (card) => ({ ...card, name: 'Small' }));
    expect(size()).toBeLessThan(300);
  });

  it('never writes over what another tab saved, until told to; then undo brings the other back', async () => {
    const kept = (await store.get(easel.id))!;
    await store.save({ card: setSize(kept.card, 'base', 'depth', 111), over: kept.revision });
    session.change('Depth', deeper(99));
    await comesTo(session, 'conflict');
    expect(depthOf((await TestBed.inject(Database).look(['cards'], (tray) => tray.get('cards', easel.id)))?.card as CardDocument)).toBe(
      111,
    );
    await session.keepMine();
    expect(session.saveState()).toBe('saved');
    expect(depthOf((await store.get(easel.id))?.card)).toBe(99);
    session.undo();
    expect(depthOf(session.card())).toBe(111);
  });

  it('takes what another tab saved, and undo brings this one back', async () => {
    const kept = (await store.get(easel.id))!;
    await store.save({ card: setSize(kept.card, 'base', 'depth', 112), over: kept.revision });
    session.change('Depth', deeper(98));
    await comesTo(session, 'conflict');
    await session.takeTheirs();
    expect([depthOf(session.card()), session.saveState()]).toEqual([112, 'saved']);
    session.undo();
    expect(depthOf(session.card())).toBe(98);
  });

  it('has both versions on the shelf when a page in conflict is loaded again', async () => {
    const kept = (await store.get(easel.id))!;
    await store.save({ card: setSize(kept.card, 'base', 'depth', 113), over: kept.revision });
    session.change('Depth', deeper(97));
    await comesTo(session, 'conflict');
    session.change('Depth', deeper(96));
    await pageAnew();
    const depths = (await store.all()).map(({ card }) => depthOf(card));
    expect(depths).toEqual(expect.arrayContaining([113, 96]));
    expect(store.rescued().map(({ name }) => name)).toEqual([`${easel.name} (other version)`]);
    // Only once: the next page finds it on the shelf like any other.
    await pageAnew();
    expect((await store.all()).filter(({ card }) => card.name === `${easel.name} (other version)`)).toHaveLength(1);
    expect(store.rescued()).toEqual([]);
  });

  it('keeps whole what one tab drew over a state that another tab saves over', async () => {
    const kept = (await store.get(easel.id))!;
    const save = store.save.bind(store);
    killed();
    session.change('Name', (card) => ({ ...card, name: 'Only the name was changed' }));
    await save({ card: setSize(kept.card, 'base', 'depth', 114), over: kept.revision });
    localStorage.clear();
    await pageAnew();
    const names = (await store.all()).map(({ card }) => [card.name, depthOf(card)]);
    expect(names).toContainEqual(['Only the name was changed (other version)', 150]);
    expect(names).toContainEqual([easel.name, 114]);
  });

  it('says that its card was taken off the shelf elsewhere, and puts it back when told to', async () => {
    const kept = (await store.get(easel.id))!;
    await store.remove(easel.id, kept.revision);
    session.change('Depth', deeper(119));
    await comesTo(session, 'gone');
    expect(await store.get(easel.id)).toBeUndefined();
    await session.putBack();
    expect(session.saveState()).toBe('saved');
    expect(depthOf((await store.get(easel.id))?.card)).toBe(119);
  });

  it('never saves what could not be read again: it says why, and what was saved stands', async () => {
    session.change('Outline', (card) => ({ ...card, outlines: [{ id: 'own-thin', name: 'Thin', points: [] }] }));
    await comesTo(session, 'unreadable');
    expect(session.saveTrouble()).toContain('outlines.0.points');
    const next = await pageAnew();
    await next.open(easel.id);
    expect(next.card()).toEqual(easel);
  });

  it('takes what is typed into one field for one step, and another visit to it for another', () => {
    session.change('Notes', (card) => ({ ...card, note: 'a' }), 'note');
    vi.spyOn(performance, 'now').mockReturnValue(1e9);
    session.change('Notes', (card) => ({ ...card, note: 'ab' }), 'note');
    session.leaveField();
    vi.spyOn(performance, 'now').mockReturnValue(2e9);
    session.change('Notes', (card) => ({ ...card, note: 'abc' }), 'note');
    vi.restoreAllMocks();
    session.undo();
    expect(session.card()?.note).toBe('ab');
    session.undo();
    expect(session.card()?.note).toBe(easel.note);
  });
});

describe('CardStore', () => {
  it('refuses a save over an older revision', async () => {
    const store = TestBed.inject(CardStore);
    const kept = (await store.get(easel.id))!;
    await expect(store.save({ card: kept.card, over: kept.revision - 1 })).rejects.toBeInstanceOf(SavedElsewhere);
  });

  it('knows no card that is not there', async () => {
    expect(await TestBed.inject(CardStore).get('nothing')).toBeUndefined();
  });
});
