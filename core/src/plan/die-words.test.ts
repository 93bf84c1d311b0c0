import { describe, expect, it } from 'vitest';
import type { Loop } from '../plane/outline.js';
import { fitted, shapeNamed } from '../plane/shapes.js';
import { METRIC_WORKSHOP } from '../supplies/starter-workshops.js';
import type { Die } from '../supplies/workshop.js';
import { cardOn, evaluated } from '../testing/evaluated.js';
import { benchSteps } from './bench-steps.js';
import { dieWords } from './die-words.js';

const CIRCLES: Die = {
  id: 'circles',
  name: 'Circles',
  outline: 'circle',
  sizes: [
    { cut: 60, opening: 62 },
    { cut: 45, opening: 47 },
  ],
};
const LEAVES: Die = { id: 'leaves', name: 'Leaves', outline: 'leaf', sizes: [{ cut: 40, opening: 41 }] };
const moved = (loop: Loop, right: number, up: number): Loop => loop.map(([x, y]) => [x + right, y + up]);
const round = (across: number): Loop => fitted(shapeNamed('circle')!, across, across);
const opening = (outline: Loop) => ({ outline: [], windows: [{ id: 'w', outline }] });
const said = (outline: Loop, dies: readonly Die[]) => dieWords(opening(outline), 'inside', { dies }, {}, 'mm');

describe('dies', () => {
  it('are laid by the middle of the opening that they leave, on the unfolded piece', () => {
    // 62 wide with its lower left corner at 20 and 30: its middle at 51 and 61.
    const { says, fits } = said(moved(round(62), 20, 30), [LEAVES, CIRCLES]);
    expect(fits).toBe(true);
    expect(says).toEqual([
      expect.stringContaining(
        '“Circles”, its opening 62 mm wide, laid upright on the unfolded piece: its middle 51 mm from the left edge and 61 mm from the lower edge',
      ),
    ]);
  });

  it('that do not fit are named with how far off they are, and none of another shape is', () => {
    const { says, fits } = said(round(58), [CIRCLES, LEAVES]);
    expect([fits, says]).toEqual([false, ['Of “Circles” the nearest opening is 62 mm wide: this one is 58 mm, so a die does not serve.']]);
    expect(said(round(80), [CIRCLES, LEAVES]).says).toEqual([]);
    expect(said(fitted(shapeNamed('star')!, 62), [CIRCLES, LEAVES]).says).toEqual([]);
  });

  it('are turned as the opening is', () => {
    const upright = fitted(shapeNamed('leaf')!, (41 / fitted(shapeNamed('leaf')!, 1).reduce((most, [x]) => Math.max(most, x), 0)) * 1);
    const left: Loop = upright.map(([x, y]) => [-y, x]);
    expect(said(upright, [LEAVES]).says[0]).toContain('laid upright');
    expect(said(left, [LEAVES]).says[0]).toContain('laid turned a quarter to the left');
  });

  it('cut pieces by their cut, not by their opening', () => {
    const piece = { outline: round(60), windows: [] };
    expect(dieWords(piece, 'out', { dies: [CIRCLES] }, {}, 'mm').says).toEqual(['Or cut it with “Circles”, its size 60 mm wide, upright.']);
    expect(dieWords({ ...piece, outline: round(62) }, 'out', { dies: [CIRCLES] }, {}, 'mm').fits).toBe(false);
  });

  it('come with their caution in the step of a window that one of them cuts', () => {
    const card = cardOn('layered-stage', { windowShape: 'circle', windowWidth: 40, windowHeight: 40 });
    const dies = [{ ...CIRCLES, sizes: [{ cut: 38, opening: 40 }] }];
    const steps = benchSteps(evaluated(card), { ...METRIC_WORKSHOP, dies });
    const dieCut = steps.filter(({ says }) => says.some((sentence) => sentence.includes('“Circles”, its opening 40 mm wide')));
    expect(dieCut.length).toBeGreaterThan(0);
    for (const { cautions } of dieCut) expect(cautions.join(' ')).toContain('rollers');
  });
});
