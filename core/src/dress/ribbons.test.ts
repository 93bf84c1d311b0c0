import { describe, expect, it } from 'vitest';
import { dressedBy, withClosure, withoutClosure } from '../card/dress-card.js';
import type { CardDocument } from '../card/document.js';
import type { RibbonClosure } from '../card/dressing.js';
import { benchSteps } from '../plan/bench-steps.js';
import { METRIC_WORKSHOP } from '../supplies/starter-workshops.js';
import { cardOn, cardWith, evaluated, finding, stockById } from '../testing/evaluated.js';
import { carryFlat } from '../linkage/rigid.js';
import { boxOf } from '../plane/outline.js';
import { postedCard } from './posted-card.js';
import { KNOT_HIGH, RIBBON_THICK } from './ribbon.js';

const folded = cardOn('folded-card', { depth: 100, length: 140 });
const tied = (card: CardDocument = folded, change: Partial<RibbonClosure> = {}): CardDocument =>
  withClosure(
    card,
    { ...{ kind: 'ribbon', way: 'round', around: 'across', wide: 10, at: 70, loop: 40, end: 100 }, ...change },
    METRIC_WORKSHOP,
  );
const thick = 2 * stockById('card-250').caliper;

describe('a ribbon', () => {
  it('is as long as its way round the card, its knot, two loops there and back, and two ends', () => {
    const length = (change: Partial<RibbonClosure>) => evaluated(tied(folded, change)).dressed.ribbons[0]!.ribbon.length;
    expect(length({})).toBeCloseTo(2 * (100 + thick) + 6 * 10 + 4 * 40 + 2 * 100, 6);
    expect(length({ around: 'along', at: 50, loop: 0 })).toBeCloseTo(2 * (140 + thick) + 6 * 10 + 2 * 100, 6);
    // Out of the fold: over the front and the back, round the free edge, and the 6 mm between its slits.
    expect(length({ way: 'slits' })).toBeCloseTo(2 * 100 + thick + 6 + 60 + 160 + 200, 6);
  });

  it('round one panel goes over it and down its back, and stays on it', () => {
    const panels = evaluated(folded).design.panels.map(({ id }) => id);
    expect(panels).toHaveLength(2);
    for (const panel of panels) {
      const one = evaluated(tied(folded, { way: 'panel', panel, around: 'along', at: 50, loop: 0 }));
      // The leaf is 140 mm along its fold and one sheet thick: twice both, a knot of six widths and two ends of 100 mm.
      expect(one.dressed.ribbons[0]!.ribbon.length).toBeCloseTo(2 * (140 + thick / 2) + 6 * 10 + 2 * 100, 6);
      expect(finding(one, 'opens/ribbon-1').severity).toBe('pass');
      // It covers 10 mm about its middle, from one end of the leaf to the other, as its piece is drawn.
      const { minX, minY } = boxOf(one.design.panels.find(({ id }) => id === panel)!.area.outer);
      const { lies } = one.dressed.ribbons[0]!.panel!;
      expect([lies.minX - minX, lies.maxX - minX, lies.minY - minY, lies.maxY - minY].map((at) => Math.round(at * 1e6) / 1e6)).toEqual([
        45, 55, 0, 140,
      ]);
      expect(
        benchSteps(one)
          .find(({ id }) => id === 'tie-ribbon-1')!
          .says.join(' '),
      ).toContain('its middle 50 mm from the left edge');
      const { thickness } = postedCard(one.closed, one.dressed);
      expect(thickness).toBeCloseTo(one.closed.thickest.thickness + 2 * RIBBON_THICK + KNOT_HIGH, 6);
    }
  });

  it('round a panel goes over what the panel wears as well', () => {
    const { id } = evaluated(folded).design.panels[0]!;
    const layered = dressedBy(folded, { border: 3 }, METRIC_WORKSHOP);
    const length = (card: CardDocument) =>
      evaluated(tied(card, { way: 'panel', panel: id, around: 'along', at: 50 })).dressed.ribbons[0]!.ribbon.length;
    const under = evaluated(layered).design.worn.filter(({ panel }) => panel === id);
    expect(under.length).toBeGreaterThan(0);
    // There and back, what it wears is gone round twice.
    expect(length(layered) - length(folded)).toBeCloseTo(2 * under.reduce((sum, { thickness }) => sum + thickness, 0), 6);
  });

  it('cannot go round the fold of a panel, nor round one that is glued down there, and says so', () => {
    const [panel] = evaluated(folded).design.panels;
    const told = finding(evaluated(tied(folded, { way: 'panel', panel: panel!.id, around: 'across', at: 70 })), 'opens/ribbon-1');
    expect(told).toMatchObject({ severity: 'fail', panels: [panel!.id] });
    expect(told.says).toContain('a fold is in its way');
    // From end to end of a leaf no fold is in the way, but a tab of a V-fold is glued onto it.
    const glued = evaluated(cardWith('v-fold'));
    const { b: leaf, corners, fixed } = glued.design.linkage.bonds[0]!;
    const { id, area } = glued.design.panels[leaf]!;
    const tab = boxOf(corners.map((corner) => carryFlat(fixed, corner)));
    const at = (tab.minX + tab.maxX) / 2 - boxOf(area.outer).minX;
    const onLeaf = (change: Partial<RibbonClosure>) =>
      finding(evaluated(tied(cardWith('v-fold'), { way: 'panel', panel: id, around: 'along', wide: 4, ...change })), 'opens/ribbon-1');
    expect(onLeaf({ at })).toMatchObject({ severity: 'fail' });
    expect(onLeaf({ at }).says).toContain('something is glued to it in its way');
    const { minX, maxX } = boxOf(area.outer);
    const free = at < (maxX - minX) / 2 ? maxX - minX - 4 : 4;
    expect(onLeaf({ at: free }).severity).toBe('pass');
  });

  it('round a panel that is not there, or beside it, is left out and told', () => {
    for (const change of [{ panel: 'nowhere' }, { panel: evaluated(folded).design.panels[0]!.id, at: 400 }]) {
      const evaluation = evaluated(tied(folded, { way: 'panel', around: 'along', ...change }));
      expect(evaluation.dressed.ribbons).toEqual([]);
      expect(finding(evaluation, 'opens/ribbon-1')).toMatchObject({ severity: 'warn' });
    }
  });

  it('has its slits in the fold, each a little longer than it is wide, on either side of its middle', () => {
    const { sheets } = evaluated(tied(folded, { way: 'slits' }));
    const [sheet] = sheets;
    const slits = sheet!.cuts.filter(({ id }) => id.startsWith('ribbon-1-slit'));
    const ys = slits.flatMap(({ from, to }) => [from[1], to[1]]).sort((a, b) => a - b);
    expect(ys).toEqual([56, 67, 73, 84].map((y) => expect.closeTo(y, 6)));
    for (const { from, to } of slits) for (const [x] of [from, to]) expect(x).toBeCloseTo(sheet!.scores[0]!.from[0], 6);
  });

  it('cannot have them where the fold is cut, and is told how much of it they take', () => {
    const card = cardWith('push-through', {}, { depth: 100, length: 140 });
    // The shape takes the fold away from 35 to 105 mm; below and above it is whole.
    const told = finding(evaluated(tied(card, { way: 'slits', at: 70 })), 'opens/ribbon-1');
    expect(told).toMatchObject({ severity: 'fail' });
    expect(told.says).toContain('which take 28 mm of it');
    for (const at of [15, 125]) {
      const { sheets, findings } = evaluated(tied(card, { way: 'slits', at, wide: 4 }));
      expect(findings.find(({ id }) => id === 'opens/ribbon-1')!.severity).toBe('pass');
      const slits = sheets[0]!.cuts.filter(({ id }) => id.startsWith('ribbon-1-slit'));
      expect(Math.min(...slits.flatMap(({ from, to }) => [from[1], to[1]]))).toBeCloseTo(at - 3 - 5, 6);
    }
    expect(finding(evaluated(tied(card, { way: 'slits', at: 29, wide: 4 })), 'opens/ribbon-1').severity).toBe('fail');
  });

  it('counts in what is posted: a sheet on either side and its knot', () => {
    const { closed, dressed } = evaluated(tied());
    expect(postedCard(closed, dressed)).toEqual({
      width: expect.closeTo(100 + 2 * RIBBON_THICK, 6),
      height: expect.closeTo(140, 6),
      thickness: expect.closeTo(thick + 2 * RIBBON_THICK + KNOT_HIGH, 6),
    });
  });

  it('beside the card is left out and told; taken away it leaves no trace', () => {
    const beside = evaluated(tied(folded, { at: 300 }));
    expect(beside.dressed.ribbons).toEqual([]);
    expect(finding(beside, 'opens/ribbon-1').severity).toBe('warn');
    expect(withoutClosure(tied(), 'ribbon-1')).toEqual(folded);
  });

  it('is cut to length and tied in the steps', () => {
    const step = benchSteps(evaluated(tied()), METRIC_WORKSHOP).find(({ id }) => id === 'tie-ribbon-1')!;
    expect(step.says[0]).toMatch(
      /^Cut 621\.2\d* mm of ribbon 10 mm wide: 201\.2\d* mm for its way, 60 mm for the knot, 160 mm for both loops, 200 mm for both ends\./,
    );
    expect(step.says[1]).toContain('its middle 70 mm from the lower end');
  });
});
