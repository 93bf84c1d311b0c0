import { beforeAll, describe, expect, it } from 'vitest';
import { bendOf } from '../bending/bend-measures.js';
import { nodeAt } from '../bending/sheet.js';
import type { Evaluation } from '../evaluate.js';
import { frameBetween, poseOf } from '../linkage/motion.js';
import { carry, carryDirection, dot, minus, norm, type Vec3 } from '../linkage/rigid.js';
import { toDegrees, toRadians } from '../measure/units.js';
import { leastBendRadius, type Stock } from '../supplies/stocks.js';
import { foldFile } from '../format/fold.js';
import { standingPicture } from '../format/standing-picture.js';
import { barAndHingeAtRest } from '../testing/bar-and-hinge.js';
import { cardWith, evaluated, stockById } from '../testing/evaluated.js';
import { bentRows, nodesBetween, quickRows, type BentRow } from './bent-rows.js';
import { bendSentences, readBend } from './bend-told.js';
import { whatShows } from './what-shows.js';

const SIZES = { width: 40, stripLength: 200, carrierLength: 200 };

describe('the middle of a carrier', () => {
  let evaluation: Evaluation;
  let row: BentRow;
  const shares: number[] = [];
  const frameAt = (degrees: number): number => row.openings.findIndex((opening) => toDegrees(opening) > degrees - 0.01);

  beforeAll(() => {
    evaluation = evaluated(cardWith('twist-carrier', SIZES, { depth: 105, length: 150 }));
    [row] = bentRows(evaluation.design, evaluation.motion, (share) => shares.push(share)) as [BentRow];
  }, 120_000);

  it('is worked out in every frame, at rest in each where it is not creased, and tells how far it has come', () => {
    for (const path of [row.opening, row.closing]) {
      expect(path.shapes).toHaveLength(evaluation.motion.frames.length);
      // Shut to the last degrees, what came from flat is pressed to nothing between the leaves.
      expect(path.shapes.filter(({ atRest }, i) => !atRest && row.openings[i]! > toRadians(10))).toEqual([]);
    }
    expect(shares).toEqual([...shares].sort((a, b) => a - b));
    expect(shares.at(-1)).toBeCloseTo(1, 9);
  });

  it('hangs on the folds of both stiff quarters, wherever those are', () => {
    const { linkage } = evaluation.design;
    const { across } = row.sheet.cells;
    const last = 2 * row.sheet.cells.along;
    evaluation.motion.frames.forEach((frame, i) => {
      const pose = poseOf(evaluation.motion, frame);
      const edge = (panel: string, y: number, x: number): Vec3 => carry(pose[linkage.bodyOf.get(panel)!]!, x, y, 0);
      for (const path of [row.opening, row.closing]) {
        const { nodes } = path.shapes[i]!;
        for (const [j, x] of [
          [0, -20],
          [across, 20],
        ] as const) {
          expect(norm(minus(nodeAt(nodes, row.sheet, 0, j), edge(row.claim.held[0], -50, x)))).toBeLessThan(1e-5);
          expect(norm(minus(nodeAt(nodes, row.sheet, last, j), edge(row.claim.held[1], 50, x)))).toBeLessThan(1e-5);
        }
      }
    });
  });

  it('does not stretch, and stays before both leaves', () => {
    const { across } = row.sheet.cells;
    const { linkage } = evaluation.design;
    for (const degrees of [15, 45, 75, 120, 150]) {
      const i = frameAt(degrees);
      const { nodes } = row.opening.shapes[i]!;
      const pose = poseOf(evaluation.motion, evaluation.motion.frames[i]!);
      for (let k = 0; k < 2 * row.sheet.cells.along; k++) {
        const middle = (r: number): Vec3 => nodeAt(nodes, row.sheet, r, across / 2);
        const length = norm(minus(middle(k + 1), middle(k)));
        expect(length / (50 / row.sheet.cells.along)).toBeGreaterThan(0.96);
        expect(length / (50 / row.sheet.cells.along)).toBeLessThan(1.04);
      }
      for (const { panel, face } of row.claim.before) {
        const leaf = pose[linkage.bodyOf.get(panel)!]!;
        const out = carryDirection(leaf, 0, 0, face === 'up' ? 1 : -1);
        for (let n = 0; n < nodes.length; n += 3) {
          const point: Vec3 = [nodes[n]!, nodes[n + 1]!, nodes[n + 2]!];
          expect(dot(minus(point, carry(leaf, 0, 0, 0)), out)).toBeGreaterThan(-0.3);
        }
      }
    }
  });

  it('is flat in its place at both ends, and comes there from either side', () => {
    const last = row.openings.length - 1;
    for (const path of [row.opening, row.closing]) {
      expect(path.shapes[0]!.angle).toBe(0);
      expect(toDegrees(path.shapes[last]!.angle)).toBeLessThan(0.1);
    }
    // Past the jump there is one shape, whichever way it is come to.
    for (const degrees of [135, 150, 165]) {
      const [up, down] = [row.opening, row.closing].map(({ shapes }) => shapes[frameAt(degrees)]!);
      expect(up!.energy / down!.energy).toBeCloseTo(1, 2);
    }
    expect(Array.from(nodesBetween(row.opening, 1)).every((x, k) => Math.abs(x - row.opening.shapes[last]!.nodes[k]!) < 1e-9)).toBe(true);
  });

  it('is bent by more than a right angle from about 45° to 55° on, and jumps once, a little past 105°', () => {
    const muchFrom = row.openings[row.opening.shapes.findIndex(({ angle }) => angle > Math.PI / 2)]!;
    expect(toDegrees(muchFrom)).toBeGreaterThan(42);
    expect(toDegrees(muchFrom)).toBeLessThan(56);
    expect(row.opening.snaps).toHaveLength(1);
    const [{ after, before }] = row.opening.snaps as [BentRow['opening']['snaps'][number]];
    expect(before).toBe(after + 1);
    expect(toDegrees(row.openings[after]!)).toBeGreaterThan(100);
    expect(toDegrees(row.openings[before]!)).toBeLessThan(125);
    expect(row.opening.shapes[before]!.energy).toBeLessThan(0.7 * row.opening.shapes[after]!.energy);
  });

  // Bars along triangles with springs between them: energy within six per cent, bend within ten degrees.
  it.each([30, 75])(
    'agrees with bars and hinges at %i°',
    (degrees) => {
      const i = frameAt(degrees);
      const pose = poseOf(evaluation.motion, evaluation.motion.frames[i]!);
      const nodes = row.opening.shapes[i]!.nodes.slice();
      const perRow = row.sheet.cells.across + 1;
      const last = 2 * row.sheet.cells.along;
      const body = (panel: string) => pose[evaluation.design.linkage.bodyOf.get(panel)!]!;
      const leaves = row.claim.before.map(({ panel, face }) => ({
        at: carry(body(panel), 0, 0, 0),
        out: carryDirection(body(panel), 0, 0, face === 'up' ? 1 : -1),
      }));
      const stiff = [
        { panel: row.claim.held[0], into: -1, rows: [1, 2], edge: 0 },
        { panel: row.claim.held[1], into: 1, rows: [last - 1, last - 2], edge: last },
      ].map(({ panel, into, ...own }) => ({
        ...own,
        into: carryDirection(body(panel), 0, into, 0),
        up: carryDirection(body(panel), 0, 0, 1),
      }));
      const stiffness = 2.5;
      const stops = (x: Float64Array, gradient: Float64Array): number => {
        let energy = 0;
        const press = (n: number, depth: number, way: Vec3): void => {
          if (depth <= 0) return;
          energy += 0.5 * stiffness * depth * depth;
          for (let c = 0; c < 3; c++) gradient[3 * n + c]! -= stiffness * depth * way[c]!;
        };
        const from = (n: number, at: Vec3): Vec3 => minus([x[3 * n]!, x[3 * n + 1]!, x[3 * n + 2]!], at);
        for (let n = 0; n < x.length / 3; n++) for (const { at, out } of leaves) press(n, -dot(from(n, at), out), out);
        for (const { into, up, rows, edge } of stiff) {
          const at = nodeAt(x, row.sheet, edge, 0);
          for (const n of rows.flatMap((r) => Array.from({ length: perRow }, (_, j) => r * perRow + j))) {
            const [over, behind] = [dot(from(n, at), into), -dot(from(n, at), up)];
            if (over > 0 && behind > 0) press(n, Math.min(over, behind), behind < over ? up : [-into[0], -into[1], -into[2]]);
          }
        }
        return energy;
      };
      const energy = barAndHingeAtRest(row.sheet, nodes, stops);
      const shell = row.opening.shapes[i]!;
      expect(energy / shell.energy).toBeGreaterThan(0.94);
      expect(energy / shell.energy).toBeLessThan(1.06);
      expect(Math.abs(toDegrees(bendOf(nodes, row.sheet).angle - shell.angle))).toBeLessThan(10);
    },
    120_000,
  );

  it('is the same with the coarser cells of a picture, up to three quarters of a right angle', () => {
    const [quick] = quickRows(evaluation.design, evaluation.motion);
    for (const degrees of [15, 45, 66]) {
      const [fine, coarse] = [row.opening, quick!.opening].map(({ shapes }) => shapes[frameAt(degrees)]!);
      expect(coarse!.energy / fine!.energy).toBeGreaterThan(0.94);
      expect(coarse!.energy / fine!.energy).toBeLessThan(1.06);
      expect(Math.abs(toDegrees(coarse!.angle - fine!.angle))).toBeLessThan(10);
    }
    expect(quickRows(evaluation.design, evaluation.motion)[0]).toBe(quick);
  });

  describe('as it is told', () => {
    const stiff: Stock = { ...stockById('card-250'), id: 'stiff', name: 'Board', caliper: 1 };

    it('names openings at which it was found so, and none that did not happen', () => {
      const own = stockById('light-card-160');
      const reading = readBend(row, own, [stiff]);
      const shapeAt = (opening: number, path = row.opening) => path.shapes[row.openings.indexOf(opening)]!;
      expect(shapeAt(reading.muchFrom!).angle).toBeGreaterThan(Math.PI / 2);
      const crease = shapeAt(reading.creasesFrom!);
      expect(crease.angle > toRadians(150) || crease.radius < leastBendRadius(own)).toBe(true);
      expect(reading.most.angle).toBeLessThan(toRadians(150));
      expect(reading.most.radius).toBeGreaterThan(leastBendRadius(own));
      // A board of a millimetre creases at 25 mm, long before light card does.
      const board = reading.stocks.find(({ name }) => name === 'Board')!;
      expect(board.leastRadius).toBeCloseTo(25, 9);
      expect(board.creasesFrom!).toBeLessThan(reading.creasesFrom!);
      expect(shapeAt(board.creasesFrom!).radius).toBeLessThan(25);
      expect(shapeAt(reading.closingCreasesBelow!, row.closing).angle).toBeGreaterThan(toRadians(150));
    });

    it('says it in the maker’s unit, in the order in which it happens', () => {
      const said = bendSentences(row, readBend(row, stockById('light-card-160'), []), 'inch/16');
      expect(said).toHaveLength(4);
      expect(said[0]).toMatch(/^The middle of the carrier bends on the way\..* radius of [\d./ ]+ in,/);
      expect(said[1]).toMatch(/would crease \(Light card, 160 g\)/);
      const [, from, to] = /somewhere between (\d+)° and (\d+)°/.exec(said[2]!)!;
      expect(Number(to) - Number(from)).toBe(30);
      expect(said[3]).toMatch(/lift its middle fold/);
      expect(said.join(' ')).not.toMatch(/\d mm/);
    });
  });

  it('is not worked out where its ends are glued so that it never comes together, and then drawn nowhere on the way', () => {
    const apart = evaluated(cardWith('twist-carrier', { ...SIZES, secondHalf: 'same' }, { depth: 105, length: 150 }));
    expect(bentRows(apart.design, apart.motion)).toEqual([]);
    const drawn = standingPicture(apart, 0.4).facets.map(({ panel }) => panel);
    for (const panel of row.claim.panels) expect(drawn).not.toContain(panel);
    for (const panel of row.claim.held) expect(drawn).toContain(panel);
  });

  it('is in no file and no list of what shows as a stiff panel on the way, and in all of them at both ends', () => {
    const of = (faces: readonly { panel: string }[]): boolean => faces.some(({ panel }) => row.claim.panels.includes(panel));
    const { half, open } = whatShows(evaluation.design, evaluation.motion, evaluation.closed);
    expect([of(half.front), of(open.front)]).toEqual([false, true]);
    const frames = foldFile(evaluation).file_frames;
    const faces = (title: string) => frames.find(({ frame_title }) => frame_title === title)!.faces_vertices.length;
    expect(faces('closed') - faces('half open')).toBe(2);
    expect(faces('as it is put down')).toBe(faces('closed'));
  });

  it('is led evenly from frame to frame for showing', () => {
    const s = 20.5 / 60;
    const nodes = nodesBetween(row.opening, s);
    const [a, b] = [row.opening.shapes[20]!.nodes, row.opening.shapes[21]!.nodes];
    nodes.forEach((x, k) => expect(x).toBeCloseTo((a[k]! + b[k]!) / 2, 9));
    expect(frameBetween(evaluation.motion, s).opening).toBeCloseTo((row.openings[20]! + row.openings[21]!) / 2, 9);
  });
});
