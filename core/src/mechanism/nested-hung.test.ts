import { describe, expect, it } from 'vitest';
import { toRadians } from '../measure/units.js';
import { liftsOf } from '../linkage/lifts.js';
import type { SizeItem } from './sizes.js';
import { boxOf } from '../plane/outline.js';
import { at, cardOn, evaluated, failing, finding, measure, refused, tracked, stockById } from '../testing/evaluated.js';

const IN = 25.4;
const METRIC = { outline: 'rectangle', size: 150, chord: 20, stopDistance: 40, set: [{ size: 84, chord: 10, lean: toRadians(68) }] };
const INCH = {
  outline: 'circle',
  size: 6 * IN,
  chord: IN,
  stopDistance: 1.75 * IN,
  set: [{ size: 3 * IN, chord: 0.5 * IN, lean: toRadians(72) }],
};
const SMALL = { outline: 'arch', size: 70, chord: 8, stopDistance: 22, set: [{ size: 40, chord: 4, lean: toRadians(65) }], nestFoam: 1 };
const THREE = {
  outline: 'arch',
  size: 240,
  chord: 30,
  stopDistance: 60,
  set: [
    { size: 140, chord: 15, lean: toRadians(75) },
    { size: 80, chord: 8, lean: toRadians(65) },
  ],
};
type Sizes = typeof METRIC;

/** Fold over the foot, and how the easel leans: the first leans as far as its stop says, an isosceles triangle. */
const easelsOf = ({ size, chord, stopDistance, set }: Sizes): { high: number; lean: number }[] => [
  { high: size - chord, lean: Math.acos(stopDistance / (size - chord)) },
  ...set.map((one) => ({ high: one.size - one.chord, lean: one.lean })),
];
const named = (id: string, k: number): string => (k === 0 ? id : `${id}-${k + 1}`);

describe('hung shapes nested in one another', () => {
  it.each([METRIC, INCH, SMALL])('%j stand each on the base of the one before, at the lean that is wished', (sizes) => {
    const card = evaluated(cardOn('easel-shape', sizes));
    expect(failing(card).map(({ says }) => says)).toEqual([]);
    expect(card.motion.closedFlat.holds).toBe(true);
    expect(card.motion.freedom).toBe(0);
    const caliper = (role: 'base' | 'display') => stockById(card.design.card.stocks[role]).caliper;
    const foam = card.sheets.find(({ piece }) => piece.id === 'foam-2')!.piece.thickness!;
    const foot = caliper('base') + caliper('display');
    easelsOf(sizes).forEach(({ high, lean }, k) => {
      expect(tracked(card, k === 0 ? 'lean' : `lean${k + 1}`, card.resting)).toBeCloseTo(lean, 6);
      const middle = boxOf(card.sheets.find(({ piece }) => piece.id === named('base', k))!.piece.outline).maxY / 2;
      const fold = at(card, `${named('base', k)}/base`, [high, middle], card.resting);
      const standing = at(card, `${named('cover', k)}/cover`, [middle, 0], card.resting);
      // Strut and foot part are half the fold's height each: the foot stands at high · cos(lean) from the fold.
      expect(standing[0] - fold[0]).toBeCloseTo(high * Math.cos(lean), 5);
      if (k === 0) return;
      // What is raised at `foam` touches the front face of a foot that stands against the foam.
      const before = easelsOf(sizes)[k - 1]!;
      const short = (foam - foot * Math.cos(before.lean)) / Math.tan(before.lean);
      expect(measure(card, `foamShort${k + 1}`)).toBeCloseTo(short, 9);
      const foldBefore = at(card, `${named('base', k - 1)}/base`, [before.high, middle], card.resting);
      expect(fold[0] - foldBefore[0]).toBeCloseTo(before.high * Math.cos(before.lean) - short, 5);
      expect(measure(card, `nestedFold${k + 1}`)).toBeCloseTo(fold[0] - foldBefore[0], 5);
      const foamPiece = card.sheets.find(({ piece }) => piece.id === `foam-${k + 1}`)!;
      const begins = Math.min(...foamPiece.piece.outline.map((p) => at(card, `foam-${k + 1}/foam`, p, card.resting)[0]));
      expect(begins - fold[0]).toBeCloseTo(short, 5);
    });
  });

  it('stands its feet on the table all the way, and each closes onto its own base', () => {
    const card = evaluated(cardOn('easel-shape', THREE));
    for (const frame of card.motion.frames) {
      easelsOf(THREE).forEach((_, k) => {
        const middle = boxOf(card.sheets.find(({ piece }) => piece.id === named('cover', k))!.outline).maxX / 2;
        expect(at(card, `${named('cover', k)}/cover`, [middle, 0], frame)[2]).toBeCloseTo(0, 5);
      });
    }
    easelsOf(THREE).forEach(({ high }, k) => {
      const fold = at(card, `${named('base', k)}/base`, [high, 20], card.motion.frames[0]!);
      const middle = boxOf(card.sheets.find(({ piece }) => piece.id === named('cover', k))!.outline).maxX / 2;
      expect(at(card, `${named('cover', k)}/cover`, [middle, 0], card.motion.frames[0]!)[0] - fold[0]).toBeCloseTo(high, 6);
    });
  });

  it('takes layers from the next outlines of an uneven set, the same border on both sides', () => {
    const set: SizeItem[] = [{ size: 84, chord: 10 }, { size: 70 }, { size: 33, outline: 'circle' }];
    const card = evaluated(cardOn('easel-shape', { ...METRIC, set, standing: 2, coverLayers: 2 }));
    const heights = (id: string) => Number(card.sheets.find(({ piece }) => piece.id === id)!.height.toFixed(6));
    expect(['cover', 'cover-1-layer-1', 'cover-1-layer-2', 'cover-2', 'cover-2-layer-1', 'cover-2-layer-2'].map(heights)).toEqual([
      150, 84, 70, 84, 70, 33,
    ]);
    const frame = card.motion.frames[0]!;
    const middleOf = (id: string) => {
      const sheet = card.sheets.find(({ piece }) => piece.id === id)!;
      const { minX, maxX, minY, maxY } = boxOf(sheet.piece.outline);
      const panel = id.includes('layer') ? 'layer' : 'cover';
      return at(card, `${id}/${panel}`, [(minX + maxX) / 2, (minY + maxY) / 2], frame);
    };
    for (const k of [1, 2]) {
      const cover = middleOf(k === 1 ? 'cover' : 'cover-2');
      for (const layer of [1, 2]) {
        const own = middleOf(`cover-${k}-layer-${layer}`);
        expect(Math.hypot(own[0] - cover[0], own[1] - cover[1])).toBeLessThan(1e-6);
      }
    }
    // Every outline is told with what it is cut for.
    const told = (k: number) => card.measures.find(({ name }) => name === `outline${k}`)!;
    expect(told(3).because).toBe('cut for a layer of easel 2, a layer of easel 1');
    expect(told(4).because).toBe('cut for a layer of easel 2');
  });

  it('says when a set is too small, when foam is too thin for a foot, and when an outline is no smaller', () => {
    expect(refused(cardOn('easel-shape', { ...METRIC, coverLayers: 1 }))).toMatch(/Layers on each cover: 1 .*the set has 2.*add outlines/);
    expect(refused(cardOn('easel-shape', { ...METRIC, nestFoam: 0.3 }))).toMatch(/Foam under each nested easel.*raised edge/);
    expect(refused(cardOn('easel-shape', { ...METRIC, set: [{ size: 150 }] }))).toMatch(
      /Outline of the set 1.*smaller than the one before/,
    );
  });

  it('fills in what is left out of a set, each outline after the one before it', () => {
    const { sheets } = evaluated(cardOn('easel-shape', { ...METRIC, set: [{}, {}, {}], standing: 1 }));
    expect(sheets.map(({ piece }) => piece.id)).toEqual(['base', 'cover', 'stop']);
    const { measures } = evaluated(cardOn('easel-shape', { ...METRIC, set: [{}, {}, {}], standing: 1, coverLayers: 2 }));
    // 0.72 of the one before, on whole millimetres: 150, 108, 78, 56.
    expect([1, 2, 3, 4].map((k) => measures.find(({ name }) => name === `outline${k}`)!.value)).toEqual([150, 108, 78, 56]);
  });

  it('leans at both ends of what is shown', () => {
    for (const lean of [toRadians(20), toRadians(85)]) {
      const card = evaluated(cardOn('easel-shape', { ...METRIC, set: [{ size: 84, chord: 10, lean }] }));
      expect(tracked(card, 'lean2', card.resting)).toBeCloseTo(lean, 6);
    }
  });

  it('says that an edge with a deep notch lets the strut into the display before it', () => {
    const notched = { outline: 'heart', size: 150, chord: 40, stopDistance: 35, set: [{ size: 84, chord: 8 }] };
    const card = evaluated(cardOn('easel-shape', notched));
    expect(finding(card, 'clears').says).toMatch(/run into each other/);
    const whole = evaluated(cardOn('easel-shape', { ...notched, set: [{ size: 84 }] }));
    expect(failing(whole).map(({ id }) => id)).toEqual([]);
  });

  it('knows what foam lifts: all that stands on it, and nothing else', () => {
    const { linkage, panels } = evaluated(cardOn('easel-shape', THREE)).design;
    const lifts = liftsOf(linkage);
    const told = lifts.map(({ bodies, on, by }) => [
      panels[on]!.piece.id,
      by,
      [...new Set(bodies.map((body) => panels[body]!.piece.id))].sort(),
    ]);
    expect(told).toEqual([
      ['foam-2', 2, ['base-2', 'base-3', 'cover-2', 'cover-3', 'foam-3', 'stop']],
      ['foam-3', 2, ['base-3', 'cover-3', 'stop']],
    ]);
  });
});
