import { ComponentFixture, TestBed } from '@angular/core/testing';
import { evaluate, newCard, type CardDocument } from '@diptychon/core';
import type { CardChange } from '../bench/card-change';
import type { Highlight } from './highlight';
import { PartsTree } from './parts-tree';

/** A folded card with a step that carries a V-fold on its front edge. */
const card: CardDocument = newCard({
  id: 'card',
  name: 'card',
  base: { mechanism: 'folded-card', sizes: {} },
  movements: [
    { id: 'step', mechanism: 'step', on: { part: 'base', site: 'main-fold' }, sizes: { depth: 40, height: 40, width: 70, offset: 30 } },
    { id: 'figure', mechanism: 'v-fold', on: { part: 'step', site: 'front-edge' }, sizes: {} },
  ],
});

describe('PartsTree', () => {
  let fixture: ComponentFixture<PartsTree>;
  let changes: CardChange[];
  let lit: (Highlight | undefined)[];
  const element = (): HTMLElement => fixture.nativeElement;
  const button = (text: string): HTMLButtonElement =>
    [...element().querySelectorAll('button')].find((b) => b.textContent!.trim().startsWith(text))!;
  const press = async (text: string): Promise<void> => {
    button(text).click();
    await fixture.whenStable();
  };
  const after = (): CardDocument => changes.at(-1)!.apply(card);

  beforeEach(async () => {
    fixture = TestBed.createComponent(PartsTree);
    [changes, lit] = [[], []];
    fixture.componentInstance.changed.subscribe((change) => changes.push(change));
    fixture.componentInstance.light.subscribe((highlight) => lit.push(highlight));
    const outcome = evaluate(card);
    fixture.componentRef.setInput('card', card);
    fixture.componentRef.setInput('evaluation', outcome.ok ? outcome.evaluation : undefined);
    await fixture.whenStable();
  });

  it('shows what stands on what, one level deeper each', () => {
    const depthOf = (title: string): number => {
      let depth = 0;
      for (let at: Element | null = button(title); at; at = at.parentElement) if (at.tagName === 'UL') depth++;
      return depth;
    };
    expect(['Folded card', 'Step', 'V-fold'].map(depthOf)).toEqual([1, 2, 3]);
    expect(button('V-fold').textContent).toContain('on the front edge of the step');
  });

  it('says what goes with a part that is taken away', async () => {
    await press('Step');
    expect(button('Take away').textContent).toContain('with V-fold figure');
    await press('Take away');
    expect(changes[0]!.what).toBe('Take away Step, with V-fold figure');
    expect(after().parts.map(({ id }) => id)).toEqual(['base']);
  });

  it('turns a part round and back, to the very same card', async () => {
    await press('Step');
    await press('Turn round');
    expect(after().parts[1]!.on).toEqual({ part: 'base', site: 'main-fold', turned: true });
    expect(JSON.stringify(changes[0]!.apply(after()).parts)).toBe(JSON.stringify(card.parts.map((part) => ({ ...part }))));
  });

  it('says why one more has no room, and changes nothing', async () => {
    await press('Step');
    const before = changes.length;
    await press('One more');
    const said = element().querySelector('.trouble')?.textContent;
    expect(said !== undefined || changes.length > before).toBe(true);
    if (changes.length > before) expect(evaluate(after()).ok).toBe(true);
  });

  it('offers no place on the part itself nor on what it carries', async () => {
    await press('Step');
    const { places } = fixture.componentInstance as unknown as { places: () => { value: string }[] };
    expect(places().map(({ value }) => value)).toEqual(['base/main-fold']);
  });

  it('lights up the panels of the part that is pointed at', async () => {
    button('Step').dispatchEvent(new Event('focus'));
    expect([...lit.at(-1)!.panels].sort()).toEqual(['base/step-back', 'base/step-front']);
    button('Step').dispatchEvent(new Event('blur'));
    expect(lit.at(-1)).toBeUndefined();
  });

  it('calls a part something else', async () => {
    await press('V-fold');
    const name = element().querySelector<HTMLInputElement>('#name-figure')!;
    name.value = 'Fly agaric';
    name.dispatchEvent(new Event('change'));
    expect(after().parts[2]!.name).toBe('Fly agaric');
  });
});
