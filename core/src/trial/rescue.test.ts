import { describe, expect, it } from 'vitest';
import { CATALOGUE } from '../mechanism/catalogue.js';
import { cardToTry } from '../card/try-out.js';
import { evaluate } from '../evaluate.js';
import { readsOffRuler } from '../sheet/cut-sheet.js';
import { starterFor } from '../supplies/starter-workshops.js';
import { cardOn, evaluated } from '../testing/evaluated.js';
import type { Made } from './made.js';
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
    expect(made).toMatchObject([{ off: expect.closeTo(0.1, 9) as number }]);
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

/**
 * For every base three scores that were made wrong: [piece, score, off, size, to, trimmed left, trimmed right]. Where the scores of
 * the plain card lie, by hand, makes each: the score then lies at the same sum of panels, and the blank is what is left of it.
 */
const BY_HAND: Record<string, readonly [string, string, number, string, number, number, number][]> = {
  // depth | depth
  'folded-card': [
    ['base', 'main-fold', 3, 'depth', 102, 6, 0],
    ['base', 'main-fold', -3, 'depth', 102, 0, 6],
    ['base', 'main-fold', -4, 'depth', 101, 0, 8],
  ],
  // W/2 | W/2 − s/2 | s | W/2 − s/2 | W/2 of 120 and 30: 63 − 4 = 118/2, 240 − 4 = 2 · 118; 120 − 36/2 = 102
  'rising-strip-doors': [
    ['base', 'left-door', 3, 'closedWidth', 118, 4, 0],
    ['base', 'right-door', -3, 'closedWidth', 118, 0, 4],
    ['base', 'strip-left', -3, 'strip', 36, 0, 0],
  ],
  // 60 | 60 | r | 2 r | r | 60 | 60: r = 19 makes 60, 120, 139, 177, 196, 256 of 316
  'tucked-display': [
    ['base', 'left-wing', 3, 'returnWidth', 19, 3, 1],
    ['base', 'left-return', 3, 'returnWidth', 19, 4, 0],
    ['base', 'right-return', -3, 'returnWidth', 19, 0, 4],
  ],
  // b | b | b | 110 | b | b | 110: 310 at b = 18
  'bellows-box': [
    ['base', 'left-middle', 3, 'bellows', 17, 5, 0],
    ['base', 'left-front', -3, 'bellows', 17, 0, 5],
    ['base', 'tab-fold', -3, 'bellows', 15, 0, 15],
  ],
  // d | 110 | d
  'layered-stage': [
    ['base', 'left-wall', -3, 'depth', 34, 0, 6],
    ['base', 'right-wall', 3, 'depth', 34, 6, 0],
    ['layer-1', 'left', -3, 'layers[1].tab', 7, 0, 6],
  ],
  // d/2 | d/2 | d
  'easel-folded-front': [
    ['base', 'main-fold', 3, 'depth', 147, 6, 0],
    ['base', 'main-fold', -3, 'depth', 147, 0, 6],
    ['base', 'front-score', -3, 'depth', 144, 0, 12],
  ],
  // h | h/2 | h/2 | h
  'easel-strip': [
    ['base', 'display-fold', -3, 'displayHeight', 117, 0, 9],
    ['base', 'flap-fold', -3, 'displayHeight', 118, 0, 6],
    ['base', 'back-fold', 3, 'displayHeight', 117, 9, 0],
  ],
  // (size − chord)/2 | the same | size − chord
  'easel-shape': [
    ['base', 'main-fold', 3, 'size', 117, 6, 0],
    ['base', 'main-fold', -3, 'size', 117, 0, 6],
    ['base', 'front-score', 3, 'size', 118, 4, 0],
  ],
  // flap | flap | tab: of the first 46.5, 46.5, 12, of the second 34.5, 34.5, 12
  'easel-row': [
    ['easel-1', 'flap-fold', 3, 'tabWidth', 9, 3, 0],
    ['easel-1', 'back-fold', 3, 'tabWidth', 9, 3, 0],
    ['easel-2', 'back-fold', -3, 'easels[2].displayHeight', 66, 0, 3],
  ],
  // riser | tread | upper riser | the rest of 150 | 150
  'step-easel': [
    ['base', 'tread-front', -3, 'riser', 23, 0, 0],
    ['base', 'tread-back', -3, 'riser', 23, 0, 0],
    ['base', 'top', 3, 'riser', 29, 0, 0],
  ],
  // half | half
  'half-turn-stand': [
    ['base', 'near-fold', 3, 'blankWidth', 134, 6, 0],
    ['base', 'near-fold', -3, 'blankWidth', 134, 0, 6],
    ['base', 'far-fold', 2, 'blankWidth', 136, 4, 0],
  ],
  // at | zigzag | the rest of 210
  swing: [
    ['base', 'left-near', 3, 'scoreAt', 98, 0, 0],
    ['base', 'left-near', -3, 'scoreAt', 92, 0, 0],
    ['base', 'left-far', 3, 'scoreAt', 98, 0, 0],
  ],
  // wall | floor | wall | floor | floor | wall | floor | wall, of 19 and 32
  'film-stand': [
    ['base', 'left-foot', 3, 'floor', 31, 4, 0],
    ['base', 'right-edge', -3, 'floor', 31, 0, 4],
    ['base', 'left-tab', -3, 'wall', 16, 0, 12],
  ],
  // w | w | w | w | tab, of 60 and 10
  'box-card': [
    ['base', 'first-second', 3, 'wall', 59, 4, 0],
    ['base', 'first-second', -3, 'wall', 57, 0, 12],
    ['base', 'third-fourth', -3, 'wall', 59, 0, 4],
  ],
  // of the strip: tab | leg | 76 | leg | tab, of 15 and 32
  'rising-pocket': [
    ['strip', 'left-turned', -3, 'run', 29, 0, 6],
    ['strip', 'left-glue', -3, 'tabWidth', 12, 0, 6],
    ['strip', 'right-turned', 3, 'run', 29, 6, 0],
  ],
};

describe('three scores made wrong by hand', () => {
  const bases = CATALOGUE.filter(({ kind }) => kind === 'base').map(({ id }) => id);
  it('are there for every base', () => {
    expect(Object.keys(BY_HAND).sort()).toEqual([...bases].sort());
    expect(Object.values(BY_HAND).every((wrong) => wrong.length === 3)).toBe(true);
  });

  const all = Object.entries(BY_HAND).flatMap(([id, wrong]) => wrong.map((one) => [id, ...one] as const));
  it.each(all)(
    'of %s: %s/%s %d mm off is mended first by %s of %d mm, trimmed %d and %d mm',
    (id, piece, line, off, size, to, left, right) => {
      const card = cardToTry(
        CATALOGUE.find((mechanism) => mechanism.id === id)!,
        {},
        workshop,
      );
      const sheet = evaluated(card).sheets.find((one) => one.piece.id === piece)!;
      const meant = sheet.scores.find((score) => score.id === line)!.from[0];
      const { ways } = rescued(card, piece, line, meant + off);
      const [first] = ways;
      expect(first!.kind).toBe(left + right > 0 ? 'trim' : 'change-size');
      expect(first!.changes).toMatchObject([{ size, to: expect.closeTo(to, 6) as number }]);
      // It really mends it: on the blank that is there, the line lies where the new card wants it, and nothing fails.
      const mended = evaluated(first!.card!);
      expect(mended.findings.filter(({ severity }) => severity === 'fail')).toEqual([]);
      const then = mended.sheets.find((one) => one.piece.id === piece)!;
      expect(then.scores.find((score) => score.id === line)!.from[0]).toBeCloseTo(meant + off - left, 6);
      expect(then.width).toBeCloseTo(sheet.width - left - right, 6);
    },
  );
});

/** What a thing that was made otherwise than a place can come to. */
function ways(card: CardDocument, ...made: Made[]): Rescue {
  const found = rescue(card, made, workshop);
  if ('says' in found) throw new Error(found.says);
  return found;
}

describe('what was made otherwise', () => {
  const easel = cardOn('easel-folded-front', { depth: 150, stopDistance: 75 });

  it('a score too short is scored on, and a card with it is not judged', () => {
    const { asMade, ways: found } = ways(easel, { piece: 'base', line: 'front-score', from: 0, to: 80 });
    expect(asMade).toMatchObject({ ok: false, says: expect.stringContaining('25 mm too short') as string });
    expect(found[0]).toMatchObject({ kind: 'go-on', says: 'Score on from 80 mm to 105 mm, the rule laid along what is there.' });
  });

  it('a score of a mm less, or more, is left', () => {
    for (const to of [104, 106]) {
      const { asMade, ways: found } = ways(easel, { piece: 'base', line: 'front-score', from: 0, to });
      expect(asMade.ok).toBe(true);
      expect(found[0]!.kind).toBe('leave');
    }
  });

  it('a slit that runs too far is closed from behind', () => {
    const card = cardOn('swing');
    const { cuts } = evaluated(card).sheets[0]!;
    const cut = cuts.find(({ from, to }) => Math.abs(from[0] - to[0]) < 1e-9)!;
    const [low, high] = [Math.min(cut.from[1], cut.to[1]), Math.max(cut.from[1], cut.to[1])];
    const { ways: found, asMade } = ways(card, { piece: 'base', line: cut.id, from: low, to: high + 5 });
    expect(asMade.ok).toBe(false);
    expect(found[0]).toMatchObject({ kind: 'stiffen', says: expect.stringContaining('11 mm long') as string });
  });

  it('the only score of a plain blank, made the other way over, is right when the blank is turned over', () => {
    const plain = cardOn('folded-card', { depth: 105 });
    const { asMade, ways: found } = ways(plain, { piece: 'base', line: 'main-fold' });
    expect(found[0]!.kind).toBe('turn');
    // It holds so, but is no such card: what was to be outside lies inside.
    expect(asMade).toMatchObject({ ok: false, says: expect.stringContaining('wrong side') as string });
    // 75 | 75 | 150 is not the same from behind.
    expect(ways(easel, { piece: 'base', line: 'front-score' }).ways[0]!.kind).toBe('fold-back');
  });

  it('a score the other way over does not make the card', () => {
    const { asMade } = ways(easel, { piece: 'base', line: 'front-score' });
    expect(asMade.ok && asMade.evaluation.findings.every(({ severity }) => severity !== 'fail')).toBe(false);
  });

  // The display is as wide as the card: 5 mm up it stands out by 5 mm, and the lower end may stay short. The stop may lie anywhere
  // along its line; where it lies from the fold is how far the foot comes, 75 mm, which nothing else that is cut depends on.
  it('a display that is glued 5 mm too high is trimmed by 5 mm, or glued again', () => {
    const { ways: found, asMade } = ways(easel, { joint: 'display-on-front', right: 0, up: 5 });
    expect(asMade.ok && asMade.evaluation.findings.some(({ id }) => id === 'stays-inside/display/display/upper')).toBe(true);
    expect(found.map(({ kind }) => kind)).toEqual(['trim', 'glue-again', 'start-again']);
    expect(found[0]!.says).toContain('by 5 mm');
    expect(found[1]!.says).toContain('5 mm down');
  });

  it('a stop that is glued 5 mm too far is where the stop of another size belongs; along its line it may lie anywhere', () => {
    expect(ways(easel, { joint: 'stop-on-base', right: 5, up: 0 }).ways[0]).toMatchObject({
      kind: 'change-size',
      changes: [{ size: 'stopDistance', from: 75, to: 80 }],
    });
    expect(ways(easel, { joint: 'stop-on-base', right: 0, up: 5 }).ways[0]!.kind).toBe('leave');
  });

  it('several scores read from the wrong end of a blank are right when it is turned', () => {
    const card = cardOn('rising-strip-doors', { closedWidth: 120, strip: 30, leftDoor: 40 });
    const sheet = evaluated(card).sheets[0]!;
    const upright = sheet.scores.filter(readsOffRuler);
    const made = [upright[0]!, upright.at(-1)!].map(({ id, from }) => ({ piece: 'base', line: id, at: sheet.width - from[0] }));
    expect(ways(card, ...made).ways[0]!.kind).toBe('turn');
  });

  it('several things are each put right by hand', () => {
    const { ways: found } = ways(
      easel,
      { piece: 'base', line: 'main-fold', at: 153 },
      { piece: 'base', line: 'front-score', from: 0, to: 50 },
    );
    expect(found[0]!.kind).toBe('second-score');
    expect(found[0]!.says).toMatch(/again at 150 mm.*Score on from 50 mm to 105 mm/);
  });

  it('is told with what there is where the card has no such thing', () => {
    const none = (made: Made): unknown => rescue(easel, [made], workshop);
    expect(none({ joint: 'lid', right: 1, up: 0 })).toMatchObject({
      says: expect.stringContaining('There is no glued place “lid”') as string,
    });
    expect(none({ piece: 'base', line: 'lid' })).toMatchObject({ says: expect.stringContaining('main-fold') as string });
    expect(none({ piece: 'base', line: 'lid', from: 0, to: 3 })).toMatchObject({ says: expect.stringContaining('main-fold') as string });
  });
});
