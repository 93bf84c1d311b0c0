import { ComponentFixture, TestBed } from '@angular/core/testing';
import { provideRouter } from '@angular/router';
import { DEMO_CARDS, evaluate, readOutlineSvg, setSize, type CardDocument } from '@diptychon/core';
import { Evaluator } from '../evaluation/evaluator';
import type { CardChange } from './card-change';
import { SizesPanel } from './sizes-panel';

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
    TestBed.configureTestingModule({
      providers: [
        provideRouter([]),
        { provide: Evaluator, useValue: { outline: async (...given: Parameters<typeof readOutlineSvg>) => readOutlineSvg(...given) } },
      ],
    });
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
    expect(changes[0]!.apply(meanwhile).parts[0]!.sizes).toMatchObject({ depth: 140, displayHeight: 120 });
  });

  it('sets the stop by the lean', async () => {
    await type(field('lean'), '66.42');
    expect(changes[0]!.apply(easel).parts[0]!.sizes['stopDistance']).toBeCloseTo(150 * Math.cos((66.42 * Math.PI) / 180), 9);
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
    expect('stopDistance' in changes[0]!.apply(easel).parts[0]!.sizes).toBe(false);
  });

  it('gives every number that follows its reason', () => {
    const measures = [...element().querySelectorAll('div.measure')];
    expect(measures.length).toBeGreaterThan(10);
    for (const measure of measures) expect(measure.querySelector('.because')!.textContent!.length).toBeGreaterThan(10);
  });

  it('asks for the stocks that the card uses, no others', async () => {
    const labels = (): string[] =>
      [...element().querySelectorAll('label')].map((l) => l.textContent!.trim()).filter((l) => l.endsWith('stock'));
    expect(labels()).toEqual(['Base stock', 'Display stock', 'Raised stock']);
    await show(DEMO_CARDS[1]!);
    expect(labels()).toEqual(['Base stock', 'Mechanism stock']);
  });

  it('keeps a note', () => {
    const notes = element().querySelector<HTMLTextAreaElement>('#notes')!;
    notes.value = 'Fern on the left.';
    notes.dispatchEvent(new Event('input'));
    expect(changes[0]!.apply(easel).note).toBe('Fern on the left.');
  });

  describe('of a layered stage', () => {
    const stage = DEMO_CARDS.find((card) => card.id === 'first-frost-stage')!;
    const press = async (name: string): Promise<void> => {
      [...element().querySelectorAll<HTMLButtonElement>('button')]
        .find((b) => (b.getAttribute('aria-label') ?? b.textContent!.trim()) === name)!
        .click();
      await fixture.whenStable();
    };
    const layersIn = (change: CardChange): Record<string, unknown>[] =>
      change.apply(stage).parts[0]!.sizes['layers'] as Record<string, unknown>[];

    beforeEach(() => show(stage));

    it('shows a list with the sizes of each entry', () => {
      expect([...element().querySelectorAll('.item legend')].map((l) => l.textContent)).toEqual(['layer 1', 'layer 2']);
      expect(field('layers-1-depth').value).toBe('13 mm');
    });

    it('sets a size of one entry and leaves what was not set to follow', async () => {
      await type(field('layers-2-depth'), '28 mm');
      expect(layersIn(changes[0]!)).toEqual([{ depth: 13 }, { depth: 28 }]);
    });

    it('adds an entry and takes one away', async () => {
      await press('One more layer');
      expect(layersIn(changes[0]!)).toHaveLength(3);
      await press('Take away layer 1');
      expect(layersIn(changes[1]!)).toEqual([{ depth: 26 }]);
    });

    it('brings an outline from a drawing, and says what is wrong with one that is none', async () => {
      const bring = async (text: string): Promise<void> => {
        const input = element().querySelector<HTMLInputElement>('input[type=file]')!;
        const file = new File([text], 'fern leaf.svg');
        Object.defineProperty(input, 'files', { value: [file], configurable: true });
        input.dispatchEvent(new Event('change'));
        await new Promise((done) => setTimeout(done, 20));
        await fixture.whenStable();
      };
      await bring('<svg xmlns="http://www.w3.org/2000/svg"><path d="M0 0L5 5"/></svg>');
      expect(element().querySelector('.trouble')!.textContent).toContain('closed path');
      expect(changes).toEqual([]);
      await bring('<svg xmlns="http://www.w3.org/2000/svg"><path d="M0 0L5 5L0 9Z"/></svg>');
      const changed = changes[0]!.apply(stage);
      expect(changed.parts[0]!.sizes['windowShape']).toBe('own-fern-leaf');
      expect(changed.outlines).toMatchObject([{ id: 'own-fern-leaf', name: 'fern leaf.svg' }]);
      expect(evaluate(changed).ok).toBe(true);
    });
  });

  it('keeps sizes of cards already cut by themselves', async () => {
    await show(DEMO_CARDS.find((card) => card.id === 'autumn-walk-doors')!);
    const asCut = [...element().querySelectorAll('details')].find((d) => d.textContent!.includes('Already cut'))!;
    expect(asCut.open).toBe(false);
    expect(asCut.querySelector('#base-leftDoor')).not.toBeNull();
  });

  it('takes limits of the post, and forgets one that is emptied', async () => {
    await type(element().querySelector<HTMLInputElement>('#post-thickness')!, '5 mm');
    const limited = changes[0]!.apply(easel);
    expect(limited.post).toEqual({ thickness: 5 });
    await show(limited);
    await type(element().querySelector<HTMLInputElement>('#post-thickness')!, '');
    expect(changes[1]!.apply(limited).post).toBeUndefined();
    await type(element().querySelector<HTMLInputElement>('#post-weight')!, 'heavy');
    expect(element().querySelector('#post-weight-note')!.textContent).toContain('not a weight');
    expect(changes).toHaveLength(2);
  });
});
