import { TestBed } from '@angular/core/testing';
import { DEMO_CARDS, newCard, type CardDocument } from '@diptychon/core';
import { openDB } from 'idb';
import { CardStore, SavedElsewhere } from './card-store';

let made = 0;
const fresh = (depth = 100): CardDocument =>
  newCard({ id: `card-${++made}`, name: 'Puffball', base: { mechanism: 'folded-card', sizes: { depth } } });

describe('CardStore', () => {
  let store: CardStore;
  beforeEach(async () => {
    localStorage.clear();
    store = TestBed.inject(CardStore);
    await store.all();
  });

  it('has the sample cards on a first shelf, and does not bring back one that was thrown away', async () => {
    const ids = (await store.all()).map(({ card }) => card.id);
    expect(ids).toEqual(expect.arrayContaining(DEMO_CARDS.map((card) => card.id)));
    await store.remove(DEMO_CARDS[0]!.id, (await store.get(DEMO_CARDS[0]!.id))!.revision);
    expect((await store.all()).map(({ card }) => card.id)).not.toContain(DEMO_CARDS[0]!.id);
    await store.addAll([DEMO_CARDS[0]!]);
  });

  it('gives back exactly what was put in', async () => {
    const card = {
      ...fresh(),
      note: 'spores: ½ “print” <b>',
      outlines: [
        {
          id: 'own-x',
          name: 'x',
          points: [
            [0, 0],
            [1, 0],
            [0, 1],
          ] as [number, number][],
        },
      ],
    };
    await store.addAll([card]);
    expect((await store.get(card.id))!.card).toEqual(card);
  });

  it('counts saves, and refuses one made over an older state', async () => {
    const card = fresh();
    await store.addAll([card]);
    expect(await store.save({ card: { ...card, name: 'First' }, over: 1 })).toBe(2);
    await expect(store.save({ card: { ...card, name: 'Late' }, over: 1 })).rejects.toThrow(SavedElsewhere);
    await expect(store.remove(card.id, 1)).rejects.toThrow(SavedElsewhere);
    expect((await store.get(card.id))!.card.name).toBe('First');
  });

  it('takes all new cards or none', async () => {
    const [one, two] = [fresh(), fresh()];
    await store.addAll([two]);
    await expect(store.addAll([one, two])).rejects.toThrow();
    expect(await store.get(one.id)).toBeUndefined();
  });

  it('opens the state before when the last save cannot be read, and lists what could not be', async () => {
    const card = fresh();
    const db = await openDB('diptychon');
    const broken = { ...card, parts: 'none' };
    await db.put('cards', { id: card.id, card: broken, previous: card, revision: 4, savedAt: 1 });
    const unreadable = async () => (await store.shelf()).unreadable.find(({ id }) => id === card.id);
    expect(await store.get(card.id)).toMatchObject({ card, recovered: true, revision: 4 });
    expect(await unreadable()).toMatchObject({ title: 'Puffball', raw: broken, recovered: true });
    expect((await unreadable())!.says).toMatch(/^parts /);

    // Going on from there loses neither the last good state nor what could not be read.
    await store.save({ card: { ...card, name: 'Mended' }, over: 4 });
    expect(await db.get('cards', card.id)).toMatchObject({ previous: card, damaged: broken, card: { name: 'Mended' } });
    await store.save({ card: { ...card, name: 'Twice' }, over: 5 });
    expect(await unreadable()).toMatchObject({ raw: broken });
    await store.discardUnreadable(card.id);
    expect(await unreadable()).toBeUndefined();
    expect((await store.get(card.id))!.card.name).toBe('Twice');
  });

  it('lists what cannot be opened at all, with what is there', async () => {
    const db = await openDB('diptychon');
    await db.put('cards', { id: 'lost', card: 'nothing', previous: null, revision: 5, savedAt: 1 });
    expect(await store.get('lost')).toBeUndefined();
    expect((await store.shelf()).unreadable).toMatchObject([{ id: 'lost', raw: 'nothing', recovered: false }]);
    await store.discardUnreadable('lost');
    expect((await store.shelf()).unreadable).toEqual([]);
  });

  it('does not go on from an older state of what a newer version wrote', async () => {
    const card = fresh();
    const db = await openDB('diptychon');
    await db.put('cards', { id: card.id, card: { ...card, version: 99 }, previous: card, revision: 4, savedAt: 1 });
    expect(await store.get(card.id)).toBeUndefined();
    expect((await store.shelf()).unreadable.find(({ id }) => id === card.id)!.says).toMatch(/version 99 was made by a newer/);
  });

  it('refuses to shelve what could not be read again', async () => {
    const card = { ...fresh(), parts: [] } as unknown as CardDocument;
    await expect(store.addAll([card])).rejects.toThrow(/parts/);
  });

  it('lists the card last saved first', async () => {
    const card = fresh();
    await store.addAll([card]);
    await new Promise((done) => setTimeout(done, 5));
    await store.save({ card, over: 1 });
    expect((await store.all())[0]!.card.id).toBe(card.id);
  });

  it('remembers the steps that were ticked, each card its own', async () => {
    await store.keepTicked('a', ['trim-base', 'fold-base']);
    expect(await store.ticked('a')).toEqual(['trim-base', 'fold-base']);
    expect(await store.ticked('b')).toEqual([]);
    const db = await openDB('diptychon');
    await db.put('notes', ['ok', 7, null], 'ticked:c');
    expect(await store.ticked('c')).toEqual(['ok']);
  });
});
