import { describe, expect, it } from 'vitest';
import { dressedBy, dressedOtherwise } from '../card/dress-card.js';
import type { LayerStrips } from '../card/dressing.js';
import { benchSteps } from '../plan/bench-steps.js';
import { intersect, totalArea } from '../plane/boolean.js';
import { areaOf, asArea, boxOf, rectangle, type Area } from '../plane/outline.js';
import { METRIC_WORKSHOP } from '../supplies/starter-workshops.js';
import { cardOn, evaluated } from '../testing/evaluated.js';
import { inStrips } from './strips.js';

/** 100 × 140 mm with a window of 60 × 80 mm, 20 mm from the left and 30 mm from below. */
const frame: Area = { outer: rectangle(0, 0, 100, 140), holes: [[...rectangle(20, 30, 60, 80)].reverse()] };
const boxes = (area: Area, strips: LayerStrips) =>
  inStrips(area, strips).map(({ side, area: strip }) => {
    const { minX, minY, maxX, maxY } = boxOf(strip.outer);
    return [side, minX, minY, maxX, maxY];
  });

describe('a layer in strips', () => {
  it('lies round the window, corners across or along, a gap between neighbours', () => {
    expect(boxes(frame, { corners: 'across', gap: 3 })).toEqual([
      ['left', 0, 33, 20, 107],
      ['right', 80, 33, 100, 107],
      ['bottom', 0, 0, 100, 30],
      ['top', 0, 110, 100, 140],
    ]);
    expect(boxes(frame, { corners: 'along', gap: 3 })).toEqual([
      ['left', 0, 0, 20, 140],
      ['right', 80, 0, 100, 140],
      ['bottom', 23, 0, 77, 30],
      ['top', 23, 110, 77, 140],
    ]);
  });

  it('lies round a bare middle where there is no window, and is one piece where there is no room for one', () => {
    const plain = asArea(rectangle(0, 0, 100, 140));
    expect(boxes(plain, { corners: 'along', gap: 0, wide: 10 })).toEqual([
      ['left', 0, 0, 10, 140],
      ['right', 90, 0, 100, 140],
      ['bottom', 10, 0, 90, 10],
      ['top', 10, 130, 90, 140],
    ]);
    expect(boxes(plain, { corners: 'along', gap: 0, wide: 50 })).toEqual([]);
    expect(boxes(plain, { corners: 'along', gap: 0 })).toEqual([]);
  });

  it('leaves out just the gaps: all of the frame without one, on no place two strips', () => {
    for (const corners of ['across', 'along'] as const) {
      for (const gap of [0, 2, 7]) {
        const strips = inStrips(frame, { corners, gap }).map(({ area }) => area);
        const sum = strips.reduce((all, strip) => all + areaOf(strip), 0);
        // Four gaps, each as long as the strip that ends there is wide: 20 or 30 mm.
        const ends = corners === 'across' ? 4 * 20 * gap : 2 * 30 * gap + 2 * 30 * gap;
        expect(sum).toBeCloseTo(100 * 140 - 60 * 80 - ends, 6);
        strips.forEach((strip, i) =>
          strips.slice(i + 1).forEach((other) => expect(totalArea(intersect([strip], [other]))).toBeCloseTo(0, 6)),
        );
      }
    }
  });

  it('is four pieces with numbers and names of their own, opposite ones cut alike, in one piece again without a trace', () => {
    const dressed = dressedBy(cardOn('folded-card', { depth: 100, length: 140 }), { border: 4, steps: 2 }, METRIC_WORKSHOP);
    const face = { panel: 'base/front-leaf', face: 'down' } as const;
    const cut = dressedOtherwise(dressed, face, { strips: { corners: 'across', gap: 4, wide: 15 } });
    const evaluation = evaluated(cut);
    const own = evaluation.dressed.layers.filter(({ panel, face: side }) => panel === face.panel && side === face.face);
    // The layer is 92 × 132 mm: strips across 92 × 15, those between 132 − 30 − 8 long.
    expect(own.map(({ sheet }) => [sheet.width, sheet.height].map((mm) => Math.round(mm * 1e6) / 1e6).sort((a, b) => a - b))).toEqual([
      [15, 94],
      [15, 94],
      [15, 92],
      [15, 92],
    ]);
    expect(own.map(({ name }) => /(left|right|lower|upper) strip/.exec(name)?.[1])).toEqual(['left', 'right', 'lower', 'upper']);
    expect(own.map(({ twin }) => twin !== undefined)).toEqual([false, true, false, true]);
    expect(new Set(own.map(({ id }) => id)).size).toBe(4);
    const said = benchSteps(evaluation, METRIC_WORKSHOP).flatMap(({ joins = [] }) => joins.map(({ glued }) => glued.piece));
    for (const { id } of own) expect(said).toContain(id);
    expect(dressedOtherwise(cut, face, {})).toEqual(dressed);
  });
});
