import { describe, expect, it } from 'vitest';
import { areaOf, rectangle } from '../plane/outline.js';
import type { Point } from '../plane/point.js';
import { cutSheet } from './cut-sheet.js';
import { splitPiece } from './panels.js';
import { blankPiece, type Crease } from './piece.js';

const crease = (id: string, from: Point, to: Point, ease = 0): Crease => ({
  id,
  name: id,
  from,
  to,
  fold: 'valley',
  closed: Math.PI,
  ease,
});

describe('splitting a piece into panels', () => {
  it('finds panels, their names and the hinge between them', () => {
    const piece = blankPiece({
      id: 'p',
      name: 'P',
      stock: 'base',
      faceUp: 'up',
      because: '',
      outline: rectangle(0, 0, 10, 4),
      creases: [crease('c', [3, 0], [3, 4])],
      anchors: [
        { panel: 'a', name: 'A', at: [1, 1] },
        { panel: 'b', name: 'B', at: [9, 1] },
      ],
    });
    const { panels, hinges, faults } = splitPiece(piece);
    expect(panels.map((panel) => [panel.id, areaOf(panel.area)])).toEqual(
      expect.arrayContaining([
        ['p/a', 12],
        ['p/b', 28],
      ]),
    );
    expect(hinges).toMatchObject([{ id: 'p/c', left: 'p/a', right: 'p/b' }]);
    expect(faults).toEqual([]);
  });

  const withCreases = (...creases: Crease[]) =>
    blankPiece({
      id: 'p',
      name: 'P',
      stock: 'base',
      faceUp: 'up',
      because: '',
      outline: rectangle(0, 0, 10, 10),
      creases,
      anchors: [{ panel: 'a', name: 'A', at: [1, 1] }],
    });

  it('reports a crease that ends inside a panel', () => {
    expect(splitPiece(withCreases(crease('short', [5, 0], [5, 6]))).faults.map((f) => f.kind)).toContain('crease-in-one-panel');
  });

  it('reports two panels locked along lines that are not one line', () => {
    const faults = splitPiece(withCreases(crease('one', [0, 5], [5, 5]), crease('two', [5, 5], [10, 8]))).faults;
    expect(faults.map((f) => f.kind)).toContain('locked-panels');
  });

  it('takes two creases in one line between the same panels as a hinge that can move', () => {
    const piece = withCreases(crease('one', [0, 5], [4, 5]), crease('two', [6, 5], [10, 5]));
    piece.windows.push({ id: 'hole', outline: rectangle(4, 4, 2, 2) });
    expect(splitPiece(piece).faults.map((f) => f.kind)).not.toContain('locked-panels');
  });
});

describe('the sheet that is cut', () => {
  it('puts a spine in as two scores and lengthens the blank by it', () => {
    const piece = blankPiece({
      id: 'p',
      name: 'P',
      stock: 'base',
      faceUp: 'up',
      because: '',
      outline: rectangle(0, 0, 100, 40),
      creases: [crease('fold', [50, 0], [50, 40], 2.5)],
    });
    const sheet = cutSheet(piece);
    expect(sheet.width).toBe(102.5);
    expect(sheet.scores.map((score) => score.from[0])).toEqual([50, 52.5]);
  });

  it('keeps its width where a spine runs only part of the way and paper goes on beside it', () => {
    const piece = blankPiece({
      id: 'p',
      name: 'P',
      stock: 'base',
      faceUp: 'up',
      because: '',
      outline: rectangle(0, 0, 100, 40),
      creases: [crease('fold', [50, 10], [50, 30], 2.5)],
      cuts: [
        { id: 'low', from: [40, 10], to: [60, 10] },
        { id: 'high', from: [40, 30], to: [60, 30] },
      ],
    });
    expect(cutSheet(piece).width).toBe(100);
  });

  it('has its origin at the lower left corner of the blank', () => {
    const piece = blankPiece({ id: 'p', name: 'P', stock: 'base', faceUp: 'up', because: '', outline: rectangle(-30, -7, 60, 20) });
    expect(cutSheet(piece).outline[0]).toEqual([0, 0]);
  });
});
