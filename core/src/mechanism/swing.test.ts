import { describe, expect, it } from 'vitest';
import { boxIn, cardOn, evaluated, failing, finding, measure, stockById, tracked } from '../testing/evaluated.js';
import { innerCuts } from '../plan/cut-runs.js';
import { whatShows } from '../card/what-shows.js';
import { toDegrees } from '../measure/units.js';
import type { Frame } from '../linkage/motion.js';

const IN = 25.4;
const near = (value: number, digits = 6) => expect.closeTo(value, digits);

describe('swing card', () => {
  const ONE = { blankLength: 210, height: 120, border: 15, zigzag: 20, scoreAt: 95, panelFrom: 25, panelTo: 165 };
  const TWO = { blankLength: 10 * IN, height: 5 * IN, border: 0.5 * IN, swings: '2', zigzag: 0.5 * IN, panelFrom: 0.5 * IN };
  const EXTREME = { blankLength: 100, height: 40, border: 5, zigzag: 6, scoreAt: 40, panelFrom: 10, panelTo: 70 };

  it.each([
    [ONE, 170, 25, 165],
    [EXTREME, 88, 10, 70],
  ])('%j lies closed where 2·score − panel says, turned over, and open where it was cut', (sizes, width, from, to) => {
    const card = evaluated(cardOn('swing', sizes));
    const { scoreAt: x1, panelFrom: xs, panelTo: xe, blankLength: L, zigzag: z } = sizes;
    expect(L - 2 * z).toBe(width);
    expect(card.closed.box.maxX - card.closed.box.minX).toBeCloseTo(width, 6);
    const read = (frame: Frame) => [tracked(card, 'panelFrom', frame), tracked(card, 'panelTo', frame)];
    const [closed, open] = [card.motion.frames[0]!, card.motion.frames[60]!];
    expect(read(closed)).toEqual([near(2 * x1 - xs), near(2 * x1 - xe)]);
    expect([2 * x1 - xe, 2 * x1 - xs]).toEqual([from, to]);
    expect(read(open)).toEqual([near(xs), near(xe)]);
    expect(toDegrees(tracked(card, 'swing', closed))).toBeCloseTo(180, 6);
    expect(toDegrees(tracked(card, 'swing', open))).toBeCloseTo(0, 6);
    expect(failing(card)).toEqual([]);
    // The panel shows its other face closed and its own face open.
    const shows = whatShows(card.design, card.motion, card.closed);
    const faceOf = (list: { panel: string; face: string }[]) => list.find((seen) => seen.panel === 'base/left-swing')?.face;
    expect([faceOf(shows.closed.front), faceOf(shows.open.front)]).toEqual(['down', 'up']);
  });

  it('scores only the borders: one mountain, one valley, above and below', () => {
    const [sheet] = evaluated(cardOn('swing', ONE)).sheets;
    const scores = sheet!.scores.map(({ fold, from, to }) => [fold, from[0], from[1], to[1]]);
    expect(scores).toEqual([
      ['valley', 95, 0, 15],
      ['valley', 95, 105, 120],
      ['mountain', 115, 0, 15],
      ['mountain', 115, 105, 120],
    ]);
  });

  it('with two swings meets in the middle at the score that makes them meet', () => {
    const card = evaluated(cardOn('swing', TWO));
    // (10 ÷ 2 − 1 + 1/2) ÷ 2 = 2 1/4 in.
    expect(measure(card, 'meetingScore')).toBeCloseTo(2.25 * IN, 6);
    expect(measure(card, 'seamGap')).toBeCloseTo(0, 6);
    expect(card.closed.box.maxX - card.closed.box.minX).toBeCloseTo(8 * IN, 6);
    expect(finding(card, 'meets/panels')).toMatchObject({ severity: 'pass' });
    const gap = evaluated(cardOn('swing', { ...TWO, scoreAt: 2.25 * IN - 2 }));
    // Each panel ends 2 × 2 mm further from the middle.
    expect(measure(gap, 'seamGap')).toBeCloseTo(8, 6);
    expect(finding(gap, 'meets/panels').says).toContain('leave 8 mm between them');
  });

  it('finds a panel 1 mm too big at its frame, and mends it', () => {
    const card = evaluated(cardOn('swing', { ...ONE, panelTo: 166 }));
    expect(finding(card, 'has-room/frame')).toMatchObject({
      severity: 'fail',
      value: near(-1),
      panels: ['base/left-arm', 'base/left-swing'],
      fix: { changes: [{ size: 'panelTo', value: 165 }] },
    });
  });

  it('lists only the cuts whose readings differ, with what they make again after a turn', () => {
    const [sheet] = evaluated(cardOn('swing', ONE)).sheets;
    expect(sheet!.cuts).toHaveLength(6);
    const cuts = innerCuts(sheet!, 'mm');
    const read = cuts.map(({ fence, distance: d, start, stop, again }) => [fence, d, start, stop, again.map((a) => a.turn)]);
    // Above and below are mirror images: turned over away from you, the lower reading makes the upper cut.
    expect(read).toEqual([
      ['lower edge', 15, 25, 95, ['turned over away from you']],
      ['left edge', 25, 15, 105, []],
      ['lower edge', 15, 115, 165, ['turned over away from you']],
      ['left edge', 165, 15, 105, []],
    ]);
    expect(cuts[0]!.words).toBe('15 mm from the lower edge: drop the blade at 25 mm, stop at 95 mm');
    // Twelve cuts of two swings come down to four readings, three of them again after each of three turns.
    const two = innerCuts(evaluated(cardOn('swing', TWO)).sheets[0]!, 'inch/8');
    expect(two).toHaveLength(4);
    expect(two.reduce((sum, { again }) => sum + 1 + again.length, 0)).toBe(12);
  });

  it('frames both arms from one blank of twice the score; its waste is one panel’s layer', () => {
    const card = evaluated(cardOn('swing', { ...TWO, frames: 'outer' }));
    const frames = card.sheets.find((sheet) => sheet.piece.id === 'frames')!;
    expect(frames.width).toBeCloseTo(4.5 * IN, 6);
    expect(measure(card, 'frameWaste')).toBeCloseTo(measure(card, 'panelWidth'), 6);
    expect(failing(card)).toEqual([]);
  });

  it.each(['front', 'behind'])('sets frames of another stock back at the score and the opening, glued %s', (frameSide) => {
    const back = { frames: 'outer', frameFromScore: 3, frameFromOpening: 2, frameSide, frameStock: 'display' };
    const card = evaluated(cardOn('swing', { ...TWO, ...back }));
    expect(failing(card)).toEqual([]);
    const frames = card.sheets.find(({ piece }) => piece.id === 'frames')!;
    expect(frames.piece.stock).toBe('display');
    expect(frames.width).toBeCloseTo(2 * (2.25 * IN - 3), 6);
    // Each lies over its own arm, three short of the score and two short of the opening, all along.
    const [left, right] = ['frames/left', 'frames/right'].map((panel) => boxIn(card, panel, card.motion.frames[60]!));
    const arm = boxIn(card, 'base/left-arm', card.motion.frames[60]!);
    expect([left!.minX, left!.maxX]).toEqual([near(arm.minX, 6), near(arm.maxX - 3, 6)]);
    expect(right!.maxX - right!.minX).toBeCloseTo(left!.maxX - left!.minX, 6);
    expect(measure(card, 'frameWaste')).toBeCloseTo(measure(card, 'panelWidth') - 2 * 3 + 2 * 2, 6);
    expect(measure(card, 'frameWasteHeight')).toBeCloseTo(measure(card, 'panelHeight') + 2 * 2, 6);
    const order = card.closed.stack.order.map((body) => card.design.panels[body]!.id);
    expect(order.indexOf('frames/left') > order.indexOf('base/left-arm')).toBe(
      (frameSide === 'front') === card.closed.stack.layers[card.design.linkage.bodyOf.get('base/left-arm')!]!.faceUp,
    );
  });

  it('warns of a single cut and passes with a sliver, √(r² + t²) and a hand’s error counted', () => {
    expect(finding(evaluated(cardOn('swing', ONE)), 'swing-clears/left').severity).toBe('warn');
    const trimmed = evaluated(cardOn('swing', { ...ONE, trim: 0.6 }));
    const t = stockById('card-250').caliper;
    expect(finding(trimmed, 'swing-clears/left')).toMatchObject({ severity: 'pass', value: near(70 - Math.hypot(69.4, t), 9), limit: 0.5 });
  });
});
