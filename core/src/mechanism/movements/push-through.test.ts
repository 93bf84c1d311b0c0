import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { newCard, type CardDocument, type CardPart } from '../../card/document.js';
import { placesOf } from '../../card/parts.js';
import { evaluate, type Evaluation } from '../../evaluate.js';
import type { Frame } from '../../linkage/motion.js';
import { dot, minus, type Vec3 } from '../../linkage/rigid.js';
import { boxOf, loopContains } from '../../plane/outline.js';
import { distance as far, type Point } from '../../plane/point.js';
import { SHAPE_OPTIONS } from '../../plane/shapes.js';
import { linesOf } from '../../sheet/cut-lines.js';
import { halfTemplate } from '../../sheet/half-template.js';
import { at, evaluated, failing, measure, refused } from '../../testing/evaluated.js';
import { card, distance, LEAF, LENGTH, stepAt } from '../../testing/folded-card-with.js';

const shapeOn = (on: string, sizes: CardPart['sizes']): CardDocument => card({ id: 'shape', mechanism: 'push-through', on, sizes });
const shape = (sizes: CardPart['sizes']): CardDocument => shapeOn('base/main-fold', sizes);

/** A circle of radius 35 about the middle of the fold, in mm; 2 1/2 in with a core of its own; as far forward as the card allows. */
const SETS = [
  {
    outline: 'circle',
    size: 70,
    offset: 40,
    bridgeAt: 20,
    bridgeLength: 30,
    core: 'border',
    coreBorder: 12,
    coreBridgeAt: 8,
    coreBridgeLength: 12,
  },
  {
    ...{ outline: 'heart', size: 63.5, offset: 25.4, bridgeAt: 12.7, bridgeLength: 12.7 },
    ...{ core: 'outline', coreOutline: 'circle', coreSize: 19.05, coreBridgeAt: 6.35, coreBridgeLength: 6.35 },
  },
  {
    outline: 'rectangle',
    size: 144,
    offset: 3,
    bridgeAt: 48.5,
    bridgeLength: 144,
    core: 'border',
    coreBorder: 3,
    coreBridgeAt: 45.5,
    coreBridgeLength: 100,
  },
] as const;

/** How far a point of the ring or the core on its fold is from the card’s fold at the same height. */
function stands(evaluation: Evaluation, panel: string, y: number, frame: Frame): number {
  return distance(at(evaluation, panel, [LEAF, y], frame), at(evaluation, 'base/front-leaf', [LEAF, y], frame));
}

/** Where the fold is still there beside a shape: y of the ring’s and the core’s ends, by the pieces’ own creases. */
function foldEnds(evaluation: Evaluation, crease: string): Point[] {
  const found = evaluation.design.pieces.flatMap(({ creases }) => creases).find(({ id }) => id === crease)!;
  return [found.from, found.to] as Point[];
}

describe('a shape that is pushed through', () => {
  it.each(SETS)('$outline: its ring stands 2 x1 cos(φ/2) before the fold, its core 2 (x1 − x2) cos(φ/2), all the way', (sizes) => {
    const evaluation = evaluated(shape(sizes));
    const [ringEnd] = foldEnds(evaluation, 'shape-ring-upper-fold');
    const [coreEnd] = foldEnds(evaluation, 'shape-core-fold');
    for (const frame of evaluation.motion.frames) {
      const cos = Math.cos(frame.opening / 2);
      expect(stands(evaluation, 'base/shape-ring-second', ringEnd![1], frame)).toBeCloseTo(2 * sizes.bridgeAt * cos, 6);
      expect(stands(evaluation, 'base/shape-core-first', coreEnd![1], frame)).toBeCloseTo(
        2 * (sizes.bridgeAt - sizes.coreBridgeAt) * cos,
        6,
      );
    }
    expect(failing(evaluation)).toEqual([]);
  });

  it.each(SETS)('$outline: ring and leaves are a rhombus, core and ring another: half of each is parallel to the leaf across', (sizes) => {
    const evaluation = evaluated(shape(sizes));
    const along = (panel: string, side: number, frame: Frame): Vec3 =>
      minus(at(evaluation, panel, [LEAF + side, 60], frame), at(evaluation, panel, [LEAF, 60], frame));
    for (const frame of evaluation.motion.frames) {
      // From its own fold the first half of the ring runs back to its bridge, as the second leaf runs on from the fold.
      expect(dot(along('base/shape-ring-first', -1, frame), along('base/back-leaf', 1, frame))).toBeCloseTo(-1, 6);
      expect(dot(along('base/shape-core-first', -1, frame), along('base/front-leaf', -1, frame))).toBeCloseTo(1, 6);
    }
  });

  it.each([0.1, -0.1])('with bridges slanted by %f leans from the fold as a V-fold of such angles does', (slant) => {
    const sizes = { outline: 'circle', size: 60, offset: 45, bridgeAt: 18, bridgeLength: 20, core: 'none', slant };
    const evaluation = evaluated(shape(sizes));
    const [low, high] = foldEnds(evaluation, 'shape-ring-fold');
    for (const frame of evaluation.motion.frames.slice(1, -1)) {
      const ring = minus(at(evaluation, 'base/shape-ring-first', high!, frame), at(evaluation, 'base/shape-ring-first', low!, frame));
      const fold = minus(at(evaluation, 'base/front-leaf', high!, frame), at(evaluation, 'base/front-leaf', low!, frame));
      const lean = Math.acos(Math.min(1, dot(ring, fold) / (Math.hypot(...ring) * Math.hypot(...fold))));
      expect(Math.tan(lean / 2)).toBeCloseTo(Math.tan(Math.abs(slant)) * Math.cos(frame.opening / 2), 5);
    }
    expect(failing(evaluation)).toEqual([]);
    expect(measure(evaluation, 'slanted')).toBe(slant);
  });

  it('closed reaches twice as far as its bridges; leaning ones reach further', () => {
    const straight = { outline: 'circle', size: 60, offset: 45, bridgeAt: 18, core: 'none' };
    const evaluation = evaluated(shape(straight));
    const ring = evaluation.design.panels.filter(({ id }) => id.includes('ring'));
    const farthest = (of: Evaluation): number =>
      Math.max(
        ...of.design.panels
          .filter(({ id }) => id.includes('ring'))
          .flatMap(({ id, area }) =>
            area.outer.map((p) => {
              const [closed] = of.motion.frames;
              const foot = at(of, id, p, closed!);
              const fold = at(of, 'base/front-leaf', [LEAF, 0], closed!);
              const across = minus(at(of, 'base/front-leaf', [LEAF - 1, 0], closed!), fold);
              return dot(minus(foot, fold), across);
            }),
          ),
      );
    expect(ring).toHaveLength(2);
    expect(farthest(evaluation)).toBeCloseTo(36, 6);
    expect(measure(evaluation, 'closedReach')).toBeCloseTo(36, 6);
    const leaning = evaluated(shape({ ...straight, slant: 0.15 }));
    expect(measure(leaning, 'closedReach')).toBeCloseTo(farthest(leaning), 5);
    expect(measure(leaning, 'closedReach')).toBeGreaterThan(36.5);
  });

  it('is cut along its outline and, beside the bridges, along the lines that they lie on: mirrored, and nowhere else', () => {
    const evaluation = evaluated(shape(SETS[0]));
    const [sheet] = evaluation.sheets;
    const lines = linesOf(sheet!.cuts);
    expect(lines).toHaveLength(4);
    const [middle, radius] = [[LEAF, 75] as Point, { ring: 35, core: 23 }];
    for (const { line, points } of lines) {
      const [r, bridge, reach] = line.includes('ring') ? [radius.ring, 20, 15] : [radius.core, 8, 6];
      // Each runs over the fold, from the end of one bridge to the end of the other.
      expect(points[0]![0]).toBeCloseTo(LEAF - bridge, 6);
      expect(points.at(-1)![0]).toBeCloseTo(LEAF + bridge, 6);
      for (const end of [points[0]!, points.at(-1)!]) expect(Math.abs(end[1] - 75)).toBeCloseTo(reach, 6);
      for (const point of points) {
        const onLine = Math.abs(Math.abs(point[0] - LEAF) - bridge) < 1e-6;
        // The circle is drawn with 72 corners: between them it is flatter by up to r (1 − cos 2.5°), its border by as much more.
        if (!onLine) expect(Math.abs(far(point, middle) - r)).toBeLessThan(0.05);
        expect(Math.abs(point[0] - LEAF)).toBeLessThan(bridge + 1e-6);
      }
    }
    const bridges = sheet!.scores.filter(({ id }) => id.endsWith('bridge')).map(({ id, from, to }) => [id, from[0], far(from, to)]);
    expect(bridges).toEqual([
      ['shape-ring-first-bridge', 80, expect.closeTo(30, 6)],
      ['shape-core-first-bridge', 92, expect.closeTo(12, 6)],
      ['shape-core-second-bridge', 108, expect.closeTo(12, 6)],
      ['shape-ring-second-bridge', 120, expect.closeTo(30, 6)],
    ]);
  });

  it('is half a template from the fold: what is cut on one side of it, as far from its straight edge', () => {
    const [sheet] = evaluated(shape(SETS[0])).sheets;
    const half = halfTemplate(sheet!)!;
    expect(boxOf(half.outline)).toMatchObject({ minX: 0, maxX: LEAF, minY: 0, maxY: LENGTH });
    const xs = half.cuts.flatMap(({ from, to }) => [from[0], to[0]]);
    expect([Math.min(...xs), Math.max(...xs)]).toEqual([0, expect.closeTo(20, 6)]);
    // A plain card has none: nobody cuts it from the fold.
    expect(halfTemplate(evaluated(card()).sheets[0]!)).toBeUndefined();
  });

  it('ends the fold where the outline crosses it, not where it is highest', () => {
    // A heart is notched at the fold and higher beside it.
    const evaluation = evaluated(shape({ outline: 'heart', size: 60, offset: 45, bridgeAt: 14, core: 'none' }));
    const host = evaluation.design.pieces[0]!.creases.filter(({ id }) => id.startsWith('main-fold')).map(({ from, to }) => [
      from[1],
      to[1],
    ]);
    const [low, high] = foldEnds(evaluation, 'shape-ring-fold');
    expect(host).toEqual([
      [0, low![1]],
      [high![1], LENGTH],
    ]);
    expect(high![1]).toBeLessThan(105 - 2);
  });

  it.each(SHAPE_OPTIONS.map(({ value }) => value))('%s closes flat and moves, with the sizes it begins with', (outline) => {
    const evaluation = evaluated(shape({ outline }));
    expect(failing(evaluation)).toEqual([]);
    expect(evaluation.motion.freedom).toBe(0);
  });

  it('takes any outline that a card brings: it is built with nothing loose, or refused in a sentence', () => {
    const points = fc
      .array(fc.tuple(fc.double({ min: 5, max: 100, noNaN: true }), fc.double({ min: 0.4, max: 1.6, noNaN: true })), {
        minLength: 3,
        maxLength: 14,
      })
      .map((corners) =>
        corners.map(([r, wide], i): [number, number] => {
          const around = (i / corners.length) * 2 * Math.PI;
          return [100 + wide * r * Math.cos(around), 100 + r * Math.sin(around)];
        }),
      );
    const sizes = fc.record(
      {
        size: fc.double({ min: 20, max: 120, noNaN: true }),
        bridgeAt: fc.double({ min: 8, max: 48, noNaN: true }),
        slant: fc.double({ min: -0.3, max: 0.3, noNaN: true }),
        core: fc.constantFrom('none', 'border', 'outline'),
        coreOutline: fc.constantFrom('own-any', 'star'),
      },
      { requiredKeys: [] },
    );
    fc.assert(
      fc.property(points, sizes, (outline, given) => {
        const document = { ...shape({ outline: 'own-any', ...given }), outlines: [{ id: 'own-any', name: 'any', points: outline }] };
        const outcome = evaluate(document);
        if (!outcome.ok) return outcome.problems.every(({ says }) => /\.$/.test(says));
        return outcome.evaluation.motion.freedom === 0 && failing(outcome.evaluation).every(({ id }) => !id.startsWith('closes-loop'));
      }),
      { seed: 12, numRuns: 60 },
    );
  });

  it('with a bridge end 2 mm off its line misfits on the way, is told so at the root, and mended', () => {
    const sizes = { outline: 'circle', size: 70, offset: 40, bridgeAt: 20, bridgeLength: 30, core: 'none' };
    const evaluation = evaluated(shape({ ...sizes, bridgeEndOff: 2 }));
    const root = failing(evaluation).find(({ followsFrom }) => !followsFrom)!;
    expect(root).toMatchObject({ id: 'agrees/shape-bridge-end', value: expect.closeTo(2, 9), owner: 'shape' });
    expect(root.panels).toEqual(['base/shape-ring-first', 'base/shape-ring-second']);
    expect(evaluation.motion.worstMisfit).toBeGreaterThan(0.3);
    // Half as far off is about half as bad: nothing jumps.
    const half = evaluated(shape({ ...sizes, bridgeEndOff: 1 }));
    expect(half.motion.worstMisfit / evaluation.motion.worstMisfit).toBeGreaterThan(0.35);
    expect(half.motion.worstMisfit / evaluation.motion.worstMisfit).toBeLessThan(0.65);
    const [change] = root.fix!.changes;
    expect(failing(evaluated(shape({ ...sizes, [change!.size]: change!.value })))).toEqual([]);
  });

  it('on a liner keeps glue off its back, from all that moves and 2 mm round it; the blank stays as long as without it', () => {
    const base = { mechanism: 'folded-card', sizes: { depth: 105, length: 150, liner: 'one-piece' } };
    const on = { part: 'base', site: 'liner-liner-fold' };
    const lined = (movements: CardPart[]): Evaluation => evaluated(newCard({ id: 'c', name: 'c', base, movements: movements as never }));
    const evaluation = lined([{ id: 'shape', mechanism: 'push-through', on, sizes: { outline: 'circle', size: 60 } }]);
    const liner = evaluation.design.pieces.find(({ id }) => id === 'liner')!;
    const cut = liner.cuts.flatMap(({ from, to }) => [from, to]);
    const glue = liner.zones.filter(({ kind }) => kind === 'glue');
    expect(glue).toHaveLength(2);
    for (const { outline } of glue) {
      expect(cut.some((point) => loopContains(outline, point))).toBe(false);
      // It still covers the rest of its half, about 97 × 138 mm of it.
      const { minX, maxX, minY, maxY } = boxOf(outline);
      expect([maxX - minX, maxY - minY]).toEqual([expect.closeTo(97, 6), expect.closeTo(138, 6)]);
    }
    expect(failing(evaluation)).toEqual([]);
    // The fold’s allowance for thickness counts once, however many stretches are left of the fold.
    const widths = [lined([]), evaluation].map(({ sheets }) => sheets.find(({ piece }) => piece.id === 'liner')!.width);
    expect(widths[1]).toBeCloseTo(widths[0]!, 9);
  });

  it('carries a V-fold on its ring, and another shape on its core', () => {
    const outer = { outline: 'circle', size: 120, offset: 15, bridgeAt: 40, coreBorder: 15, coreBridgeAt: 20 };
    const evaluation = evaluated(
      card(
        { id: 'shape', mechanism: 'push-through', on: 'base/main-fold', sizes: outer },
        { id: 'inner', mechanism: 'push-through', on: 'shape/core-fold', sizes: { size: 40, core: 'none', bridgeAt: 8 } },
      ),
    );
    const [inner] = foldEnds(evaluation, 'inner-ring-fold');
    for (const frame of evaluation.motion.frames) {
      // The core goes back to 2 (40 − 20) cos(φ/2), what stands on it comes forward again by 2 · 8 cos(φ/2).
      expect(stands(evaluation, 'base/inner-ring-first', inner![1], frame)).toBeCloseTo(2 * (40 - 20 + 8) * Math.cos(frame.opening / 2), 5);
    }
    expect(failing(evaluation)).toEqual([]);
  });

  it.each([
    ['bridges so far out that it shows past the closed card', { bridgeAt: 49 }, /^Bridges from the fold:.*3 mm inside the card/],
    [
      'a bridge longer than the outline is there',
      { outline: 'circle', size: 60, bridgeAt: 20, bridgeLength: 50 },
      /^Length of a bridge:.*ends outside/,
    ],
    ['core bridges beyond those of the ring', { bridgeAt: 20, coreBridgeAt: 18 }, /^Bridges of the core from the fold:.*3 mm nearer/],
    ['a border that leaves no core', { size: 60, coreBorder: 28 }, /^Border of the ring:/],
    ['past the end of the fold', { size: 60, offset: 100 }, /^From the lower end/],
    ['bridges that slant into the fold', { bridgeAt: 12, slant: 0.4 }, /^Slant of the bridges:/],
  ])('%s is refused with the reason', (_, sizes, says) => {
    expect(refused(shape(sizes))).toMatch(says);
  });

  it('stands in one sheet only, and in valleys', () => {
    const places = placesOf(
      card(stepAt('box', 'base/main-fold', { cutFrom: 'strip', depth: 45, height: 45, width: 60, offset: 40, tabWidth: 8 })),
    );
    const told = (site: string): string | undefined =>
      places.find(({ site: known }) => known.id === site)!.takes.find(({ id }) => id === 'push-through')!.cannot;
    expect(told('back-fold')).toMatch(/separate pieces/);
    expect(told('front-edge')).toMatch(/ridge/);
    expect(told('main-fold')).toBeUndefined();
  });
});
