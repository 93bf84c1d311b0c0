import { describe, expect, it } from 'vitest';
import { card, distance, LEAF, stepAt } from '../../testing/folded-card-with.js';
import { draw, partsOf } from '../../card/draw.js';
import { newCard, ROOT, type CardDocument } from '../../card/document.js';
import type { Evaluation } from '../../evaluate.js';
import { poseOf } from '../../linkage/motion.js';
import { loopContains } from '../../plane/outline.js';
import { carry, carryDirection, cross, dot, minus, type Vec3 } from '../../linkage/rigid.js';
import { vFold } from './v-fold.js';
import { at, evaluated, failing, measure, refused } from '../../testing/evaluated.js';

/** Lines that a part draws on the sheet, as [x, lower y, upper y] for creases and [y, left x, right x] for slits. */
function drawnBy(part: string, document: CardDocument): { creases: Record<string, number[]>; slits: number[][] } {
  const drawn = draw(document);
  if (!drawn.ok) throw new Error(drawn.problems.map(({ says }) => says).join(' '));
  const [piece] = drawn.drawing.pieces;
  const tidy = (n: number): number => Number(n.toFixed(9));
  const creases = piece!.creases.filter(({ id }) => id.startsWith(`${part}-`));
  return {
    creases: Object.fromEntries(
      creases.map(({ id, from, to }) => [
        id.slice(part.length + 1),
        [tidy(from[0]), ...[tidy(from[1]), tidy(to[1])].sort((a, b) => a - b)],
      ]),
    ),
    slits: piece!.cuts
      .filter(({ id }) => id.startsWith(`${part}-`))
      .map(({ from, to }) => [tidy(from[1]), ...[tidy(from[0]), tidy(to[0])].sort((a, b) => a - b)])
      .sort((a, b) => a[0]! - b[0]!),
  };
}

describe('a step slit into the sheet', () => {
  const SETS = [
    { depth: 20, height: 30, width: 40, offset: 50 },
    { depth: 45, height: 12, width: 60, offset: 10 },
    { depth: 7, height: 80, width: 30, offset: 110 },
  ];

  it.each(SETS)('of depth $depth and height $height is a parallelogram through the whole motion', ({ depth, height, width, offset }) => {
    const evaluation = evaluated(card(stepAt('box', 'base/main-fold', { depth, height, width, offset })));
    const y = offset + width / 2;
    for (const frame of evaluation.motion.frames) {
      const fold = at(evaluation, 'base/front-leaf', [LEAF, y], frame);
      const back = at(evaluation, 'base/front-leaf', [LEAF - depth, y], frame);
      const foot = at(evaluation, 'base/back-leaf', [LEAF + height, y], frame);
      const edge = at(evaluation, 'base/box-front', [LEAF + height - depth, y], frame);
      // Opposite sides of a parallelogram are equal vectors: edge − back = foot − fold.
      expect(distance(minus(edge, back), minus(foot, fold))).toBeLessThan(1e-6);
    }
    expect(failing(evaluation)).toEqual([]);
  });

  it.each(SETS)('of depth $depth and height $height reaches b + h from the fold when closed', ({ depth, height, width, offset }) => {
    const evaluation = evaluated(card(stepAt('box', 'base/main-fold', { depth, height, width, offset })));
    const [closed] = evaluation.motion.frames;
    const fold = at(evaluation, 'base/front-leaf', [LEAF, 0], closed!);
    const edge = at(evaluation, 'base/box-front', [LEAF + height - depth, 0], closed!);
    expect(distance(fold, edge)).toBeCloseTo(depth + height, 6);
    expect(measure(evaluation, 'closedReach')).toBeCloseTo(depth + height, 9);
  });

  it('is drawn at its places on the host: slits across the fold, folds at −b, h − b and h', () => {
    const document = card(stepAt('box', 'base/main-fold', { depth: 20, height: 30, width: 40, offset: 50 }));
    expect(drawnBy('box', document)).toEqual({
      creases: { 'back-fold': [80, 50, 90], 'front-edge': [110, 50, 90], 'foot-fold': [130, 50, 90] },
      slits: [
        [50, 80, 130],
        [90, 80, 130],
      ],
    });
  });

  it('on another step’s foot fold is drawn from that fold, and along it from that step’s lower end', () => {
    const document = card(
      stepAt('box', 'base/main-fold', { depth: 20, height: 30, width: 40, offset: 50 }),
      // Foot fold of the first: x = 130, from y = 50. So its own back fold lies at 130 − 8, its foot at 130 + 11.
      stepAt('upper', 'box/foot-fold', { depth: 8, height: 11, width: 12, offset: 9 }),
    );
    expect(drawnBy('upper', document)).toEqual({
      creases: { 'back-fold': [122, 59, 71], 'front-edge': [133, 59, 71], 'foot-fold': [141, 59, 71] },
      slits: [
        [59, 122, 141],
        [71, 122, 141],
      ],
    });
    expect(failing(evaluated(document))).toEqual([]);
  });

  it('slit into a liner keeps the liner’s glue off its back, by 2 mm all round', () => {
    const sizes = { depth: 20, height: 30, width: 40, offset: 50 };
    const plain = card(stepAt('box', 'base/liner-liner-fold', sizes));
    const document = {
      ...plain,
      parts: plain.parts.map((part) =>
        part.id === 'base' ? { ...part, sizes: { ...part.sizes, liner: 'one-piece', linerBorder: 5 } } : part,
      ),
    };
    const evaluation = evaluated(document);
    expect(failing(evaluation)).toEqual([]);
    const glued = evaluation.design.pieces.find(({ id }) => id === 'liner')!.zones.filter(({ kind }) => kind === 'glue');
    expect(glued).toHaveLength(2);
    // The step lies over the liner’s fold, from 20 before to 30 beyond it, and from 50 to 90 up the liner.
    const fold = evaluation.sheets.find(({ piece }) => piece.id === 'liner')!.piece.creases[0]!.from[0];
    const near = (x: number, y: number): boolean => glued.some(({ outline }) => loopContains(outline, [fold + x, y]));
    for (const [x, y] of [
      [-21, 65],
      [31, 65],
      [-10, 48.5],
      [20, 91.5],
    ] as const)
      expect([x, y, near(x, y)]).toEqual([x, y, false]);
    for (const [x, y] of [
      [-23, 65],
      [33, 65],
    ] as const)
      expect([x, y, near(x, y)]).toEqual([x, y, true]);
  });

  it('of three in a row is stairs: each of an even share, side by side', () => {
    const { creases } = drawnBy('box', card(stepAt('box', 'base/main-fold', { depth: 30, height: 45, width: 20, offset: 40, count: 3 })));
    expect(creases).toEqual({
      'back-fold': [90, 40, 60],
      'front-edge': [105, 40, 60],
      'foot-fold': [115, 40, 60],
      '2-back-fold': [80, 60, 80],
      '2-front-edge': [110, 60, 80],
      '2-foot-fold': [130, 60, 80],
      '3-back-fold': [70, 80, 100],
      '3-front-edge': [115, 80, 100],
      '3-foot-fold': [145, 80, 100],
    });
  });

  it('turned round lies as if the card had been turned end for end', () => {
    const sizes = { depth: 20, height: 30, width: 40, offset: 50 };
    const turned = drawnBy('box', card(stepAt('box', 'base/main-fold', sizes, true)));
    // Half a turn about the middle of the sheet: x → 200 − x, y → 150 − y.
    expect(turned.creases).toEqual({ 'back-fold': [120, 60, 100], 'front-edge': [90, 60, 100], 'foot-fold': [70, 60, 100] });
    const [straight, round] = [
      evaluated(card(stepAt('box', 'base/main-fold', sizes))),
      evaluated(card(stepAt('box', 'base/main-fold', sizes, true))),
    ];
    straight.motion.frames.forEach((frame, i) => {
      const edge = at(straight, 'base/box-front', [110, 70], frame);
      const mirrored = at(round, 'base/box-front', [90, 80], round.motion.frames[i]!);
      const far = distance(edge, at(straight, 'base/front-leaf', [0, 0], frame));
      expect(distance(mirrored, at(round, 'base/back-leaf', [200, 150], round.motion.frames[i]!))).toBeCloseTo(far, 5);
    });
  });

  it('leaves the fold its own name and drive, however many slits cross it', () => {
    const document = card(
      stepAt('low', 'base/main-fold', { depth: 20, height: 20, width: 30, offset: 10 }),
      stepAt('high', 'base/main-fold', { depth: 30, height: 15, width: 40, offset: 90 }),
    );
    const evaluation = evaluated(document);
    for (const frame of evaluation.motion.frames) {
      const pose = poseOf(evaluation.motion, frame);
      const across = (panel: string, x: number): Vec3 => carryDirection(pose[evaluation.design.linkage.bodyOf.get(panel)!]!, x, 0, 0);
      const cos = dot(across('base/front-leaf', -1), across('base/back-leaf', 1));
      expect(Math.acos(Math.max(-1, Math.min(1, cos)))).toBeCloseTo(frame.opening, 5);
    }
    expect(evaluation.motion.frames.at(-1)!.opening).toBeCloseTo(Math.PI, 6);
  });

  it.each([
    ['over the leaf', { depth: 60, height: 60 }, /height/i],
    ['wider than the fold', { depth: 20, height: 20, width: 148 }, /width/i],
    ['past its end', { depth: 20, height: 20, width: 40, offset: 120 }, /fold/i],
  ])('%s is refused with the reason', (_, sizes, says) => {
    expect(refused(card(stepAt('box', 'base/main-fold', sizes)))).toMatch(says);
  });
});

describe('a step glued on as a strip', () => {
  const evaluation = evaluated(
    card(stepAt('box', 'base/main-fold', { cutFrom: 'strip', depth: 20, height: 30, width: 40, offset: 50, tabWidth: 8 })),
  );

  it('is tab, height, depth and tab one after the other', () => {
    const strip = evaluation.sheets.find(({ piece }) => piece.id === 'box')!;
    expect([strip.width, strip.height]).toEqual([66, 40]);
    expect(strip.scores.map(({ from }) => from[0])).toEqual([8, 38, 58]);
  });

  it('is a parallelogram as the slit one is', () => {
    for (const frame of evaluation.motion.frames) {
      const fold = at(evaluation, 'base/front-leaf', [100, 70], frame);
      const [back, foot] = [at(evaluation, 'base/front-leaf', [80, 70], frame), at(evaluation, 'base/back-leaf', [130, 70], frame)];
      const edge = at(evaluation, 'box/front', [38, 20], frame);
      expect(distance(minus(edge, back), minus(foot, fold))).toBeLessThan(1e-6);
    }
  });

  it('leaves the sheet whole, with a pencil line for either fold', () => {
    const sheet = evaluation.sheets.find(({ piece }) => piece.id === ROOT)!;
    expect(sheet.cuts).toEqual([]);
    expect(sheet.marks.map(({ from, to }) => [from, to])).toEqual([
      [
        [80, 50],
        [80, 90],
      ],
      [
        [130, 50],
        [130, 90],
      ],
    ]);
  });
});

/** Where the crest of a V-fold points: at angle β from both rays (two planes), on the unit sphere. Both answers. */
function crests(first: Vec3, second: Vec3, beta: [number, number]): [Vec3, Vec3] {
  const c = dot(first, second);
  const [p, q] = [Math.cos(beta[0]), Math.cos(beta[1])];
  const [x, y] = [(p - q * c) / (1 - c * c), (q - p * c) / (1 - c * c)];
  const up = cross(first, second);
  const inPlane = first.map((f, i) => x * f + y * second[i]!) as unknown as Vec3;
  const z = Math.sqrt(Math.max(0, 1 - dot(inPlane, inPlane)) / dot(up, up));
  return [1, -1].map((sign) => inPlane.map((v, i) => v + sign * z * up[i]!)) as unknown as [Vec3, Vec3];
}

describe('a V-fold', () => {
  /** Its crest against the two answers of a formula that knows only the rays where they lie on the leaves. */
  function worstCrest(evaluation: Evaluation, id: string, beta: number): number {
    const bonds = evaluation.design.linkage.bonds.filter(({ id: bond }) => bond.startsWith(`${id}/`));
    expect(bonds).toHaveLength(2);
    const { linkage, pieces } = evaluation.design;
    const figure = pieces.find((piece) => piece.id === id)!;
    let worst = 0;
    for (const frame of evaluation.motion.frames.slice(1, -1)) {
      const pose = poseOf(evaluation.motion, frame);
      const rays = ['first', 'second'].map((side): Vec3 => {
        const crease = figure.creases.find(({ id: own }) => own === `${side}-ray`)!;
        const body = pose[linkage.bodyOf.get(`${id}/${side}-tab`)!]!;
        const way = minus(carry(body, ...crease.to, 0), carry(body, ...crease.from, 0));
        return way.map((v) => v / Math.hypot(...way)) as unknown as Vec3;
      });
      const crest = carryDirection(pose[linkage.bodyOf.get(`${id}/first-wing`)!]!, 0, 1, 0);
      worst = Math.max(worst, Math.min(...crests(rays[0]!, rays[1]!, [beta, beta]).map((answer) => distance(answer, crest))));
    }
    return worst;
  }

  const sizes = { rayAngle: Math.PI / 4, wingAngle: Math.PI / 3, secondRayAngle: Math.PI / 4, secondWingAngle: Math.PI / 3 };

  it('on the main fold has its crest where both wings say', () => {
    const evaluation = evaluated(
      card({ id: 'cap', mechanism: 'v-fold', on: 'base/main-fold', sizes: { ...sizes, wingLength: 30, crestLength: 20 } }),
    );
    expect(worstCrest(evaluation, 'cap', Math.PI / 3)).toBeLessThan(1e-6);
  });

  it('on a step’s front edge, a ridge, too; it closes flat with that step', () => {
    const document = card(stepAt('box', 'base/main-fold', { depth: 40, height: 45, width: 80, offset: 30 }), {
      id: 'cap',
      mechanism: 'v-fold',
      on: 'box/front-edge',
      sizes: {
        rayAngle: Math.PI / 4,
        wingAngle: Math.PI / 3,
        secondRayAngle: Math.PI / 4,
        secondWingAngle: Math.PI / 3,
        wingLength: 25,
        crestLength: 15,
      },
    });
    const evaluation = evaluated(document);
    expect(worstCrest(evaluation, 'cap', Math.PI / 3)).toBeLessThan(1e-6);
    expect(evaluation.motion.frames[0]!.misfit).toBeLessThan(1e-6);
    expect(failing(evaluation).map(({ id }) => id)).toEqual([]);
  });

  it('keeps inside the leaf of a fold that is less deep than the card: wing × sin ray is at most its depth', () => {
    const easel = newCard({
      id: 'easel',
      name: 'easel',
      base: { mechanism: 'easel-folded-front', sizes: { depth: 150, length: 300 } },
    });
    const sites = partsOf(easel).parts[0]!.sites();
    const shallow = sites.find((site) => !vFold.cannotStand(site) && site.leaves.some(({ depth }) => Math.abs(depth - 75) < 1e-9))!;
    const on = { part: ROOT, site: shallow.id };
    const long = (wingLength: number): CardDocument => ({
      ...easel,
      parts: [easel.parts[0]!, { id: 'cap', mechanism: 'v-fold', on, sizes: { rayAngle: 1.3, secondRayAngle: 1.3, wingLength } }],
    });
    expect(refused(long(75 / Math.sin(1.3) + 0.1))).toMatch(/^Glue line:/);
    expect(refused(long(152))).toMatch(/^Glue line:/);
  });

  it('on a fold that a base does not have is refused in a sentence', () => {
    expect(refused(card({ id: 'cap', mechanism: 'v-fold', on: 'base/nowhere', sizes: {} }))).toMatch(
      /has no fold “nowhere” to stand on; it has main-fold/,
    );
  });
});
