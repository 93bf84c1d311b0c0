import { ComponentFixture, TestBed } from '@angular/core/testing';
import { evaluate, newCard, type Evaluation } from '@diptychon/core';
import { StandingView } from './standing-view';

function evaluated(mechanism: string, sizes: Record<string, number | string>, given = {}): Evaluation {
  const outcome = evaluate(newCard({ id: 'c', name: 'c', base: { mechanism, sizes }, ...given }));
  if (!outcome.ok) throw new Error(outcome.problems[0]!.says);
  return outcome.evaluation;
}

describe('StandingView, where nothing can be drawn', () => {
  let fixture: ComponentFixture<StandingView>;
  const words = (): string => fixture.nativeElement.querySelector('.pose').textContent;
  async function show(evaluation: Evaluation, s: number): Promise<void> {
    fixture.componentRef.setInput('evaluation', evaluation);
    fixture.componentRef.setInput('s', s);
    await fixture.whenStable();
  }

  beforeEach(() => {
    fixture = TestBed.createComponent(StandingView);
  });

  it('says that the rest works all the same', async () => {
    await show(evaluated('folded-card', {}), 1);
    await vi.waitFor(() => expect(fixture.nativeElement.textContent).toContain('This browser cannot draw the card in 3D'), 10_000);
  });

  it('tells the pose in words: the slope of doors as they are laid open', async () => {
    const doors = evaluated('rising-strip-doors', { closedWidth: 140, strip: 40, displaySlope: Math.PI / 3 });
    await show(doors, 1);
    expect(words()).toMatch(/^Open \d+(\.\d)?°: .*60°\. Ready to make/);
    await show(doors, 0);
    expect(words()).toMatch(/^Open 0°/);
  });

  it('gives lengths in the unit of the card', async () => {
    const sizes = { floor: 25.4, wall: 25.4 };
    // Standing, the slot lies one wall above the film's foot.
    await show(evaluated('film-stand', sizes, { notation: 'inch/8' }), 1);
    expect(words()).toContain('1 in');
    await show(evaluated('film-stand', sizes, { notation: 'cm' }), 1);
    expect(words()).toContain('2.54 cm');
  });

  it('says what must change', async () => {
    await show(evaluated('rising-strip-doors', { closedWidth: 120, leftDoor: 63 }), 1);
    expect(words()).toMatch(/must change before you cut\.$/);
  });
});
