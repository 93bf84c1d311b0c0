import { ComponentFixture, TestBed } from '@angular/core/testing';
import { claimsOf, evaluate, METRIC_WORKSHOP, newCard, type BentRow, type CardDocument, type Evaluation } from '@diptychon/core';
import { Evaluator } from '../evaluation/evaluator';
import { WorkshopStore } from '../workshop/workshop-store';
import { BendView } from './bend-view';
import { BentCard } from './bent-card';

function carrier(sizes: Record<string, number>, more: Partial<CardDocument> = {}): Evaluation {
  const card = newCard({
    id: 'c',
    name: 'c',
    base: { mechanism: 'folded-card', sizes: { depth: 105, length: 150 } },
    movements: [{ id: 'map', mechanism: 'twist-carrier', on: { part: 'base', site: 'main-fold' }, sizes }],
  });
  const outcome = evaluate({ ...card, ...more });
  if (!outcome.ok) throw new Error(outcome.problems[0]!.says);
  return outcome.evaluation;
}

/** A row that is bent as much as the card is open, to a radius of 30 mm, on both ways; it jumps between 120° and 123°. */
function row({ design, motion }: Evaluation): BentRow {
  const openings = motion.frames.map(({ opening }) => opening);
  const shapes = openings.map((opening) => ({
    nodes: new Float64Array(),
    energy: 1,
    angle: Math.min(opening, 2.9),
    radius: 30,
    atRest: true,
  }));
  const [claim] = claimsOf(design, 'bends');
  const sheet = { width: 40, lengths: [50, 50], cells: { along: 6, across: 8 } };
  return {
    claim: claim!,
    sheet,
    handed: 1,
    openings,
    opening: { shapes, snaps: [{ after: 40, before: 41 }] },
    closing: { shapes, snaps: [] },
    meets: [{ panel: 'base/front-leaf', name: 'top of the step', way: 'opening', frame: 15, opening: openings[15]!, length: 12.4 }],
  };
}

describe('BendView', () => {
  let fixture: ComponentFixture<BendView>;
  let bent: BentCard;
  let asked: { card: CardDocument; told: (share: number) => void; done: (rows: BentRow[] | undefined) => void }[];
  const text = (): string => fixture.nativeElement.textContent.replace(/\s+/g, ' ');

  async function show(evaluation: Evaluation): Promise<void> {
    fixture.componentRef.setInput('evaluation', evaluation);
    bent.of(evaluation);
    TestBed.tick();
    await vi.advanceTimersByTimeAsync(700);
    fixture.detectChanges();
  }

  async function answer(rows: BentRow[] | undefined): Promise<void> {
    asked.at(-1)!.done(rows);
    await vi.advanceTimersByTimeAsync(1);
    fixture.detectChanges();
  }

  beforeEach(() => {
    vi.useFakeTimers();
    asked = [];
    const bends = (card: CardDocument, told: (share: number) => void) =>
      new Promise<BentRow[] | undefined>((done) => asked.push({ card, told, done }));
    TestBed.configureTestingModule({
      providers: [
        BentCard,
        { provide: Evaluator, useValue: { bends } },
        { provide: WorkshopStore, useValue: { workshop: () => METRIC_WORKSHOP } },
      ],
    });
    bent = TestBed.inject(BentCard);
    fixture = TestBed.createComponent(BendView);
  });

  afterEach(() => vi.useRealTimers());

  it('says how far it has come, then how the middle bends, at which openings, and what each stock takes', async () => {
    const evaluation = carrier({ width: 40 });
    await show(evaluation);
    expect(text()).toContain('Working out how it bends: 0 %');
    asked[0]!.told(0.47);
    fixture.detectChanges();
    expect(text()).toContain('47 %');
    expect(fixture.nativeElement.querySelector('progress').value).toBeCloseTo(0.47, 9);
    await answer([row(evaluation)]);
    expect(text()).toContain('by more than 90° from an opening of 93° on');
    expect(text()).toContain('jumps over somewhere between 122° and 152°');
    const lines = [...fixture.nativeElement.querySelectorAll('table')[0].querySelectorAll('tbody tr')].map((line: HTMLElement) =>
      [...line.children].map((cell) => cell.textContent!.trim()),
    );
    expect(lines[0]).toEqual(['0°', '0°', '0°']);
    expect(lines.map(([opening]) => opening)).toEqual([
      '0°',
      '15°',
      '30°',
      '45°',
      '60°',
      '75°',
      '90°',
      '105°',
      '120°',
      '135°',
      '150°',
      '165°',
      '180°',
    ]);
    // As bent as it is open; more than 150° it is creased, which it was on closing from the first.
    expect(lines[6]).toEqual(['90°', '90°', 'creased']);
    // Marked on the opening: frame 51 of 60 is 153°, frame 15 what it runs into, half-way between frames 40 and 41 the jump.
    expect(bent.marks().map(({ s }) => s)).toEqual([51 / 60, 15 / 60, 40.5 / 60]);
    expect(text()).toContain('Opened from closed, it runs into top of the step at an opening of 45°, along up to 12 mm');
    // A sheet of 0.2 mm is bent to 5 mm, ½ · 0.2 ÷ (1/50).
    expect(text()).toMatch(/Light card, 160 g \(this card\) ?5 mm ?153°/);
  });

  it('asks once for a card whatever its name and supplies, and again for other sizes; going back asks nothing', async () => {
    const evaluation = carrier({ width: 40 });
    await show(evaluation);
    await answer([row(evaluation)]);
    await show(carrier({ width: 40 }, { name: 'another name' }));
    expect(asked).toHaveLength(1);
    await show(carrier({ width: 35 }));
    expect(asked).toHaveLength(2);
    expect(text()).toContain('Working out');
    await answer([row(evaluation)]);
    await show(evaluation);
    expect(asked).toHaveLength(2);
    expect(text()).toContain('bends on the way');
  });

  it('keeps nothing of a card that was overtaken, and says when it could not be worked out', async () => {
    const [first, second] = [carrier({ width: 40 }), carrier({ width: 35 })];
    await show(first);
    await show(second);
    expect(asked).toHaveLength(2);
    asked[0]!.done([row(first)]);
    await vi.advanceTimersByTimeAsync(1);
    expect(bent.rows()).toBeUndefined();
    await answer(undefined);
    expect(text()).toContain('could not be worked out');
  });

  it('says nothing of how it bends of a row that does not come together', async () => {
    await show(carrier({ width: 40 }));
    await answer([]);
    expect(text()).toContain('does not come together');
    expect(fixture.nativeElement.querySelectorAll('table, progress')).toHaveLength(0);
    expect(bent.marks()).toEqual([]);
  });

  it('has nothing to ask of a card of which no panel bends', async () => {
    const outcome = evaluate(newCard({ id: 'c', name: 'c', base: { mechanism: 'folded-card', sizes: {} } }));
    if (!outcome.ok) throw new Error('refused');
    await show(outcome.evaluation);
    expect(bent.bends()).toBe(false);
    expect(asked).toEqual([]);
  });
});
