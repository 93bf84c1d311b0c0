import { ComponentFixture, TestBed } from '@angular/core/testing';
import { benchSteps, DEMO_CARDS, evaluate, everySheet, type BenchStep, type Evaluation } from '@diptychon/core';
import { StepDrawing } from './step-drawing';

function evaluated(): Evaluation {
  const outcome = evaluate(DEMO_CARDS[0]!);
  if (!outcome.ok) throw new Error('sizes refused');
  return outcome.evaluation;
}

type FlatPicture = Extract<NonNullable<BenchStep['picture']>, { kind: 'flat' }>;

describe('StepDrawing', () => {
  const evaluation = evaluated();
  const sheet = evaluation.sheets[0]!;
  let fixture: ComponentFixture<StepDrawing>;
  const svg = (): SVGElement => fixture.nativeElement.querySelector('svg');
  const xs = (selector: string): number[] => [...svg().querySelectorAll(selector)].map((line) => Number(line.getAttribute('x1')));

  async function draw(picture: Partial<FlatPicture>, order: string[][] = []): Promise<void> {
    fixture = TestBed.createComponent(StepDrawing);
    const base: FlatPicture = { kind: 'flat', piece: 'base', face: 'up', turned: false, scores: [], zones: [], marks: false, cuts: false };
    fixture.componentRef.setInput('sheet', sheet);
    fixture.componentRef.setInput('picture', { ...base, ...picture });
    fixture.componentRef.setInput('order', order);
    await fixture.whenStable();
  }

  it('draws only what the step needs', async () => {
    await draw({ scores: ['front-score'] });
    expect(xs('line.score')).toHaveLength(1);
    expect(svg().querySelectorAll('.mark, .zone')).toHaveLength(0);
  });

  it('mirrors a piece turned face over, and turns one laid end for end', async () => {
    const place = async (picture: Partial<FlatPicture>): Promise<number> => {
      await draw({ ...picture, scores: ['front-score'] });
      const scale = 608 / sheet.width;
      return (xs('line.score')[0]! - 46) / scale;
    };
    expect(await place({})).toBeCloseTo(75, 6);
    expect(await place({ face: 'down' })).toBeCloseTo(sheet.width - 75, 6);
    expect(await place({ turned: true })).toBeCloseTo(sheet.width - 75, 6);
    expect(await place({ face: 'down', turned: true })).toBeCloseTo(75, 6);
  });

  it('numbers scores in the order they are read, apart from each other', async () => {
    const ids = sheet.scores.map((score) => score.id);
    await draw(
      { scores: ids },
      ids.map((id) => [id]),
    );
    const circles = [...svg().querySelectorAll('circle')].map((circle) => Number(circle.getAttribute('cx')));
    expect([...svg().querySelectorAll('text')].map((text) => text.textContent)).toEqual(['1', '2', '3']);
    expect(circles[2]! - circles[1]!).toBeGreaterThan(37);
  });

  it('shows slits as they lie, bold where they are cut', async () => {
    const slit = { id: 'slit', from: [40, 10], to: [90, 10] } as const;
    const place = async (picture: Partial<FlatPicture>): Promise<number[]> => {
      await draw(picture);
      fixture.componentRef.setInput('sheet', { ...sheet, cuts: [slit] });
      await fixture.whenStable();
      const ends = svg().querySelector('.slit')!.getAttribute('d')!.slice(1).split('L');
      return ends.map((end) => (Number(end.split(' ')[0]) - 46) / (608 / sheet.width));
    };
    expect(await place({ cuts: true })).toEqual([expect.closeTo(40, 1), expect.closeTo(90, 1)]);
    expect(svg().querySelectorAll('.slit.bold')).toHaveLength(1);
    expect(await place({ face: 'down' })).toEqual([expect.closeTo(sheet.width - 40, 1), expect.closeTo(sheet.width - 90, 1)]);
  });

  it('has the number of each cut that is told in words on its cut', async () => {
    await draw({ cuts: true, numbers: [{ order: 1, at: [75, 30] }] });
    const circle = svg().querySelector('.cut-number circle')!;
    expect((Number(circle.getAttribute('cx')) - 46) / (608 / sheet.width)).toBeCloseTo(75, 6);
    expect(svg().querySelector('.cut-number text')!.textContent).toBe('1');
  });

  it('shows a piece whose outline is still to be cut as its blank', async () => {
    await draw({ blank: true });
    const path = svg().querySelector('path.piece')!.getAttribute('d')!;
    const corners = [...path.matchAll(/([\d.]+) ([\d.]+)/g)].map(([, x]) => Number(x));
    expect(Math.max(...corners) - Math.min(...corners)).toBeCloseTo(608, 1);
    expect(corners).toHaveLength(4);
    expect(svg().querySelectorAll('.later')).toHaveLength(1);
  });

  it('says how the piece lies', async () => {
    await draw({ face: 'down', turned: true });
    expect(svg().getAttribute('aria-label')).toBe('Card, face over, turned end for end');
  });

  it('can draw every flat step of the card', async () => {
    for (const step of benchSteps(evaluation)) {
      if (step.picture?.kind !== 'flat') continue;
      const { piece } = step.picture;
      expect(everySheet(evaluation).some((s) => s.piece.id === piece)).toBe(true);
      if (piece === 'base')
        await draw(
          step.picture,
          step.scores?.map(({ scores, again }) => [...scores, ...again].map(({ id }) => id)),
        );
    }
  });
});
