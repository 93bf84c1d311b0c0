import { describe, expect, it } from 'vitest';
import {
  at,
  boxIn,
  cardOn,
  evaluated,
  failing,
  finding,
  folded,
  measure,
  refused,
  scoresOf,
  stockById,
  tracked,
} from '../testing/evaluated.js';
import { layersAt } from '../card/pile.js';
import { setSize } from '../card/set-size.js';
import { toDegrees, toRadians } from '../measure/units.js';
import { boxOf, type Loop } from '../plane/outline.js';
import { fitted, SHAPES } from '../plane/shapes.js';
import { stripCover } from './bases/easel-strip.js';
import type { SizeItem, Sizes } from './sizes.js';

const IN = 25.4;

/** Lean of a triangle's corner by its coordinates: strut from (0, 0), foot at (stop, 0), the apex above. No cosine rule. */
function leanByCoordinates(strut: number, foot: number, stop: number): number {
  const x = (strut * strut - foot * foot + stop * stop) / (2 * stop);
  return Math.atan2(Math.sqrt(strut * strut - x * x), stop - x);
}

describe('easel of one long strip', () => {
  const PANELS = ['display', 'flap', 'strut', 'base'];
  const METRIC = { displayHeight: 120, width: 100, flap: 60, strut: 60, base: 120, stopDistance: 60 };
  const INCH = { displayHeight: 5 * IN, width: 4 * IN, flap: 2 * IN, strut: 2.25 * IN, base: 5.5 * IN, stopDistance: 2.5 * IN };
  const EXTREME = { displayHeight: 250, width: 25, flap: 240, strut: 300, base: 320, stopDistance: 280 };

  it.each([
    [METRIC, [120, 180, 240], 360, [0, 120]],
    [INCH, [127, 177.8, 234.95], 374.65, [-19.05, 107.95]],
    [EXTREME, [250, 490, 790], 1110, [290, 540]],
  ])('wrapped, %j is scored and covers the base as worked out', (sizes, scores, blank, cover) => {
    const card = evaluated(cardOn('easel-strip', sizes));
    expect(scoresOf(card, 'base').map(([x]) => x)).toEqual(scores.map((x) => expect.closeTo(x, 6)));
    expect(scoresOf(card, 'base').map(([, fold]) => fold)).toEqual(['mountain', 'valley', 'valley']);
    expect(card.sheets[0]!.width).toBeCloseTo(blank, 6);
    const lying = folded([sizes.displayHeight, sizes.flap, sizes.strut, sizes.base], [true, false, true], 3);
    const closed = card.motion.frames[0]!;
    PANELS.forEach((panel, i) => {
      const { minX, maxX } = boxIn(card, `base/${panel}`, closed);
      expect([minX, maxX]).toEqual(lying[i]!.map((x) => expect.closeTo(x, 6)));
    });
    const back = scores[2]!;
    expect([measure(card, 'coverFrom'), measure(card, 'coverTo')]).toEqual(cover.map((x) => expect.closeTo(x, 6)));
    expect(lying[0]!.map((x) => x - back)).toEqual(cover.map((x) => expect.closeTo(x, 6)));
  });

  it.each([
    [METRIC, 60, [0, 120]],
    // 5 − 2 = 3 in above the foot; flat from 2 1/4 − 2 to 1/4 + 5.
    [{ ...INCH, stopDistance: 2 * IN }, 76.2, [6.35, 133.35]],
    [{ ...METRIC, displayHeight: 100, flap: 40, strut: 50, base: 160 }, 60, [10, 110]],
  ])('in a zigzag, %j hangs by its upper part', (sizes, foot, cover) => {
    const card = evaluated(cardOn('easel-strip', { ...sizes, form: 'zigzag' }));
    expect(scoresOf(card, 'base').map(([, fold]) => fold)).toEqual(['valley', 'mountain', 'valley']);
    expect(measure(card, 'hingeHeight')).toBeCloseTo(foot, 9);
    const { minX, maxX } = boxIn(card, 'base/display', card.motion.frames[0]!);
    const back = sizes.displayHeight + sizes.flap + sizes.strut;
    expect([minX - back, maxX - back]).toEqual(cover.map((x) => expect.closeTo(x, 6)));
    expect(toDegrees(tracked(card, 'lean', card.resting))).toBeCloseTo(
      toDegrees(leanByCoordinates(sizes.strut, foot, sizes.stopDistance)),
      6,
    );
    expect(card.design.base.rest.says).toContain('other face');
  });

  it.each([METRIC, INCH, { ...METRIC, strut: 45, stopDistance: 70 }])(
    '%j leans as its triangle says, its foot on the base all the way',
    (sizes) => {
      const card = evaluated(cardOn('easel-strip', sizes));
      const lean = leanByCoordinates(sizes.strut, sizes.flap, sizes.stopDistance);
      expect(tracked(card, 'lean', card.resting)).toBeCloseTo(lean, 9);
      expect(measure(card, 'standingHeight')).toBeCloseTo(sizes.displayHeight * Math.sin(lean), 9);
      for (const frame of card.motion.frames) expect(at(card, 'base/flap', [sizes.displayHeight, 10], frame)[2]).toBeCloseTo(0, 6);
      // At rest the foot stands against the stop.
      const foot = at(card, 'base/flap', [sizes.displayHeight, 10], card.resting)[0];
      expect(foot - (sizes.displayHeight + sizes.flap + sizes.strut)).toBeCloseTo(sizes.stopDistance, 6);
    },
  );

  it('folds the same way both ways only when the flap is half the display', () => {
    expect(stripCover(120, 60, 60, false)).toEqual(stripCover(120, 60, 60, true));
    expect(stripCover(120, 50, 60, false)).not.toEqual(stripCover(120, 50, 60, true));
  });

  it('says what sticks out past the back edge when flat', () => {
    const out = failing(evaluated(cardOn('easel-strip', INCH)));
    expect(out).toMatchObject([{ check: 'stays-inside', value: expect.closeTo(19.05, 6) }]);
    expect(out[0]!.says).toContain('past the back edge');
  });

  it('takes a lean in place of the stop, for struts of any length', () => {
    const card = cardOn('easel-strip', { displayHeight: 120, flap: 60, strut: 66, base: 150 });
    const set = evaluated(setSize(card, 'base', 'lean', toRadians(65)));
    expect(toDegrees(tracked(set, 'lean', set.resting))).toBeCloseTo(65, 6);
  });
});

describe('easel of a hung shape', () => {
  it('has a circle’s own chord as its hinge', () => {
    const card = evaluated(cardOn('easel-shape', { outline: 'circle', size: 120, chord: 15 }));
    // 45 mm above the middle of a circle of 60: half the chord is √(60² − 45²).
    expect(measure(card, 'hingeLength')).toBeCloseTo(2 * Math.sqrt(60 ** 2 - 45 ** 2), 0);
    expect(measure(card, 'hingeHeight')).toBe(105);
    expect(measure(card, 'frontScore')).toBe(52.5);
    expect(measure(card, 'openLength')).toBeCloseTo(210, 6);
    expect(failing(card)).toEqual([]);
  });

  it.each([
    [{ outline: 'oval', size: 140, chord: 20, stopDistance: 60 }, 120],
    [{ outline: 'rectangle', size: 4.5 * IN, chord: IN / 2, stopDistance: 2.5 * IN }, 101.6],
    [{ outline: 'mushroom', size: 250, chord: 110, stopDistance: 90 }, 140],
  ])('%j leans by its hinge height and stop, and covers itself flat', (sizes, high) => {
    const card = evaluated(cardOn('easel-shape', sizes));
    expect(tracked(card, 'lean', card.resting)).toBeCloseTo(leanByCoordinates(high / 2, high / 2, sizes.stopDistance), 6);
    // The cover lies on the base's own mirror image: foot on foot, top where the fold is and beyond.
    const { minX, maxX } = card.closed.box;
    expect(maxX - minX).toBeCloseTo(sizes.size, 5);
    expect(card.motion.closedFlat.holds).toBe(true);
  });

  it('keeps glue of the cover below the middle score', () => {
    const card = evaluated(cardOn('easel-shape', { outline: 'heart', size: 120, chord: 30 }));
    const cover = card.sheets.find((sheet) => sheet.piece.id === 'cover')!;
    const highest = Math.max(...cover.zones.flatMap((zone) => zone.outline.map(([, y]) => y)));
    expect(highest).toBeLessThanOrEqual(45 - 2 + 1e-6);
    expect(finding(card, 'glue-clear').severity).toBe('pass');
  });

  it('hinges on both humps of a heart as one fold', () => {
    const card = evaluated(cardOn('easel-shape', { outline: 'heart', size: 120, chord: 4 }));
    expect(card.design.faults).toEqual([]);
    expect(card.sheets[0]!.scores.filter((score) => score.name === 'main fold')).toHaveLength(2);
    expect(card.motion.freedom).toBe(0);
  });
});

describe('easels in a row', () => {
  const ROW: SizeItem[] = [
    { back: 10, displayHeight: 80, flap: 40, strut: 40 },
    { back: 55, displayHeight: 60, flap: 30, strut: 30 },
    { back: 90, displayHeight: 40, flap: 20, strut: 20, stopDistance: 20 },
  ];

  it.each<[Sizes, number[]]>([
    [{ depth: 150, width: 120, easels: ROW }, [45, 35, 20]],
    [
      {
        depth: 6 * IN,
        width: 5 * IN,
        easels: [
          { back: IN / 2, displayHeight: 3 * IN },
          { back: 2 * IN, displayHeight: 2 * IN, stopDistance: IN },
        ],
      },
      [1.5 * IN, IN],
    ],
    [{ depth: 60, width: 40, easels: [{ back: 0, displayHeight: 50, flap: 25, strut: 25, stopDistance: 25 }] }, [25]],
  ])('%j lean by their own triangles, a foot at the next one’s back edge', (sizes, stops) => {
    const card = evaluated(cardOn('easel-row', sizes));
    (sizes['easels'] as readonly SizeItem[]).forEach((easel, i) => {
      const flap = Number(easel['flap'] ?? Number(easel['displayHeight']) / 2);
      const strut = Number(easel['strut'] ?? flap);
      expect(measure(card, `stopAt${i + 1}`)).toBeCloseTo(Number(easel['back']) + stops[i]!, 6);
      expect(tracked(card, `lean${i + 1}`, card.resting)).toBeCloseTo(leanByCoordinates(strut, flap, stops[i]!), 6);
    });
    expect(failing(card)).toEqual([]);
  });

  describe('of whole strips', () => {
    const strips = [
      { back: 10, displayHeight: 80, flap: 40, strut: 40, stopDistance: 45, base: 60 },
      { back: 55, displayHeight: 60, flap: 30, strut: 30, stopDistance: 35, base: 50 },
      { back: 90, displayHeight: 40, flap: 20, strut: 20, stopDistance: 20, base: 40 },
    ];
    const card = evaluated(cardOn('easel-row', { depth: 150, width: 120, form: 'strips', easels: strips }));

    it('leans as the same easels with struts on tabs do, and is found sound', () => {
      const plain = evaluated(cardOn('easel-row', { depth: 150, width: 120, easels: ROW }));
      expect(failing(card)).toEqual([]);
      for (const i of [1, 2, 3]) {
        expect(tracked(card, `lean${i}`, card.resting)).toBeCloseTo(tracked(plain, `lean${i}`, plain.resting), 6);
      }
    });

    it('covers strut + flap − display to strut + flap of each, flat, as it tells, the base under it from the back edge on', () => {
      strips.forEach((easel, i) => {
        const { displayHeight: high, flap, strut, back } = easel;
        const closed = card.motion.frames[0]!;
        const display = boxIn(card, `easel-${i + 1}/display`, closed);
        expect(display.maxX).toBeCloseTo(back + strut + flap, 6);
        expect(display.minX).toBeCloseTo(back + strut + flap - high, 6);
        expect(measure(card, `stripLength${i + 1}`)).toBeCloseTo(high + flap + strut + easel.base, 6);
        const base = boxIn(card, `easel-${i + 1}/tab`, closed);
        expect([base.minX, base.maxX]).toEqual([expect.closeTo(back, 6), expect.closeTo(back + easel.base, 6)]);
      });
    });

    it('lays each base on the one behind as far as that reaches, and counts them all', () => {
      const { order } = card.closed.stack;
      const at = (panel: string): number => order.indexOf(card.design.linkage.bodyOf.get(panel)!);
      expect(at('easel-1/tab')).toBeLessThan(at('easel-2/tab'));
      expect(at('easel-2/tab')).toBeLessThan(at('easel-3/tab'));
      // Between 55 and 70 from the back edge both bases lie there, easel 1’s under easel 2’s: both are counted.
      const { layers } = layersAt(card.design, card.closed.pile, [60, 60]);
      const bases = layers.filter(({ name }) => /^base of easel/.test(name));
      expect(bases.map(({ name }) => name)).toEqual(['base of easel 1', 'base of easel 2']);
      for (const { thickness } of bases) expect(thickness).toBeGreaterThan(stockById('card-250').caliper - 1e-9);
    });

    it('fills what the bases leave of the board in front, where that is worth a strip', () => {
      const front = Math.max(...strips.map(({ back, base }) => back + base));
      expect(measure(card, 'filler')).toBeCloseTo(150 - front, 6);
      const filler = boxIn(card, 'filler/filler', card.resting);
      expect([filler.minX, filler.maxX]).toEqual([expect.closeTo(front, 6), expect.closeTo(150, 6)]);
      const full = strips.map((easel) => ({ ...easel, base: 150 - easel.back }));
      const none = evaluated(cardOn('easel-row', { depth: 150, width: 120, form: 'strips', easels: full }));
      expect(none.sheets.some(({ piece }) => piece.id === 'filler')).toBe(false);
      expect(measure(none, 'filler')).toBe(0);
    });
  });

  it('needs a stop strip only where no easel stands in front', () => {
    const ids = evaluated(cardOn('easel-row', { depth: 150, width: 120, easels: ROW })).sheets.map((sheet) => sheet.piece.id);
    expect(ids.filter((id) => id.startsWith('stop'))).toEqual(['stop-3']);
    const own = evaluated(cardOn('easel-row', { depth: 150, width: 120, easels: [{ ...ROW[0], stopDistance: 35 }, ...ROW.slice(1)] }));
    expect(own.sheets.map((sheet) => sheet.piece.id)).toContain('stop-1');
  });

  it('tells in which order they go up: what lies over a hinge first', () => {
    const card = evaluated(cardOn('easel-row', { depth: 150, width: 120, easels: ROW }));
    // Flat, easel 1 reaches from 10 to 90 and covers the hinge at 55; easel 2 from 55 to 115 that at 90, which easel 1 just reaches.
    expect(finding(card, 'rises').says).toBe('Raise easel 1 before easel 2, easel 2 before easel 3; lay them down the other way round.');
    expect(card.design.words.settingUp![0]).toContain('behind easel 2');
  });

  it('finds easels that cover each other’s hinges, by how much', () => {
    // Flat, easel 1 reaches from 40 to 140, easel 2 from 60 + 40 − 90 = 10 to 100: 30 behind 40, and 60 lies in both by 20.
    const card = evaluated(
      cardOn('easel-row', {
        easels: [
          { back: 40, displayHeight: 100, displayWidth: 100, flap: 50, strut: 50 },
          { back: 60, displayHeight: 90, displayWidth: 80, flap: 20, strut: 20 },
        ],
      }),
    );
    const [root, ...rest] = failing(card);
    expect(root).toMatchObject({ id: 'rises/easel-1/easel-2', value: expect.closeTo(20, 6) });
    expect(root!.says).toContain('by 20 mm and 30 mm');
    for (const effect of rest) expect(effect.followsFrom).toBe('rises/easel-1/easel-2');
  });

  it('closes a nested set whose front layers reach under the foot of the one behind', () => {
    // Flat, easel 1 reaches from 10 to 90; the innermost layer of easel 2 (56 − 4 × 8 = 24 high, its middle at 98) from 86 on.
    const easels = [
      { back: 10, displayHeight: 80 },
      { back: 70, displayHeight: 56 },
    ];
    for (const outline of ['scallop', 'circle']) {
      const card = evaluated(cardOn('easel-row', { depth: 150, width: 120, form: 'nested', outline, setBorder: 8, easels }));
      expect(failing(card)).toEqual([]);
      // Easel 1 goes up first and is laid down last: on top.
      const { bodyOf } = card.design.linkage;
      const above = card.closed.stack.over.get(bodyOf.get('easel-2-layer-2/layer')!)!;
      expect(above.has(bodyOf.get('easel-1-display/display')!)).toBe(true);
    }
  });

  it('glues every shape of a set within itself, and refuses a border that leaves nothing of the innermost layer', () => {
    const nested = { depth: 150, width: 120, form: 'nested' };
    for (const { id } of SHAPES) expect(failing(evaluated(cardOn('easel-row', { ...nested, outline: id })))).toEqual([]);
    // Of a circle 56 across two borders leave 28 − 2 × border of its radius; 4 mm² is a radius of 1.13 mm, at 13.44 mm.
    const easels = [{ back: 10, displayHeight: 56 }];
    const circle = { ...nested, outline: 'circle', easels };
    expect(failing(evaluated(cardOn('easel-row', { ...circle, setBorder: 13.4 })))).toEqual([]);
    expect(refused(cardOn('easel-row', { ...circle, setBorder: 13.5 }))).toMatch(/Border of the set: 13\.5 mm .*the set is too small/);
  });

  it('says which outlines of a nested set are cut for which easel, and when the set is too small', () => {
    const nested = {
      form: 'nested',
      outline: 'circle',
      setBorder: 8,
      easels: [
        { back: 10, displayHeight: 80 },
        { back: 60, displayHeight: 64 },
      ],
    };
    const card = evaluated(cardOn('easel-row', nested));
    expect([1, 2, 3, 4].map((k) => measure(card, `outline${k}`))).toEqual([80, 64, 48, 32].map((h) => expect.closeTo(h, 1)));
    const uses = card.measures.filter((m) => /^outline\d/.test(m.name)).map((m) => m.because.replace(/^.*cut for /, ''));
    expect(uses).toEqual(['easel 1', 'easel 1 and 2', 'easel 1 and 2', 'easel 2']);
    expect(refused(cardOn('easel-row', { ...nested, outlinesInSet: 3 }))).toMatch(
      /Outlines in the set: 3 .*allowed is 4 .*easel 2 uses outlines 2, 3 and 4/,
    );
  });
});

describe('built-in outlines', () => {
  const heightOf = (loop: Loop): number => boxOf(loop).maxY - boxOf(loop).minY;
  it.each(SHAPES.map(({ id, draw }) => [id, draw] as const))(
    '%s comes to any size, symmetrical about its middle and without crossing itself',
    (_, draw) => {
      const loop = fitted(draw(), 80);
      const { minX, maxX, minY } = boxOf(loop);
      expect([minX, minY]).toEqual([expect.closeTo(0, 9), expect.closeTo(0, 9)]);
      expect(heightOf(loop)).toBeCloseTo(80, 9);
      for (const [x, y] of loop) {
        const twin = loop.some(([u, v]) => Math.hypot(u - (maxX - x), v - y) < 1e-6);
        expect(twin).toBe(true);
      }
      const crossing = loop.some((a, i) =>
        loop.some((c, j) => {
          if (Math.abs(i - j) < 2 || Math.abs(i - j) > loop.length - 2) return false;
          const [b, d] = [loop[(i + 1) % loop.length]!, loop[(j + 1) % loop.length]!];
          const side = (p: readonly [number, number], q: readonly [number, number], r: readonly [number, number]) =>
            Math.sign((q[0] - p[0]) * (r[1] - p[1]) - (q[1] - p[1]) * (r[0] - p[0]));
          return side(a, b, c) * side(a, b, d) < 0 && side(c, d, a) * side(c, d, b) < 0;
        }),
      );
      expect(crossing).toBe(false);
    },
  );
});
