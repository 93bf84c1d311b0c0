import { ComponentFixture, TestBed } from '@angular/core/testing';
import { evaluate, METRIC_WORKSHOP, newCard, type CardDocument } from '@diptychon/core';
import { evaluationApi } from '../evaluation/evaluation-api';
import { Evaluator } from '../evaluation/evaluator';
import { SidesView } from './sides-view';

describe('SidesView', () => {
  let fixture: ComponentFixture<SidesView>;
  const figures = (): HTMLElement[] => [...fixture.nativeElement.querySelectorAll('figure')];
  const lines = (which: number): string[] => [...figures()[which]!.querySelectorAll('span')].map((span) => span.textContent!);

  async function show(mechanism: string, sizes: Record<string, string | number>): Promise<void> {
    const outcome = evaluate(newCard({ id: 'c', name: 'c', base: { mechanism, sizes } }));
    if (!outcome.ok) throw new Error(outcome.problems[0]!.says);
    fixture.componentRef.setInput('evaluation', outcome.evaluation);
    await fixture.whenStable();
  }

  beforeEach(() => {
    const sides = (card: CardDocument) => Promise.resolve(evaluationApi.sides(card, METRIC_WORKSHOP));
    TestBed.configureTestingModule({ providers: [{ provide: Evaluator, useValue: { sides } }] });
    fixture = TestBed.createComponent(SidesView);
  });

  it('shows three moments, each with a picture and what is seen', async () => {
    await show('rising-strip-doors', { closedWidth: 120, strip: 30, length: 80 });
    expect(figures().map((figure) => figure.querySelector('strong')!.textContent)).toEqual(['Closed, from the front', 'Half open', 'Open']);
    for (const figure of figures()) expect(figure.querySelectorAll('path').length).toBeGreaterThan(0);
  });

  it('says of two closed doors that their other face is seen, all of it', async () => {
    await show('rising-strip-doors', { closedWidth: 120, strip: 30, length: 80 });
    expect(lines(0).sort()).toEqual(['left door: other face', 'right door: other face']);
  });

  it('gives in hundredths what is seen only in part', async () => {
    // A gap of 20 mm between the doors over a strip of 40: half of it.
    await show('rising-strip-doors', { closedWidth: 120, strip: 40, length: 80, gap: 20 });
    const strip = lines(0).find((line) => line.startsWith('strip'))!;
    const percent = Number(/strip: upper face, (\d+) % of it/.exec(strip)![1]);
    expect(percent).toBeGreaterThan(45);
    expect(percent).toBeLessThan(55);
  });

  it('draws each face in its own way: the zigzag’s display shows the other one', async () => {
    await show('easel-strip', { form: 'zigzag' });
    expect(lines(2).find((line) => line.startsWith('display'))).toContain('other face');
    await show('easel-strip', { form: 'wrapped' });
    expect(lines(2).find((line) => line.startsWith('display'))).toContain('upper face');
  });
});
