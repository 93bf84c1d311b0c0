import { describe, expect, it } from 'vitest';
import { loopContains, signedArea, type Loop } from '../../plane/outline.js';
import { fitted, SHAPES, shapeNamed } from '../../plane/shapes.js';
import { benchSteps } from '../../plan/bench-steps.js';
import { at, cardWith, evaluated, failing, refused } from '../../testing/evaluated.js';

const deg = Math.PI / 180;
const SIZES = { rayAngle: 45 * deg, wingAngle: 60 * deg, wingLength: 40, crestLength: 55, tabWidth: 8 };
const figureOf = (more: Record<string, string | number> = {}) => evaluated(cardWith('v-fold', { ...SIZES, ...more }));
const outlineOf = (evaluation: ReturnType<typeof figureOf>): Loop =>
  evaluation.sheets.find(({ piece }) => piece.id === 'figure')!.piece.outline;

describe('a V-fold figure of any outline', () => {
  it.each(SHAPES.map(({ id }) => [id]))(
    '%s: is the shape on its crest, and what joins it to its tabs, and nothing past the glue lines',
    (id) => {
      const evaluation = figureOf({ outline: id });
      expect(failing(evaluation)).toEqual([]);
      expect(evaluation.motion.worstMisfit).toBeLessThan(1e-6);
      const outline = outlineOf(evaluation);
      const shape = fitted(shapeNamed(id)!, 55);
      const middle = Math.max(...shape.map(([x]) => x)) / 2;
      const far = [40 * Math.sin(60 * deg), 40 * Math.cos(60 * deg)] as const;
      const joining: Loop = [
        [0, 0],
        [far[0], far[1]],
        [0, 20],
        [-far[0], far[1]],
      ];
      // Point by point, well inside and well outside of every edge: in the shape or the joining, between the glue lines.
      const edges = [...outline.map((p, i) => [p, outline[(i + 1) % outline.length]!] as const)];
      const distanceTo = (x: number, y: number): number =>
        Math.min(
          ...edges.map(([[ax, ay], [bx, by]]) => {
            const [dx, dy] = [bx - ax, by - ay];
            const t = Math.min(1, Math.max(0, ((x - ax) * dx + (y - ay) * dy) / (dx * dx + dy * dy)));
            return Math.hypot(x - ax - t * dx, y - ay - t * dy);
          }),
        );
      let looked = 0;
      for (let x = -60; x <= 60; x += 3.1) {
        for (let y = 1; y <= 60; y += 2.7) {
          const between = Math.atan2(Math.abs(x), y) < 60 * deg;
          // Past the glue lines lie the tabs.
          if (!between || distanceTo(x, y) < 0.3) continue;
          const wanted = loopContains(shape, [x + middle, y]) || loopContains(joining, [x, y]);
          // A shape that falls apart on the crest keeps the part that the glue holds.
          if (wanted !== loopContains(outline, [x, y])) expect([id, x, y, loopContains(outline, [x, y])]).toEqual([id, x, y, wanted]);
          looked++;
        }
      }
      expect(looked).toBeGreaterThan(200);
      for (const [x, y] of outline) expect(Math.atan2(Math.abs(x), y) < 60 * deg + 1e-6 || Math.hypot(x, y) < 41.5).toBe(true);
    },
  );

  it('is cut from a drawing of the maker’s own, and is its mirror image where that is', () => {
    const tower: Loop = [
      [0, 0],
      [4, 0],
      [4, 6],
      [3, 6],
      [3, 9],
      [1, 9],
      [1, 6],
      [0, 6],
    ];
    const card = {
      ...cardWith('v-fold', { ...SIZES, outline: 'own-tower' }),
      outlines: [{ id: 'own-tower', name: 'Tower', points: tower.map(([x, y]) => [x, y] as [number, number]) }],
    };
    const evaluation = evaluated(card);
    expect(failing(evaluation)).toEqual([]);
    const outline = outlineOf(evaluation);
    expect(Math.max(...outline.map(([, y]) => y))).toBeCloseTo(55, 6);
    // Nine high: two of four wide at the top.
    const top = outline.filter(([, y]) => y > 55 - 1e-6).map(([x]) => x);
    expect(Math.max(...top) - Math.min(...top)).toBeCloseTo((2 * 55) / 9, 6);
    for (const [x, y] of outline) expect(outline.some(([u, v]) => Math.hypot(u + x, v - y) < 1e-5)).toBe(true);
    expect(refused(cardWith('v-fold', { ...SIZES, outline: 'own-tower' }))).toMatch(/^Outline/);
  });

  it('keeps the tops that follow from its glue lines as they were: a pointed one is two triangles and its tabs', () => {
    const evaluation = figureOf({ outline: 'pointed' });
    const wings = evaluation.design.panels.filter(({ id }) => /wing/.test(id));
    // ½ · crest · glue line · sin(angle between them), each.
    for (const { area } of wings) expect(Math.abs(signedArea(area.outer))).toBeCloseTo(0.5 * 55 * 40 * Math.sin(60 * deg), 6);
  });
});

describe('tabs through slits', () => {
  it.each(['toward', 'away'])('are glued to the other side of the leaves, the point %s you', (direction) => {
    const plain = figureOf({ direction });
    const slit = figureOf({ direction, tabSide: 'slot' });
    expect(failing(slit)).toEqual([]);
    // It moves just as it does with its tabs inside.
    plain.motion.frames.forEach((frame, i) => {
      const here = at(plain, 'figure/first-wing', [5, 30], frame);
      const there = at(slit, 'figure/first-wing', [5, 30], slit.motion.frames[i]!);
      here.forEach((value, c) => expect(there[c]).toBeCloseTo(value, 6));
    });
    const { stack } = slit.closed;
    const layer = (panel: string): number => stack.order.indexOf(slit.design.linkage.bodyOf.get(panel)!);
    const outside = [...slit.design.panels].filter(({ id }) => /tab$/.test(id));
    expect(outside).toHaveLength(2);
    // Closed, the tabs are the outermost layers: the leaves lie between them.
    const leaves = ['base/back-leaf', 'base/front-leaf'].map(layer);
    for (const { id } of outside) expect(layer(id) < Math.min(...leaves) || layer(id) > Math.max(...leaves)).toBe(true);
    // A slit for each, on its ray, half a millimetre longer at either end than the tab’s crease.
    const cuts = slit.design.pieces.find(({ id }) => id === 'base')!.cuts;
    expect(cuts).toHaveLength(2);
    const creases = slit.design.pieces.find(({ id }) => id === 'figure')!.creases.filter(({ id }) => /ray/.test(id));
    cuts.forEach(({ from, to }, i) => {
      const crease = creases[i]!;
      const length = Math.hypot(crease.to[0] - crease.from[0], crease.to[1] - crease.from[1]);
      expect(Math.hypot(to[0] - from[0], to[1] - from[1])).toBeCloseTo(length + 1, 6);
    });
    expect(benchSteps(slit).some(({ says }) => says.some((words) => /through their slits|through its slit/.test(words)))).toBe(true);
  });
});
