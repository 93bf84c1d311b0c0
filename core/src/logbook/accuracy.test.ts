import { describe, expect, it } from 'vitest';
import { accuracyBy } from './accuracy.js';
import type { Measure } from './build.js';

const measure = (tool: string, stock: string, off: number): Measure => ({
  ...{ what: 'score', says: 'x', planned: 40, measured: 40 + off, tool, stock, mechanism: 'swing' },
});

describe('accuracy', () => {
  const builds = [
    { measures: [measure('a', 'card', 0.2), measure('a', 'paper', 0.4)] },
    { measures: [measure('a', 'card', -0.9), measure('', 'card', 0)] },
  ];

  it('is the mean, the spread and the worst of each group, by hand', () => {
    // 0.2, 0.4, −0.9: mean −0.1; squares 0.09 + 0.25 + 0.64 = 0.98; √(0.98 ÷ 2) = 0.7.
    expect(accuracyBy(builds, 'tool')).toEqual([
      { id: 'a', count: 3, mean: expect.closeTo(-0.1, 9), spread: expect.closeTo(0.7, 9), worst: expect.closeTo(-0.9, 9) },
    ]);
  });

  it('has the group with most first, and no spread of a single one', () => {
    const [most, single] = accuracyBy(builds, 'stock');
    expect([most!.id, most!.count]).toEqual(['card', 3]);
    expect(single).toEqual({ id: 'paper', count: 1, mean: expect.closeTo(0.4, 9), worst: expect.closeTo(0.4, 9) });
  });
});
