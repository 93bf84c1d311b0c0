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
  tracked,
  stockById,
} from '../testing/evaluated.js';
import { toDegrees, toRadians } from '../measure/units.js';
import type { Evaluation } from '../evaluate.js';
import type { Sizes } from './sizes.js';

const IN = 25.4;
const CARD = stockById('card-250').caliper;
const LIGHT = stockById('light-card-160').caliper;

/** Checks the panels of a strip as they lie closed against the same worked out by ±length alone. */
function expectLying(
  mechanism: string,
  sizes: Sizes,
  names: readonly string[],
  widths: readonly number[],
  over: readonly boolean[],
  ground: string,
): Evaluation {
  const card = evaluated(cardOn(mechanism, sizes));
  const closed = card.motion.frames[0]!;
  const lying = folded(widths, over, names.indexOf(ground));
  names.forEach((name, i) => {
    const panel = `base/${name}`;
    const { minX, maxX } = boxIn(card, panel, closed);
    expect({ panel, from: minX, to: maxX }).toEqual({ panel, from: expect.closeTo(lying[i]![0], 6), to: expect.closeTo(lying[i]![1], 6) });
    for (const [x, y] of card.design.panels.find((p) => p.id === panel)!.area.outer)
      expect(at(card, panel, [x, y], closed)[2]).toBeCloseTo(0, 9);
  });
  const reach = Math.max(...lying.map(([, to]) => to)) - Math.min(...lying.map(([from]) => from));
  expect(card.closed.box.maxX - card.closed.box.minX).toBeCloseTo(reach, 6);
  return card;
}

describe('folded card', () => {
  it.each([
    [{ depth: 105, length: 148 }, 105, 210],
    [{ depth: 5 * IN, length: 7 * IN }, 127, 254],
    [{ depth: 320, length: 40 }, 320, 640],
  ])('%j has one score at its depth on a blank of two', (sizes, score, blank) => {
    const card = evaluated(cardOn('folded-card', sizes));
    expect(scoresOf(card, 'base')).toEqual([[score, 'valley']]);
    expect(card.sheets[0]!.width).toBeCloseTo(blank, 9);
    expect(card.closed.box.maxX - card.closed.box.minX).toBeCloseTo(sizes.depth, 9);
    expect(failing(card)).toEqual([]);
  });

  it('has a liner with a border of its own each way', () => {
    const card = evaluated(cardOn('folded-card', { depth: 105, length: 148, liner: 'one-piece', linerBorder: 5, linerBorderAlong: 8 }));
    const liner = card.sheets.find((sheet) => sheet.piece.id === 'liner')!;
    // π times half of 0.31 + 0.2 mm is what it is shorter by across the fold.
    expect(liner.width).toBeCloseTo(2 * (105 - 5) - (Math.PI * (0.31 + 0.2)) / 2, 6);
    expect(liner.height).toBeCloseTo(148 - 2 * 8, 9);
    expect(failing(card)).toEqual([]);
  });

  it('has a liner that is shorter across by half a turn of its distance inside the bend', () => {
    const card = evaluated(cardOn('folded-card', { depth: 105, length: 148, liner: 'one-piece', linerBorder: 5 }));
    const liner = card.sheets.find((sheet) => sheet.piece.id === 'liner')!;
    // Its middle lies half of both calipers inside the card's middle: π × (0.31 + 0.20) ÷ 2.
    const shorter = (Math.PI * (CARD + LIGHT)) / 2;
    expect(measure(card, 'linerAllowance')).toBeCloseTo(0.8011, 4);
    expect(liner.width).toBeCloseTo(200 - shorter, 9);
    expect(liner.scores[0]!.from[0]).toBeCloseTo(liner.width / 2, 9);
    expect(failing(card)).toEqual([]);
  });
});

describe('doors with a rising strip', () => {
  const PANELS = ['left-door', 'left-slope', 'strip', 'right-slope', 'right-door'];
  it.each([
    [{ closedWidth: 120, strip: 30, length: 150 }, [60, 105, 135, 180], 240, [60, 45, 30, 45, 60]],
    // 5 in, strip 1 1/4, gap 1/8: door 2 7/16, inner panel 1 7/8.
    [
      { closedWidth: 5 * IN, strip: 1.25 * IN, gap: IN / 8, length: 6 * IN },
      [61.9125, 109.5375, 141.2875, 188.9125],
      250.825,
      [61.9125, 47.625, 31.75, 47.625, 61.9125],
    ],
    [{ closedWidth: 50, strip: 8, length: 40 }, [25, 46, 54, 75], 100, [25, 21, 8, 21, 25]],
  ])('%j are scored and lie closed as worked out', (sizes, scores, blank, widths) => {
    const card = expectLying('rising-strip-doors', sizes, PANELS, widths, [true, false, false, true], 'strip');
    expect(scoresOf(card, 'base').map(([x]) => x)).toEqual(scores.map((x) => expect.closeTo(x, 6)));
    expect(scoresOf(card, 'base').map(([, fold]) => fold)).toEqual(['valley', 'mountain', 'mountain', 'valley']);
    expect(card.sheets[0]!.width).toBeCloseTo(blank, 9);
    expect(failing(card)).toEqual([]);
  });

  it.each([20, 50, 75])('at a slope of %d° stand inner panel × sin high on inner panels × cos and the strip', (degrees) => {
    const card = evaluated(cardOn('rising-strip-doors', { closedWidth: 140, strip: 40, displaySlope: toRadians(degrees) }));
    const slope = toRadians(degrees);
    expect(card.openHeight).toBeCloseTo(50 * Math.sin(slope), 6);
    expect(measure(card, 'stripHeight')).toBeCloseTo(50 * Math.sin(slope), 9);
    expect(measure(card, 'footprint')).toBeCloseTo(100 * Math.cos(slope) + 40, 9);
    expect(tracked(card, 'slope', card.resting)).toBeCloseTo(slope, 9);
    // Both ends of the left door lie on the table.
    const heights = [0, 70].map((x) => at(card, 'base/left-door', [x, 0], card.resting)[2]);
    expect(heights[0]).toBeCloseTo(heights[1]!, 9);
  });

  it('say that a door 3 mm too wide overlaps by 3 mm, and mend it', () => {
    const card = evaluated(cardOn('rising-strip-doors', { closedWidth: 120, leftDoor: 63 }));
    expect(failing(card)[0]).toMatchObject({
      id: 'meets/doors',
      value: expect.closeTo(3, 9),
      panels: ['base/left-door', 'base/right-door'],
    });
    expect(failing(card)[0]!.says).toContain('overlap by 3 mm');
    expect(failing(card)[0]!.fix!.changes).toEqual([{ owner: 'base', size: 'leftDoor', value: 60 }]);
    expect(
      failing(card)
        .slice(1)
        .every((f) => f.followsFrom === 'meets/doors'),
    ).toBe(true);
  });

  it('say that a door too narrow for its wanted gap leaves more', () => {
    const card = evaluated(cardOn('rising-strip-doors', { closedWidth: 120, gap: 2, rightDoor: 55 }));
    expect(finding(card, 'meets/doors')).toMatchObject({ severity: 'fail', value: expect.closeTo(4, 9) });
    expect(finding(card, 'meets/doors').says).toContain('leave 6 mm between them; a gap of 2 mm was wanted');
  });
});

describe('tucked-wing display', () => {
  const PANELS = ['left-door', 'left-wing', 'left-return', 'band', 'right-return', 'right-wing', 'right-door'];
  it.each([
    [{ closedWidth: 120, wing: 60, returnWidth: 20 }, 40, [60, 120, 140, 180, 200, 260], 320],
    // 4 1/4 in, wing 2, return 3/4: middle 4.25 − 4 + 1.5 = 1 3/4 in.
    [{ closedWidth: 4.25 * IN, wing: 2 * IN, returnWidth: 0.75 * IN }, 44.45, [50.8, 101.6, 120.65, 165.1, 184.15, 234.95], 285.75],
    [{ closedWidth: 220, wing: 110, returnWidth: 6, length: 320 }, 12, [110, 220, 226, 238, 244, 354], 464],
  ])('%j is scored and lies closed as worked out', (sizes, middle, scores, blank) => {
    const { wing, returnWidth, closedWidth } = sizes;
    const widths = [wing, wing, returnWidth, middle, returnWidth, wing, wing];
    const card = expectLying('tucked-display', sizes, PANELS, widths, [true, true, true, true, true, true], 'band');
    expect(measure(card, 'middle')).toBeCloseTo(middle, 9);
    expect(scoresOf(card, 'base').map(([x]) => x)).toEqual(scores.map((x) => expect.closeTo(x, 6)));
    expect(scoresOf(card, 'base').map(([, fold]) => fold)).toEqual(['valley', 'valley', 'mountain', 'mountain', 'valley', 'valley']);
    expect(card.sheets[0]!.width).toBeCloseTo(blank, 6);
    expect(card.closed.box.maxX - card.closed.box.minX).toBeCloseTo(closedWidth, 6);
    expect(failing(card)).toEqual([]);
  });

  it('steps its band forward by the return, the wings in one plane', () => {
    const card = evaluated(cardOn('tucked-display', { closedWidth: 120, wing: 55, returnWidth: 18 }));
    const band = at(card, 'base/band', [130, 75], card.resting);
    const wings = [at(card, 'base/left-wing', [80, 75], card.resting), at(card, 'base/right-wing', [210, 75], card.resting)];
    for (const wing of wings) expect(Math.abs(wing[2] - band[2])).toBeCloseTo(18, 6);
    expect(measure(card, 'openWidth')).toBeCloseTo(120 - 110 + 36 + 110, 9);
  });

  it('refuses wings wider than half the closed card with the reason', () => {
    expect(refused(cardOn('tucked-display', { closedWidth: 120, wing: 62 }))).toMatch(/Wing: 62 mm .*to 60 mm.*overlap/);
  });

  it('gives the largest picture that hides behind the doors, and fails a wider one', () => {
    const card = evaluated(cardOn('tucked-display', { closedWidth: 120, length: 150 }));
    expect([measure(card, 'largestFocalWidth'), measure(card, 'largestFocalHeight')]).toEqual([114, 144]);
    const wide = evaluated(cardOn('tucked-display', { closedWidth: 120, focalWidth: 130 }));
    // Centred on the closed card: 5 mm past both folds.
    const out = failing(wide).filter((f) => f.check === 'stays-inside');
    expect(out.map((f) => f.value)).toEqual([expect.closeTo(5, 6), expect.closeTo(5, 6)]);
    expect(out[0]!.says).toContain('door fold');
  });
});

describe('bellows box', () => {
  const PANELS = ['tab', 'left-back-bellows', 'left-front-bellows', 'front', 'right-front-bellows', 'right-back-bellows', 'back'];
  it.each([
    [{ frontWidth: 110, bellows: 18 }, [18, 36, 54, 164, 182, 200], 310],
    [{ frontWidth: 4 * IN, bellows: 0.75 * IN, length: 5 * IN }, [19.05, 38.1, 57.15, 158.75, 177.8, 196.85], 298.45],
    [{ frontWidth: 40, bellows: 8, length: 40, windowWidth: 10 }, [8, 16, 24, 64, 72, 80], 120],
  ])('%j is scored and lies closed as worked out', (sizes, scores, blank) => {
    const { frontWidth: f, bellows: s } = sizes;
    // The tab starts behind the back: everything folds over at each score.
    const card = expectLying('bellows-box', sizes, PANELS, [s, s, s, f, s, s, f], [true, true, true, true, true, true], 'front');
    expect(scoresOf(card, 'base').map(([x]) => x)).toEqual(scores.map((x) => expect.closeTo(x, 6)));
    expect(scoresOf(card, 'base').map(([, fold]) => fold[0])).toEqual(['m', 'v', 'm', 'm', 'v', 'm']);
    expect(card.sheets[0]!.width).toBeCloseTo(blank, 6);
    expect(card.closed.box.maxX - card.closed.box.minX).toBeCloseTo(f, 6);
    expect(failing(card)).toEqual([]);
  });

  it.each([0, 5, 15])('poked in by %d mm is 2√(bellows² − poke²) deep, front parallel to back', (poke) => {
    const card = evaluated(cardOn('bellows-box', { frontWidth: 110, bellows: 18, poke }));
    const depth = 2 * Math.sqrt(18 * 18 - poke * poke);
    expect(measure(card, 'openDepth')).toBeCloseTo(depth, 9);
    const { resting } = card;
    const back = [at(card, 'base/back', [201, 10], resting), at(card, 'base/back', [309, 10], resting)];
    for (const point of back) expect(Math.abs(point[2])).toBeCloseTo(depth, 5);
    // The middle of the left side lies that far inside the line from front to back.
    expect(at(card, 'base/left-front-bellows', [36, 0], resting)[0] - 54).toBeCloseTo(poke, 5);
  });

  it('has a registration fold that lays the back exactly behind the front', () => {
    const card = evaluated(cardOn('bellows-box', { frontWidth: 110, bellows: 18 }));
    const at = measure(card, 'registrationFold');
    // Back from 200 to 310 turned over about the fold; the front lies from 54 to 164.
    expect([2 * at - 310, 2 * at - 200]).toEqual([54, 164]);
  });

  it('keeps window and scene off the bellows', () => {
    const card = evaluated(cardOn('bellows-box', { frontWidth: 110, bellows: 18 }));
    expect(measure(card, 'clearWidth')).toBe(74);
    const wide = evaluated(cardOn('bellows-box', { frontWidth: 110, bellows: 18, windowShape: 'rectangle', windowWidth: 90 }));
    // (90 − 74) ÷ 2 into either side.
    expect(failing(wide).map((f) => [f.id, f.value])).toEqual([
      ['reserved-clear/left-bellows-zone', expect.closeTo(8, 6)],
      ['reserved-clear/right-bellows-zone', expect.closeTo(8, 6)],
    ]);
    expect(failing(wide)[0]!.fix!.changes).toEqual([{ owner: 'base', size: 'windowWidth', value: 74 }]);
  });

  it('finds bellows of different width at the root', () => {
    const card = evaluated(cardOn('bellows-box', { frontWidth: 110, bellows: 18, rightBellows: 20 }));
    expect(failing(card)[0]).toMatchObject({ id: 'equal-widths/bellows', value: expect.closeTo(2, 9) });
    // The narrower side pulls taut first: poked in by nothing, a side of 2 × 18 cannot reach as deep as one of 2 × 20.
    const taut = evaluated(cardOn('bellows-box', { frontWidth: 110, bellows: 20, rightBellows: 18, poke: 0 }));
    expect(finding(taut, 'closes-loop')).toMatchObject({ severity: 'fail', followsFrom: 'equal-widths/bellows' });
    // Taut where the left side is 36 deep, 40 × cos(fold ÷ 2); the play of a joint lets the back lean a little further.
    const exact = 180 - 2 * toDegrees(Math.acos(36 / 40));
    const reached = toDegrees(taut.motion.reachable.opening[1]);
    expect(reached).toBeGreaterThan(exact - 0.2);
    expect(reached).toBeLessThan(exact + 5);
  });
});

describe('layered stage', () => {
  it.each([
    [{ innerWidth: 110, depth: 36, height: 140 }, [36, 146], 146],
    [{ innerWidth: 4.25 * IN, depth: 1.5 * IN, height: 5.5 * IN }, [38.1, 146.05], 146.05],
    [{ innerWidth: 240, depth: 15, height: 320, layers: [] }, [15, 255], 255],
  ])('%j shears flat to inner width and depth', (sizes, scores, flat) => {
    const card = evaluated(cardOn('layered-stage', sizes));
    expect(scoresOf(card, 'base').map(([x]) => x)).toEqual(scores.map((x) => expect.closeTo(x, 6)));
    expect(card.closed.box.maxX - card.closed.box.minX).toBeCloseTo(flat, 6);
    expect(measure(card, 'flatWidth')).toBeCloseTo(flat, 9);
    expect(toDegrees(tracked(card, 'square', card.resting))).toBeCloseTo(90, 6);
    // A parallelogram: every frame has the front parallel to the back, wall × sin of the wall's angle away.
    for (const i of [10, 30, 50]) {
      const frame = card.motion.frames[i]!;
      const wall = tracked(card, 'square', frame);
      expect(Math.abs(at(card, 'front/front', [sizes.depth + 1, 1], frame)[2])).toBeCloseTo(sizes.depth * Math.sin(wall), 5);
    }
    expect(failing(card)).toEqual([]);
  });

  it('cuts the front a caliper wider and layers a caliper narrower, and says what that leaves at either end', () => {
    const card = evaluated(cardOn('layered-stage', { innerWidth: 110, depth: 36, layers: [{ depth: 12, tab: 10 }] }));
    expect(scoresOf(card, 'front').map(([x]) => x)).toEqual([expect.closeTo(36, 6), expect.closeTo(146 + CARD, 6)]);
    expect(scoresOf(card, 'layer-1').map(([x]) => x)).toEqual([expect.closeTo(10, 6), expect.closeTo(120 - CARD, 6)]);
    const pull = finding(card, 'thickness-pull/layer-1');
    expect(pull).toMatchObject({ severity: 'pass', value: expect.closeTo(2 * CARD, 9) });
    expect(pull.says).toMatch(/standing it is 0.31 mm too wide, flat it is 0.31 mm too narrow/);
    expect(finding(card, 'thickness-pull/front').says).toMatch(/standing it is 0.31 mm too narrow, flat it is 0.31 mm too wide/);
  });

  it('nests each opening a border inside the one in front, twice that across', () => {
    const card = evaluated(
      cardOn('layered-stage', {
        innerWidth: 110,
        windowShape: 'rectangle',
        windowWidth: 90,
        windowHeight: 100,
        windowBorder: 5,
        layers: [{}, { window: 'none' }, {}],
      }),
    );
    expect([measure(card, 'window1Width'), measure(card, 'window1Height')]).toEqual([expect.closeTo(80, 5), expect.closeTo(90, 5)]);
    expect([measure(card, 'window3Width'), measure(card, 'window3Height')]).toEqual([expect.closeTo(70, 5), expect.closeTo(80, 5)]);
  });

  it('finds a layer of another width at the root, by how much', () => {
    const card = evaluated(cardOn('layered-stage', { innerWidth: 110, layers: [{ width: 112 }, {}] }));
    const [root, ...rest] = failing(card);
    expect(root).toMatchObject({
      id: 'equal-widths/layer-1',
      value: expect.closeTo(2, 9),
      fix: { changes: [{ size: 'layers[1].width', value: 110 }] },
    });
    expect(rest.length).toBeGreaterThan(0);
    for (const effect of rest) expect(['equal-widths/layer-1', 'closes-loop']).toContain(effect.followsFrom);
    expect(finding(card, 'closes-loop').value).toBeCloseTo(2, 1);
  });

  it('is refused a layer that its window would cut through', () => {
    // A window of 130 and a rim of 4 on both sides: 138.
    const layer = (width: number) => ({ innerWidth: 140, height: 100, windowWidth: 130, layers: [{ depth: 10, width }] });
    expect(refused(cardOn('layered-stage', layer(137)))).toMatch(/width: 137 mm .*138 mm.*cut through by its window/i);
    expect(evaluated(cardOn('layered-stage', layer(138.5))).design.faults).toEqual([]);
  });
});

describe('four-wall box', () => {
  it.each([
    [{ wall: 60, height: 90 }, [60, 120, 180, 240], 120],
    [{ wall: 2.5 * IN, secondWall: 2 * IN, height: 4 * IN }, [63.5, 114.3, 177.8, 228.6], 114.3],
    [{ wall: 200, secondWall: 25, height: 25, dividers: [] }, [200, 225, 425, 450], 225],
  ])('%j has its corners where the walls add up, and flattens to two walls', (sizes, corners, flat) => {
    const card = evaluated(cardOn('box-card', sizes));
    const upright = card.sheets[0]!.scores.filter((score) => score.from[0] === score.to[0]).map((score) => score.from[0]);
    expect(upright).toEqual(corners.map((x) => expect.closeTo(x, 6)));
    expect(card.closed.box.maxX - card.closed.box.minX).toBeCloseTo(flat, 6);
    expect(measure(card, 'flatWidth')).toBeCloseTo(flat, 9);
    const [first, second] = [sizes.wall, corners[1]! - corners[0]!];
    const walls = ['first', 'second', 'third', 'fourth'].map((wall) => boxIn(card, `base/${wall}-wall`, card.motion.frames[0]!));
    // Two walls flat in a row, the other two back over them.
    const lying = folded([first, second, first, second], [false, true, false], 0);
    expect(walls.map(({ minX, maxX }) => [minX, maxX])).toEqual(
      lying.map(([from, to]) => [expect.closeTo(from, 6), expect.closeTo(to, 6)]),
    );
    expect(toDegrees(tracked(card, 'corner', card.resting))).toBeCloseTo(90, 6);
    expect(failing(card)).toEqual([]);
  });

  it('has dividers as long as the wall less two calipers of their card, parallel to it all the way', () => {
    const card = evaluated(cardOn('box-card', { wall: 60, secondWall: 50, height: 90, dividers: [{ distance: 20 }] }));
    expect(measure(card, 'divider1Length')).toBeCloseTo(60 - 2 * LIGHT, 9);
    for (const frame of card.motion.frames.filter((_, i) => i % 10 === 0)) {
      const ends = [11, 69].map((x) => at(card, 'divider-1/divider-1', [x, 2], frame)[2]);
      expect(ends[0]).toBeCloseTo(ends[1]!, 5);
      expect(Math.abs(ends[0]!)).toBeCloseTo(20 * Math.sin(Math.PI - tracked(card, 'corner', frame)), 4);
    }
  });

  it('finds a wall 2 mm short at the root', () => {
    const card = evaluated(cardOn('box-card', { wall: 60, secondWall: 60, thirdWall: 58 }));
    const [root, ...rest] = failing(card);
    expect(root).toMatchObject({
      id: 'equal-widths/first-third',
      value: expect.closeTo(2, 9),
      panels: ['base/first-wall', 'base/third-wall'],
    });
    for (const effect of rest) expect(effect.followsFrom).toBeDefined();
    expect(root!.fix!.changes).toEqual([{ owner: 'base', size: 'thirdWall', value: 60 }]);
  });

  it('says when a figure sticks out of the flattened box, and by how much', () => {
    const card = evaluated(
      cardOn('box-card', {
        wall: 60,
        height: 90,
        flaps: [],
        dividers: [{ distance: 20, height: 40, figure: 'rectangle', figureHeight: 60, figureWidth: 20, figureAt: 30 }],
      }),
    );
    // 40 and 60 against walls of 90 without flaps.
    expect(failing(card)).toMatchObject([{ check: 'stays-inside', value: expect.closeTo(10, 6), panels: ['divider-1/divider-1'] }]);
  });
});
