import { ComponentFixture, TestBed } from '@angular/core/testing';
import { DEMO_CARDS, evaluate, setSize, type CardDocument } from '@diptychon/core';
import { SizesPanel, type CardChange } from './sizes-panel';

const easel = DEMO_CARDS[0]!;

describe('SizesPanel', () => {
  let fixture: ComponentFixture<SizesPanel>;
  let changes: CardChange[];
  const element = (): HTMLElement => fixture.nativeElement;
  const field = (name: string): HTMLInputElement => element().querySelector(`#base-${name}`)!;
  const sections = (): string[] => [...element().querySelectorAll('h2')].map((h) => h.textContent!);

  async function show(card: CardDocument): Promise<void> {
    const outcome = evaluate(card);
    fixture.componentRef.setInput('card', card);
    fixture.componentRef.setInput('evaluation', outcome.ok ? outcome.evaluation : undefined);
    fixture.componentRef.setInput('problems', outcome.ok ? [] : outcome.problems);
    await fixture.whenStable();
  }

  async function type(input: HTMLInputElement, text: string): Promise<void> {
    input.value = text;
    input.dispatchEvent(new Event('input'));
    input.dispatchEvent(new Event('change'));
    await fixture.whenStable();
  }

  beforeEach(async () => {
    window.matchMedia = (() => ({ matches: false, addEventListener: () => undefined })) as unknown as typeof matchMedia;
    fixture = TestBed.createComponent(SizesPanel);
    changes = [];
    fixture.componentInstance.changed.subscribe((change) => changes.push(change));
    await show(easel);
  });

  it('has the closed card first, then each part, tools, record and what follows', () => {
    expect(sections()).toEqual(['Closed card', 'Easel, folded front', 'Stock and tools', 'Record', 'What follows']);
  });

  it('gives a change with its name, to be applied to the card as it is then', async () => {
    await type(field('depth'), '140 mm');
    expect(changes[0]!.what).toBe('Depth');
    // Applied to a card that changed meanwhile, both changes are kept.
    const meanwhile = setSize(easel, 'base', 'displayHeight', 120);
    expect(changes[0]!.apply(meanwhile).base.sizes).toMatchObject({ depth: 140, displayHeight: 120 });
  });

  it('sets the stop by the lean', async () => {
    await type(field('lean'), '66.42');
    expect(changes[0]!.apply(easel).base.sizes['stopDistance']).toBeCloseTo(150 * Math.cos((66.42 * Math.PI) / 180), 9);
  });

  it('shows a size that the rest of the card refuses at its own field', async () => {
    await show(setSize(easel, 'base', 'depth', 60));
    expect(field('stopDistance').getAttribute('aria-invalid')).toBe('true');
    expect(element().querySelector('#base-stopDistance-note')!.textContent).toContain('does not work');
  });

  it('lets a size follow the others again', () => {
    const follow = [...element().querySelectorAll<HTMLButtonElement>('.follow')].find((b) =>
      b.getAttribute('aria-label')!.includes('Stop from the fold'),
    )!;
    follow.click();
    expect('stopDistance' in changes[0]!.apply(easel).base.sizes).toBe(false);
  });

  it('gives every number that follows its reason', () => {
    const measures = [...element().querySelectorAll('.measure')];
    expect(measures.length).toBeGreaterThan(10);
    for (const measure of measures) expect(measure.querySelector('.because')!.textContent!.length).toBeGreaterThan(10);
  });

  it('asks for the stocks that the card uses, no others', async () => {
    const labels = (): string[] =>
      [...element().querySelectorAll('label')].map((l) => l.textContent!.trim()).filter((l) => l.endsWith('stock'));
    expect(labels()).toEqual(['Base stock', 'Display stock']);
    await show(DEMO_CARDS[1]!);
    expect(labels()).toEqual(['Base stock', 'Mechanism stock']);
  });

  it('keeps a note', () => {
    const notes = element().querySelector<HTMLTextAreaElement>('#notes')!;
    notes.value = 'Fern on the left.';
    notes.dispatchEvent(new Event('change'));
    expect(changes[0]!.apply(easel).note).toBe('Fern on the left.');
  });
});
