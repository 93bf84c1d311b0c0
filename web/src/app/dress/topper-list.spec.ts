import { ComponentFixture, TestBed } from '@angular/core/testing';
import { evaluate, newCard, type CardDocument } from '@diptychon/core';
import { TopperList } from './topper-list';

const folded = newCard({ id: 'f', name: 'f', base: { mechanism: 'folded-card', sizes: { depth: 100, length: 140 } } });

describe('TopperList', () => {
  let fixture: ComponentFixture<TopperList>;
  let card: CardDocument;
  let heard: string[];
  const element = (): HTMLElement => fixture.nativeElement;
  const input = (id: string): HTMLInputElement => element().querySelector<HTMLInputElement>(`#${id}`)!;

  async function show(next: CardDocument): Promise<void> {
    card = next;
    const outcome = evaluate(card);
    if (!outcome.ok) throw new Error(outcome.problems[0]!.says);
    fixture.componentRef.setInput('card', card);
    fixture.componentRef.setInput('evaluation', outcome.evaluation);
    await fixture.whenStable();
  }
  async function press(words: RegExp): Promise<void> {
    [...element().querySelectorAll('button')].find(({ textContent }) => words.test(textContent!.trim()))!.click();
    await show(card);
  }
  async function type(id: string, text: string): Promise<void> {
    input(id).value = text;
    input(id).dispatchEvent(new Event('input'));
    input(id).dispatchEvent(new Event('change'));
    await show(card);
  }

  beforeEach(async () => {
    fixture = TestBed.createComponent(TopperList);
    heard = [];
    fixture.componentInstance.changed.subscribe(({ what, apply }) => {
      heard.push(what);
      card = apply(card);
    });
    await show(folded);
  });

  it('puts one in the middle of a panel, half as high as that is wide, opened to be changed', async () => {
    await press(/^Add a topper$/);
    expect(card.dressing!.toppers).toEqual([expect.objectContaining({ id: 'topper-1', across: 50, along: 70, height: 50 })]);
    expect(input('topper-1-height').value).toBe('50 mm');
    expect(element().querySelector('.numbers')!.textContent).toContain('T1');
  });

  it('takes sizes, places and a turn as they are typed, and refuses what cannot be', async () => {
    await press(/^Add a topper$/);
    await type('topper-1-height', '6 cm');
    await type('topper-1-across', '33mm');
    await type('topper-1-turn', '30');
    expect(card.dressing!.toppers![0]).toMatchObject({ height: 60, across: 33, turn: expect.closeTo(Math.PI / 6, 9) });
    await type('topper-1-height', '900mm');
    expect(card.dressing!.toppers![0]!.height).toBe(60);
    expect(element().querySelector('#topper-1-height-note')!.textContent).toContain('allowed is 4 mm to 400 mm');
  });

  it('takes it away again without a trace', async () => {
    await press(/^Add a topper$/);
    await press(/^Take it away$/);
    expect(card).toEqual(folded);
    expect(heard).toEqual(['One more topper', 'Take away the topper: mushroom cap']);
  });

  it('is glued along one side or as a pocket, whose tag is told, and all over again', async () => {
    await press(/^Add a topper$/);
    const list = fixture.componentInstance as unknown as { rows(): never[]; setGlue(row: never, as: string): void };
    const glue = async (as: string): Promise<void> => {
      list.setGlue(list.rows()[0]!, as);
      await show(card);
    };
    await glue('strip');
    expect(card.dressing!.toppers![0]!.glued).toEqual({ as: 'strip', side: 'left', deep: 13 });
    await type('topper-1-glue-deep', '20mm');
    expect(card.dressing!.toppers![0]!.glued).toEqual({ as: 'strip', side: 'left', deep: 20 });
    await glue('pocket');
    expect(element().textContent!.replace(/\s+/g, ' ')).toMatch(/Takes a tag [\d.]+ mm.* wide that goes in [\d.]+ mm/);
    await glue('all');
    expect(card.dressing!.toppers![0]).not.toHaveProperty('glued');
  });

  it('is drawn out to a width, and goes back to that of its outline', async () => {
    await press(/^Add a topper$/);
    await type('topper-1-width', '70mm');
    expect(fixture.componentInstance.evaluation()!.dressed.toppers[0]!.sheet.width).toBeCloseTo(70, 9);
    await press(/^as wide as its outline asks$/);
    expect(card.dressing!.toppers![0]).not.toHaveProperty('width');
  });
});
