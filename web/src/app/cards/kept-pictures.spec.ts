import 'fake-indexeddb/auto';
import { TestBed } from '@angular/core/testing';
import { DEMO_CARDS, samplePictures } from '@diptychon/core';
import { evaluationApi } from '../evaluation/evaluation-api';
import { Database } from './database';
import type { OpenedCard } from './kept-card';
import { KeptPictures } from './kept-pictures';

describe('KeptPictures', () => {
  const card = DEMO_CARDS[0]!;
  const kept: OpenedCard = { card, revision: 3, savedAt: 17, recovered: false, takes: [] };
  const pictures = evaluationApi.pictures(card, [1])!;
  let store: KeptPictures;

  beforeEach(() => {
    store = TestBed.inject(KeptPictures);
  });

  it('gives back what was kept of just this state of the card', async () => {
    await store.keep(kept, pictures);
    expect(await store.of(kept)).toEqual(pictures);
    expect(await store.of({ ...kept, revision: 4 })).toBeUndefined();
    expect(await store.of({ ...kept, savedAt: 18 })).toBeUndefined();
    await store.forget(card.id);
    expect(await store.of(kept)).toBeUndefined();
  });

  it('trusts nothing that is no picture', async () => {
    const [first] = pictures.pictures;
    const wrong = { ...pictures, pictures: [{ ...first!, facets: [{ ...first!.facets[0]!, path: 'M0 0"/><script>' }] }] };
    await TestBed.inject(Database).put('notes', { of: '1/3/17', pictures: wrong }, `picture:${card.id}`);
    expect(await store.of(kept)).toBeUndefined();
  });

  it('keeps none of a card that holds what is not saved', async () => {
    const drawn = { ...kept, takes: [{ tab: 't', id: card.id, over: 3, count: 1, whole: false, fields: {}, gone: [], holds: [] }] };
    await store.keep(drawn, pictures);
    expect(await store.of(drawn)).toBeUndefined();
  });

  describe('of a sample', () => {
    const asItComes = { ...kept, revision: 1 };
    const program = samplePictures();
    const served = (body: unknown) => vi.stubGlobal('fetch', () => Promise.resolve(new Response(JSON.stringify(body))));
    /** They are asked for when the shelf is made. */
    const anew = () => TestBed.resetTestingModule().inject(KeptPictures);
    afterEach(() => vi.unstubAllGlobals());

    it('come with the program as long as nobody changed it', async () => {
      served(program);
      store = anew();
      expect(await store.of(asItComes)).toEqual(pictures);
      expect(await store.of({ ...asItComes, revision: 2 })).toBeUndefined();
      // An older version of the program had another sample of that name.
      expect(await store.of({ ...asItComes, card: { ...card, note: 'as it was' } })).toBeUndefined();
    });

    it('are drawn anew where they do not come, or are no pictures', async () => {
      vi.stubGlobal('fetch', () => Promise.reject(new Error('no server')));
      expect(await anew().of(asItComes)).toBeUndefined();
      served({ ...program, [card.id]: { ...program[card.id], size: 'large' } });
      expect(await anew().of(asItComes)).toBeUndefined();
    });
  });
});
