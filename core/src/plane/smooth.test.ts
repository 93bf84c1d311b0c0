import { describe, expect, it } from 'vitest';
import { SHAPES, fitted } from './shapes.js';
import { stretchesOf } from './smooth.js';
import { rectangle } from './outline.js';

const shape = (id: string) => fitted(SHAPES.find((s) => s.id === id)!.draw(), 100);

describe('a line of many points', () => {
  it('is straight edges where it has corners, one curve where it has none', () => {
    expect(stretchesOf(rectangle(0, 0, 40, 20), true).map(({ curved }) => curved)).toEqual([false, false, false, false]);
    expect(stretchesOf(shape('star'), true)).toHaveLength(10);
    expect(stretchesOf(shape('circle'), true).map(({ curved, points }) => [curved, points.length])).toEqual([[true, 73]]);
  });

  it('is both where both are in it', () => {
    // Foot and two sides of an arch are straight, its top is half a circle.
    expect(
      stretchesOf(shape('arch'), true)
        .map(({ curved }) => curved)
        .sort(),
    ).toEqual([false, false, false, true]);
    // A scalloped circle is twelve bows with corners between them.
    expect(stretchesOf(shape('scallop'), true).map(({ curved }) => curved)).toEqual(Array.from({ length: 12 }, () => true));
  });

  it('goes round once, from each stretch to the next', () => {
    for (const { id } of SHAPES) {
      const stretches = stretchesOf(shape(id), true);
      stretches.forEach(({ points }, i) => expect(points.at(-1)).toEqual(stretches[(i + 1) % stretches.length]!.points[0]));
    }
  });

  it('does not count points at which it goes straight on', () => {
    const [a, ...rest] = rectangle(0, 0, 40, 20);
    expect(stretchesOf([a!, [10, 0], [20, 0], ...rest], true)).toHaveLength(4);
  });
});
