import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { arrange, type LabelledSegment } from './arrangement.js';
import { areaOf, rectangle, type Loop } from './outline.js';
import type { Point } from './point.js';

const around = (loop: Loop, label: string): LabelledSegment<string>[] =>
  loop.map((from, i) => ({ from, to: loop[(i + 1) % loop.length]!, label }));
const line = (from: Point, to: Point, label: string): LabelledSegment<string> => ({ from, to, label });
const areas = (segments: LabelledSegment<string>[]): number[] =>
  arrange(segments)
    .faces.map(areaOf)
    .sort((a, b) => a - b);

describe('arranging lines into faces', () => {
  it('splits a sheet along a line', () => {
    expect(areas([...around(rectangle(0, 0, 10, 4), 'edge'), line([3, 0], [3, 4], 'crease')])).toEqual([12, 28]);
  });

  it('splits where lines cross', () => {
    expect(areas([...around(rectangle(0, 0, 2, 2), 'edge'), line([1, 0], [1, 2], 'a'), line([0, 1], [2, 1], 'b')])).toEqual([1, 1, 1, 1]);
  });

  it('keeps a hole as a hole', () => {
    const { faces } = arrange([...around(rectangle(0, 0, 10, 10), 'edge'), ...around(rectangle(2, 2, 4, 4), 'window')]);
    expect(faces.map(areaOf).sort((a, b) => a - b)).toEqual([16, 84]);
  });

  it('lets a cut dangle without changing the faces', () => {
    const { faces, edges } = arrange([...around(rectangle(0, 0, 10, 10), 'edge'), line([0, 5], [4, 5], 'cut')]);
    expect(faces).toHaveLength(1);
    expect(areaOf(faces[0]!)).toBeCloseTo(100);
    const cut = edges.find((edge) => edge.labels.includes('cut'))!;
    expect(cut.left).toBe(cut.right);
  });

  it('gives an edge every label that runs along it', () => {
    const { edges } = arrange([line([0, 0], [10, 0], 'a'), line([4, 0], [12, 0], 'b')]);
    expect(edges.find((edge) => edge.labels.length === 2)?.labels.sort()).toEqual(['a', 'b']);
  });

  it('loses no area, whatever lines cross a sheet', () => {
    const coordinate = fc.double({ min: 1, max: 99, noNaN: true });
    const cut = fc.tuple(coordinate, coordinate, coordinate, coordinate);
    fc.assert(
      fc.property(fc.array(cut, { maxLength: 6 }), (cuts) => {
        const lines = cuts.map(([a, b, c, d], i) => line([a, b], [c, d], `cut-${i}`));
        const sum = areas([...around(rectangle(0, 0, 100, 100), 'edge'), ...lines]).reduce((s, a) => s + a, 0);
        expect(sum).toBeCloseTo(10000, 3);
      }),
    );
  });
});
