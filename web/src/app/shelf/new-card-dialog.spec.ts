import { ComponentFixture, TestBed } from '@angular/core/testing';
import { closedSizeOf, envelopeOf, evaluate, METRIC_WORKSHOP, sizeForEnvelope, type CardDocument } from '@diptychon/core';
import { IDBFactory } from 'fake-indexeddb';
import { evaluationApi } from '../evaluation/evaluation-api';
import { Evaluator } from '../evaluation/evaluator';
import { WorkshopStore } from '../workshop/workshop-store';
import { NewCardDialog } from './new-card-dialog';

describe('NewCardDialog', () => {
  let fixture: ComponentFixture<NewCardDialog>;
  let made: CardDocument[];
  let cutFrom: (string | undefined)[];
  const page = (): HTMLElement => document.body;
  const field = (name: string): HTMLInputElement => page().querySelector(`#new-${name}`)!;
  const start = (): HTMLButtonElement =>
    [...page().querySelectorAll('button')].find((b) => b.textContent!.includes('Take it to the bench'))!;

  async function type(name: string, text: string): Promise<void> {
    field(name).value = text;
    field(name).dispatchEvent(new Event('input'));
    await fixture.whenStable();
  }

  beforeEach(async () => {
    localStorage.clear();
    // A shelf of its own for each test: what an earlier one kept is another tab's.
    vi.stubGlobal('indexedDB', new IDBFactory());
    // No threads here: what they work out is worked out on the spot.
    const evaluator: Pick<Evaluator, 'begun'> = {
      begun: (card, onBoard, openings, sheet) => {
        cutFrom.push(sheet?.id);
        return Promise.resolve(evaluationApi.begun(card, TestBed.inject(WorkshopStore).workshop(), onBoard, openings));
      },
    };
    TestBed.configureTestingModule({ providers: [{ provide: Evaluator, useValue: evaluator }] });
    await TestBed.inject(WorkshopStore).ready;
    TestBed.inject(WorkshopStore).begin('mm', 'rule');
    fixture = TestBed.createComponent(NewCardDialog);
    made = [];
    cutFrom = [];
    fixture.componentInstance.made.subscribe((card) => made.push(card));
    fixture.componentRef.setInput('kind', 'easel-folded-front');
    fixture.componentRef.setInput('visible', true);
    await fixture.whenStable();
  });
  const begin = async (): Promise<void> => {
    start().click();
    await fixture.whenStable();
  };
  afterEach(() => {
    fixture.destroy();
    // A dialog fades before it is taken off the page, which on a slow machine is after the next one is on it.
    for (const left of page().querySelectorAll('.p-dialog-mask')) left.remove();
    vi.unstubAllGlobals();
  });

  it('makes a card that is closed as large as asked for', async () => {
    await type('depth', '5 in');
    await type('length', '140 mm');
    await begin();
    const outcome = evaluate(made[0]!);
    expect(outcome.ok && closedSizeOf(outcome.evaluation)).toMatchObject({ depth: expect.closeTo(127, 6), length: expect.closeTo(140, 6) });
    expect(made[0]).toMatchObject({ state: 'idea', name: 'New easel, folded front' });
    expect(fixture.componentInstance.visible()).toBe(false);
  });

  it('is told of the sheet that the card begins with, and of none that is only at hand', async () => {
    expect(cutFrom.at(-1)).toBeUndefined();
    const dialog = fixture.componentInstance as unknown as Record<'from' | 'sheet', { set(value: string): void }>;
    dialog.from.set('sheet');
    for (const id of ['a4', 'a3']) {
      dialog.sheet.set(id);
      await fixture.whenStable();
      expect(cutFrom.at(-1)).toBe(id);
    }
  });

  it('gives each new card an id of its own', async () => {
    await begin();
    for (const visible of [false, true]) {
      fixture.componentRef.setInput('visible', visible);
      await fixture.whenStable();
    }
    await begin();
    expect(new Set(made.map((card) => card.id)).size).toBe(2);
  });

  it.each([
    ['depth', 'broad', 'Across the fold: “broad” is not a length.'],
    ['length', '', 'Along the fold: “” is not a length.'],
    ['depth', '12 mm', '12 mm does not work; allowed is 40 mm to 320 mm'],
    ['length', '4 m', '4000 mm does not work'],
  ])('refuses %s “%s” with the reason, and starts nothing', async (name, text, says) => {
    await type(name, text);
    expect(page().querySelector('.problem')!.textContent).toContain(says);
    expect(start().disabled).toBe(true);
    await begin();
    expect(made).toEqual([]);
  });

  it('says when this kind of card cannot be of that size, in the words of its own limits', async () => {
    fixture.componentRef.setInput('kind', 'tucked-display');
    await type('depth', '300 mm');
    expect(page().querySelector('.problem')!.textContent).toMatch(
      /^Closed width: 300 mm does not work; allowed is 50 mm to 220 mm, because/,
    );
  });

  it('begins in inches for who measures in inches', async () => {
    TestBed.inject(WorkshopStore).begin('inch/8', 'eighths-12');
    await fixture.whenStable();
    expect([field('depth').value, field('length').value]).toEqual(['5 in', '7 in']);
    await type('depth', '4 1/4');
    await begin();
    expect(made[0]!.notation).toBe('inch/8');
    const outcome = evaluate(made[0]!);
    const closed = { depth: expect.closeTo(4.25 * 25.4, 6), length: expect.closeTo(7 * 25.4, 6) };
    expect(outcome.ok && closedSizeOf(outcome.evaluation)).toMatchObject(closed);
  });

  it('brings the board that the maker has', async () => {
    TestBed.inject(WorkshopStore).begin('mm', 'five-mm-300');
    await begin();
    expect(made[0]!.board).toBe('five-mm-300');
  });

  describe('on a grooved board', () => {
    const depth = (): number => made[0]!.parts[0]!.sizes['depth'] as number;
    beforeEach(async () => {
      TestBed.inject(WorkshopStore).begin('inch/16', 'eighths-12');
      await fixture.whenStable();
      // The front is scored at half the depth: 5 1/8 in would need a groove at 2 9/16.
      await type('depth', '5 1/8');
    });

    it('brings the scores to the grooves, and says what that changed', async () => {
      expect(page().textContent).toContain('Round to the board: depth 5 ');
      await begin();
      // Half of it in a groove of an eighth: a whole number of quarters.
      expect(depth() / 6.35).toBeCloseTo(Math.round(depth() / 6.35), 6);
    });

    it('leaves the size as it was typed where that is wished', async () => {
      page().querySelector<HTMLInputElement>('#new-on-board')!.click();
      await fixture.whenStable();
      await begin();
      expect(depth()).toBeCloseTo(5.125 * 25.4, 6);
    });
  });

  it('takes an envelope by its inside at once, and keeps it in the workshop', async () => {
    fixture.componentInstance['from'].set('envelope');
    fixture.componentInstance['envelope'].set('');
    await fixture.whenStable();
    await vi.waitFor(() => expect(start().disabled).toBe(true));
    await type('inside-short', '120');
    await type('inside-long', '2 m');
    expect(page().querySelector('.problem')!.textContent).toContain('2000 mm does not work; allowed is 40 mm to 1000 mm');
    await type('inside-long', '170 mm');
    await begin();
    const envelope = { id: 'inside-17000-12000', name: 'My envelope, 170 mm × 120 mm inside', long: 170, short: 120 };
    expect(envelopeOf(made[0]!)).toMatchObject(envelope);
    expect(TestBed.inject(WorkshopStore).workshop().envelopes).toContainEqual(envelope);
    const outcome = evaluate(made[0]!);
    // Less 3 mm of thickness and 3 mm of ease; an easel's fold lies at the top.
    expect(outcome.ok && closedSizeOf(outcome.evaluation)).toMatchObject({ depth: 164, length: 114 });
    expect(sizeForEnvelope(envelope, 'top', METRIC_WORKSHOP.notation)).toEqual({ depth: 164, length: 114 });
  });

  it('shows what comes of it before it is taken to the bench', () => {
    const words = page().querySelector('.comes')!.textContent!;
    expect(words).toMatch(/Closed\s+130.*across the fold/s);
    expect(words).toContain('Judged and found to work');
    expect(page().querySelectorAll('.takes li').length).toBeGreaterThan(3);
    expect(page().querySelector('.picture path')).not.toBeNull();
  });
});
