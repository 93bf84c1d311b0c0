import { describe, expect, it } from 'vitest';
import { withTopper } from '../card/dress-card.js';
import type { Greeting, Topper } from '../card/dressing.js';
import { benchSteps } from '../plan/bench-steps.js';
import { linesOf } from '../format/lines.js';
import { areaContains, boxOf, type Loop } from '../plane/outline.js';
import { METRIC_WORKSHOP } from '../supplies/starter-workshops.js';
import { cardOn, evaluated } from '../testing/evaluated.js';

const folded = cardOn('folded-card', { depth: 100, length: 140 });
const greets = (greeting: Partial<Greeting> = {}, change: Partial<Topper> = {}) =>
  evaluated(
    withTopper(
      folded,
      {
        ...{
          panel: 'base/front-leaf',
          face: 'down',
          across: 50,
          along: 70,
          outline: 'rectangle',
          height: 20,
          width: 60,
          stock: 'card-250',
        },
        greeting: { words: 'Thank you', letters: 'serif', capital: 6, ...greeting },
        ...change,
      },
      METRIC_WORKSHOP,
    ),
  );
const told = (evaluation: ReturnType<typeof greets>, what: string) =>
  evaluation.findings.find(({ id }) => id === `dressing-placed/topper-1/${what}`);

describe('a greeting on a topper', () => {
  it('stands inside it, in the middle of its sheet and on its panel, on either face', () => {
    for (const face of ['up', 'down'] as const) {
      const [placed] = greets({}, { face }).dressed.toppers;
      for (const point of placed!.greeting!.onPanel.flat()) expect(areaContains(placed!.area, point)).toBe(true);
      const { minX, maxX, minY, maxY } = boxOf(placed!.sheet.lettering!.flat());
      expect([minX + maxX, minY + maxY]).toEqual([expect.closeTo(60, 6), expect.closeTo(20, 6)]);
      // Laid on a back, what is on the left of the sheet is on the right of the piece.
      const left = (loops: readonly Loop[]): number => boxOf(loops[0]!).minX;
      const first = left(placed!.sheet.lettering!) < 30;
      const onPiece = left(placed!.greeting!.onPanel) < 50;
      expect(first === onPiece).toBe(face === 'up');
    }
  });

  it('that is too large is told with how far, and with the capitals that fit, which do', () => {
    const evaluation = greets({ capital: 14 });
    const found = told(evaluation, 'greeting')!;
    expect(found).toMatchObject({ severity: 'warn' });
    // Words as wide as they are at 14 mm in the middle of 60 mm, each end to keep 1 mm inside.
    const { minX, maxX } = boxOf(evaluation.dressed.toppers[0]!.greeting!.loops.flat());
    expect(found.value).toBeCloseTo((maxX - minX) / 2 - 30 + 1, 2);
    const { fits } = evaluation.dressed.toppers[0]!.greeting!;
    expect(told(greets({ capital: fits! }), 'greeting')).toBeUndefined();
    expect(told(greets({ capital: fits! * 1.02 }), 'greeting')).toBeDefined();
  });

  it('says which of its letters there are none of', () => {
    expect(told(greets({ words: 'Ω you' }), 'letters')!.says).toContain('without “Ω”');
  });

  it('stands on its head where its topper does on a panel that swings, and is told', () => {
    const swing = cardOn('swing');
    const upright = withTopper(
      swing,
      {
        ...{ panel: 'base/left-swing', face: 'up', across: 30, along: 40, outline: 'rectangle', height: 12, width: 40, stock: 'card-250' },
        greeting: { words: 'Hello', letters: 'plain', capital: 5 },
        turn: Math.PI,
      },
      METRIC_WORKSHOP,
    );
    expect(told(evaluated(upright), 'up')!.says).toMatch(/stands on its head when the card is open/);
  });

  it('is drawn by the cutter before anything is cut, and lettered in the steps before it is cut out', () => {
    const evaluation = greets({ words: 'Thank / you' });
    const [placed] = evaluation.dressed.toppers;
    const lines = linesOf(placed!.sheet, { folds: 'score' });
    expect(lines.filter(({ layer }) => layer === 'draw')).toHaveLength(placed!.greeting!.loops.length);
    expect(lines[0]!.layer).toBe('draw');
    const steps = benchSteps(evaluation, METRIC_WORKSHOP);
    const at = steps.findIndex(({ id }) => id === 'letters-topper-1');
    expect(steps[at]!.says[0]).toBe('“Thank you”, in 2 lines: letters with serifs, capitals 6 mm high.');
    expect(at).toBeLessThan(steps.findIndex(({ id }) => id === 'trim-topper-topper-1'));
  });
});
