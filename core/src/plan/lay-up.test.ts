import { describe, expect, it } from 'vitest';
import { CATALOGUE } from '../mechanism/catalogue.js';
import { cardToTry } from '../card/try-out.js';
import { METRIC_WORKSHOP } from '../supplies/starter-workshops.js';
import type { Workshop } from '../supplies/workshop.js';
import { evaluated, having } from '../testing/evaluated.js';
import { benchSteps } from './bench-steps.js';
import { lies } from './lay-up.js';
import type { BenchStep } from './step.js';

type FlatPicture = Extract<NonNullable<BenchStep['picture']>, { kind: 'flat' }>;

/** Where a point of a blank, its middle at zero, comes to lie: turned over like a page first, then round on the table. */
function moved([x, y]: readonly [number, number], { face, turned }: Pick<FlatPicture, 'face' | 'turned'>): [number, number] {
  const over = face === 'down' ? -x : x;
  return turned ? [-over, -y] : [over, y];
}

describe('how a blank lies', () => {
  const sheet = evaluated(cardToTry(CATALOGUE[0]!)).sheets[0]!;

  it.each([
    ['up', true],
    ['down', false],
    ['down', true],
  ] as const)('is said as one state that turning it over and round really leads to (%s, %s)', (face, turned) => {
    const [left, lower] = [moved([-1, 0], { face, turned }), moved([0, -1], { face, turned })];
    const words = lies(sheet, { face, turned });
    expect(words).toContain(`the L at your ${left[0] < 0 ? 'left' : 'right'}`);
    expect(words).toContain(`the ${lower[1] < 0 ? 'lower' : 'upper'} edge nearer you`);
    expect(words).toContain(face === 'up' ? 'inside up' : 'inside down');
  });
});

describe.each(['one-face', 'flip'] as const)('the steps of every card, scored on %s', (scoring) => {
  const workshop: Workshop = { ...METRIC_WORKSHOP, schools: { ...METRIC_WORKSHOP.schools, scoring } };
  const cards = CATALOGUE.flatMap((mechanism) =>
    ['rule', 'half-cm-210'].map((board) => [`${mechanism.id} on ${board}`, having(cardToTry(mechanism), { board })] as const),
  );

  it.each(cards)(
    '%s: each says one state, the edge at zero is the one its readings are from, and an L is drawn before it is meant',
    (_, card) => {
      const evaluation = evaluated(card);
      const steps = benchSteps(evaluation, workshop);
      const marked = new Set<string>();
      for (const step of steps) {
        const says = step.says.join(' ');
        const picture = step.picture?.kind === 'flat' ? step.picture : undefined;
        if (!picture) continue;
        // Folds of the card itself may be turned; a blank is laid.
        expect(says).not.toMatch(/turn it|turned end|turned over|half round/i);
        if (says.includes('Pencil a small L')) marked.add(picture.piece);
        if (/the L\b/.test(says)) expect(marked).toContain(picture.piece);
        if (step.kind !== 'score' || !step.scores) continue;
        const sheet = evaluation.sheets.find(({ piece }) => piece.id === picture.piece)!;
        const zero = /its (left|right) edge at zero/.exec(says)![1];
        expect(moved([zero === 'left' ? -1 : 1, 0], picture)[0]).toBe(-1);
        for (const { at, scores } of step.scores) {
          const x = scores[0]!.from[0];
          expect(at).toBeCloseTo(zero === 'left' ? x : sheet.width - x, 6);
        }
      }
    },
  );

  it.each(cards)('%s: no pencil line is laid along that was not drawn, and one joint is made with one glue', (_, card) => {
    const evaluation = evaluated(card);
    const steps = benchSteps(evaluation, workshop);
    const drawn = steps.filter(({ kind }) => kind === 'mark').flatMap(({ says }) => says);
    for (const { kind, says } of steps) {
      if (kind !== 'glue') continue;
      for (const line of says.filter((words) => words.startsWith('Its side lies on the pencil line: '))) {
        const named = line.replace('Its side lies on the pencil line: ', '').replace(/\.$/, '').split('; ');
        for (const name of named) expect(drawn.some((words) => words.includes(name))).toBe(true);
      }
      if (says.join(' ').includes('on its pencil line')) expect(drawn.some((words) => words.includes('goes here'))).toBe(true);
      expect(says.filter((words) => words.startsWith('Use '))).toHaveLength(1);
    }
  });
});
