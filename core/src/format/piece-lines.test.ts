import { describe, expect, it } from 'vitest';
import { cardWith, evaluated } from '../testing/evaluated.js';
import { pieceLines } from './piece-lines.js';

describe('the lines of a card with a step', () => {
  const sizes = { depth: 20, height: 30, width: 40, offset: 50 };
  const [sheet] = evaluated(cardWith('step', sizes, { depth: 100, length: 150 })).sheets;
  const lines = pieceLines(sheet!);
  const of = (kind: string) => lines.filter((line) => line.kind === kind).map(({ from, to }) => [from, to]);

  it('have both slits to cut, across the fold', () => {
    expect(of('cut')).toContainEqual([
      [80, 50],
      [130, 50],
    ]);
    expect(of('cut')).toContainEqual([
      [80, 90],
      [130, 90],
    ]);
    // Four edges and two slits.
    expect(of('cut')).toHaveLength(6);
  });

  it('have every score by how it is folded', () => {
    expect(of('mountain').map(([from]) => from![0])).toEqual([110]);
    expect(of('valley').map(([from]) => from![0])).toEqual([80, 100, 100, 130]);
  });
});

describe('the lines of a glued strip’s host', () => {
  it('are not cut inside, and have a pencil line for either end', () => {
    const [sheet] = evaluated(
      cardWith('step', { cutFrom: 'strip', depth: 20, height: 30, width: 40, offset: 50 }, { depth: 100, length: 150 }),
    ).sheets;
    const kinds = pieceLines(sheet!).map(({ kind }) => kind);
    expect([kinds.filter((kind) => kind === 'cut').length, kinds.filter((kind) => kind === 'pencil').length]).toEqual([4, 2]);
  });
});
