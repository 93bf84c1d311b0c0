import { describe, expect, it } from 'vitest';
import { cardWith, evaluated } from '../testing/evaluated.js';
import { edgesOf, isCut, pieceDrawing, type Primitive } from './piece-drawing.js';

describe('the lines of a card with a step', () => {
  const sizes = { depth: 20, height: 30, width: 40, offset: 50 };
  const [sheet] = evaluated(cardWith('step', sizes, { depth: 100, length: 150 })).sheets;
  const drawing = pieceDrawing(sheet!);
  const edges = (wanted: (primitive: Primitive) => boolean) => drawing.filter(wanted).flatMap(edgesOf);
  const of = (role: Primitive['role']) => edges((primitive) => primitive.role === role);

  it('have both slits to cut, across the fold', () => {
    expect(of('slit')).toContainEqual([
      [80, 50],
      [130, 50],
    ]);
    expect(of('slit')).toContainEqual([
      [80, 90],
      [130, 90],
    ]);
    // Four edges and two slits.
    expect(edges(isCut)).toHaveLength(6);
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
    const drawing = pieceDrawing(sheet!);
    expect(drawing.filter(isCut).map(({ role }) => role)).toEqual(['outline']);
    expect(drawing.filter(({ role }) => role === 'pencil')).toHaveLength(2);
  });
});
