import { describe, expect, it } from 'vitest';
import type { CardPart } from '../../card/document.js';
import { placesOf } from '../../card/parts.js';
import type { Evaluation } from '../../evaluate.js';
import type { Frame } from '../../linkage/motion.js';
import { minus, type Vec3 } from '../../linkage/rigid.js';
import { at, evaluated, failing, measure, refused, scoresOf } from '../../testing/evaluated.js';
import { card, distance, LEAF, stepAt } from '../../testing/folded-card-with.js';

const layerAt = (id: string, on: string, sizes: CardPart['sizes'], turned?: true) => ({
  id,
  mechanism: 'floating-layer',
  on,
  sizes,
  ...(turned && { turned }),
});

/** Metric; in inches (1, 1 1/2, 2, 1/2 and a tab of 3/8); as far as the card allows. */
const SETS = [
  { tabWidth: 10, lift: 20, height: 60, width: 80, offset: 30, upperSupport: 45, lowerSupport: 15, supportWidth: 60 },
  { tabWidth: 9.525, lift: 25.4, height: 38.1, width: 50.8, offset: 12.7, upperSupport: 25.4, lowerSupport: 12.7, supportWidth: 12.7 },
  { tabWidth: 8, lift: 10, height: 87, width: 144, offset: 3, upperSupport: 77, lowerSupport: 10, supportWidth: 140 },
];

/** The fold at a height along it, and a millimetre up either leaf from there. */
function axes(evaluation: Evaluation, y: number, frame: Frame): { fold: Vec3; first: Vec3; second: Vec3 } {
  const fold = at(evaluation, 'base/front-leaf', [LEAF, y], frame);
  return {
    fold,
    first: minus(at(evaluation, 'base/front-leaf', [LEAF - 1, y], frame), fold),
    second: minus(at(evaluation, 'base/back-leaf', [LEAF + 1, y], frame), fold),
  };
}

/** So far up the first leaf from the fold, and so far on, parallel to the second. */
const reached = ({ fold, first, second }: ReturnType<typeof axes>, up: number, on: number): Vec3 =>
  fold.map((f, i) => f + up * first[i]! + on * second[i]!) as unknown as Vec3;

describe('a floating layer', () => {
  it.each(SETS)('lifted by $lift stays parallel to its leaf, on supports parallel to the other, through the whole motion', (sizes) => {
    const { tabWidth, lift, height, width, offset, upperSupport, lowerSupport, supportWidth } = sizes;
    const evaluation = evaluated(card(layerAt('layer', 'base/main-fold', sizes)));
    for (const frame of evaluation.motion.frames) {
      for (const end of [0, width]) {
        const side = axes(evaluation, offset + end, frame);
        const onLayer = (up: number): Vec3 => at(evaluation, 'layer/layer', [tabWidth + up, width - end], frame);
        expect(distance(onLayer(0), reached(side, 0, lift))).toBeLessThan(1e-6);
        expect(distance(onLayer(height), reached(side, height, lift))).toBeLessThan(1e-6);
      }
      for (const [support, up] of [
        ['lower', lowerSupport],
        ['upper', upperSupport],
      ] as const) {
        const side = axes(evaluation, offset + (width - supportWidth) / 2, frame);
        const onWall = (x: number): Vec3 => at(evaluation, `layer-${support}/wall`, [x, supportWidth], frame);
        expect(distance(onWall(tabWidth), reached(side, up, 0))).toBeLessThan(1e-6);
        expect(distance(onWall(tabWidth + lift), reached(side, up, lift))).toBeLessThan(1e-6);
      }
    }
    expect(failing(evaluation)).toEqual([]);
  });

  it.each(SETS)('lifted by $lift floats lift × sin of the opening over its leaf', (sizes) => {
    const evaluation = evaluated(card(layerAt('layer', 'base/main-fold', sizes)));
    for (const frame of evaluation.motion.frames) {
      // By Pythagoras: what is left of the lift beside its share along the leaf, lift × cos of the opening.
      const { fold, first } = axes(evaluation, sizes.offset, frame);
      const foot = minus(at(evaluation, 'layer/layer', [sizes.tabWidth, sizes.width], frame), fold);
      const along = foot.reduce((sum, f, i) => sum + f * first[i]!, 0);
      expect(along).toBeCloseTo(sizes.lift * Math.cos(frame.opening), 5);
      const over = Math.sqrt(Math.max(0, foot.reduce((sum, f) => sum + f * f, 0) - along * along));
      expect(over).toBeCloseTo(sizes.lift * Math.abs(Math.sin(frame.opening)), 3);
    }
  });

  it.each(SETS)('lifted by $lift reaches lift and height from the fold when closed, and lies back by the lift when open', (sizes) => {
    const evaluation = evaluated(card(layerAt('layer', 'base/main-fold', sizes)));
    const reach = (frame: Frame): number =>
      distance(
        at(evaluation, 'layer/layer', [sizes.tabWidth + sizes.height, sizes.width], frame),
        at(evaluation, 'base/front-leaf', [LEAF, sizes.offset], frame),
      );
    expect(reach(evaluation.motion.frames[0]!)).toBeCloseTo(sizes.lift + sizes.height, 6);
    expect(reach(evaluation.motion.frames.at(-1)!)).toBeCloseTo(sizes.height - sizes.lift, 6);
    expect(measure(evaluation, 'closedReach')).toBeCloseTo(sizes.lift + sizes.height, 9);
  });

  it('is cut as a layer with its tab and two equal strips, with a line for every fold that is glued', () => {
    const [sizes] = SETS;
    const evaluation = evaluated(card(layerAt('layer', 'base/main-fold', sizes!)));
    expect(scoresOf(evaluation, 'layer')).toEqual([[10, 'mountain']]);
    for (const support of ['layer-lower', 'layer-upper']) {
      const { width, height } = evaluation.sheets.find(({ piece }) => piece.id === support)!;
      expect([width, height]).toEqual([40, 60]);
      expect(scoresOf(evaluation, support)).toEqual([
        [10, 'valley'],
        [30, 'mountain'],
      ]);
    }
    const marks = (piece: string): unknown[] =>
      evaluation.design.pieces.find(({ id }) => id === piece)!.marks.map(({ from, to }) => [from[0], from[1], to[1]]);
    // Up the front leaf is to the left; supports 60 wide stand behind the middle of a layer from 30 to 110.
    expect(marks('base')).toEqual([
      [LEAF - 15, 40, 100],
      [LEAF - 45, 40, 100],
      [LEAF + 20, 30, 110],
    ]);
    expect(marks('layer')).toEqual([
      [25, 10, 70],
      [55, 10, 70],
    ]);
  });

  it('carries another: a tower, whose upper floor stands on the lower one', () => {
    const [lower, upper] = [
      { tabWidth: 10, lift: 20, height: 70, width: 100, offset: 20 },
      { tabWidth: 8, lift: 12, height: 40, width: 60, offset: 25 },
    ];
    const evaluation = evaluated(card(layerAt('low', 'base/main-fold', lower), layerAt('high', 'low/foot-fold', upper)));
    for (const frame of evaluation.motion.frames) {
      // The upper floor is drawn from the lower one’s own end, 20 along the fold.
      const side = axes(evaluation, 20 + 25, frame);
      expect(distance(at(evaluation, 'high/layer', [8 + 40, 60], frame), reached(side, 40, 20 + 12))).toBeLessThan(1e-6);
    }
    expect(failing(evaluation)).toEqual([]);
  });

  it('carries a step in front of its picture', () => {
    const document = card(
      layerAt('layer', 'base/main-fold', { lift: 20, height: 60, width: 100, offset: 20 }),
      stepAt('shelf', 'layer/foot-fold', { cutFrom: 'strip', depth: 15, height: 20, width: 30, offset: 10, tabWidth: 8 }),
    );
    const evaluation = evaluated(document);
    const open = evaluation.motion.frames[30]!;
    const side = axes(evaluation, 20 + 10, open);
    // Its front edge: as far up the layer as it is deep, as far before it as it is high.
    expect(distance(at(evaluation, 'shelf/front', [8 + 20, 0], open), reached(side, 15, 20 + 20))).toBeLessThan(1e-6);
    expect(failing(evaluation)).toEqual([]);
  });

  it('turned round floats before the other leaf', () => {
    const sizes = { tabWidth: 10, lift: 20, height: 60, width: 80, offset: 30 };
    const evaluation = evaluated(card(layerAt('layer', 'base/main-fold', sizes, true)));
    for (const frame of evaluation.motion.frames) {
      // The site runs the other way too: its lower end is the fold’s upper one, 150 up.
      const { fold, first, second } = axes(evaluation, 150 - 30, frame);
      const edge = at(evaluation, 'layer/layer', [10 + 60, 80], frame);
      expect(distance(edge, reached({ fold, first: second, second: first }, 60, 20))).toBeLessThan(1e-6);
    }
  });

  it.each([
    ['too high and too far in front together', { lift: 40, height: 60 }, /^Height:.*3 mm inside the card/],
    ['so near its leaf that the tab has no room', { tabWidth: 10, lift: 11 }, /^Lift:.*tab is hidden behind the layer/],
    ['with its upper support above the layer', { height: 50, upperSupport: 45 }, /^Upper support:/],
    ['with supports that change places', { height: 60, upperSupport: 30, lowerSupport: 32 }, /^Lower support:.*below the upper one/],
    ['with supports wider than itself', { width: 60, supportWidth: 60 }, /^Width of the supports:.*shows beside the layer/],
  ])('%s is refused with the reason', (_, sizes, says) => {
    expect(refused(card(layerAt('layer', 'base/main-fold', sizes)))).toMatch(says);
  });

  it('is offered on valleys only: over a step’s front edge its supports would close inside out', () => {
    const places = placesOf(card(stepAt('box', 'base/main-fold', { depth: 45, height: 45, width: 60, offset: 40 })));
    const told = (site: string): string | undefined =>
      places.find(({ site: known }) => known.id === site)!.takes.find(({ id }) => id === 'floating-layer')!.cannot;
    expect(told('front-edge')).toMatch(/inside out/);
    expect(told('foot-fold')).toBeUndefined();
  });
});
