import { describe, expect, it } from 'vitest';
import { CATALOGUE } from '../mechanism/catalogue.js';
import { benchSteps } from '../plan/bench-steps.js';
import { readsOffRuler } from '../sheet/cut-sheet.js';
import { cardOn, evaluated } from '../testing/evaluated.js';
import { columnBreak } from './pdf-columns.js';
import { inRows, scoreLabels, scoreNumbers, widthAt, type DrawnPiece } from './pdf-drawings.js';

/** A letter of seven points is at the most about this wide on average, in mm. */
const LETTER = 1.37;

describe('the labels over a drawing', () => {
  it('say a score that a window interrupts once', () => {
    // A swing card has each of its two scores in the lower and in the upper border.
    const [sheet] = evaluated(cardOn('swing', { scoreAt: 95 })).sheets;
    expect(sheet!.scores.length).toBeGreaterThan(2);
    const labels = scoreLabels(sheet!, 0.5, 'mm');
    expect(labels.map(({ words }) => words.split(' ').at(-1))).toEqual(['valley', 'mountain']);
    expect(labels[0]).toMatchObject({ words: '95 mm valley', x: 47.5 });
  });

  it.each([0.4, 0.7, 1.2])('at a scale of %d neither cover each other nor are crossed by a leader, however many there are', (scale) => {
    for (const base of CATALOGUE.filter((mechanism) => mechanism.kind === 'base')) {
      for (const sheet of evaluated(cardOn(base.id)).sheets) {
        for (const notation of ['mm', 'inch/16'] as const) {
          const labels = scoreLabels(sheet, scale, notation);
          for (const label of labels) {
            for (const other of labels) {
              const within = other.x > label.x && other.x < label.x + label.words.length * LETTER;
              if (within) expect(other.level).toBeLessThan(label.level);
            }
          }
        }
      }
    }
  });

  it('number scores as the steps do, and say where a stop stands', () => {
    // Folds at 75 and 150 of an easel 150 deep; its stop begins at 150 + 75.
    const evaluation = evaluated(cardOn('easel-folded-front'));
    const numbers = scoreNumbers(benchSteps(evaluation)).get('base')!;
    const words = scoreLabels(evaluation.sheets[0]!, 1, 'mm', numbers).map((label) => label.words);
    expect(words).toEqual(['1: 75 mm valley', '2: 150 mm valley', '225 mm: the stop begins here']);
  });

  it('give scores of one setting one number, and every setting of a piece another', () => {
    for (const base of CATALOGUE.filter((mechanism) => mechanism.kind === 'base')) {
      const steps = benchSteps(evaluated(cardOn(base.id)));
      const all = scoreNumbers(steps);
      for (const [piece, numbers] of all) {
        const settings = steps.flatMap((step) =>
          step.picture?.kind === 'flat' && step.picture.piece === piece ? (step.scores ?? []) : [],
        );
        expect(new Set(numbers.values())).toEqual(new Set(settings.map((_, i) => i + 1)));
        settings.forEach(({ scores, again }, i) => {
          for (const { id } of [...scores, ...again]) expect(numbers.get(id)).toBe(i + 1);
        });
      }
    }
  });

  it('name every place on the board', () => {
    for (const base of CATALOGUE.filter((mechanism) => mechanism.kind === 'base')) {
      for (const sheet of evaluated(cardOn(base.id)).sheets) {
        const places = new Set(sheet.scores.filter(readsOffRuler).map(({ from }) => from[0].toFixed(4)));
        const labelled = new Set(scoreLabels(sheet, 1, 'mm').map(({ x }) => x.toFixed(4)));
        expect([...labelled].sort()).toEqual([...places].sort());
      }
    }
  });
});

describe('the break between two columns', () => {
  const lines = (kinds: string): { bold: boolean; height: number }[] => [...kinds].map((kind) => ({ bold: kind === 'H', height: 4 }));

  it('comes where the room ends', () => {
    expect(columnBreak(lines('HtttHttt'), 12)).toBe(3);
    expect(columnBreak(lines('HtttHttt'), 16.5)).toBe(4);
  });

  it('takes a heading along, however many lines it has', () => {
    expect(columnBreak(lines('HtttHttt'), 20)).toBe(4);
    expect(columnBreak(lines('HttHHttt'), 20)).toBe(3);
  });

  it('does not come where all of it has room', () => {
    expect(columnBreak(lines('HttH'), 16)).toBe(4);
  });
});

describe('drawings in rows', () => {
  const ROOM = { width: 186, height: 74 };
  const piece = (width: number, height: number, words = 20): DrawnPiece => ({
    width,
    height,
    words,
    labels: [{ x: width / 2, words: 24 }],
    levels: () => 4,
  });

  it('keep one row where there is room', () => {
    const { places } = inRows([piece(200, 150), piece(100, 100)], ROOM);
    expect(places.map(({ row }) => row)).toEqual([0, 0]);
  });

  it.each([1, 5, 9, 14])('of %d pieces never overlap, nor leave the frame', (count) => {
    const pieces = Array.from({ length: count }, (_, i) => ({
      ...piece(150 / (1 + (i % 4)), 120 / (1 + (i % 3)), 32),
      scored: i % 3 === 0,
    }));
    const { scale, places, feet } = inRows(pieces, ROOM);
    const wide = pieces.map((one) => widthAt(one, scale));
    places.forEach(({ row, x }, i) => {
      expect(x + wide[i]!).toBeLessThanOrEqual(ROOM.width);
      expect(feet[row]! - pieces[i]!.height * scale).toBeGreaterThanOrEqual(row === 0 ? -1e-9 : feet[row - 1]!);
      const next = places[i + 1];
      if (next?.row === row) expect(next.x).toBeGreaterThan(x + wide[i]!);
    });
    expect(feet.at(-1)!).toBeLessThanOrEqual(ROOM.height);
  });
});
