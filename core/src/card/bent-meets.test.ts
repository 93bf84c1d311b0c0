import { describe, expect, it } from 'vitest';
import { rowCount, type SheetRow } from '../bending/sheet.js';
import { toRadians } from '../measure/units.js';
import { at, cardWith, evaluated } from '../testing/evaluated.js';
import { bentMeetings } from './bent-meets.js';

/** A step 30 deep and 20 high on the fold of a card 100 × 150, its paper from 55 to 95 up the fold. */
const evaluation = evaluated(cardWith('step', { depth: 30, height: 20, width: 40, offset: 55 }, { depth: 100, length: 150 }));
const { design, motion } = evaluation;
const SHEET: SheetRow = { width: 120, lengths: [120], cells: { along: 60, across: 60 } };

/** A sheet that stays flat, square to the fold, `up` from its lower end: everything that crosses that plane goes through it. */
const squareToFold = (up: number, angle = 0, atRest = true) => {
  const shapes = motion.frames.map((frame) => {
    const [foot, along] = [at(evaluation, 'base/back-leaf', [100, up], frame), at(evaluation, 'base/back-leaf', [100, up + 1], frame)];
    const axis = along.map((n, i) => n - foot[i]!);
    // Two directions square to the fold.
    const u = [1, 0, 0];
    const v = [axis[1]! * u[2]! - axis[2]! * u[1]!, axis[2]! * u[0]! - axis[0]! * u[2]!, axis[0]! * u[1]! - axis[1]! * u[0]!];
    const nodes: number[] = [];
    for (let i = 0; i <= rowCount(SHEET); i++)
      for (let j = 0; j <= SHEET.cells.across; j++)
        for (let c = 0; c < 3; c++) nodes.push(foot[c]! + (2 * i - 60.5) * u[c]! + (2 * j - 60.5) * v[c]!);
    return { nodes: Float64Array.from(nodes), energy: 0, angle, radius: 1, atRest };
  });
  const openings = motion.frames.map(({ opening }) => opening);
  const before = [
    { panel: 'base/back-leaf', face: 'up' as const },
    { panel: 'base/front-leaf', face: 'up' as const },
  ];
  return { claim: { owner: 'bent', before }, sheet: SHEET, openings, opening: { shapes }, closing: { shapes } };
};

describe('what a bent sheet runs into', () => {
  it('is every panel that crosses it, over the width in which it does, from the first opening either way', () => {
    const met = bentMeetings(design, motion, squareToFold(75));
    const opening = met.filter(({ way }) => way === 'opening');
    const ofStep = design.panels.filter(({ part }) => part === 'figure').map(({ id }) => id);
    expect(opening.map(({ panel }) => panel).sort()).toEqual(ofStep.sort());
    expect(opening).toHaveLength(2);
    // Square to the fold a panel of the step is cut in a line as long as it is wide: 30 and 20, to a cell of 2 mm.
    expect(Math.abs(Math.max(...opening.map(({ length }) => length)) - 30)).toBeLessThan(4);
    expect(Math.abs(Math.min(...opening.map(({ length }) => length)) - 20)).toBeLessThan(4);
    const first = motion.frames.findIndex(({ opening: angle }) => angle >= toRadians(10));
    for (const meeting of opening) expect([meeting.frame, meeting.opening]).toEqual([first, motion.frames[first]!.opening]);
    for (const meeting of met.filter(({ way }) => way === 'closing')) expect(meeting.frame).toBe(motion.frames.length - 1);
  });

  it('is nothing beside the step, and nothing of its own part', () => {
    expect(bentMeetings(design, motion, squareToFold(100))).toEqual([]);
    const own = squareToFold(75);
    expect(bentMeetings(design, motion, { ...own, claim: { ...own.claim, owner: 'figure' } })).toEqual([]);
  });

  it('is not told of a sheet that has creased, or that did not come to rest', () => {
    expect(bentMeetings(design, motion, squareToFold(75, toRadians(151)))).toEqual([]);
    expect(bentMeetings(design, motion, squareToFold(75, 0, false))).toEqual([]);
  });
});
