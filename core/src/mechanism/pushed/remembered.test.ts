import { describe, expect, it } from 'vitest';
import { cardWith } from '../../testing/evaluated.js';
import { partsOf } from '../../card/draw.js';
import { shapeNamed } from '../../plane/shapes.js';
import { remembered } from './remembered.js';

describe('what was worked out of an outline', () => {
  const works: string[] = [];
  const ask = (loop: readonly (readonly [number, number])[], size: number, answer: string): string =>
    remembered(['test', loop, size], () => {
      works.push(answer);
      return answer;
    });

  it('is known again for the same outline and numbers, and worked out anew for another', () => {
    const corners = [
      [0, 0],
      [9, 0],
      [0, 9],
    ] as const;
    expect([ask(corners, 5, 'a'), ask(corners, 5, 'b'), ask(corners, 6, 'c'), ask([...corners], 5, 'd')]).toEqual(['a', 'a', 'c', 'd']);
    expect(works).toEqual(['a', 'c', 'd']);
  });

  it('is known for a built-in shape, whoever asks: it is one and the same', () => {
    expect(shapeNamed('circle')).toBe(shapeNamed('circle'));
    expect(shapeNamed('no such shape')).toBeUndefined();
  });

  it('changes no size: a card filled in a second time is the same', () => {
    const card = cardWith('push-through', { outline: 'scallop' });
    const [first, second] = [partsOf(card), partsOf({ ...card })].map(({ parts }) => parts[1]!.sizes);
    expect(second).toEqual(first);
  });
});
