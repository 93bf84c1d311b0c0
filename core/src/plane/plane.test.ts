import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { intersect, offset, subtract, totalArea, unite } from './boolean.js';
import { areaContains, areaOf, boxOf, centroid, convexHull, loopContains, mirrored, rectangle, signedArea, type Area } from './outline.js';
import { place } from './placement.js';
import { between, distance, distanceToSegment, polar, turn, type Point } from './point.js';
import { triangulate } from './triangles.js';

const square = (x: number, y: number, side: number): Area => ({ outer: rectangle(x, y, side, side), holes: [] });
const frame: Area = { outer: rectangle(0, 0, 10, 10), holes: [rectangle(3, 3, 4, 4)] };

describe('points', () => {
  it('know distance, side and place on a line', () => {
    expect(distance([0, 0], [3, 4])).toBe(5);
    expect(between([0, 0], [10, 20], 0.25)).toEqual([2.5, 5]);
    expect(turn([0, 0], [1, 0], [0, 1])).toBeGreaterThan(0);
    expect(polar([1, 1], 2, Math.PI / 2)).toEqual([expect.closeTo(1), expect.closeTo(3)]);
  });

  it('measure to the nearest point of a segment, ends included', () => {
    expect(distanceToSegment([5, 3], [0, 0], [10, 0])).toBe(3);
    expect(distanceToSegment([-3, 4], [0, 0], [10, 0])).toBe(5);
    expect(distanceToSegment([3, 4], [0, 0], [0, 0])).toBe(5);
  });
});

describe('outlines', () => {
  it('have area, centre and inside, holes taken out', () => {
    expect(areaOf(frame)).toBe(84);
    expect(centroid(frame)).toEqual([expect.closeTo(5), expect.closeTo(5)]);
    expect(areaContains(frame, [1, 1])).toBe(true);
    expect(areaContains(frame, [5, 5])).toBe(false);
    expect(boxOf(frame.outer)).toEqual({ minX: 0, minY: 0, maxX: 10, maxY: 10 });
  });

  it('shift their centre away from a hole', () => {
    // 10×10 less 4×4 at its right edge: (100·5 − 16·8)/84.
    expect(centroid({ outer: rectangle(0, 0, 10, 10), holes: [rectangle(6, 3, 4, 4)] })[0]).toBeCloseTo((500 - 128) / 84, 12);
  });

  it('keep area and direction in a mirror', () => {
    const loop: Point[] = [
      [0, 0],
      [4, 0],
      [3, 5],
    ];
    expect(signedArea(mirrored(loop))).toBeCloseTo(signedArea(loop), 12);
    expect(mirrored(mirrored(loop))).toEqual(loop);
  });

  it('have a hull that holds every point and is no larger than needed', () => {
    const point = fc.tuple(fc.double({ min: -50, max: 50, noNaN: true }), fc.double({ min: -50, max: 50, noNaN: true }));
    fc.assert(
      fc.property(fc.array(point, { minLength: 4, maxLength: 20 }), (points) => {
        const hull = convexHull(points);
        fc.pre(hull.length >= 3 && signedArea(hull) > 1e-3);
        for (const p of points) {
          const onEdge = hull.some((q, i) => distanceToSegment(p, q, hull[(i + 1) % hull.length]!) < 1e-6);
          expect(onEdge || loopContains(hull, p)).toBe(true);
        }
        hull.forEach((p, i) => expect(turn(p, hull[(i + 1) % hull.length]!, hull[(i + 2) % hull.length]!)).toBeGreaterThan(-1e-9));
      }),
    );
  });
});

describe('areas together', () => {
  it('unite, intersect and subtract', () => {
    expect(totalArea(unite([square(0, 0, 4), square(2, 2, 4)]))).toBeCloseTo(28, 6);
    expect(totalArea(intersect([square(0, 0, 4)], [square(2, 2, 4)]))).toBeCloseTo(4, 6);
    expect(totalArea(subtract([square(0, 0, 4)], [square(2, 2, 4)]))).toBeCloseTo(12, 6);
    expect(totalArea(intersect([frame], [square(4, 4, 2)]))).toBeCloseTo(0, 6);
  });

  it('obey: both together are one plus what the other adds', () => {
    const side = fc.double({ min: 1, max: 20, noNaN: true });
    const at = fc.double({ min: -10, max: 10, noNaN: true });
    fc.assert(
      fc.property(at, at, side, at, at, side, (x, y, s, u, v, t) => {
        const [a, b] = [square(x, y, s), square(u, v, t)];
        const [whole, shared] = [totalArea(unite([a, b])), totalArea(intersect([a], [b]))];
        expect(whole + shared).toBeCloseTo(s * s + t * t, 3);
      }),
    );
  });

  it('grow and shrink by an even border', () => {
    expect(totalArea(offset(rectangle(0, 0, 10, 6), 2))).toBeCloseTo(14 * 10, 6);
    expect(totalArea(offset(rectangle(0, 0, 10, 6), -2))).toBeCloseTo(6 * 2, 6);
    expect(offset(rectangle(0, 0, 10, 6), -4)).toEqual([]);
  });
});

describe('triangles', () => {
  it('cover a shape with holes exactly', () => {
    const { points, corners } = triangulate(frame);
    let sum = 0;
    for (let i = 0; i < corners.length; i += 3) {
      const [a, b, c] = [points[corners[i]!]!, points[corners[i + 1]!]!, points[corners[i + 2]!]!];
      sum += Math.abs(turn(a, b, c)) / 2;
    }
    expect(sum).toBeCloseTo(84, 9);
  });
});

describe('placing one sheet on another', () => {
  it('turns over before it turns round', () => {
    expect(place([2, 1], { to: [10, 5], turn: 0, flipped: true })).toEqual([8, 6]);
    const [x, y] = place([2, 1], { to: [0, 0], turn: Math.PI / 2, flipped: false });
    expect([x, y]).toEqual([expect.closeTo(-1), expect.closeTo(2)]);
  });

  it('keeps all distances', () => {
    const n = fc.double({ min: -100, max: 100, noNaN: true });
    fc.assert(
      fc.property(n, n, n, n, n, n, fc.boolean(), (ax, ay, bx, by, to, angle, flipped) => {
        const where = { to: [to, -to] as const, turn: angle, flipped };
        expect(distance(place([ax, ay], where), place([bx, by], where))).toBeCloseTo(distance([ax, ay], [bx, by]), 8);
      }),
    );
  });
});
