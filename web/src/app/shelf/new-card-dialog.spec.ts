import { ComponentFixture, TestBed } from '@angular/core/testing';
import { evaluate, closedSizeOf, type CardDocument } from '@diptychon/core';
import { WorkshopStore } from '../workshop/workshop-store';
import { KINDS } from './kinds';
import { NewCardDialog } from './new-card-dialog';

const kindOf = (id: string) => KINDS.find((kind) => kind.id === id)!;

describe('NewCardDialog', () => {
  let fixture: ComponentFixture<NewCardDialog>;
  let made: CardDocument[];
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
    await TestBed.inject(WorkshopStore).ready;
    fixture = TestBed.createComponent(NewCardDialog);
    made = [];
    fixture.componentInstance.made.subscribe((card) => made.push(card));
    fixture.componentRef.setInput('kind', kindOf('easel-folded-front'));
    fixture.componentRef.setInput('visible', true);
    await fixture.whenStable();
  });
  afterEach(() => fixture.destroy());

  it('makes a card that is closed as large as asked for', async () => {
    await type('depth', '5 in');
    await type('length', '140 mm');
    start().click();
    const outcome = evaluate(made[0]!);
    expect(outcome.ok && closedSizeOf(outcome.evaluation)).toMatchObject({ depth: expect.closeTo(127, 6), length: expect.closeTo(140, 6) });
    expect(made[0]).toMatchObject({ state: 'idea', name: 'New easel, folded front' });
    expect(fixture.componentInstance.visible()).toBe(false);
  });

  it('gives each new card an id of its own', async () => {
    start().click();
    for (const visible of [false, true]) {
      fixture.componentRef.setInput('visible', visible);
      await fixture.whenStable();
    }
    start().click();
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
    start().click();
    expect(made).toEqual([]);
  });

  it('says when this kind of card cannot be of that size, in the words of its own limits', async () => {
    fixture.componentRef.setInput('kind', kindOf('tucked-display'));
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
    start().click();
    expect(made[0]!.notation).toBe('inch/8');
    const outcome = evaluate(made[0]!);
    const closed = { depth: expect.closeTo(4.25 * 25.4, 6), length: expect.closeTo(7 * 25.4, 6) };
    expect(outcome.ok && closedSizeOf(outcome.evaluation)).toMatchObject(closed);
  });

  it('brings the board that the maker has', async () => {
    TestBed.inject(WorkshopStore).begin('mm', 'five-mm-300');
    start().click();
    expect(made[0]!.board).toBe('five-mm-300');
  });
});
