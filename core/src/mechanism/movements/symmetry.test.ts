import { describe, expect, it } from 'vitest';
import { newCard, ROOT, type CardDocument, type CardPart } from '../../card/document.js';
import type { Evaluation } from '../../evaluate.js';
import { poseOf } from '../../linkage/motion.js';
import { carry, type Vec3 } from '../../linkage/rigid.js';
import { at, evaluated } from '../../testing/evaluated.js';
import { card, distance, LEAF, LENGTH, stepAt } from '../../testing/folded-card-with.js';

describe('on a mirrored host', () => {
  const deg = Math.PI / 180;
  /** How far every corner of a part's panels is from the four corners of the sheet, in one frame. */
  function told(
    evaluation: Evaluation,
    part: string,
    i: number,
    corners: readonly (readonly [string, readonly [number, number]])[],
  ): number[][] {
    const frame = evaluation.motion.frames[i]!;
    const marks = corners.map(([panel, point]) => at(evaluation, panel, point, frame));
    return evaluation.design.panels
      .filter((panel) => panel.part === part)
      .flatMap(({ id, area }) => area.outer.map((point) => marks.map((mark) => distance(at(evaluation, id, point, frame), mark))));
  }
  const CORNERS = [
    ['base/front-leaf', [0, 0]],
    ['base/front-leaf', [0, LENGTH]],
    ['base/back-leaf', [2 * LEAF, 0]],
    ['base/back-leaf', [2 * LEAF, LENGTH]],
  ] as const;
  const OVER_FOLD = [CORNERS[2], CORNERS[3], CORNERS[0], CORNERS[1]];
  const ALONG_FOLD = [CORNERS[1], CORNERS[0], CORNERS[3], CORNERS[2]];
  const vSizes = (first: readonly [number, number], second: readonly [number, number], more: CardPart['sizes'] = {}) => ({
    ...{ rayAngle: first[0] * deg, wingAngle: first[1] * deg, secondRayAngle: second[0] * deg, secondWingAngle: second[1] * deg },
    ...{ apex: 60, wingLength: 40, crestLength: 40, tabWidth: 6 },
    ...more,
  });
  const v = (sizes: CardPart['sizes']) => card({ id: 'part', mechanism: 'v-fold', on: 'base/main-fold', sizes });
  const step = (sizes: CardPart['sizes']) => card(stepAt('part', 'base/main-fold', sizes));

  it.each([
    [
      'a step, the leaves changed over',
      step({ depth: 20, height: 35, width: 40, offset: 30 }),
      step({ depth: 35, height: 20, width: 40, offset: 30 }),
      OVER_FOLD,
    ],
    [
      'a step, the fold’s ends changed over',
      step({ depth: 20, height: 35, width: 40, offset: 30 }),
      step({ depth: 20, height: 35, width: 40, offset: LENGTH - 70 }),
      ALONG_FOLD,
    ],
    [
      'a glued step, the leaves changed over',
      step({ cutFrom: 'strip', depth: 20, height: 35, width: 40, offset: 30, tabWidth: 8 }),
      step({ cutFrom: 'strip', depth: 35, height: 20, width: 40, offset: 30, tabWidth: 8 }),
      OVER_FOLD,
    ],
    ['a lopsided V-fold, the leaves changed over', v(vSizes([45, 60], [50, 65])), v(vSizes([50, 65], [45, 60])), OVER_FOLD],
    [
      'a V-fold, the fold’s ends changed over',
      v(vSizes([45, 60], [45, 60], { direction: 'toward' })),
      v(vSizes([45, 60], [45, 60], { direction: 'away', apex: LENGTH - 60 })),
      ALONG_FOLD,
    ],
  ] as const)('a mirrored part comes out: %s', (_what, one, other, mirrored) => {
    const [a, b] = [evaluated(one), evaluated(other)];
    for (const i of [10, 25, 40, 55]) {
      const unmatched = told(b, 'part', i, mirrored);
      for (const corner of told(a, 'part', i, CORNERS)) {
        const match = unmatched.findIndex((candidate) => candidate.every((far, k) => Math.abs(far - corner[k]!) < 1e-5));
        expect(match, `frame ${i}: ${corner.map((far) => far.toFixed(3)).join(', ')}`).toBeGreaterThanOrEqual(0);
        unmatched.splice(match, 1);
      }
      expect(unmatched).toEqual([]);
    }
  });
});

describe('a card of k times the size', () => {
  const grown = (k: number): CardDocument =>
    newCard({
      id: 'card',
      name: 'card',
      base: { mechanism: 'folded-card', sizes: { depth: 80 * k, length: 90 * k } },
      movements: [
        {
          id: 'box',
          mechanism: 'step',
          on: { part: ROOT, site: 'main-fold' },
          sizes: { depth: 30 * k, height: 25 * k, width: 50 * k, offset: 20 * k },
        },
        {
          id: 'cap',
          mechanism: 'v-fold',
          on: { part: 'box', site: 'front-edge' },
          sizes: {
            ...{ rayAngle: Math.PI / 4, wingAngle: Math.PI / 3, secondRayAngle: Math.PI / 4, secondWingAngle: Math.PI / 3 },
            ...{ apex: 25 * k, wingLength: 18 * k, crestLength: 12 * k, tabWidth: 4 * k },
          },
        },
      ],
    });

  it.each([1.5, 2.5])('moves as the first does, every place k = %s times as far', (k) => {
    const [one, large] = [evaluated(grown(1)), evaluated(grown(k))];
    expect(large.design.panels.map(({ id }) => id)).toEqual(one.design.panels.map(({ id }) => id));
    one.motion.frames.forEach((frame, i) => {
      const [poses, grownPoses] = [poseOf(one.motion, frame), poseOf(large.motion, large.motion.frames[i]!)];
      one.design.panels.forEach(({ id, area }, body) => {
        // Glue tabs keep clear of folds by a fixed length, so only places on folds and leaves are compared: the first corner’s pose.
        const [x, y] = area.outer[0]!;
        const here = carry(poses[body]!, x, y, 0);
        const there = carry(grownPoses[body]!, x * k, y * k, 0);
        expect(distance(there, here.map((v) => v * k) as unknown as Vec3), id).toBeLessThan(1e-5 * k);
      });
    });
  });
});
