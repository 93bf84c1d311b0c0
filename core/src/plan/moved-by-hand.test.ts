import { describe, expect, it } from 'vitest';
import { DEMO_CARDS } from '../card/demo-cards.js';
import { everySheet } from '../dress/every-sheet.js';
import { asArea } from '../plane/outline.js';
import { distanceBetween } from '../plane/distance-between.js';
import { starterFor } from '../supplies/starter-workshops.js';
import { dice } from '../testing/any-tree.js';
import { cardOn, evaluated } from '../testing/evaluated.js';
import { anyJob, wrongWithCuts } from '../testing/sheet-laws.js';
import { cuttingPlan } from './cutting-plan.js';
import { guillotine, placedOn, type PlacedBlank } from './guillotine.js';
import { movedByHand } from './moved-by-hand.js';
import { partsBetween } from './parts-between.js';

const workshop = starterFor('mm');
const at = (id: string, x: number, y: number, width: number, height: number): PlacedBlank => ({
  blank: { id, width, height, lies: 'upright' },
  ...{ x, y, width, height, turned: false },
});

describe('cuts between blanks that lie on a sheet', () => {
  it('are found for every layout that was cut edge to edge, and end with its blanks', () => {
    const next = dice(23);
    for (let i = 0; i < 30; i++) {
      const { blanks, sheet } = anyJob(next);
      const { sheets, tooLarge } = guillotine(blanks, sheet, 1);
      const again = sheets.map((one) => partsBetween(sheet, placedOn(one)));
      expect(again.every((one) => one !== undefined)).toBe(true);
      expect(wrongWithCuts({ sheets: again.map((one) => one!), tooLarge }, blanks, sheet)).toEqual([]);
    }
  });

  it('are none round a pinwheel', () => {
    const pinwheel = [at('a', 0, 0, 20, 10), at('b', 20, 0, 10, 20), at('c', 10, 20, 20, 10), at('d', 0, 10, 10, 20)];
    expect(partsBetween({ width: 30, height: 30 }, pinwheel)).toBeUndefined();
    expect(partsBetween({ width: 30, height: 30 }, pinwheel.slice(1))).toBeDefined();
  });
});

describe('a piece moved by hand', () => {
  const evaluation = evaluated(cardOn('folded-card', { depth: 60, length: 100 }));
  // Two blanks of 120 × 100, across on 300 × 240.
  const plan = (tool: 'trimmer' | 'free') =>
    cuttingPlan(evaluation, { copies: 2, tool, sheets: [{ width: 300, height: 240 }] }, workshop).sheets[0]!;

  it('has its cuts worked out anew', () => {
    const sheet = plan('trimmer');
    const { sheet: moved, wrong } = movedByHand(evaluation, sheet, 'base#2', { x: 150, y: 110 }, 'trimmer');
    expect(wrong).toEqual([]);
    const [first] = sheet.pieces.filter(({ id }) => id === 'base#1');
    const blanks = moved.pieces.map(({ id, width, height }) => ({ id, width, height, lies: 'either' as const }));
    const parts = partsBetween(
      moved,
      moved.pieces.map(({ id, x, y, width, height }) => at(id, x, y, width, height)),
    )!;
    expect(wrongWithCuts({ sheets: [parts], tooLarge: [] }, blanks, moved)).toEqual([]);
    expect(moved.pieces.find(({ id }) => id === 'base#1')).toEqual(first);
    expect(moved.waste).toBeCloseTo(1 - 24000 / 72000, 9);
  });

  it('is told where it reaches past the sheet, lies over another, or leaves no cut edge to edge', () => {
    const sheet = plan('trimmer');
    const other = sheet.pieces.find(({ id }) => id === 'base#1')!;
    const wrongAt = (x: number, y: number): string[] => movedByHand(evaluation, sheet, 'base#2', { x, y }, 'trimmer').wrong;
    const turned = other.turned ? 100 : 120;
    expect(wrongAt(300 - turned + 5, 110)).toEqual(['Card 2 reaches 5 mm past the right edge of the sheet.']);
    expect(wrongAt(other.x + 10, other.y)).toEqual(['Card 1 and card 2 lie over one another.']);
    expect(movedByHand(evaluation, sheet, 'base#2', { x: other.x + 10, y: other.y }, 'trimmer').sheet.cuts).toEqual([]);
  });

  it('keeps room for scissors along its own line', () => {
    const sheet = plan('free');
    const other = sheet.pieces.find(({ id }) => id === 'base#1')!;
    const beside = (gap: number): string[] =>
      movedByHand(evaluation, sheet, 'base#2', { x: other.x + other.width + gap, y: other.y, turned: other.turned }, 'free').wrong;
    expect(beside(2)).toEqual([]);
    expect(beside(0.5)).toEqual(['Card 1 and card 2 are 0.5 mm apart: leave 2 mm, so that each is cut out along its own line.']);
  });

  it('that is scored is told when it is turned across the grain, and one with a pattern when it no longer stands upright', () => {
    const sheet = plan('trimmer');
    const own = sheet.pieces.find(({ id }) => id === 'base#2')!;
    expect(movedByHand(evaluation, sheet, own.id, { x: 150, y: 110, turned: !own.turned }, 'trimmer').told).toEqual([
      'The folds of card 2 run across the grain so.',
    ]);
    // 300 wide comes out of 297 × 420 across its grain only: moved, it lies so still.
    const wide = evaluated(cardOn('folded-card', { depth: 150, length: 148 }));
    const across = cuttingPlan(wide, { copies: 1, tool: 'free', sheets: [{ width: 297, height: 420 }] }, workshop).sheets[0]!;
    expect(across.pieces[0]).toMatchObject({ turned: true, acrossGrain: true });
    const moved = movedByHand(wide, across, 'base', { x: 5, y: 5 }, 'free');
    expect(moved.sheet.pieces[0]).toMatchObject({ x: 5, y: 5, turned: true, acrossGrain: true });
    const dressed = evaluated(DEMO_CARDS.find(({ dressing }) => (dressing?.toppers ?? []).length > 0)!);
    const patterned = cuttingPlan(dressed, { copies: 1, tool: 'free', sheets: [] }, workshop).sheets.find(
      ({ stock }) => stock.goodSides === 1 && stock.kind === 'paper',
    )!;
    const scored = new Set(everySheet(dressed).flatMap(({ piece, scores }) => (scores.length > 0 ? [piece.id] : [])));
    const layer = patterned.pieces.find(({ piece }) => !scored.has(piece))!;
    const { told } = movedByHand(dressed, patterned, layer.id, { ...layer, endForEnd: true }, 'free');
    expect(told.some((says) => says.startsWith('The pattern of'))).toBe(true);
  });
});

describe('how near two lines come', () => {
  it('is from a corner to an edge', () => {
    const square = asArea([
      [0, 0],
      [10, 0],
      [10, 10],
      [0, 10],
    ]);
    // The tip points at the middle of the square's right side, 3 away.
    const tip = asArea([
      [13, 5],
      [20, 0],
      [20, 10],
    ]);
    expect(distanceBetween(square, tip)).toBe(3);
    expect(distanceBetween(tip, square)).toBe(3);
  });
});
