import { ComponentFixture, TestBed } from '@angular/core/testing';
import { DEMO_CARDS, evaluate, INCH_WORKSHOP, withBoard, type CardDocument, type Evaluation } from '@diptychon/core';
import { FlatView } from './flat-view';
import type { CardChange } from './card-change';

function evaluated(card: CardDocument = DEMO_CARDS[0]!): Evaluation {
  const outcome = evaluate(card);
  if (!outcome.ok) throw new Error(outcome.problems[0]!.says);
  return outcome.evaluation;
}

describe('FlatView', () => {
  let fixture: ComponentFixture<FlatView>;
  let changes: CardChange[];
  const element = (): HTMLElement => fixture.nativeElement;
  const readings = (): string[] => [...element().querySelectorAll('.readings li')].map((li) => li.textContent!.replace(/\s+/g, ' ').trim());
  const press = (name: string): void =>
    [...element().querySelectorAll<HTMLElement>('button, p-togglebutton')].find((b) => b.textContent!.trim() === name)!.click();
  const handles = (): SVGLineElement[] => [...element().querySelectorAll<SVGLineElement>('.handle')];

  async function show(evaluation: Evaluation): Promise<void> {
    fixture.componentRef.setInput('evaluation', evaluation);
    await fixture.whenStable();
  }

  beforeEach(async () => {
    fixture = TestBed.createComponent(FlatView);
    changes = [];
    fixture.componentInstance.changed.subscribe((change) => changes.push(change));
    await show(evaluated());
  });

  it('lists scores in order with fold, position and where they are found', () => {
    expect(readings()).toHaveLength(3);
    for (const words of ['front score', 'valley', '75 mm', 'between 7 cm and 8 cm, the groove half-way']) {
      expect(readings()[0]).toContain(words);
    }
    expect(readings()[1]).toContain('at 15 cm');
  });

  it('reads from the other end when turned', async () => {
    press('Turn end for end');
    await fixture.whenStable();
    // The blank is 302 mm long: 302 − 152, 302 − 150, 302 − 75.
    expect(readings().map((text) => /(\d+) mm/.exec(text)![1])).toEqual(['150', '152', '227']);
  });

  it('shows one piece at a time and says which face is up', async () => {
    expect(element().querySelector('.face')!.textContent).toBe('inside up');
    press('Display');
    await fixture.whenStable();
    expect(element().querySelector('.face')!.textContent).toContain('picture up');
    expect(readings()).toEqual(['No scores: cut it out and that is all.']);
    expect(element().querySelectorAll('.zone.glue')).toHaveLength(1);
  });

  it('says from where to where a score runs that stops part of the way, from whichever end it is read', async () => {
    // A step of 40 mm from 30 along a fold of 150: its scores run from 30 to 70, and its slits end the fold there.
    const parts: CardDocument['parts'] = [
      { id: 'base', mechanism: 'folded-card', sizes: { depth: 100, length: 150 } },
      { id: 'step', mechanism: 'step', on: { part: 'base', site: 'main-fold' }, sizes: { depth: 20, height: 30, width: 40, offset: 30 } },
    ];
    await show(evaluated({ ...DEMO_CARDS[0]!, notation: 'mm', parts }));
    expect(readings().filter((text) => text.includes('from 30 mm to 70 mm along it'))).toHaveLength(3);
    expect(readings().some((text) => text.includes('from 70 mm to 150 mm along it'))).toBe(true);
    expect(element().querySelectorAll('path.slit')).toHaveLength(2);
    press('Turn end for end');
    await fixture.whenStable();
    expect(readings().filter((text) => text.includes('from 80 mm to 120 mm along it'))).toHaveLength(3);
  });

  it('marks readings off the grooves of the board', async () => {
    await show(evaluated(withBoard(DEMO_CARDS[0]!, 'eighths-12', INCH_WORKSHOP)));
    // 75 mm lie 1.2 mm short of 3 in, 76.2 mm: 1.2 / 25.4 in, told in the board's own unit.
    expect(readings()[0]).toMatch(/at 3, 0\.047 in short of the groove/);
  });

  it('changes the size behind a score with the arrow keys, its own share of a step', () => {
    const [front, main] = handles();
    front!.dispatchEvent(new KeyboardEvent('keydown', { key: 'ArrowRight' }));
    main!.dispatchEvent(new KeyboardEvent('keydown', { key: 'ArrowLeft' }));
    const depths = changes.map(({ apply }) => apply(DEMO_CARDS[0]!).parts[0]!.sizes['depth']);
    expect(depths).toEqual([151, 149]);
    expect(changes[0]!.what).toBe('Depth');
  });

  it('turns the arrow keys round with the blank', async () => {
    press('Turn end for end');
    await fixture.whenStable();
    handles()[0]!.dispatchEvent(new KeyboardEvent('keydown', { key: 'ArrowRight' }));
    expect(changes[0]!.apply(DEMO_CARDS[0]!).parts[0]!.sizes['depth']).toBe(149);
  });

  it('asks for the next size of a drag when the card of the last one has come, and for the last one when it is let go', async () => {
    Object.assign(SVGElement.prototype, { setPointerCapture: () => undefined });
    const svg = element().querySelector('.drawing svg')!;
    const pointer = (target: Element, type: string, clientX: number): boolean =>
      target.dispatchEvent(new MouseEvent(type, { clientX, clientY: 100, bubbles: true }));
    const frame = (): Promise<unknown> => new Promise((drawn) => requestAnimationFrame(drawn));
    const start = Number(handles()[0]!.getAttribute('x1'));
    pointer(handles()[0]!, 'pointerdown', start);
    for (const far of [10, 12, 14]) {
      pointer(svg, 'pointermove', start + far);
      await frame();
    }
    expect(changes).toHaveLength(1);
    const card = changes[0]!.apply(DEMO_CARDS[0]!);
    await show(evaluated(card));
    // Where the pointer had gone meanwhile is followed without another move.
    expect(changes).toHaveLength(2);
    const depthOf = (document: CardDocument): number => document.parts[0]!.sizes['depth'] as number;
    const next = changes[1]!.apply(card);
    expect(depthOf(next)).toBeGreaterThan(depthOf(card));
    pointer(svg, 'pointermove', start - 10);
    pointer(svg, 'pointerup', start - 10);
    expect(changes).toHaveLength(3);
    expect(depthOf(changes[2]!.apply(card))).toBeLessThan(depthOf(DEMO_CARDS[0]!));
    // All of it is one step to undo.
    expect(new Set(changes.map(({ typed }) => typed)).size).toBe(1);
  });

  it('never leads a size beyond its limits', async () => {
    const small = {
      ...DEMO_CARDS[1]!,
      parts: [{ ...DEMO_CARDS[1]!.parts[0]!, sizes: { depth: 320, length: 177.8 } }],
      notation: 'mm' as const,
    };
    await show(evaluated(small));
    handles()[0]!.dispatchEvent(new KeyboardEvent('keydown', { key: 'ArrowRight' }));
    expect(changes).toEqual([]);
  });

  it('lights up what a verdict points at', async () => {
    fixture.componentRef.setInput('highlight', { panels: ['base/strut'], creases: ['base/front-score'] });
    await fixture.whenStable();
    expect(element().querySelectorAll('path.lit')).toHaveLength(1);
    expect(element().querySelectorAll('g.lit-score')).toHaveLength(1);
  });
});
