import { ComponentFixture, TestBed } from '@angular/core/testing';
import { newCard, type CardDocument } from '@diptychon/core';
import { PostLimits } from './post-limits';

const plain = newCard({ id: 'p', name: 'p', base: { mechanism: 'folded-card', sizes: {} } });

describe('PostLimits', () => {
  let fixture: ComponentFixture<PostLimits>;
  let card: CardDocument;
  let heard: string[];
  const input = (name: string): HTMLInputElement => fixture.nativeElement.querySelector(`#post-${name}`);
  const note = (name: string): string => fixture.nativeElement.querySelector(`#post-${name}-note`).textContent.trim();

  async function show(next: CardDocument): Promise<void> {
    card = next;
    fixture.componentRef.setInput('card', card);
    await fixture.whenStable();
  }
  async function type(name: string, text: string): Promise<void> {
    input(name).value = text;
    input(name).dispatchEvent(new Event('change'));
    await show(card);
  }

  beforeEach(async () => {
    fixture = TestBed.createComponent(PostLimits);
    heard = [];
    fixture.componentInstance.changed.subscribe(({ what, apply }) => {
      heard.push(what);
      card = apply(card);
    });
    await show(plain);
  });

  it('assumes nothing: every field is empty and the part is folded away', () => {
    expect(['thickness', 'long', 'short', 'weight'].map((name) => input(name).value)).toEqual(['', '', '', '']);
    expect(fixture.nativeElement.querySelector('details').open).toBe(false);
  });

  it('takes lengths and weights as makers write them', async () => {
    await type('thickness', '5mm');
    await type('long', '23,5 cm');
    await type('short', '4 1/2');
    await type('weight', '100 g');
    expect(card.post).toEqual({ thickness: 5, long: 235, short: expect.closeTo(114.3, 9), weight: 100 });
    expect(heard).toEqual(['Thickness up to', 'Longer side up to', 'Shorter side up to', 'Weight up to, g']);
    expect(input('weight').value).toBe('100');
  });

  it('takes a limit away when its field is emptied, and all of it with the last', async () => {
    await show({ ...plain, post: { thickness: 5, weight: 100 } });
    await type('thickness', ' ');
    expect(card.post).toEqual({ weight: 100 });
    await type('weight', '');
    expect(card.post).toBeUndefined();
  });

  it.each([
    ['long', 'wide', 'Longer side up to: “wide” is not a length.'],
    ['long', '-20', 'Longer side up to: “-20” does not work; allowed is 0.1 mm to 100 m.'],
    ['weight', 'heavy', 'Weight up to, g: “heavy” is not a weight.'],
    ['weight', '0', 'Weight up to, g: “0” does not work; allowed is 0.1 g to 100 kg.'],
  ])('says what is wrong with %s “%s” and leaves the card alone', async (name, typed, says) => {
    await type(name, typed);
    expect(note(name)).toContain(says);
    expect(input(name).getAttribute('aria-invalid')).toBe('true');
    expect(heard).toEqual([]);
    await type(name, '50');
    expect(note(name)).toBe('');
    expect(heard).toHaveLength(1);
  });
});
