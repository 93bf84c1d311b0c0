import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { provideRouter } from '@angular/router';
import { cuttingPlan, evaluate, METRIC_WORKSHOP, type CuttingPlan, type PlanAsked } from '@diptychon/core';
import { DEMO_CARDS } from '@diptychon/core/records';
import { of } from 'rxjs';
import { beforeEach, describe, expect, it } from 'vitest';
import { CardStore } from '../cards/card-store';
import { Evaluator } from '../evaluation/evaluator';
import { CuttingPage } from './cutting-page';
import { CuttingWork } from './cutting-work';

const CARD = DEMO_CARDS[0]!;
const outcome = evaluate(CARD);
if (!outcome.ok) throw new Error(outcome.problems[0]!.says);
const { evaluation } = outcome;

describe('the sheets of a card', () => {
  let fixture: ComponentFixture<CuttingPage>;
  let asked: PlanAsked[];
  let signals: AbortSignal[];
  let plan: (of: PlanAsked) => Promise<CuttingPlan | undefined>;
  /** What was waited for has come, and is shown. */
  const settled = async (): Promise<void> => {
    for (let i = 0; i < 4; i++) {
      await new Promise((next) => setTimeout(next));
      await fixture.whenStable();
    }
  };
  const element = (): HTMLElement => fixture.nativeElement as HTMLElement;

  beforeEach(() => {
    [asked, signals] = [[], []];
    plan = (wanted) => Promise.resolve(cuttingPlan(evaluation, wanted, METRIC_WORKSHOP));
    TestBed.configureTestingModule({
      providers: [
        provideRouter([]),
        { provide: CardStore, useValue: { get: () => Promise.resolve({ card: CARD, revision: 1, takes: [] }) } },
        { provide: Evaluator, useValue: { once: () => of({ ok: true, evaluation }) } },
        {
          provide: CuttingWork,
          useValue: {
            plan: (_card: unknown, wanted: PlanAsked, _told: unknown, signal: AbortSignal) => {
              asked.push(wanted);
              signals.push(signal);
              return plan(wanted);
            },
          },
        },
      ],
    });
    fixture = TestBed.createComponent(CuttingPage);
    fixture.componentRef.setInput('id', CARD.id);
  });

  it('are each shown once, those that are cut alike together, with every cut', async () => {
    await settled();
    const { sheets, leastSheets } = cuttingPlan(evaluation, asked.at(-1)!, METRIC_WORKSHOP);
    const told = [...element().querySelectorAll('h3')].map((heading) => heading.textContent);
    expect(told.length).toBeGreaterThan(0);
    // Every sheet has its number in just one heading.
    const numbers = told.flatMap((title) => title.split(':')[0]!.match(/\d+/g)!.map(Number));
    expect(numbers.sort((a, b) => a - b)).toEqual(sheets.map((_, i) => i + 1));
    expect(element().querySelectorAll('.cuts li').length).toBeLessThanOrEqual(sheets.reduce((sum, { cuts }) => sum + cuts.length, 0));
    expect(element().querySelector('[role=status]')!.textContent).toContain(
      sheets.length > leastSheets ? `fewer than ${leastSheets}` : 'No layout needs fewer',
    );
  });

  it('that are being laid out can be stopped, and begun again', async () => {
    plan = () => new Promise(() => undefined);
    await settled();
    const press = async (words: string): Promise<void> => {
      [...element().querySelectorAll('button')].find((button) => button.textContent.includes(words))!.click();
      await settled();
    };
    await press('Stop');
    expect(signals[0]!.aborted).toBe(true);
    expect(element().textContent).toContain('Stopped.');
    plan = (wanted) => Promise.resolve(cuttingPlan(evaluation, wanted, METRIC_WORKSHOP));
    await press('Lay them out');
    expect(element().querySelectorAll('article').length).toBeGreaterThan(0);
  });

  it('say what stopped them', async () => {
    plan = () => Promise.resolve(undefined);
    await settled();
    expect(element().querySelector('[role=alert]')!.textContent).toContain('The calculation stopped');
  });

  it('show a piece where a hand puts it, with what is wrong there, and take it back', async () => {
    await settled();
    const labels = (): string[] => [...element().querySelectorAll('path.piece')].map((path) => path.getAttribute('aria-label')!);
    const before = labels();
    const press = (key: string, shiftKey = false): void => {
      element()
        .querySelector('path.piece')!
        .dispatchEvent(new KeyboardEvent('keydown', { key, shiftKey, bubbles: true }));
    };
    // A key moves it by a mark, however near the edge is that it lies on.
    press('ArrowRight');
    await settled();
    expect(labels()[0]).toContain('1 mm from the left edge');
    press('ArrowLeft');
    // At the left edge of its sheet: ten mm to the left are ten past it.
    press('ArrowLeft', true);
    await settled();
    const told = element().querySelector('article [role=alert]')!;
    expect(told.textContent).toMatch(/reaches 10 mm past the left edge of the sheet/);
    expect(told.closest('article')!.querySelector('.cuts')).toBeNull();
    for (let i = 0; i < 3; i++) {
      [...element().querySelectorAll('button')].find((button) => button.textContent.includes('Take the last move back'))!.click();
      await settled();
    }
    expect(labels()).toEqual(before);
    expect(element().querySelector('article .trouble')).toBeNull();
  });
});
