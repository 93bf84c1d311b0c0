import { describe, expect, it } from 'vitest';
import { rectangle } from '../plane/outline.js';
import { stretchesOnPaper } from './on-paper.js';

const paper = { outline: rectangle(0, 0, 100, 60), windows: [{ id: 'w', outline: rectangle(30, 20, 40, 20) }] };

describe('a line on a piece of paper', () => {
  it('is left out over openings and beyond the edges', () => {
    expect(stretchesOnPaper(paper, [50, -10], [50, 70])).toEqual([
      [
        [50, 0],
        [50, 20],
      ],
      [
        [50, 40],
        [50, 60],
      ],
    ]);
    expect(stretchesOnPaper(paper, [10, 0], [10, 60])).toEqual([
      [
        [10, 0],
        [10, 60],
      ],
    ]);
    expect(stretchesOnPaper(paper, [40, 25], [40, 35])).toEqual([]);
  });

  it('is no score along an edge: there is nothing to fold on the other side', () => {
    expect(stretchesOnPaper(paper, [0, 0], [0, 60])).toEqual([]);
    expect(stretchesOnPaper(paper, [30, 0], [30, 60])).toEqual([
      [
        [30, 0],
        [30, 20],
      ],
      [
        [30, 40],
        [30, 60],
      ],
    ]);
  });

  it('slants as well', () => {
    // From (0, 0) to (100, 60): through the opening from where x = 100/3 to where x = 200/3.
    const [first, second] = stretchesOnPaper(paper, [0, 0], [100, 60]);
    expect(first![1][0]).toBeCloseTo(100 / 3, 6);
    expect(second![0][0]).toBeCloseTo(200 / 3, 6);
  });
});
