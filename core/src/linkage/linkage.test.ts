import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Design } from '../card/join.js';
import { cardWith, designOf } from '../testing/evaluated.js';
import { toRadians } from '../measure/units.js';
import { closeOntoGlue } from './close-onto-glue.js';
import { jacobian, closuresOf, residuals } from './closure.js';
import { rank, solveSymmetric } from './dense.js';
import { emptyPose, foldInPose, poseAt } from './kinematics.js';
import { carry, inverse, multiply, rigidIdentity, rotateAboutFlatLine } from './rigid.js';
import { followMotion } from './motion.js';
import { drivenHinges, targetsAt, type Schedule } from './schedule.js';
import { assemble } from './structure.js';
import { rectangle } from '../plane/outline.js';
import type { Point } from '../plane/point.js';
import { splitPiece } from '../sheet/panels.js';
import { blankPiece } from '../sheet/piece.js';
import { LoopSolver } from './solver.js';
import { unjoinedPanel } from './spanning-tree.js';

const vFoldDesign = (): Design => designOf(cardWith('v-fold'));

describe('rigid motions', () => {
  it('turns about a line and keeps the line still', () => {
    const m = rigidIdentity();
    rotateAboutFlatLine(m, 5, 0, 0, 1, Math.PI / 2);
    expect(carry(m, 5, 3, 0)).toEqual([expect.closeTo(5), expect.closeTo(3), expect.closeTo(0)]);
    expect(carry(m, 0, 3, 0)).toEqual([expect.closeTo(5), expect.closeTo(3), expect.closeTo(5)]);
  });

  it('undoes itself', () => {
    fc.assert(
      fc.property(fc.tuple(...Array.from({ length: 4 }, () => fc.double({ min: -50, max: 50, noNaN: true }))), ([px, py, angle, x]) => {
        const [m, back, both] = [rigidIdentity(), rigidIdentity(), rigidIdentity()];
        rotateAboutFlatLine(m, px!, py!, 0.6, 0.8, angle!);
        inverse(back, m);
        multiply(both, back, m);
        expect(carry(both, x!, 1, 2)).toEqual([expect.closeTo(x!, 8), expect.closeTo(1, 8), expect.closeTo(2, 8)]);
      }),
    );
  });
});

describe('small dense systems', () => {
  it('solves by Cholesky and refuses what is not positive definite', () => {
    const b = Float64Array.of(1, 2);
    expect(solveSymmetric(Float64Array.of(4, 1, 1, 3), b, 2)).toBe(true);
    expect([...b]).toEqual([expect.closeTo(1 / 11), expect.closeTo(7 / 11)]);
    expect(solveSymmetric(Float64Array.of(1, 2, 2, 1), Float64Array.of(1, 1), 2)).toBe(false);
  });

  it('finds the rank', () => {
    expect(rank(Float64Array.of(1, 2, 3, 2, 4, 6), 2, 3)).toBe(1);
    expect(rank(Float64Array.of(1, 0, 0, 1, 1, 1), 3, 2)).toBe(2);
  });
});

describe('closures', () => {
  it('has derivatives that agree with differences', () => {
    const { linkage, schedule } = vFoldDesign();
    const driven = new Set([...drivenHinges(schedule)].map((id) => linkage.hingeIndex.get(id)!));
    const solver = new LoopSolver(linkage, driven);
    const system = closuresOf(linkage, solver.tree, 1);
    const unknowns = Int32Array.from(linkage.hinges.flatMap((_, h) => (driven.has(h) ? [] : [h])));
    const folds = Float64Array.from(linkage.hinges, (_, h) => 0.4 + 0.3 * h);
    const pose = emptyPose(linkage);
    const rows = (at: Float64Array): Float64Array => {
      const out = new Float64Array(system.rows);
      poseAt(pose, linkage, solver.tree, at);
      residuals(out, system, linkage, pose, at);
      return out;
    };
    rows(folds);
    const j = new Float64Array(system.rows * unknowns.length);
    jacobian(j, system, linkage, solver.tree, pose, unknowns);
    unknowns.forEach((h, k) => {
      const step = 1e-6;
      const [up, down] = [folds.slice(), folds.slice()];
      up[h]! += step;
      down[h]! -= step;
      const [a, b] = [rows(up), rows(down)];
      for (let i = 0; i < system.rows; i++) expect(j[i * unknowns.length + k]).toBeCloseTo((a[i]! - b[i]!) / (2 * step), 4);
    });
  });

  it('leaves nothing loose when the drive is held', () => {
    const { linkage, schedule } = vFoldDesign();
    const solver = new LoopSolver(linkage, new Set([...drivenHinges(schedule)].map((id) => linkage.hingeIndex.get(id)!)));
    const folds = Float64Array.from(linkage.hinges, ({ source }) => (source.crease.fold === 'valley' ? 1 : -1));
    for (const [id, fold] of targetsAt(schedule, 0.5)) folds[linkage.hingeIndex.get(id)!] = fold;
    expect(solver.solve(folds)).toBeLessThan(1e-9);
    expect(solver.freedom(folds)).toBe(0);
    const held = new LoopSolver(linkage, new Set());
    expect(held.freedom(folds)).toBe(1);
    expect(foldInPose(solver.pose, linkage, linkage.hingeIndex.get('base/main-fold')!)).toBeCloseTo(Math.PI / 2, 9);
  });

  it('finds the same closed loop from far starts on the same way of folding', () => {
    const { linkage, schedule } = vFoldDesign();
    const solver = new LoopSolver(linkage, new Set([...drivenHinges(schedule)].map((id) => linkage.hingeIndex.get(id)!)));
    const solveFrom = (size: number): Float64Array => {
      const folds = Float64Array.from(linkage.hinges, ({ source }) => (source.crease.fold === 'valley' ? size : -size));
      for (const [id, fold] of targetsAt(schedule, 0.5)) folds[linkage.hingeIndex.get(id)!] = fold;
      solver.solve(folds);
      return folds;
    };
    const [a, b] = [solveFrom(toRadians(60)), solveFrom(toRadians(75))];
    a.forEach((fold, h) => expect(fold).toBeCloseTo(b[h]!, 8));
  });
});

describe('couplings and phases', () => {
  const strip = blankPiece({
    id: 'strip',
    name: 'Strip',
    stock: 'base',
    faceUp: 'up',
    because: '',
    outline: rectangle(0, 0, 30, 10),
    creases: [10, 20].map((x, i) => ({
      id: `fold-${i + 1}`,
      name: 'fold',
      from: [x, 0] as Point,
      to: [x, 10] as Point,
      fold: 'valley' as const,
      closed: Math.PI,
      ease: 0,
    })),
    anchors: [5, 15, 25].map((x, i) => ({ panel: `panel-${i + 1}`, name: 'panel', at: [x, 5] as Point })),
  });
  const { panels, hinges } = splitPiece(strip);
  const couple = {
    id: 'together',
    terms: [
      { hinge: 'strip/fold-1', factor: 1 },
      { hinge: 'strip/fold-2', factor: 2 },
    ],
    constant: toRadians(200),
  };
  const linkage = assemble({ panels, hinges, bonds: [], touches: [], couplings: [couple], ground: 'strip/panel-1', tierOf: () => 0 });
  const schedule: Schedule = {
    phases: [
      { name: 'first', from: 0, to: 0.5, targets: [{ hinge: 'strip/fold-1', start: toRadians(180), end: toRadians(100) }] },
      { name: 'then', from: 0.5, to: 1, targets: [{ hinge: 'strip/fold-1', start: toRadians(100), end: toRadians(90) }] },
    ],
    startAt: 0.5,
    opening: { hinge: 'strip/fold-1', atZero: Math.PI, perFold: -1 },
  };

  it('lead one fold by another, phase after phase', () => {
    const { frames, freedom } = followMotion(linkage, schedule, 41);
    expect(freedom).toBe(0);
    for (const { s, folds } of frames) {
      const led = toRadians(s <= 0.5 ? 180 - 160 * s : 100 - 20 * (s - 0.5));
      expect(folds[linkage.hingeIndex.get('strip/fold-1')!]).toBeCloseTo(led, 12);
      expect(folds[linkage.hingeIndex.get('strip/fold-2')!]).toBeCloseTo((toRadians(200) - led) / 2, 9);
    }
  });

  it('leave the strip loose without the coupling, and say so', () => {
    const loose = assemble({ panels, hinges, bonds: [], touches: [], couplings: [], ground: 'strip/panel-1', tierOf: () => 0 });
    expect(followMotion(loose, schedule, 11).freedom).toBe(1);
  });

  it('name a joint that refers to nothing', () => {
    expect(() =>
      assemble({
        panels,
        hinges,
        bonds: [],
        touches: [{ id: 'rest', panel: 'strip/nowhere', at: [0, 0], on: 'strip/panel-1' }],
        couplings: [],
        ground: 'strip/panel-1',
        tierOf: () => 0,
      }),
    ).toThrow('rest refers to the panel strip/nowhere');
  });
});

describe('closing the card onto glue', () => {
  it('finds the same place as the marks when the part was made as planned', () => {
    const { panels, linkage, base } = vFoldDesign();
    const bonds = linkage.bonds.map(({ source }) => source);
    const input = {
      panels,
      hinges: linkage.hinges.map((h) => h.source),
      touches: [],
      couplings: [],
      ground: base.ground,
      tierOf: () => 0,
    };
    const placed = closeOntoGlue({
      ...input,
      bonds: bonds.map((bond, i) =>
        i === 1 ? { ...bond, placedBy: 'closing' as const, placement: { ...bond.placement, to: [0, 0], turn: 0 } } : bond,
      ),
    });
    const [found, planned] = [placed.bonds[1]!.placement, bonds[1]!.placement];
    expect(found.to).toEqual([expect.closeTo(planned.to[0], 9), expect.closeTo(planned.to[1], 9)]);
    expect(Math.cos(found.turn - planned.turn)).toBeCloseTo(1, 9);
  });
});

describe('a panel that nothing joins', () => {
  it('is found when its glue is left out, and none when all hold', () => {
    const { linkage } = vFoldDesign();
    expect(unjoinedPanel(linkage)).toBeUndefined();
    expect(unjoinedPanel({ ...linkage, bonds: [] })!.piece.id).toBe('figure');
    expect(unjoinedPanel({ ...linkage, bonds: linkage.bonds.slice(1) })).toBeUndefined();
  });
});
