import { describe, expect, it } from 'vitest';
import { toDegrees, toRadians } from '../measure/units.js';
import { poseOf } from '../linkage/motion.js';
import { carryDirection, dot, minus } from '../linkage/rigid.js';
import { at, cardOn, evaluated, failing, measure, refused } from '../testing/evaluated.js';

const IN = 25.4;
const HUNG = { windowForm: 'tread' };
const METRIC = { depth: 150, length: 120, riser: 26, tread: 20, upperRiser: 33, lean: toRadians(78), overhang: 15, ...HUNG };
const INCH = {
  depth: 6 * IN,
  length: 4.5 * IN,
  riser: IN,
  tread: 0.75 * IN,
  upperRiser: IN,
  lean: toRadians(70),
  overhang: 0.5 * IN,
  ...HUNG,
};
const SHORT = { depth: 80, length: 60, riser: 14, tread: 9, upperRiser: 12, lean: toRadians(60), overhang: 6, windowInRiser: 5, ...HUNG };

describe('a panel that hangs below the tread of a step easel', () => {
  it.each([METRIC, INCH, SHORT])('%j hangs behind the lower riser, its edge over the table', (sizes) => {
    const card = evaluated(cardOn('step-easel', sizes));
    expect(failing(card)).toEqual([]);
    const { riser, tread, overhang, lean, length } = sizes;
    const pose = poseOf(card.motion, card.resting);
    const bodyOf = (panel: string) => pose[card.design.linkage.bodyOf.get(panel)!]!;
    const outward = carryDirection(bodyOf('base/riser'), 0, 0, 1);
    const [onRiser, lowerEdge] = [at(card, 'base/riser', [0, length / 2], card.resting), at(card, 'panel/panel', [5, 0], card.resting)];
    // The risers lean alike, a level tread apart: the distance of two parallel planes.
    expect(Math.abs(dot(minus(lowerEdge, onRiser), outward))).toBeCloseTo(tread * Math.sin(lean), 5);
    expect(Math.abs(dot(carryDirection(bodyOf('panel/panel'), 0, 0, 1), outward))).toBeCloseTo(1, 9);
    expect(Math.abs(lowerEdge[2] - onRiser[2])).toBeCloseTo((riser - overhang) * Math.sin(lean), 5);
    expect(measure(card, 'hangingGap')).toBeCloseTo(tread * Math.sin(lean), 9);
    expect(measure(card, 'hangingHeight')).toBeCloseTo((riser - overhang) * Math.sin(lean), 9);
    // Folded the working way the tread lies on the upper riser, and the hanging part goes on past its fold.
    const fold = at(card, 'base/near-rail', [riser + tread, 2], card.motion.frames[0]!);
    const closedEdge = at(card, 'panel/panel', [5, 0], card.motion.frames[0]!);
    const slope = sizes.depth - riser - tread - sizes.upperRiser;
    expect(Math.abs(closedEdge[0] - fold[0])).toBeCloseTo(overhang, 6);
    expect(slope - sizes.upperRiser - overhang).toBeGreaterThan(0);
  });

  it('is as high as what it hangs by, the upper riser, and what its window takes of the slope', () => {
    const card = evaluated(cardOn('step-easel', { ...METRIC, windowAbove: 20, panelClearance: 2 }));
    const panel = card.sheets.find(({ piece }) => piece.id === 'panel')!;
    expect([panel.width, panel.height].map((n) => Number(n.toFixed(9)))).toEqual([120 - 2 * 14 - 4, 15 + 33 + 20 - 2]);
  });

  it('leaves only the rails of the tread, joined by both its folds on either side', () => {
    const { design } = evaluated(cardOn('step-easel', METRIC));
    const [x, depth] = [26, 20];
    for (const [id, y] of [
      ['base/tread', [0, 14]],
      ['base/far-tread', [106, 120]],
    ] as const) {
      const rail = design.panels.find((panel) => panel.id === id)!;
      expect(new Set(rail.area.outer.map(([at]) => Number(at.toFixed(6))))).toEqual(new Set([x, x + depth]));
      expect(new Set(rail.area.outer.map(([, at]) => Number(at.toFixed(6))))).toEqual(new Set(y));
      expect(design.linkage.hinges.filter(({ left, right }) => [left, right].includes(design.linkage.bodyOf.get(id)!))).toHaveLength(2);
    }
  });

  it.each(['windowInRiser', 'overhang'])('builds at both ends of what is shown for %s, and past them says why', (size) => {
    // 3 mm of riser left; 3 mm from the table, from the main fold (71 − 33 − 3), or inside the window.
    const [least, most] = size === 'overhang' ? [0, 23] : [2, 23];
    for (const value of [least, most]) {
      const given = { ...METRIC, ...(size === 'overhang' && { windowInRiser: 10 }), [size]: value };
      expect(failing(evaluated(cardOn('step-easel', given)))).toEqual([]);
    }
    expect(refused(cardOn('step-easel', { ...METRIC, windowInRiser: 10, [size]: most + 0.5 }))).toMatch(/3 mm/);
  });

  it('under a short slope unfolds in the hand and stands as well', () => {
    const sizes = { ...METRIC, depth: 125, lean: toRadians(50), overhang: 8 };
    const card = evaluated(cardOn('step-easel', sizes));
    expect(failing(card)).toEqual([]);
    expect(toDegrees(measure(card, 'greatestLean'))).toBeCloseTo(toDegrees(Math.asin((125 - 26 - 20 - 33) / 59)), 6);
  });
});
