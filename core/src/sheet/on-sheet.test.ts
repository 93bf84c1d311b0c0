import { describe, expect, it } from 'vitest';
import { rectangle } from '../plane/outline.js';
import { cutSheet } from './cut-sheet.js';
import { shiftOnSheet } from './on-sheet.js';
import { blankPiece } from './piece.js';

describe('what is drawn on a panel, on the sheet that is cut', () => {
  // Two leaves of 100 with a spine of 2 between them; the blank begins at (10, 5).
  const crease = {
    id: 'fold',
    name: 'main fold',
    from: [110, 5] as const,
    to: [110, 85] as const,
    fold: 'valley' as const,
    closed: Math.PI,
    ease: 2,
  };
  const piece = blankPiece({
    id: 'base',
    name: 'Card',
    stock: 'base',
    faceUp: 'inside up',
    outline: rectangle(10, 5, 200, 80),
    because: 'test',
    creases: [crease],
  });
  const sheet = cutSheet(piece);

  it('lies before the fold where it was drawn, and beyond it as far on as the spine is wide', () => {
    expect(sheet.width).toBe(202);
    expect(shiftOnSheet(sheet, rectangle(10, 5, 100, 80))).toEqual([-10, -5]);
    expect(shiftOnSheet(sheet, rectangle(110, 5, 100, 80))).toEqual([-8, -5]);
  });
});
