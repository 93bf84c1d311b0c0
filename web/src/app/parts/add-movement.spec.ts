import { ComponentFixture, TestBed } from '@angular/core/testing';
import { CATALOGUE, evaluate, newCard, type CardDocument } from '@diptychon/core';
import type { CardChange } from '../bench/card-change';
import { Evaluator } from '../evaluation/evaluator';
import { AddMovement } from './add-movement';
import type { Highlight } from './highlight';

const plain: CardDocument = newCard({ id: 'card', name: 'card', base: { mechanism: 'folded-card', sizes: {} } });

describe('AddMovement', () => {
  let fixture: ComponentFixture<AddMovement>;
  let changes: CardChange[];
  let lit: (Highlight | undefined)[];
  let closed: number;
  const element = (): HTMLElement => fixture.nativeElement;
  const places = (): HTMLButtonElement[] => [...element().querySelectorAll<HTMLButtonElement>('.place')];
  const movement = (name: string): HTMLButtonElement =>
    [...element().querySelectorAll<HTMLButtonElement>('.movement')].find((b) => b.textContent!.includes(name))!;

  async function show(card: CardDocument): Promise<void> {
    fixture.componentRef.setInput('card', card);
    await fixture.whenStable();
  }

  beforeEach(async () => {
    TestBed.configureTestingModule({ providers: [{ provide: Evaluator, useValue: { pictures: () => Promise.resolve(undefined) } }] });
    fixture = TestBed.createComponent(AddMovement);
    [changes, lit, closed] = [[], [], 0];
    fixture.componentInstance.changed.subscribe((change) => changes.push(change));
    fixture.componentInstance.light.subscribe((highlight) => lit.push(highlight));
    fixture.componentInstance.closed.subscribe(() => closed++);
    await show(plain);
  });

  it('names every movement of the catalogue at a fold', () => {
    const movements = CATALOGUE.filter(({ kind }) => kind === 'movement');
    expect(element().querySelectorAll('.movement')).toHaveLength(movements.length);
    for (const { name } of movements) expect(movement(name)).toBeDefined();
  });

  it('lights a fold up with its leaves while it is pointed at', () => {
    places()[0]!.dispatchEvent(new Event('focus'));
    expect(lit.at(-1)).toEqual({ panels: ['base/front-leaf', 'base/back-leaf'], creases: ['base/main-fold'] });
  });

  it('keeps the chosen fold lit while none is pointed at', async () => {
    movement('Step').click();
    await show(changes[0]!.apply(plain));
    places()[3]!.click();
    places()[1]!.dispatchEvent(new Event('pointerenter'));
    expect(lit.at(-1)!.creases).toEqual(['base/step-back-fold']);
    places()[1]!.dispatchEvent(new Event('pointerleave'));
    expect(lit.at(-1)!.creases).toEqual(['base/step-front-edge']);
  });

  it('puts a movement with sizes that work, as one change with its name, and goes away', async () => {
    movement('Step').click();
    expect([changes[0]!.what, closed]).toEqual(['Step on the main fold', 1]);
    const outcome = evaluate(changes[0]!.apply(plain));
    expect(outcome.ok && outcome.evaluation.findings.filter(({ severity }) => severity === 'fail')).toEqual([]);
  });

  it('offers the folds of what was put, and says at a ridge why a step cannot stand there', async () => {
    movement('Step').click();
    await show(changes[0]!.apply(plain));
    expect(places().map((place) => place.querySelector('.name')!.textContent)).toEqual([
      'main fold',
      'back fold of the step',
      'foot fold of the step',
      'front edge of the step',
    ]);
    places()[3]!.click();
    await fixture.whenStable();
    expect(movement('Step').disabled).toBe(true);
    expect(movement('Step').textContent).toContain('over a ridge a box would close inside out');
    expect(movement('V-fold').disabled).toBe(false);
  });

  it('goes away at Escape and puts the light out', () => {
    element().dispatchEvent(new KeyboardEvent('keydown', { key: 'Escape' }));
    expect(closed).toBe(1);
    expect(lit.at(-1)).toBeUndefined();
  });
});
