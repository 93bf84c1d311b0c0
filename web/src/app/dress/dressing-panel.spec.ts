import { ComponentFixture, TestBed } from '@angular/core/testing';
import { evaluate, newCard, type CardDocument } from '@diptychon/core';
import { DressingPanel } from './dressing-panel';

const doors = newCard({
  id: 'd',
  name: 'd',
  base: { mechanism: 'rising-strip-doors', sizes: { closedWidth: 120, length: 150, strip: 30, gap: 0 } },
});

describe('DressingPanel', () => {
  let fixture: ComponentFixture<DressingPanel>;
  let card: CardDocument;
  let heard: string[];
  let lit: (readonly string[] | undefined)[];
  const element = (): HTMLElement => fixture.nativeElement;
  const button = (words: RegExp): HTMLButtonElement =>
    [...element().querySelectorAll('button')].find(({ textContent }) => words.test(textContent!.trim()))!;

  async function show(next: CardDocument): Promise<void> {
    card = next;
    const outcome = evaluate(card);
    if (!outcome.ok) throw new Error(outcome.problems[0]!.says);
    fixture.componentRef.setInput('card', card);
    fixture.componentRef.setInput('evaluation', outcome.evaluation);
    await fixture.whenStable();
  }
  async function press(words: RegExp): Promise<void> {
    button(words).click();
    await show(card);
  }
  async function type(id: string, text: string): Promise<void> {
    const input = element().querySelector<HTMLInputElement>(`#${id}`)!;
    input.value = text;
    input.dispatchEvent(new Event('input'));
    input.dispatchEvent(new Event('change'));
    await show(card);
  }

  beforeEach(async () => {
    fixture = TestBed.createComponent(DressingPanel);
    [heard, lit] = [[], []];
    fixture.componentInstance.changed.subscribe(({ what, apply }) => {
      heard.push(what);
      card = apply(card);
    });
    fixture.componentInstance.light.subscribe((light) => lit.push(light?.panels));
    await show(doors);
  });

  it('says what dressing the card would do, and does it in one action', async () => {
    expect(element().querySelector('.sum')!.textContent).toBe('nothing yet');
    expect(element().textContent).toContain('3 mm smaller on each side, from patterned paper, 120 g');
    await press(/^Dress the whole card$/);
    // Both faces of two doors, two slopes, the strip.
    expect(element().querySelector('.sum')!.textContent).toBe('7 layers');
    expect(heard).toEqual(['Dress the whole card']);
    expect(card.supplies.stocks.map(({ id }) => id)).toContain('patterned-120');
  });

  it('shows a layer’s size and its panel’s beside each other, and lights the panel up', async () => {
    await press(/^Dress the whole card$/);
    await press(/Left door, its back$/);
    const [layer, panel] = [...element().querySelectorAll('.pair')].map(({ textContent }) => textContent!.replace(/\s+/g, ' ').trim());
    expect(layer).toMatch(/^layer.*57 mm.* × 144 mm/);
    expect(panel).toMatch(/^panel.*60 mm.* × 150 mm/);
    expect(lit.at(-1)).toEqual(['base/left-door']);
  });

  it('changes the border of one side of one face, and lets it follow again', async () => {
    await press(/^Dress the whole card$/);
    await press(/Left door, its back$/);
    const left = 'worn-base-left-door-down-left';
    expect(element().querySelector<HTMLInputElement>(`#${left}`)!.value).toBe('0 mm');
    await type(left, '5mm');
    expect(card.dressing!.layers!.own).toEqual([{ panel: 'base/left-door', face: 'down', left: 5 }]);
    expect(element().querySelector('.pair')!.textContent!.replace(/\s+/g, ' ')).toMatch(/52 mm.* × 144 mm/);
    await press(/^let it follow$/);
    expect(card.dressing!.layers!.own).toBeUndefined();
  });

  it('cuts the layers of two leaves in one piece, and apart again without a trace', async () => {
    await show(newCard({ id: 'f', name: 'f', base: { mechanism: 'folded-card', sizes: { depth: 100, length: 140 } } }));
    await press(/^Dress the whole card$/);
    const { dressing } = card;
    await press(/^L\d\s*Front leaf$/);
    const box = (): HTMLInputElement => element().querySelector<HTMLInputElement>('#worn-base-front-leaf-up-with-0')!;
    expect(box().closest('label')!.textContent).toContain('In one piece with the back leaf');
    box().click();
    await show(card);
    expect(card.dressing!.layers!.overFolds).toEqual([{ face: 'up', panels: ['base/front-leaf', 'base/back-leaf'] }]);
    // Both are the first layer now.
    expect([...element().querySelectorAll('.numbers')].map(({ textContent }) => textContent!.trim())).toEqual(['L1', 'L2', 'L1']);
    expect(element().textContent).toContain('shorter over the main fold');
    box().click();
    await show(card);
    expect(card.dressing).toEqual(dressing);
  });

  it('lets a pattern run on over the borders between neighbours, and a layer stand past an edge', async () => {
    await press(/^Dress the whole card$/);
    const { dressing } = card;
    const runsOn = element().querySelector<HTMLInputElement>('#layer-runs-on')!;
    runsOn.click();
    await show(card);
    expect(card.dressing!.layers!.runsOn).toBe(true);
    runsOn.click();
    await show(card);
    expect(card.dressing).toEqual(dressing);
    await press(/Left door, its back$/);
    await type('worn-base-left-door-down-left', '-6mm');
    expect(card.dressing!.layers!.own![0]!.left).toBe(-6);
    expect(element().querySelector('.pair')!.textContent!.replace(/\s+/g, ' ')).toMatch(/63 mm.* × 144 mm/);
    await type('worn-base-left-door-down-left', '-60mm');
    expect(element().querySelector('#worn-base-left-door-down-left-note')!.textContent).toContain('-40 mm to 60 mm');
  });

  it('leaves a face bare and dresses it again', async () => {
    await press(/^Dress the whole card$/);
    await press(/^L\d\s*Strip$/);
    await press(/^Leave it bare$/);
    expect(element().querySelector('.sum')!.textContent).toBe('6 layers');
    expect(element().querySelector('.bare')!.textContent).toContain('left bare');
    await press(/^Dress it again$/);
    expect(element().querySelector('.sum')!.textContent).toBe('7 layers');
  });

  it('refuses a border that cannot be, and leaves the card as it was', async () => {
    await press(/^Dress the whole card$/);
    await type('layer-border', '80mm');
    expect(card.dressing!.layers!.border).toBe(3);
    expect(element().querySelector('#layer-border-note')!.textContent).toContain('allowed is 0 mm to 60 mm');
  });

  it('takes all of it off', async () => {
    await press(/^Dress the whole card$/);
    await press(/^Take all layers off$/);
    expect(card.dressing).toBeUndefined();
    expect(element().querySelector('.sum')!.textContent).toBe('nothing yet');
  });
});
