import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { chordsAt, laidDown, longestChord, mirroredAt } from './chords.js';
import { boxOf, loopContains, rectangle, signedArea, type Loop } from './outline.js';
import { aspectOf, fitted, SHAPES } from './shapes.js';

const circle = (r: number, sides = 720): Loop =>
  Array.from({ length: sides }, (_, i) => {
    const a = (i / sides) * 2 * Math.PI;
    return [r * Math.cos(a), r * Math.sin(a)] as const;
  });

describe('upright chords', () => {
  it('of a circle are 2√(r² − x²) long', () => {
    fc.assert(
      fc.property(fc.double({ min: -48, max: 48, noNaN: true }), (x) => {
        const [low, high] = longestChord([circle(50)], x)!;
        expect(high - low).toBeCloseTo(2 * Math.sqrt(2500 - x * x), 1);
        expect(low + high).toBeCloseTo(0, 6);
      }),
    );
  });

  it('are parted by a hole, and the longest is found', () => {
    const loops = [rectangle(0, 0, 100, 100), rectangle(20, 30, 40, 20)];
    expect(chordsAt(loops, 40)).toEqual([
      [0, 30],
      [50, 100],
    ]);
    expect(longestChord(loops, 40)).toEqual([50, 100]);
    expect(chordsAt(loops, 80)).toEqual([[0, 100]]);
    expect(longestChord(loops, 120)).toBeUndefined();
  });

  it('hold only points inside, whatever the shape', () => {
    const shapes = SHAPES.map(({ draw }) => fitted(draw(), 100));
    fc.assert(
      fc.property(fc.integer({ min: 0, max: shapes.length - 1 }), fc.double({ min: 0.01, max: 0.99, noNaN: true }), (which, share) => {
        const loop = shapes[which]!;
        const { minX, maxX } = boxOf(loop);
        const x = minX + share * (maxX - minX);
        for (const [low, high] of chordsAt([loop], x)) {
          if (high - low > 1e-6) expect(loopContains(loop, [x, (low + high) / 2])).toBe(true);
        }
      }),
    );
  });
});

describe('a loop mirrored or laid down', () => {
  const triangle: Loop = [
    [0, 0],
    [30, 0],
    [0, 10],
  ];
  it('keeps its area and stays counter-clockwise', () => {
    for (const loop of [mirroredAt(triangle, 7), laidDown(triangle)]) expect(signedArea(loop)).toBeCloseTo(150, 12);
  });

  it('lies where a mirror, or the exchange of its axes, puts it', () => {
    expect(boxOf(mirroredAt(triangle, 40))).toEqual({ minX: 50, maxX: 80, minY: 0, maxY: 10 });
    expect(boxOf(laidDown(triangle))).toEqual({ minX: 0, maxX: 10, minY: 0, maxY: 30 });
  });

  it('comes back when it is done twice', () => {
    const back = mirroredAt(mirroredAt(triangle, 7), 7);
    expect([...back].sort()).toEqual([...triangle].sort());
    expect([...laidDown(laidDown(triangle))].sort()).toEqual([...triangle].sort());
  });
});

describe('the built-in shapes', () => {
  const areaOfBox = (id: string): number => {
    const loop = fitted(SHAPES.find((s) => s.id === id)!.draw(), 1, 1);
    return signedArea(loop);
  };

  it('come to the wished box, counter-clockwise, in the corner', () => {
    for (const { draw } of SHAPES) {
      const loop = fitted(draw(), 80, 30);
      const box = boxOf(loop);
      expect([box.minX, box.minY, box.maxX, box.maxY]).toEqual([0, 0, 30, 80].map((mm) => expect.closeTo(mm, 9)));
      expect(signedArea(loop)).toBeGreaterThan(0);
    }
  });

  it('keep their proportions when only the height is wished', () => {
    for (const { draw } of SHAPES) {
      const { maxX, maxY } = boxOf(fitted(draw(), 80));
      expect(maxY).toBeCloseTo(80, 9);
      expect(maxX / maxY).toBeCloseTo(aspectOf(draw()), 9);
    }
  });

  it('fill their box as geometry says', () => {
    expect(areaOfBox('rectangle')).toBeCloseTo(1, 12);
    // A polygon of 72 sides in a circle: π/4 less about a thousandth.
    expect(areaOfBox('circle')).toBeCloseTo(Math.PI / 4, 2);
    expect(areaOfBox('oval')).toBeCloseTo(areaOfBox('circle'), 9);
    // A rectangle of 1 × 0.9 under half a circle of radius 0.5, in a box of 1 × 1.4.
    expect(areaOfBox('arch')).toBeCloseTo((0.9 + Math.PI / 8) / 1.4, 2);
    // The classic heart has 180π; its box is 32 wide, and from −17 up to the lobes' height.
    const heart = SHAPES.find((s) => s.id === 'heart')!.draw();
    expect(Math.abs(signedArea(heart))).toBeCloseTo(180 * Math.PI, -1);
  });

  it('have ids of their own and are no degenerate lines', () => {
    expect(new Set(SHAPES.map((s) => s.id)).size).toBe(SHAPES.length);
    for (const { id } of SHAPES) expect(areaOfBox(id)).toBeGreaterThan(0.15);
  });
});
