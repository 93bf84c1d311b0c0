import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { provideRouter } from '@angular/router';
import { exerciseOf, METRIC_WORKSHOP, type ExerciseKind } from '@diptychon/core';
import { Evaluator } from '../evaluation/evaluator';
import { PracticePage } from './practice-page';

describe('PracticePage', () => {
  let fixture: ComponentFixture<PracticePage>;
  const element = (): HTMLElement => fixture.nativeElement as HTMLElement;
  const buttons = (): HTMLButtonElement[] => [...element().querySelectorAll<HTMLButtonElement>('section li button')];
  const exercise = exerciseOf('ruler', 4, METRIC_WORKSHOP);

  beforeEach(async () => {
    const evaluator = { exercise: (kind: ExerciseKind) => Promise.resolve(kind === 'ruler' ? exercise : undefined) };
    TestBed.configureTestingModule({ providers: [provideRouter([]), { provide: Evaluator, useValue: evaluator }] });
    fixture = TestBed.createComponent(PracticePage);
    await fixture.whenStable();
  });

  it('counts a right answer once, and says why', async () => {
    buttons()[exercise.right]!.click();
    await fixture.whenStable();
    buttons()[exercise.right]!.click();
    await fixture.whenStable();
    expect(element().querySelector('.told')!.textContent).toContain(`Right. ${exercise.because}`);
    expect(element().querySelector('.count')!.textContent).toBe('1 of 1 right');
  });

  it('shows what would have been right after a wrong one', async () => {
    const wrong = exercise.right === 0 ? 1 : 0;
    buttons()[wrong]!.click();
    await fixture.whenStable();
    expect(buttons()[wrong]!.classList).toContain('wrong');
    expect(buttons()[exercise.right]!.classList).toContain('right');
    expect(element().querySelector('.count')!.textContent).toBe('0 of 1 right');
  });

  it('says so where no question could be made', async () => {
    const fold = [...element().querySelectorAll<HTMLButtonElement>('.kinds button')].find(({ textContent }) =>
      textContent!.includes('Mountain'),
    )!;
    fold.click();
    await fixture.whenStable();
    expect(element().querySelector('[role=alert]')!.textContent).toContain('No question could be made');
  });
});
