import { describe, expect, it } from 'vitest';
import { bendOf } from './bend-measures.js';
import { followBend, type Snap } from './follow-bend.js';
import { relax } from './relax.js';
import { SheetEnergy } from './sheet-energy.js';
import { holdEdges, rowCount, type Hold, type SheetRow } from './sheet.js';

const sheet = (length: number, width: number, cells = { along: 12, across: 6 }): SheetRow => ({ width, lengths: [length], cells });

/** Held along y at two places of the x axis, free between. */
const heldAt = (from: number, to: number, width: number): Hold => ({
  first: {
    ends: [
      [from, 0, 0],
      [from, width, 0],
    ],
    into: [-1, 0, 0],
    facing: [0, 0, 1],
  },
  last: {
    ends: [
      [to, 0, 0],
      [to, width, 0],
    ],
    into: [1, 0, 0],
    facing: [0, 0, 1],
  },
  stops: [],
});

/** Nodes where a function has them, of the distance along and across. */
function nodesOf(row: SheetRow, place: (u: number, v: number) => readonly [number, number, number]): Float64Array {
  const { across } = row.cells;
  const rows = rowCount(row);
  const length = row.lengths.reduce((sum, own) => sum + own, 0);
  const nodes = new Float64Array(3 * (rows + 1) * (across + 1));
  for (let i = 0; i <= rows; i++) {
    for (let j = 0; j <= across; j++) nodes.set(place((i / rows) * length, (j / across) * row.width), 3 * (i * (across + 1) + j));
  }
  return nodes;
}

const round = (radius: number) => (u: number, v: number) =>
  [radius * Math.sin(u / radius), v, radius * (1 - Math.cos(u / radius))] as const;

describe('a bent sheet', () => {
  it('rolled round has half of its curvature squared for every square millimetre, and hardly stretches', () => {
    const row = sheet(60, 40);
    const energy = new SheetEnergy(row);
    energy.at(nodesOf(row, round(50)), heldAt(0, 60, 40), false);
    // Second differences lie on the rows between the held ones: eleven of twelve.
    expect(energy.bending / ((0.5 * 60 * 40 * 11) / 12 / 50 ** 2)).toBeCloseTo(1, 2);
    // Its chords are a little shorter than its arcs.
    expect(energy.stretching).toBeLessThan(0.05 * energy.bending);
    const { angle, radius } = bendOf(nodesOf(row, round(50)), row);
    expect(angle).toBeCloseTo((60 * 11) / 12 / 50, 6);
    expect(radius).toBeCloseTo(50, 1);
  });

  it('twisted by so much a millimetre has that squared for every square millimetre', () => {
    const row = sheet(60, 40);
    const energy = new SheetEnergy(row);
    energy.at(
      nodesOf(row, (u, v) => [u, v, 1e-4 * u * v]),
      heldAt(0, 60, 40),
      false,
    );
    expect(energy.bending).toBeCloseTo(1e-8 * 60 * 40, 10);
  });

  it('has slopes and second derivatives that are those of its energy', () => {
    const row: SheetRow = { width: 40, lengths: [30, 20], cells: { along: 3, across: 4 } };
    const energy = new SheetEnergy(row);
    let seed = 5;
    const random = (): number => (seed = (seed * 16807) % 2147483647) / 2147483647;
    const nodes = nodesOf(row, (u, v) => [0.9 * u + random(), v + random(), 3 * Math.sin(u / 9) + random() - 2]);
    const hold = { ...heldAt(0, 50, 40), stops: [{ at: [0, 0, -1], normal: [0, 0, 1] } as const] };
    energy.at(nodes, hold, true);
    const gradient = energy.gradient.slice();
    const hessian = energy.hessian.entries.slice();
    const { band } = energy.hessian;
    const first = nodes.findIndex((_, i) => energy.unknownOf(i) === 0);
    const step = 1e-5;
    for (const i of [0, 7, 20, 31, energy.unknowns - 1]) {
      const moved = (by: number, slopes: boolean): number => {
        const near = nodes.slice();
        near[first + i]! += by;
        return energy.at(near, hold, slopes);
      };
      expect(gradient[i]! / ((moved(step, false) - moved(-step, false)) / (2 * step))).toBeCloseTo(1, 5);
      moved(step, true);
      const after = energy.gradient.slice();
      moved(-step, true);
      for (let j = Math.max(0, i - 14); j <= i; j++) {
        const second = (after[j]! - energy.gradient[j]!) / (2 * step);
        expect(hessian[i * band + i - j]!).toBeCloseTo(second, 2 + Math.max(0, 1 - Math.log10(1 + Math.abs(second))));
      }
    }
  });

  it('pressed together a little buckles with Euler’s load: π²·B·width ÷ length² times how far', () => {
    const row = sheet(60, 40);
    const energy = new SheetEnergy(row);
    const short = 0.6;
    const hold = heldAt(0, 60 - short, 40);
    const nodes = nodesOf(row, (u, v) => [u, v, 3 * Math.sin((Math.PI * u) / 60)]);
    holdEdges(nodes, row, hold);
    expect(relax(energy, nodes, hold)).toBe(true);
    const expected = ((Math.PI ** 2 * 40) / 60 ** 2) * short;
    expect((energy.bending + energy.stretching) / expected).toBeGreaterThan(0.97);
    expect((energy.bending + energy.stretching) / expected).toBeLessThan(1.03);
  });

  it('is as bent, and has as much energy, when everything is twice as large', () => {
    const paths = [1, 2].map((scale) => {
      const row = sheet(60 * scale, 40 * scale, { along: 6, across: 4 });
      const holds = [2, 6, 12, 20].map((short) => heldAt(0, (60 - short) * scale, 40 * scale));
      return followBend(
        row,
        holds,
        nodesOf(row, (u, v) => [u, v, scale * Math.sin((Math.PI * u) / (60 * scale))]),
      ).shapes;
    });
    paths[0]!.forEach((shape, i) => {
      expect(paths[1]![i]!.energy / shape.energy).toBeCloseTo(1, 3);
      expect(paths[1]![i]!.angle).toBeCloseTo(shape.angle, 3);
      expect(paths[1]![i]!.radius / shape.radius).toBeCloseTo(2, 2);
    });
  });

  it('lies on what stops it, and goes no farther', () => {
    const row = sheet(60, 40, { along: 12, across: 4 });
    const hold: Hold = { ...heldAt(0, 50, 40), stops: [{ at: [0, 0, 8], normal: [0, 0, -1] }] };
    const nodes = nodesOf(row, (u, v) => [u, v, 5 * Math.sin((Math.PI * u) / 60)]);
    const { shapes } = followBend(row, [hold], nodes);
    const heights = Array.from(shapes[0]!.nodes).filter((_, i) => i % 3 === 2);
    expect(Math.max(...heights)).toBeLessThan(8.1);
    expect(Math.max(...heights)).toBeGreaterThan(7.9);
  });

  it('that is led past where its shape holds jumps, and says between which holds', () => {
    const row: SheetRow = { width: 40, lengths: [30, 30], cells: { along: 6, across: 4 } };
    const holds = Array.from({ length: 12 }, (_, i): Hold => {
      const held = heldAt(0, 56, 40);
      // A plate comes down on the arch and pushes it through.
      return { ...held, stops: [{ at: [0, 0, 14 - 1.2 * i], normal: [0, 0, -1] }] };
    });
    const path = followBend(
      row,
      holds,
      nodesOf(row, (u, v) => [(u * 56) / 60, v, 10 - Math.abs(u - 30) / 3]),
    );
    expect(path.shapes.every(({ atRest }) => atRest)).toBe(true);
    const middle = path.shapes.map(({ nodes }) => nodes[3 * (6 * 5 + 2) + 2]!);
    expect(middle[0]).toBeGreaterThan(5);
    expect(middle.at(-1)).toBeLessThan(-5);
    // Once, and there.
    expect(path.snaps).toHaveLength(1);
    const [{ after, before }] = path.snaps as [Snap];
    expect([middle[after]! > 0, middle[before]! > 0]).toEqual([true, false]);
  });
});
