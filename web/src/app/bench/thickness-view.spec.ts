import { ComponentFixture, TestBed } from '@angular/core/testing';
import { DEMO_CARDS, evaluate, METRIC_WORKSHOP, undressed, type CardDocument, type Evaluation } from '@diptychon/core';
import { evaluationApi } from '../evaluation/evaluation-api';
import { Evaluator } from '../evaluation/evaluator';
import { rampAt, ThicknessView } from './thickness-view';

function evaluated(id: string): Evaluation {
  const outcome = evaluate(undressed(DEMO_CARDS.find((card) => card.id === id)!));
  if (!outcome.ok) throw new Error('sizes refused');
  return outcome.evaluation;
}

describe('ThicknessView', () => {
  let fixture: ComponentFixture<ThicknessView>;
  const element = (): HTMLElement => fixture.nativeElement;
  const layers = (): string[] => [...element().querySelectorAll('li')].map((li) => li.textContent!.trim());
  const press = async (key: string, times: number): Promise<void> => {
    const field = element().querySelector<HTMLButtonElement>('.field')!;
    for (let i = 0; i < times; i++) field.dispatchEvent(new KeyboardEvent('keydown', { key }));
    await fixture.whenStable();
  };

  beforeEach(async () => {
    const thickness = (card: CardDocument, cell: number) => Promise.resolve(evaluationApi.thickness(card, METRIC_WORKSHOP, cell));
    TestBed.configureTestingModule({ providers: [{ provide: Evaluator, useValue: { thickness } }] });
    fixture = TestBed.createComponent(ThicknessView);
    fixture.componentRef.setInput('evaluation', evaluated('lantern-box'));
    await fixture.whenStable();
  });

  it('begins at the thickest place: front, both left bellows, tab and back', () => {
    // Five sheets of 0.31 mm and a film of glue.
    expect(element().querySelector('strong')!.textContent).toBe('1.6 mm');
    expect(layers()).toEqual([
      'front, 0.31 mm',
      'front half of the left bellows, 0.31 mm',
      'back half of the left bellows, 0.31 mm',
      'glue tab, 0.31 mm',
      'back, 0.31 mm',
    ]);
  });

  it('tells what lies elsewhere as the probe is moved: in the window only the back', async () => {
    // Down to the edge, half way up again, and from the bellows out into the window.
    await press('ArrowDown', 200);
    await press('ArrowUp', 25);
    await press('ArrowRight', 21);
    expect(layers()).toEqual(['back, 0.31 mm']);
    expect(element().querySelector('#thickness-here')!.textContent).toMatch(/0\.31 mm.*thick, 50 mm from the left side/);
  });

  it('does not let the probe leave the card', async () => {
    await press('ArrowLeft', 200);
    expect(layers().length).toBe(5);
  });

  it('colours thicker darker', () => {
    const lightness = [0, 0.25, 0.5, 0.75, 1].map((share) => rampAt(share).reduce((sum, c) => sum + c, 0));
    expect([...lightness].sort((a, b) => b - a)).toEqual(lightness);
  });
});
