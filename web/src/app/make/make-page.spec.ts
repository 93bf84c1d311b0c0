import { ComponentFixture, TestBed } from '@angular/core/testing';
import { provideRouter } from '@angular/router';
import { DEMO_CARDS, evaluate, setSize } from '@diptychon/core';
import { of } from 'rxjs';
import { CardStore } from '../cards/card-store';
import { Evaluator } from '../evaluation/evaluator';
import { LogbookStore } from '../logbook/logbook-store';
import { MakePage } from './make-page';

const easel = DEMO_CARDS[0]!;

describe('MakePage', () => {
  let fixture: ComponentFixture<MakePage>;
  let store: CardStore;
  const element = (): HTMLElement => fixture.nativeElement;
  const title = (): string => element().querySelector('.words h2')?.textContent ?? '';
  const until = async (ready: () => boolean): Promise<void> => {
    for (let i = 0; i < 60 && !ready(); i++) {
      await new Promise((done) => setTimeout(done, 20));
      await fixture.whenStable();
    }
  };

  async function open(id: string): Promise<void> {
    fixture = TestBed.createComponent(MakePage);
    fixture.componentRef.setInput('id', id);
    await until(() => title() !== '' || element().querySelector('.trouble') !== null);
  }

  function key(name: string): void {
    document.body.dispatchEvent(new KeyboardEvent('keydown', { key: name, bubbles: true }));
  }

  beforeEach(async () => {
    window.matchMedia = (() => ({ matches: true, addEventListener: () => undefined })) as unknown as typeof matchMedia;
    // The worker does not run here: the same pipeline answers in its place.
    const evaluator = { once: (card: typeof easel) => of(evaluate(card)) };
    TestBed.configureTestingModule({ providers: [provideRouter([]), { provide: Evaluator, useValue: evaluator }] });
    store = TestBed.inject(CardStore);
    await store.all();
    await store.keepTicked(easel.id, []);
  });

  afterEach(() => fixture.destroy());

  it('begins with everything on the table, and a try on scrap', async () => {
    await open(easel.id);
    expect(title()).toBe('Put everything on the table');
    expect(element().querySelector('.materials')!.textContent).toContain('Scrap');
    expect(element().querySelector('.count')!.textContent).toMatch(/Step 1 of \d+/);
  });

  it('ticks with the space bar and keeps what is ticked', async () => {
    await open(easel.id);
    key(' ');
    await fixture.whenStable();
    expect(title()).toBe('Trim: Card');
    await new Promise((done) => setTimeout(done, 50));
    expect(await store.ticked(easel.id)).toEqual(['ready']);
  });

  it('goes on where the maker stopped', async () => {
    await store.keepTicked(easel.id, ['ready', 'trim-base']);
    await open(easel.id);
    expect(title()).toBe('Score: Card');
  });

  it('goes back and forth without ticking', async () => {
    await open(easel.id);
    key('ArrowRight');
    key('ArrowRight');
    key('ArrowLeft');
    await fixture.whenStable();
    expect(title()).toBe('Trim: Card');
    expect(element().querySelectorAll('.steps .done')).toHaveLength(0);
  });

  it('starts over for another card', async () => {
    await store.keepTicked(easel.id, ['ready', 'trim-base']);
    await open(easel.id);
    element().querySelector<HTMLButtonElement>('.over')!.click();
    await fixture.whenStable();
    expect(title()).toBe('Put everything on the table');
  });

  it('does one step for all of several cards, one after the other, and keeps each in the logbook', async () => {
    await open(easel.id);
    const copies = element().querySelector<HTMLInputElement>('#copies')!;
    copies.value = '3';
    copies.dispatchEvent(new Event('change'));
    key(' ');
    await fixture.whenStable();
    expect(title()).toBe('Put everything on the table');
    expect(element().querySelector('.count')!.textContent).toContain('for 3 cards: 0 done');
    await until(() => element().querySelector('.count')!.textContent.includes('1 done'));
    key(' ');
    await fixture.whenStable();
    key(' ');
    await until(() => title() === 'Trim: Card');
    const logbook = TestBed.inject(LogbookStore);
    await until(() => false);
    const build = (await logbook.begun(easel.id))!;
    expect(build.copies).toBe(3);
    expect(build.steps.map(({ id, done }) => [id, done])).toEqual([['ready', 3]]);
    await logbook.remove(build.id);
  });

  it('shows a fold in the round, and the flat piece again', async () => {
    await open(easel.id);
    for (let i = 0; i < 40 && !title().startsWith('Fold lightly'); i++) {
      key('ArrowRight');
      await fixture.whenStable();
    }
    const round = [...element().querySelectorAll('button')].find((button) => button.textContent.trim() === 'In the round')!;
    round.click();
    await fixture.whenStable();
    expect(element().querySelector('dip-step-round')).not.toBeNull();
    expect(element().querySelector('dip-step-drawing')).toBeNull();
  });

  it('says at the top when the card is not ready to make', async () => {
    const kept = (await store.get(easel.id))!;
    await store.save({ card: setSize(easel, 'base', 'displayHeight', 180), over: kept.revision });
    await open(easel.id);
    expect(element().querySelector('.trouble')!.textContent).toContain(
      'Not ready to make: Closed, display sticks out 30 mm past the fold.',
    );
    const now = (await store.get(easel.id))!;
    await store.save({ card: easel, over: now.revision });
  });

  it('says so when there is no such card', async () => {
    await open('nothing');
    expect(element().querySelector('.trouble')!.textContent).toContain('There is no such card');
  });
});
