import { TestBed } from '@angular/core/testing';
import { newCard, type CardDocument, type Workshop } from '@diptychon/core';
import { expose } from 'comlink';
import { Subject } from 'rxjs';
import { WorkshopStore } from '../workshop/workshop-store';
import { Evaluator } from './evaluator';

/** Cards told apart by their closed width (mm). */
const cardOf = (closedWidth: number): CardDocument =>
  newCard({ id: 'c', name: 'c', base: { mechanism: 'folded-card', sizes: { closedWidth } } });
const widthOf = (card: CardDocument): unknown => card.parts[0]!.sizes['closedWidth'];

describe('Evaluator, following a card that changes', () => {
  const begun: unknown[] = [];
  let finish: ((answer: unknown) => void)[] = [];

  beforeEach(() => {
    begun.length = 0;
    finish = [];
    const api = {
      here: () => true,
      evaluate: (card: CardDocument) => {
        begun.push(widthOf(card));
        return new Promise((done) => finish.push(done));
      },
    };
    // A thread of this test's own: its answers come when they are let go.
    vi.stubGlobal(
      'Worker',
      class {
        constructor() {
          const { port1, port2 } = new MessageChannel();
          expose(api, port2);
          port1.start();
          return Object.assign(port1, { terminate: () => port1.close() });
        }
      },
    );
    TestBed.configureTestingModule({
      providers: [{ provide: WorkshopStore, useValue: { workshop: (): Workshop | undefined => undefined } }],
    });
  });

  afterEach(() => vi.unstubAllGlobals());

  it('tells what it has worked out although newer cards came meanwhile, and begins only the newest of those', async () => {
    const cards = new Subject<CardDocument>();
    const told: unknown[] = [];
    TestBed.inject(Evaluator)
      .follow(cards)
      .subscribe(({ card }) => told.push(widthOf(card)));
    cards.next(cardOf(100));
    await vi.waitFor(() => expect(begun).toEqual([100]));
    for (const width of [101, 102, 103]) cards.next(cardOf(width));
    finish[0]!({ ok: true });
    await vi.waitFor(() => expect(told).toEqual([100]));
    await vi.waitFor(() => expect(begun).toEqual([100, 103]));
    finish[1]!({ ok: true });
    await vi.waitFor(() => expect(told).toEqual([100, 103]));
  });

  it('does not begin a card anew that broke off when a newer one waits for its turn', async () => {
    const cards = new Subject<CardDocument>();
    const told: unknown[] = [];
    TestBed.inject(Evaluator)
      .follow(cards)
      .subscribe(({ card, answer }) => told.push([widthOf(card), answer.ok]));
    vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] });
    try {
      cards.next(cardOf(100));
      await vi.waitFor(() => expect(begun).toEqual([100]));
      cards.next(cardOf(101));
      await vi.advanceTimersByTimeAsync(3500);
    } finally {
      vi.useRealTimers();
    }
    await vi.waitFor(() => expect(begun).toEqual([100, 101]));
    finish[1]!({ ok: true });
    await vi.waitFor(() => expect(told).toEqual([[101, true]]));
  });
});
