import { describe, expect, it } from 'vitest';
import { closedSizeOf } from '../card/closed-size.js';
import { benchSteps } from '../plan/bench-steps.js';
import { writeCsv } from '../format/csv.js';
import { report } from '../format/report.js';
import { drawingsOf } from '../format/layout.js';
import { writeSvg } from '../format/svg.js';
import { poseOf } from '../linkage/motion.js';
import { carry, norm, minus } from '../linkage/rigid.js';
import { boxOf, loopContains, signedArea, areaOf } from '../plane/outline.js';
import { between } from '../plane/point.js';
import { readsOffRuler } from '../sheet/cut-sheet.js';
import { METRIC_WORKSHOP } from '../supplies/starter-workshops.js';
import { cardOn, evaluated, failing, measure } from '../testing/evaluated.js';
import { CATALOGUE } from './catalogue.js';
import type { Base } from './contract.js';

const BASES = CATALOGUE.filter((mechanism): mechanism is Base => mechanism.kind === 'base');

/** Lengths of the straight lines of a path, moves between lines left out. */
function pathLength(d: string): number {
  let sum = 0;
  let [x, y] = [0, 0];
  for (const [, letter, rest] of d.matchAll(/([MLZ])([^MLZ]*)/g)) {
    if (letter === 'Z') continue;
    const [nx, ny] = rest!.trim().split(/[ ,]+/).map(Number) as [number, number];
    if (letter === 'L') sum += Math.hypot(nx - x, ny - y);
    [x, y] = [nx, ny];
  }
  return sum;
}

describe.each(BASES.map((base) => [base.id, base] as const))('%s as it comes', (id, base) => {
  const evaluation = evaluated(cardOn(id));
  const { design, sheets, motion, closed } = evaluation;

  it('passes every check, and says of itself what a maker needs', () => {
    expect(failing(evaluation)).toEqual([]);
    expect(base.summary).toMatch(/^[A-Z].*\.$/);
    expect(base.gives.length).toBeGreaterThan(0);
    expect(base.mayGoWrong.length).toBeGreaterThan(0);
    for (const size of base.sizes) expect(size.help).toMatch(/[.!]$/);
  });

  it('cuts each blank into panels and windows, no paper lost or won', () => {
    for (const piece of design.pieces) {
      const panels = design.panels.filter((panel) => panel.piece === piece).reduce((sum, panel) => sum + areaOf(panel.area), 0);
      const windows = piece.windows.reduce((sum, window) => sum + Math.abs(signedArea(window.outline)), 0);
      // Cuts have no width; slots and windows do. What is trimmed away with a cut-out is a window.
      expect(panels + windows).toBeGreaterThan(Math.abs(signedArea(piece.outline)) * (1 - 1e-6) - 1e-3);
      expect(panels).toBeLessThanOrEqual(Math.abs(signedArea(piece.outline)) + 1e-3);
    }
  });

  it('has every score on its blank, cut sheets as large as their outlines', () => {
    for (const sheet of sheets) {
      const { minX, minY, maxX, maxY } = boxOf(sheet.outline);
      expect([minX, minY, maxX, maxY]).toEqual([0, 0, sheet.width, sheet.height].map((mm) => expect.closeTo(mm, 6)));
      for (const { from, to } of sheet.scores) {
        for (const [x, y] of [from, to]) {
          expect(x).toBeGreaterThanOrEqual(-1e-6);
          expect(x).toBeLessThanOrEqual(sheet.width + 1e-6);
          expect(y).toBeGreaterThanOrEqual(-1e-6);
          expect(y).toBeLessThanOrEqual(sheet.height + 1e-6);
        }
      }
    }
  });

  it('draws for a cutter exactly the scores there are, where there is paper', () => {
    const drawn = drawingsOf(evaluation, METRIC_WORKSHOP)
      .flatMap((drawing) => [
        ...writeSvg(drawing, 'x', { folds: 'score' }).matchAll(/<g id="[^"]*-score-(?:mountain|valley)"[^>]*>([\s\S]*?)<\/g>/g),
      ])
      .flatMap(([, inside]) => [...inside!.matchAll(/ d="([^"]+)"/g)])
      .reduce((sum, [, d]) => sum + pathLength(d!), 0);
    // Looked at in many places along each score: is there paper on both sides?
    const STEPS = 4000;
    const scored = sheets
      .flatMap((sheet) => sheet.scores.map((score) => ({ sheet, score })))
      .reduce((sum, { sheet, score: { from, to } }) => {
        const length = Math.hypot(to[0] - from[0], to[1] - from[1]);
        const beside = [(1e-2 * (from[1] - to[1])) / length, (1e-2 * (to[0] - from[0])) / length] as const;
        const paper = (x: number, y: number): boolean =>
          loopContains(sheet.outline, [x, y]) && !sheet.windows.some(({ outline }) => loopContains(outline, [x, y]));
        let there = 0;
        for (let i = 0; i < STEPS; i++) {
          const [x, y] = between(from, to, (i + 0.5) / STEPS);
          if (paper(x + beside[0], y + beside[1]) && paper(x - beside[0], y - beside[1])) there++;
        }
        return sum + (length * there) / STEPS;
      }, 0);
    expect(Math.abs(drawn - scored)).toBeLessThan(0.2);
  });

  it('keeps both sides of every crease together in the whole motion', () => {
    for (const frame of motion.frames) {
      const pose = poseOf(motion, frame);
      for (const { left, right, source } of design.linkage.hinges) {
        for (const [x, y] of [source.from, source.to])
          expect(norm(minus(carry(pose[left]!, x, y, 0), carry(pose[right]!, x, y, 0)))).toBeLessThan(1e-6);
      }
    }
  });

  it('is closed as large as is said, and lies flat', () => {
    const pose = poseOf(motion, motion.frames[0]!);
    const corners = design.panels.flatMap((panel, body) => panel.area.outer.map(([x, y]) => carry(pose[body]!, x, y, 0)));
    const [xs, ys, zs] = [0, 1, 2].map((axis) => corners.map((corner) => corner[axis]!));
    expect(Math.max(...zs!) - Math.min(...zs!)).toBeLessThan(1e-6);
    expect(closed.box.maxX - closed.box.minX).toBeGreaterThanOrEqual(Math.max(...xs!) - Math.min(...xs!) - 1e-6);
    expect(closed.box.maxY - closed.box.minY).toBeGreaterThanOrEqual(Math.max(...ys!) - Math.min(...ys!) - 1e-6);
    const size = closedSizeOf(evaluation);
    expect([size.depth, size.length].every((mm) => mm > 0)).toBe(true);
  });

  it('tells the height it stands at as the highest corner above the lowest', () => {
    const { up } = design.base.rest;
    const pose = poseOf(motion, evaluation.resting);
    const heights = design.panels.flatMap((panel, body) =>
      panel.area.outer.map(([x, y]) => {
        const [X, Y, Z] = carry(pose[body]!, x, y, 0);
        return X * up[0] + Y * up[1] + Z * up[2];
      }),
    );
    expect(evaluation.openHeight).toBeCloseTo(Math.max(...heights) - Math.min(...heights), 4);
  });

  it('reads every upright score off the board once, at its own place or mirrored', () => {
    const read = benchSteps(evaluation).flatMap((step) => step.readings);
    for (const sheet of sheets) {
      for (const score of sheet.scores.filter(readsOffRuler)) {
        const readings = read.filter(({ piece, kind, line }) => piece === sheet.piece.id && kind === 'score' && line === score.id);
        expect(readings).toHaveLength(1);
        const { edge, at } = readings[0]!;
        expect(edge === 'left edge' ? at : sheet.width - at).toBeCloseTo(score.from[0], 6);
      }
    }
  });

  it('gives the same numbers as a report, as a table and one by one', () => {
    const written = JSON.parse(JSON.stringify(report(evaluation))) as { measures: { name: string; value: number }[] };
    const names = evaluation.measures.map(({ name }) => name);
    expect(new Set(names).size).toBe(names.length);
    expect(written.measures.map(({ name }) => name)).toEqual(names);
    const table = writeCsv(evaluation, 'point');
    for (const { name, label } of evaluation.measures) {
      expect(Number.isFinite(measure(evaluation, name))).toBe(true);
      expect(table).toContain(label);
    }
  });
});
