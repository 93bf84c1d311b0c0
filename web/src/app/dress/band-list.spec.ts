import { ComponentFixture, TestBed } from '@angular/core/testing';
import { evaluate, newCard, type CardDocument } from '@diptychon/core';
import { BandList } from './band-list';

const folded = newCard({ id: 'f', name: 'f', base: { mechanism: 'folded-card', sizes: { depth: 100, length: 140 } } });

describe('BandList', () => {
  let fixture: ComponentFixture<BandList>;
  let card: CardDocument;
  const element = (): HTMLElement => fixture.nativeElement;
  const press = async (words: RegExp): Promise<void> => {
    [...element().querySelectorAll('button')].find(({ textContent }) => words.test(textContent!.trim()))!.click();
    await show(card);
  };

  async function show(next: CardDocument): Promise<void> {
    card = next;
    const outcome = evaluate(card);
    if (!outcome.ok) throw new Error(outcome.problems[0]!.says);
    fixture.componentRef.setInput('card', card);
    fixture.componentRef.setInput('evaluation', outcome.evaluation);
    await fixture.whenStable();
  }

  beforeEach(async () => {
    fixture = TestBed.createComponent(BandList);
    fixture.componentInstance.changed.subscribe(({ apply }) => (card = apply(card)));
    await show(folded);
  });

  it('puts a band round the middle of the card, and shows how long its strip is', async () => {
    await press(/^Add a band$/);
    expect(card.dressing!.closures).toEqual([expect.objectContaining({ kind: 'band', around: 'across', wide: 30, at: 70 })]);
    await press(/Band 1$/);
    // 2 · 101 + 2 · 0.62 + 12 mm.
    expect(element().querySelector('.pair')!.textContent!.replace(/\s+/g, ' ')).toContain('215.2 mm');
    expect(element().querySelector<HTMLInputElement>('#band-1-slip')!.value).toBe('1 mm');
  });

  it('takes it away without a trace', async () => {
    await press(/^Add a band$/);
    await press(/Band 1$/);
    await press(/^Take it away$/);
    expect(card).toEqual(folded);
  });
});
