import { ComponentFixture, TestBed } from '@angular/core/testing';
import { DEMO_CARDS, evaluate, setSize, toRadians, type Evaluation } from '@diptychon/core';
import { OpeningControl } from './opening-control';

function evaluated(card = DEMO_CARDS[1]!): Evaluation {
  const outcome = evaluate(card);
  if (!outcome.ok) throw new Error('sizes refused');
  return outcome.evaluation;
}

describe('OpeningControl', () => {
  let fixture: ComponentFixture<OpeningControl>;
  let s: number;
  const element = (): HTMLElement => fixture.nativeElement;
  const range = (): HTMLInputElement => element().querySelector('input')!;

  beforeEach(async () => {
    // The test page has no media queries; this one asks for reduced motion.
    window.matchMedia = (() => ({ matches: true, addEventListener: () => undefined })) as unknown as typeof matchMedia;
    fixture = TestBed.createComponent(OpeningControl);
    s = 1;
    fixture.componentRef.setInput('evaluation', evaluated());
    fixture.componentRef.setInput('s', s);
    fixture.componentInstance.s.subscribe((to) => (s = to));
    await fixture.whenStable();
  });

  it('says the opening in degrees', async () => {
    expect(range().getAttribute('aria-valuetext')).toBe('open 180°');
    range().value = '500';
    range().dispatchEvent(new Event('input'));
    await fixture.whenStable();
    expect(s).toBe(0.5);
    expect(element().querySelector('output')!.textContent).toBe('open 90°');
  });

  it('goes to closed and open at once', () => {
    const [closed, , open] = [...element().querySelectorAll<HTMLButtonElement>('.buttons button')];
    closed!.click();
    expect(s).toBe(0);
    open!.click();
    expect(s).toBe(1);
  });

  it('does not play by itself where less motion is wanted', () => {
    element().querySelectorAll<HTMLButtonElement>('.buttons button')[1]!.click();
    expect(s).toBe(0);
  });

  it('marks where a card binds, and nothing on a card that works', async () => {
    expect(element().querySelectorAll('.mark')).toHaveLength(0);
    const lopsided = setSize(
      setSize(DEMO_CARDS[1]!, 'figure', 'secondRayAngle', toRadians(50)),
      'figure',
      'secondWingAngle',
      toRadians(70),
    );
    fixture.componentRef.setInput('evaluation', evaluated(lopsided));
    await fixture.whenStable();
    const mark = element().querySelector<HTMLButtonElement>('.mark')!;
    expect(mark.getAttribute('aria-label')).toMatch(/^Go to: 11\.\d°: The card cannot go its whole way/);
    mark.click();
    expect(s * 180).toBeCloseTo(11.77, 0);
  });
});
