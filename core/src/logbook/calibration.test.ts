import { describe, expect, it } from 'vitest';
import { cardOn, evaluated } from '../testing/evaluated.js';
import { normals, sharesFor } from '../measure/seeded.js';
import { chiSquare, DEVIATES, studentT } from '../measure/spread.js';
import { METRIC_WORKSHOP } from '../supplies/starter-workshops.js';
import type { Workshop } from '../supplies/workshop.js';
import type { Measure } from './build.js';
import { accepted, evidenceOf, takenBack, type Evidence } from './calibration.js';
import { plannedMeasures } from './planned-measures.js';

const board = METRIC_WORKSHOP.boards[0]!.id;
const trimmer = METRIC_WORKSHOP.trimmers[0]!.id;
const stock = METRIC_WORKSHOP.stocks[0]!.id;

/** A maker whose tools are off by known amounts, who measures so many scores, widths and panels. */
function measured(seed: number, count: number, known: { board?: number; trimmer?: number; fold?: number; score?: number; cut?: number }) {
  const { score = METRIC_WORKSHOP.hand.score, cut = METRIC_WORKSHOP.hand.cut } = known;
  const noise = new Float64Array(3 * count);
  normals(noise, sharesFor(seed, 0));
  const shared = { says: 'x', stock, mechanism: 'folded-card' };
  const measures = Array.from({ length: count }, (_, i): Measure[] => [
    { ...shared, what: 'score', tool: board, planned: 20 + 7 * i, measured: 20 + 7 * i + (known.board ?? 0) + score * noise[3 * i]! },
    { ...shared, what: 'trim', tool: trimmer, planned: 90 + i, measured: 90 + i + (known.trimmer ?? 0) + cut * noise[3 * i + 1]! },
    { ...shared, what: 'panel', tool: '', folds: 2, planned: 60, measured: 60 + 2 * (known.fold ?? 0) + 0.2 * noise[3 * i + 2]! },
  ]).flat();
  return [{ measures }];
}

const found = (builds: readonly { measures: readonly Measure[] }[], kind: Evidence['kind'], workshop = METRIC_WORKSHOP): Evidence =>
  evidenceOf(builds, workshop).find((each) => each.kind === kind)!;

const SEEDS = Array.from({ length: 200 }, (_, i) => i + 1);

describe('calibration', () => {
  it('finds what a board, a trimmer and a fold are off by, within what it says it is certain of', () => {
    // 95 of 100 intervals hold what is true: of 200 seeds 190, by chance hardly fewer than 180 (three deviations: 9).
    for (const [kind, known] of [
      ['board', { board: 0.5 }],
      ['trimmer', { trimmer: -0.6 }],
      ['fold', { fold: 0.3 }],
    ] as const) {
      const evidence = SEEDS.map((seed) => found(measured(seed, 16, known), kind));
      const [truth] = Object.values(known) as [number];
      expect(evidence.filter(({ value, uncertainty }) => Math.abs(value - truth) <= uncertainty).length).toBeGreaterThan(180);
      expect(evidence.filter(({ offered }) => offered).length).toBeGreaterThan(190);
    }
  });

  it('finds how steady a hand is, and offers it where the workshop says otherwise', () => {
    const evidence = SEEDS.map((seed) => found(measured(seed, 30, { score: 0.6, board: 1 }), 'hand-score'));
    expect(evidence.filter(({ value, uncertainty }) => Math.abs(value - 0.6) <= uncertainty).length).toBeGreaterThan(180);
    expect(evidence.filter(({ offered }) => offered).length).toBeGreaterThan(190);
  });

  it('offers nothing where there is nothing', () => {
    const offered = SEEDS.map((seed) => evidenceOf(measured(seed, 16, {}), METRIC_WORKSHOP).filter((each) => each.offered));
    // Five things are judged for each seed, each wrongly in 1 of 200: of 1,000 hardly more than 12.
    expect(offered.flat().length).toBeLessThanOrEqual(12);
    expect(evidenceOf(measured(1, 5, { board: 2 }), METRIC_WORKSHOP)).toEqual([]);
  });

  it('takes no notice of a slip', () => {
    const builds = measured(3, 16, { board: 0.5 });
    const slip: Measure = { ...builds[0]!.measures[0]!, planned: 120, measured: 210 };
    const { value, leftOut } = found([...builds, { measures: [slip] }], 'board');
    expect(leftOut).toBe(1);
    expect(value).toBe(found(builds, 'board').value);
  });

  it('is what is measured and no more, by hand', () => {
    // 0.3, 0.4 and 0.5 twice each: mean 0.4, deviation √(4 · 0.01 ÷ 5) = 0.0894; t of 5 at 95 % is 2.571: 2.571 · 0.0894 ÷ √6 = 0.0939.
    const measures = [0.3, 0.4, 0.5, 0.3, 0.4, 0.5].map((off): Measure => ({
      what: 'score',
      says: 'x',
      planned: 50,
      measured: 50 + off,
      tool: board,
      stock,
      mechanism: 'swing',
    }));
    const { value, uncertainty, count } = found([{ measures }], 'board');
    expect([value, count]).toEqual([expect.closeTo(0.4, 9), 6]);
    expect(uncertainty).toBeCloseTo(0.0939, 3);
  });

  it('once accepted is in force, is not offered again, and is taken back without a trace', () => {
    const builds = measured(5, 40, { board: 0.5, score: 0.6 });
    let workshop: Workshop = METRIC_WORKSHOP;
    for (const { kind, offered, name, leftOut, now, ...rest } of evidenceOf(builds, workshop)) {
      if (offered) workshop = accepted(workshop, { kind, ...rest });
      expect([name, leftOut, now]).toBeDefined();
    }
    expect(workshop.hand.score).toBe(found(builds, 'hand-score').value);
    expect(evidenceOf(builds, workshop).filter(({ offered }) => offered)).toEqual([]);
    const back = workshop.calibrations!.reduce((left, { kind, id }) => takenBack(left, kind, id), workshop);
    expect(back).toEqual(METRIC_WORKSHOP);
  });
});

describe('the distributions it rests on', () => {
  it('are those of the tables', () => {
    for (const [degrees, t] of [
      [5, 2.5706],
      [10, 2.2281],
      [30, 2.0423],
    ] as const)
      expect(studentT(DEVIATES.usual, degrees)).toBeCloseTo(t, 2);
    for (const [degrees, low, high] of [
      [10, 3.247, 20.483],
      [30, 16.791, 46.979],
    ] as const) {
      expect(chiSquare(-DEVIATES.usual, degrees)).toBeCloseTo(low, 1);
      expect(chiSquare(DEVIATES.usual, degrees)).toBeCloseTo(high, 1);
    }
  });
});

describe('what can be measured of a card', () => {
  it('is both sides of a blank, each score from its own edge, each panel between two', () => {
    // Closed 120 wide, strip 30: scores at 60, 105, 135 and 180 of 240; the half from the other end is read from there.
    const doors = plannedMeasures(
      evaluated(cardOn('rising-strip-doors', { closedWidth: 120, length: 150, strip: 30, gap: 0 })),
      METRIC_WORKSHOP,
    );
    const of = (what: string): number[] => doors.filter((each) => each.what === what).map(({ planned }) => planned);
    expect(of('trim')).toEqual([240, 150]);
    expect(of('score').sort((a, b) => a - b)).toEqual([60, 60, 105, 105]);
    expect(of('panel')).toEqual([45, 30, 45]);
  });
});
