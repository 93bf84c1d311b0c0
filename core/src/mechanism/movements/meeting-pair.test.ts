import { describe, expect, it } from 'vitest';
import type { CardPart } from '../../card/document.js';
import type { Evaluation } from '../../evaluate.js';
import type { Frame } from '../../linkage/motion.js';
import { cross, dot, minus, norm, type Vec3 } from '../../linkage/rigid.js';
import { benchSteps } from '../../plan/bench-steps.js';
import { at, evaluated, failing, finding, measure, refused } from '../../testing/evaluated.js';
import { card, LEAF, stepAt } from '../../testing/folded-card-with.js';

const deg = Math.PI / 180;
const pairOf = (sizes: CardPart['sizes']) => card({ id: 'pair', mechanism: 'meeting-pair', on: 'base/main-fold', sizes });

/** Angles of a side, hinges, and the figure’s box: a rectangle, so that its corners are known. */
const made = (
  [b1, a1, b2, a2]: readonly [number, number, number, number],
  [hinge, brace, tab]: readonly [number, number, number],
  [along, high, across, wide]: readonly [number, number, number, number],
  more: CardPart['sizes'] = {},
) => ({
  ...{ rayAngle: b1 * deg, wingAngle: a1 * deg, secondRayAngle: b2 * deg, secondWingAngle: a2 * deg },
  ...{ figureHinge: hinge, braceHinge: brace, tabWidth: tab, wingLength: 45, secondWingLength: 40, crestLength: 50 },
  ...{ figureOutline: 'rectangle', figureAlong: along, figureHigh: high, figureAcross: across, figureWide: wide },
  ...more,
});

/** Metric, before the arm; in inches (1/4, 3/4, 1/4, 1 1/4 and 1); behind the arm, its sides unlike. */
const SETS = {
  metric: made([35, 55, 35, 55], [-8, 20, 8], [26, 40, 2, 25], { gapAtOpen: 4 }),
  inch: made([40, 60, 40, 60], [-6.35, 19.05, 6.35], [25.4, 31.75, 0, 25.4], {
    crestLength: 38.1,
    wingLength: 31.75,
    secondWingLength: 34.925,
  }),
  extreme: made([32, 58, 40, 50], [9, 12, 6], [44, 20, 0, 30], {
    gapAtOpen: 11,
    middle: 71,
    wingLength: 30,
    secondWingLength: 28,
    crestLength: 38,
    trim: 7,
  }),
};
type Made = (typeof SETS)['metric'];

/** The four corners of a figure in its own plane, as [r, s]. */
const cornersOf = ({ figureAlong: s, figureHigh, figureAcross: r, figureWide }: Made): [number, number][] => [
  [r, s],
  [r + figureWide, s],
  [r + figureWide, s + figureHigh],
  [r, s + figureHigh],
];

/** A corner of the lower or the upper figure in space: drawn across to the left on the lower one, to the right on the upper. */
const corner = (evaluation: Evaluation, end: 'lower' | 'upper', [r, s]: [number, number], frame: Frame): Vec3 =>
  at(evaluation, `pair-${end}-figure/figure`, [end === 'lower' ? -r : r, s], frame);

/** How far up the fold a point lies. */
function upFold(evaluation: Evaluation, point: Vec3, frame: Frame): number {
  const from = at(evaluation, 'base/back-leaf', [LEAF, 0], frame);
  return dot(minus(point, from), minus(at(evaluation, 'base/back-leaf', [LEAF, 1], frame), from));
}

/** The angle between the slanting crease of the lower arm and the fold. */
function lean(evaluation: Evaluation, frame: Frame): number {
  const crease = (y: number): Vec3 => at(evaluation, 'pair-lower-arm/first-wing', [0, y], frame);
  return Math.acos(Math.min(1, Math.max(-1, upFold(evaluation, crease(11), frame) - upFold(evaluation, crease(10), frame))));
}

/** What the mechanism says of itself: spherical triangles of one ray, the crease and the fold, one on either side. */
const openingAt = ({ rayAngle: b1, wingAngle: a1, secondRayAngle: b2, secondWingAngle: a2 }: Made, tau: number): number =>
  [
    [b1, a1],
    [b2, a2],
  ].reduce((sum, [b, a]) => {
    const cosine = (Math.cos(a!) - Math.cos(b!) * Math.cos(tau)) / (Math.sin(b!) * Math.sin(tau));
    return sum + Math.acos(Math.min(1, Math.max(-1, cosine)));
  }, 0);

/** A point of a figure up from its apex, with k at an angle to the fold: affine in its cosine. */
function alongFold(
  { rayAngle: b1, wingAngle: a1, secondRayAngle: b2, secondWingAngle: a2, figureHinge: p }: Made,
  [r, s]: [number, number],
) {
  const still = (p * Math.cos(b1)) / Math.sin(a1) + (r * Math.cos(b2)) / Math.sin(a2);
  const swings = s - p / Math.tan(a1) - r / Math.tan(a2);
  return (tau: number): number => still + swings * Math.cos(tau);
}

describe.each(Object.entries(SETS))('a meeting pair, %s', (_, sizes) => {
  const evaluation = evaluated(pairOf(sizes));
  const middle = 'middle' in sizes ? Number(sizes.middle) : 75;
  const gap = 'gapAtOpen' in sizes ? Number(sizes.gapAtOpen) : 0;
  const from = measure(evaluation, 'apexFromMiddle');

  it('joins exactly through the whole motion, and nothing is said against it', () => {
    expect(evaluation.motion.worstMisfit).toBeLessThan(1e-6);
    expect(failing(evaluation)).toEqual([]);
  });

  it('swings its crease as two spherical triangles ask', () => {
    for (const frame of evaluation.motion.frames.slice(1, -1)) {
      expect(openingAt(sizes, lean(evaluation, frame))).toBeCloseTo(frame.opening, 6);
    }
    const [closed] = evaluation.motion.frames;
    expect(lean(evaluation, closed!)).toBeCloseTo(sizes.rayAngle + sizes.wingAngle, 6);
  });

  it('keeps every corner of its figures where the parallelogram has it', () => {
    for (const frame of evaluation.motion.frames) {
      const tau = lean(evaluation, frame);
      for (const point of cornersOf(sizes)) {
        const up = alongFold(sizes, point)(tau);
        expect(upFold(evaluation, corner(evaluation, 'lower', point, frame), frame)).toBeCloseTo(middle - from + up, 6);
        expect(upFold(evaluation, corner(evaluation, 'upper', point, frame), frame)).toBeCloseTo(middle + from - up, 6);
      }
    }
  });

  it('keeps its figures parallel to the second wings, and as far from them as the hinge is from the crease', () => {
    for (const frame of evaluation.motion.frames.slice(2)) {
      const onWing = (x: number, y: number): Vec3 => at(evaluation, 'pair-lower-arm/second-wing', [-x, y], frame);
      const onFigure = (r: number, s: number): Vec3 => at(evaluation, 'pair-lower-figure/figure', [-r, s], frame);
      const across = minus(onWing(10, 20), onWing(0, 20));
      expect(norm(minus(minus(onFigure(10, 20), onFigure(0, 20)), across))).toBeLessThan(1e-6);
      // By the angle between the wings: hinge × its sine.
      const normal = cross(across, minus(onWing(0, 30), onWing(0, 20))).map((n) => n / 100) as unknown as Vec3;
      const first = minus(at(evaluation, 'pair-lower-arm/first-wing', [10, 20], frame), onWing(0, 20));
      const off = dot(minus(onFigure(0, 20), onWing(0, 20)), normal);
      expect(off).toBeCloseTo((sizes.figureHinge * dot(first, normal)) / 10, 6);
    }
  });

  it('lets the figures come as near as asked for when fully open, and no nearer before', () => {
    const nearest = evaluation.motion.frames.map((frame) =>
      Math.max(...cornersOf(sizes).map((point) => upFold(evaluation, corner(evaluation, 'lower', point, frame), frame))),
    );
    expect(nearest.at(-1)).toBeCloseTo(middle - gap / 2, 6);
    for (const up of nearest) expect(up).toBeLessThan(middle - gap / 2 + 1e-6);
    const open = evaluation.motion.frames.at(-1)!;
    expect(measure(evaluation, 'crestOpen')).toBeCloseTo(lean(evaluation, open), 6);
  });

  it('reaches as far from the fold, closed, as its corners unfolded about it do', () => {
    const [closed] = evaluation.motion.frames;
    const reach = Math.max(
      ...cornersOf(sizes).map((point) => {
        const p = corner(evaluation, 'lower', point, closed!);
        const y = upFold(evaluation, p, closed!);
        return norm(minus(p, at(evaluation, 'base/back-leaf', [LEAF, y], closed!)));
      }),
    );
    const sigma = sizes.rayAngle + sizes.wingAngle;
    const expected = cornersOf(sizes).map(([r, s]) => s * Math.sin(sigma) - (sizes.figureHinge + r) * Math.cos(sigma));
    expect(reach).toBeCloseTo(Math.max(...expected), 6);
    // The foot of the figure, cut to the arm, may reach farther.
    expect(measure(evaluation, 'closedReach')).toBeGreaterThan(reach - 1e-6);
  });
});

describe('a meeting pair', () => {
  it('is its own mirror image about the middle', () => {
    const evaluation = evaluated(pairOf(SETS.metric));
    for (const frame of evaluation.motion.frames) {
      for (const point of cornersOf(SETS.metric)) {
        const [low, up] = (['lower', 'upper'] as const).map((end) => corner(evaluation, end, point, frame));
        expect(upFold(evaluation, low!, frame) + upFold(evaluation, up!, frame)).toBeCloseTo(2 * 75, 6);
      }
    }
  });

  it('of symmetric arms leans, flat open, by cos = cos α ÷ cos β', () => {
    expect(Math.cos(measure(evaluated(pairOf(SETS.metric)), 'crestOpen'))).toBeCloseTo(Math.cos(55 * deg) / Math.cos(35 * deg), 9);
  });

  it('meets along an edge cut at the angle it tells', () => {
    const [b, a, tau] = [35 * deg, 55 * deg, measure(evaluated(pairOf(SETS.metric)), 'crestOpen')];
    // dr/ds of the meeting edge, by hand: −cos τ · sin α ÷ (cos β − cos α · cos τ).
    const slope = (-Math.cos(tau) * Math.sin(a)) / (Math.cos(b) - Math.cos(a) * Math.cos(tau));
    expect(1 / Math.tan(measure(evaluated(pairOf(SETS.metric)), 'meetingEdge'))).toBeCloseTo(-slope, 9);
  });

  it('of twice the size does the same twice as large', () => {
    const double = Object.fromEntries(
      Object.entries({ ...SETS.metric, tabWidth: 6, middle: 75 }).map(([name, value]) => [
        name,
        typeof value === 'number' && !name.endsWith('Angle') ? value * 2 : value,
      ]),
    );
    const small = evaluated(pairOf({ ...SETS.metric, tabWidth: 6 }));
    const document = pairOf(double as CardPart['sizes']);
    const large = evaluated({
      ...document,
      parts: document.parts.map((part) => (part.id === 'base' ? { ...part, sizes: { depth: 200, length: 300 } } : part)),
    });
    expect(measure(large, 'apexFromMiddle')).toBeCloseTo(2 * measure(small, 'apexFromMiddle'), 6);
    expect(measure(large, 'crestOpen')).toBeCloseTo(measure(small, 'crestOpen'), 9);
  });

  it.each([
    ['a brace 1 mm too narrow', { braceWide: 7 }, 'agrees/pair-brace', 1],
    ['a brace’s fold turned by 2°', { braceTurn: 2 * deg }, 'agrees/pair-parallel', 2],
    ['a second side 3° wider', { secondWingAngle: 58 * deg }, 'agrees/pair-sums', 3],
  ])('with %s is told so at the root, with how much, and the fix puts it right', (_what, wrong, id, amount) => {
    const document = pairOf({ ...SETS.metric, ...wrong });
    const evaluation = evaluated(document);
    const root = finding(evaluation, id);
    expect(root.severity).toBe('fail');
    expect(root.value).toBeCloseTo(amount, 6);
    expect(root.owner).toBe('pair');
    // It is felt: joints miss each other by millimetres somewhere. What follows is said to follow.
    expect(evaluation.motion.worstMisfit).toBeGreaterThan(0.2);
    for (const other of failing(evaluation).filter(({ check }) => check === 'closes-loop')) expect(other.followsFrom).toBe(id);
    const [change] = root.fix!.changes;
    expect(failing(evaluated(pairOf({ ...SETS.metric, ...wrong, [change!.size]: change!.value })))).toEqual([]);
  });

  it('whose figures would cross on closing says by how much, and the fix keeps them apart', () => {
    // Far across and near the apex a figure swings away from the middle as the card opens: closed, it lies farther than open.
    const crossing = made([35, 55, 35, 55], [-8, 20, 8], [0, 10, 40, 45]);
    const evaluation = evaluated(pairOf(crossing));
    const root = finding(evaluation, 'never-past/pair-lower');
    const sigma = 90 * deg;
    const corners = cornersOf(crossing).map((point) => alongFold(crossing, point));
    const from = measure(evaluation, 'apexFromMiddle');
    expect(root.severity).toBe('fail');
    expect(root.at).toBe(0);
    expect(root.value).toBeCloseTo(Math.max(...corners.map((up) => up(sigma))) - from, 6);
    const [change] = root.fix!.changes;
    const mended = evaluated(pairOf({ ...crossing, [change!.size]: change!.value }));
    expect(finding(mended, 'never-past/pair-lower').severity).toBe('pass');
  });

  it('that meets a step on the way says which parts, and where', () => {
    const document = card(
      { id: 'pair', mechanism: 'meeting-pair', on: 'base/main-fold', sizes: SETS.metric },
      stepAt('box', 'base/main-fold', { depth: 30, height: 30, width: 80, offset: 35 }),
    );
    const hits = failing(evaluated(document)).filter(({ check }) => check === 'clears');
    expect(hits.some(({ panels }) => panels!.some((id) => id.includes('figure')) && panels!.some((id) => id.includes('box')))).toBe(true);
  });

  it.each([
    ['a hinge nearer than a brace can be folded', { figureHinge: -3 }, /^Figure’s hinge.*-5 mm.*behind the arm/],
    ['a hinge behind the arm with no room for its tab', { figureHinge: 6 }, /^Figure’s hinge/],
    ['a brace in the tongue’s opening', { braceHinge: 14 }, /^Brace’s hinge.*clear of the figure’s/],
    ['wings that cannot span the glue lines', { wingAngle: 32 * deg, secondWingAngle: 32 * deg }, /glue lines/],
    ['a crease with no room for the hinges', { crestLength: 30 }, /^Slanting crease:/],
  ])('with %s is refused with the reason', (_what, wrong, says) => {
    expect(refused(pairOf({ ...SETS.metric, ...wrong }))).toMatch(says);
  });

  it('is put together on the table, then down on one leaf, then the other is closed onto both large tabs', () => {
    const evaluation = evaluated(pairOf(SETS.metric));
    const titles = benchSteps(evaluation)
      .filter(({ kind }) => kind === 'glue')
      .map(({ title }) => title);
    expect(titles).toEqual([
      'Glue: brace on figure 1',
      'Glue: brace on arm 1',
      'Glue: figure on arm 1',
      'Glue: brace on figure 2',
      'Glue: brace on arm 2',
      'Glue: figure on arm 2',
      'Glue: small tab of arm 1 on the front leaf',
      'Glue: small tab of arm 2 on the front leaf',
      'Put glue on: large tab of arm 1 on the back leaf',
      'Close onto the glue: large tab of arm 2 on the back leaf',
    ]);
    const said = benchSteps(evaluation).flatMap(({ says }) => says);
    expect(said.some((words) => /Hold arm 1 down with a clip/.test(words))).toBe(true);
  });

  it('marks every tab with two crosses that lie on its corners', () => {
    const evaluation = evaluated(pairOf(SETS.metric));
    const [base] = evaluation.design.pieces;
    const crosses = base!.marks.filter(({ cross: isCross }) => isCross);
    expect(crosses).toHaveLength(8);
    const [closed] = evaluation.motion.frames;
    for (const { id, from } of crosses) {
      const [, end, tab] = id.split('-') as [string, string, string];
      const leaf = tab === 'large' ? 'base/back-leaf' : 'base/front-leaf';
      const point = at(evaluation, leaf, [from[0], from[1]], closed!);
      const panel = `pair-${end}-arm/${tab}-tab`;
      const corners = evaluation.design.panels
        .find(({ id: own }) => own === panel)!
        .area.outer.map((p) => at(evaluation, panel, p, closed!));
      expect(Math.min(...corners.map((p) => norm(minus(p, point))))).toBeLessThan(1e-6);
    }
  });
});
