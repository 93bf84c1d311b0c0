import { describe, expect, it } from 'vitest';
import { CATALOGUE } from '../mechanism/catalogue.js';
import { cardToTry } from '../card/try-out.js';
import { evaluate } from '../evaluate.js';
import { readsOffRuler } from '../sheet/cut-sheet.js';
import { starterFor } from '../supplies/starter-workshops.js';
import { cardOn, evaluated } from '../testing/evaluated.js';
import { rescue, type Rescue } from './rescue.js';
import type { CardDocument } from '../card/document.js';

const workshop = starterFor('mm');
function rescued(card: CardDocument, piece: string, line: string, at: number): Rescue {
  const found = rescue(card, [{ piece, line, at }], workshop);
  if ('says' in found) throw new Error(found.says);
  return found;
}

describe('a line that was made wrong', () => {
  it('and hardly is may be left', () => {
    const { ways, made } = rescued(cardOn('folded-card', { depth: 105 }), 'base', 'main-fold', 105.1);
    expect(made[0]!.off).toBeCloseTo(0.1, 9);
    expect(ways[0]!.kind).toBe('leave');
  });

  // A blank of 300 scored at 150 + e: trimmed by 2 e at the end that is too long, both leaves are 150 − |e|.
  it.each([
    [152, 148, 'left'],
    [147, 147, 'right'],
    [151, 149, 'left'],
  ])('at %d mm of an easel’s blank of 300 mm is mended by a depth of %d mm, trimmed at its %s end', (at, depth, end) => {
    const { ways, asMade } = rescued(cardOn('easel-folded-front', { depth: 150, stopDistance: 75 }), 'base', 'main-fold', at);
    expect(asMade.ok && asMade.evaluation.findings.some(({ severity }) => severity === 'fail')).toBe(true);
    const [first] = ways;
    expect(first!.kind).toBe('trim');
    expect(first!.changes).toMatchObject([{ owner: 'base', size: 'depth', from: 150, to: depth }]);
    expect(first!.says).toContain(`by ${2 * Math.abs(at - 150)} mm at its ${end} end`);
    expect(evaluated(first!.card!).findings.some(({ severity }) => severity === 'fail')).toBe(false);
  });

  it('from the wrong end lies right when the piece is turned', () => {
    const card = cardOn('rising-strip-doors', { closedWidth: 120, strip: 30, leftDoor: 40 });
    const sheet = evaluated(card).sheets[0]!;
    const upright = sheet.scores.filter(readsOffRuler);
    const [first, last] = [upright[0]!, upright.at(-1)!];
    expect(first.from[0]).not.toBeCloseTo(sheet.width - last.from[0], 1);
    const found = rescued(card, 'base', first.id, sheet.width - last.from[0]);
    expect(first.fold).toBe(last.fold);
    expect(found.ways[0]!.kind).toBe('turn');
  });

  it('is told with what there is where the card has no such line', () => {
    expect(rescue(cardOn('folded-card'), [{ piece: 'base', line: 'nowhere', at: 3 }], workshop)).toMatchObject({
      says: expect.stringContaining('main-fold') as string,
    });
    expect(rescue(cardOn('folded-card'), [{ piece: 'lid', line: 'main-fold', at: 3 }], workshop)).toMatchObject({
      says: expect.stringContaining('base') as string,
    });
  });

  it.each(CATALOGUE.map(({ id }) => [id] as const))(
    'of %s: every way that changes sizes puts the line where it was made, on a blank that is there',
    (id) => {
      const card = cardToTry(CATALOGUE.find((mechanism) => mechanism.id === id)!);
      const { sheets } = evaluated(card);
      for (const sheet of sheets.slice(0, 2)) {
        const score = sheet.scores.find(readsOffRuler);
        if (!score) continue;
        const at = score.from[0] + 2;
        const { ways } = rescued(card, sheet.piece.id, score.id, at);
        expect(ways.at(-1)!.kind).toBe('start-again');
        for (const way of ways.filter(({ changes }) => changes.length > 0)) {
          const outcome = evaluate(way.card!);
          if (!outcome.ok) throw new Error(outcome.problems[0]!.says);
          const then = outcome.evaluation.sheets.find(({ piece }) => piece.id === sheet.piece.id)!;
          const left = at - then.scores.find((one) => one.id === score.id)!.from[0];
          expect(left).toBeGreaterThan(-0.02);
          expect(left + then.width).toBeLessThan(sheet.width + 0.02);
          expect(outcome.evaluation.findings.filter(({ severity }) => severity === 'fail')).toEqual([]);
        }
      }
    },
  );
});
