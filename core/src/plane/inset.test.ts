import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { inset } from './inset.js';
import { areaContains, areaOf, boxOf, mirrored, rectangle, type Area, type Loop } from './outline.js';
import { distanceToSegment, type Point } from './point.js';

const same = (loop: Loop, border: number): number[] => loop.map(() => border);

describe('an area inside its borders', () => {
  it('of a rectangle is a rectangle, less the border of each edge', () => {
    const side = fc.double({ min: 20, max: 200, noNaN: true });
    const border = fc.constantFrom(0, 1.5, 3, 6.35);
    fc.assert(
      fc.property(side, side, fc.tuple(border, border, border, border), (width, height, borders) => {
        const [left] = inset({ outer: rectangle(0, 0, width, height), holes: [] }, borders, 0);
        const [bottom, right, top, leftBorder] = borders;
        const box = boxOf(left!.outer);
        expect(box.minX).toBeCloseTo(leftBorder, 5);
        expect(box.minY).toBeCloseTo(bottom, 5);
        expect(box.maxX).toBeCloseTo(width - right, 5);
        expect(box.maxY).toBeCloseTo(height - top, 5);
        expect(areaOf(left!)).toBeCloseTo((width - leftBorder - right) * (height - bottom - top), 2);
      }),
    );
  });

  it('of an L keeps its inner corner sharp, whatever the borders there', () => {
    // 60 × 60 with a corner of 30 × 30 taken away. Edges: bottom, right, ledge, inner upright, top, left.
    const outer: Loop = [[0, 0], [60, 0], [60, 30], [30, 30], [30, 60], [0, 60]]; // prettier-ignore
    const [alike] = inset({ outer, holes: [] }, same(outer, 3), 0);
    // 54 × 54 less what lies beyond both inner edges: from 27 to 57 both ways.
    expect(areaOf(alike!)).toBeCloseTo(54 * 54 - 30 * 30, 3);
    const [mixed] = inset({ outer, holes: [] }, [3, 3, 5, 2, 3, 3], 0);
    // Inner corner at (28, 25): 25 × … the lower arm 54 × 22, the upper one 25 × 32.
    expect(areaOf(mixed!)).toBeCloseTo(54 * 22 + 25 * 32, 3);
    const [seam] = inset({ outer, holes: [] }, [3, 3, 0, 3, 3, 3], 0);
    expect(areaOf(seam!)).toBeCloseTo(54 * 27 + 24 * 27, 3);
  });

  it('runs an edge without a border into a slanting neighbour at the border of the neighbour', () => {
    // A trapezium with 120° corners at its top: no border along the top, 6 mm along the slanting sides.
    const h = 30;
    const over = h / Math.tan(Math.PI / 3);
    const outer: Loop = [[0, 0], [100, 0], [100 - over, h], [over, h]]; // prettier-ignore
    const [left] = inset({ outer, holes: [] }, [0, 6, 0, 6], 0);
    // A slanting side moves in by 6 ÷ sin 60° along every level line.
    expect(areaOf(left!)).toBeCloseTo(((100 + (100 - 2 * over)) / 2 - (2 * 6) / Math.sin(Math.PI / 3)) * h, 3);
  });

  it('does not know which way round the line is told, nor a mirror', () => {
    const border = fc.constantFrom(0, 2, 4);
    fc.assert(
      fc.property(fc.array(border, { minLength: 6, maxLength: 6 }), (borders) => {
        const outer: Loop = [[0, 0], [60, 0], [60, 30], [30, 30], [30, 60], [0, 60]]; // prettier-ignore
        const area = (loop: Loop, own: readonly number[]): number =>
          inset({ outer: loop, holes: [] }, own, 0).reduce((sum, one) => sum + areaOf(one), 0);
        const backwards = [...outer].reverse();
        const turned = backwards.map((_, i) => borders[(2 * outer.length - 2 - i) % outer.length]!);
        expect(area(backwards, turned)).toBeCloseTo(area(outer, borders), 3);
        expect(area(mirrored(outer), turned)).toBeCloseTo(area(outer, borders), 3);
      }),
    );
  });

  it('keeps every point of it as far from every edge and opening as the border is, and leaves nothing that is farther', () => {
    const star = (n: number, radii: readonly number[]): Loop =>
      Array.from({ length: n }, (_, i): Point => [
        60 + radii[i % radii.length]! * Math.cos((2 * Math.PI * i) / n),
        60 + radii[i % radii.length]! * Math.sin((2 * Math.PI * i) / n),
      ]);
    fc.assert(
      fc.property(
        fc.integer({ min: 5, max: 14 }),
        fc.array(fc.double({ min: 30, max: 55, noNaN: true }), { minLength: 2, maxLength: 5 }),
        fc.double({ min: 0.5, max: 6, noNaN: true }),
        fc.array(fc.tuple(fc.double({ min: 5, max: 115, noNaN: true }), fc.double({ min: 5, max: 115, noNaN: true })), {
          minLength: 40,
          maxLength: 40,
        }),
        (n, radii, border, points) => {
          const hole = rectangle(55, 55, 10, 8);
          const area: Area = { outer: star(n, radii), holes: [hole] };
          const left = inset(area, same(area.outer, border), border);
          const lines = [area.outer, hole].flatMap((loop) => loop.map((from, i) => [from, loop[(i + 1) % loop.length]!] as const));
          for (const point of points) {
            const near = Math.min(...lines.map(([from, to]) => distanceToSegment(point, from, to)));
            const inside = left.some((one) => areaContains(one, point));
            if (inside) expect(near).toBeGreaterThan(border - 1e-4);
            // A mitre reaches up to four borders out of an inner corner.
            else if (areaContains(area, point)) expect(near).toBeLessThan(4 * border + 1e-4);
          }
        },
      ),
      { numRuns: 60 },
    );
  });

  it('is nothing where the borders take it all', () => {
    expect(inset({ outer: rectangle(0, 0, 10, 40), holes: [] }, [3, 5, 3, 5], 0)).toEqual([]);
    expect(inset({ outer: rectangle(0, 0, 10, 40), holes: [] }, [5, 5, 5, 5], 0)).toEqual([]);
  });
});
