import { TestBed } from '@angular/core/testing';
import { DEMO_CARDS, newCard, type CardDocument } from '@diptychon/core';
import { openDB } from 'idb';
import { CardStore, SavedElsewhere } from './card-store';
import { UnsavedJournal } from './unsaved-journal';

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
    await store.remove(DEMO_CARDS[0]!.id);
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
    expect(await store.save({ ...card, name: 'First' }, 1)).toBe(2);
    await expect(store.save({ ...card, name: 'Late' }, 1)).rejects.toThrow(SavedElsewhere);
    expect((await store.get(card.id))!.card.name).toBe('First');
  });

  it('takes all new cards or none', async () => {
    const [one, two] = [fresh(), fresh()];
    await store.addAll([two]);
    await expect(store.addAll([one, two])).rejects.toThrow();
    expect(await store.get(one.id)).toBeUndefined();
  });

  it('opens the state before when the last save cannot be read, and says so', async () => {
    const card = fresh();
    const db = await openDB('diptychon');
    await db.put('cards', { id: card.id, card: { broken: true }, previous: card, revision: 4, savedAt: 1 });
    expect(await store.get(card.id)).toMatchObject({ card, recovered: true, revision: 4 });
    await db.put('cards', { id: card.id, card: 'nothing', previous: null, revision: 5, savedAt: 1 });
    expect(await store.get(card.id)).toBeUndefined();
  });

  it('lists the card last saved first', async () => {
    const card = fresh();
    await store.addAll([card]);
    await new Promise((done) => setTimeout(done, 5));
    await store.save(card, 1);
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

describe('the journal of the last unsaved change', () => {
  const journal = new UnsavedJournal();
  beforeEach(() => localStorage.clear());

  it('holds only for the card and the state it was made over', () => {
    const card = fresh(133);
    journal.write(card, 3);
    expect(journal.read(card.id, 3)).toEqual(card);
    expect(journal.read(card.id, 4)).toBeUndefined();
    expect(journal.read('another', 3)).toBeUndefined();
    journal.clear();
    expect(journal.read(card.id, 3)).toBeUndefined();
  });

  it.each(['', 'null', '{"card":{}}', '{"card":1,"overRevision":3}', 'not json'])('takes “%s” for nothing', (kept) => {
    localStorage.setItem('diptychon-unsaved', kept);
    expect(journal.read('card', 3)).toBeUndefined();
  });

  it('is passed over where the browser keeps nothing', () => {
    const full = vi.spyOn(Storage.prototype, 'setItem').mockImplementation(() => {
      throw new DOMException('full', 'QuotaExceededError');
    });
    expect(() => journal.write(fresh(), 1)).not.toThrow();
    full.mockRestore();
  });
});
