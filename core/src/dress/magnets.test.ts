import { describe, expect, it } from 'vitest';
import { undressed, withClosure, withTopper, dressedBy } from '../card/dress-card.js';
import type { CardDocument } from '../card/document.js';
import type { MagnetClosure } from '../card/dressing.js';
import type { Evaluation } from '../evaluate.js';
import { poseOf } from '../linkage/motion.js';
import { carryFlat } from '../linkage/rigid.js';
import { CATALOGUE } from '../mechanism/catalogue.js';
import { boxOf } from '../plane/outline.js';
import { distance } from '../plane/point.js';
import { benchSteps } from '../plan/bench-steps.js';
import { materialsOf } from '../plan/materials.js';
import { GLUE_FILM } from '../supplies/limits.js';
import { METRIC_WORKSHOP } from '../supplies/starter-workshops.js';
import { cardOn, evaluated, stockById } from '../testing/evaluated.js';
import { usualMagnet } from './usual-magnet.js';

/** Two leaves of 100 × 140 mm; the front leaf is drawn from its free edge at 0 to the fold at 100. */
const folded = cardOn('folded-card', { depth: 100, length: 140 });
const pair = (card: CardDocument = folded, change: Partial<MagnetClosure> = {}): CardDocument =>
  withClosure(
    card,
    { ...{ kind: 'magnet', panel: 'base/front-leaf', face: 'up', across: 12, along: 70, disc: 8, thick: 1, stock: 'card-250' }, ...change },
    METRIC_WORKSHOP,
  );
const told = ({ findings }: Evaluation) => findings.filter(({ id }) => id.startsWith('dressing-placed/magnet-1/'));
const { caliper } = stockById('card-250');
const sheet = caliper + GLUE_FILM;

describe('a pair of magnets', () => {
  it('meets where the card closes: the other disc lies on the other leaf, as far from the free edge', () => {
    const evaluation = evaluated(pair());
    const [magnet] = evaluation.dressed.magnets;
    expect(magnet!.second).toMatchObject({ panel: 'base/back-leaf', face: 'up' });
    const { minX, minY } = boxOf(evaluation.design.panels[evaluation.design.linkage.bodyOf.get('base/back-leaf')!]!.area.outer);
    expect([magnet!.second!.at[0] - minX, magnet!.second!.at[1] - minY]).toEqual([expect.closeTo(88, 6), expect.closeTo(70, 6)]);
    expect(told(evaluation)).toEqual([expect.objectContaining({ severity: 'pass' })]);
  });

  it('lies with both discs on one point of every closed card that has a place for it', () => {
    for (const base of CATALOGUE.filter(({ kind }) => kind === 'base')) {
      const card = cardOn(base.id);
      const place = usualMagnet(evaluated(card));
      if (!place) continue;
      const { design, motion, dressed } = evaluated(
        withClosure(card, { kind: 'magnet', ...place, disc: 8, thick: 1, stock: 'card-250' }, METRIC_WORKSHOP),
      );
      const [{ first, second, still }] = dressed.magnets as [(typeof dressed.magnets)[number]];
      const pose = poseOf(motion, motion.frames[0]!);
      const lying = [first, second!].map(({ panel, at }) => carryFlat(pose[design.linkage.bodyOf.get(panel)!]!, at));
      expect(distance(lying[0]!, lying[1]!), base.id).toBeLessThan(1e-3);
      expect(still, base.id).toBe(false);
    }
  });

  it('takes as many blank layers as it is thick, and a cover on either side; all of it counts in thickness and weight', () => {
    const [bare, with1] = [evaluated(folded), evaluated(pair())];
    // Three sheets of 0.31 mm with their glue are 1.02 mm, and the cover one more.
    expect(with1.dressed.magnets[0]!.first.blanks).toBe(3);
    expect(with1.closed.thickest.thickness - bare.closed.thickest.thickness).toBeCloseTo(2 * 4 * sheet, 6);
    const round = Math.PI * 4 ** 2;
    // Patches of 8 + 2 · 8 mm; 250 g/m², and steel of 7.5 mg/mm³.
    const side = (3 * 250 * (24 ** 2 - round) + 250 * 24 ** 2) / 1e6 + 0.0075 * round * 1;
    expect(with1.standing.weight - bare.standing.weight).toBeCloseTo(2 * side, 6);
    // What is left of the holes over the discs, and two covers, lie between them.
    expect(with1.dressed.magnets[0]!.apart).toBeCloseTo(2 * (3 * sheet - 1 + sheet), 6);
  });

  it('is hidden by the layer that its face wears, over the whole of which it may be blank', () => {
    const dressed = dressedBy(folded, { border: 3 }, METRIC_WORKSHOP);
    const [patch] = evaluated(pair(dressed)).dressed.magnets;
    expect(patch!.first.coveredBy).toMatch(/^L\d$/);
    expect(patch!.covers).toEqual([]);
    const [whole] = evaluated(pair(dressed, { whole: true })).dressed.magnets;
    const box = boxOf(whole!.first.patch!.outer);
    expect([box.maxX - box.minX, box.maxY - box.minY]).toEqual([expect.closeTo(94, 6), expect.closeTo(134, 6)]);
  });

  it('leaves no trace when it is taken away', () => {
    expect(evaluated(undressed(pair())).findings).toEqual(evaluated(folded).findings);
  });
});

describe('magnets that hold nothing are told', () => {
  it('on the outside, where nothing lies on them', () => {
    expect(told(evaluated(pair(folded, { face: 'down' })))).toEqual([
      expect.objectContaining({ severity: 'fail', id: 'dressing-placed/magnet-1/alone' }),
    ]);
  });

  it('too near an edge and past it, with how far', () => {
    const near = told(evaluated(pair(folded, { across: 5 })));
    expect(near[0]).toMatchObject({ severity: 'fail', value: expect.closeTo(1, 6) });
    expect(near[0]!.says).toMatch(/only 1 mm from an edge.*move it 1 mm inward/);
    expect(told(evaluated(pair(folded, { across: 3 })))[0]!.says).toMatch(/reaches 1 mm past an edge.*at least 3 mm inward/);
  });

  it('under a topper that is glued on later', () => {
    const topper = {
      panel: 'base/front-leaf',
      face: 'up',
      across: 20,
      along: 70,
      outline: 'rectangle',
      height: 30,
      stock: 'card-250',
    } as const;
    const found = told(evaluated(withTopper(pair(), { ...topper, foam: 1 }, METRIC_WORKSHOP)));
    expect(found.find(({ id }) => id.endsWith('under-topper-1'))).toMatchObject({
      severity: 'warn',
      value: expect.closeTo(1 + caliper + 2 * GLUE_FILM, 6),
    });
    // 0.72 mm without it: with it they are farther apart than they pull over.
    expect(found.find(({ id }) => id.endsWith('apart'))).toMatchObject({
      severity: 'warn',
      value: expect.closeTo(8 * sheet - 2 + 1 + sheet + GLUE_FILM, 6),
    });
  });

  it('between panels that never part, and on a panel that is not there', () => {
    const card = cardOn('easel-strip');
    const { design } = evaluated(card);
    const bond = design.linkage.bonds[0]!;
    const panel = design.panels[bond.a]!;
    const { minX, minY } = boxOf(panel.area.outer);
    const middle = boxOf(bond.corners);
    const [across, along] = [(middle.minX + middle.maxX) / 2 - minX, (middle.minY + middle.maxY) / 2 - minY];
    const found = told(evaluated(pair(card, { panel: panel.id, face: bond.source.face, across, along, disc: 4 })));
    expect(found.map(({ id }) => id)).toContain('dressing-placed/magnet-1/still');
    const lost = evaluated(pair(folded, { panel: 'base/gone' }));
    expect(lost.dressed.magnets).toEqual([]);
    expect(lost.findings.find(({ id }) => id === 'dressing-placed/magnet-1')).toMatchObject({ severity: 'warn' });
  });
});

describe('making it', () => {
  it('cuts all blank layers in one step, tries the pull before anything is covered, and warns of swallowing', () => {
    const evaluation = evaluated(pair());
    const steps = benchSteps(evaluation, METRIC_WORKSHOP);
    const cut = steps.find(({ id }) => id === 'blanks-magnet-1')!;
    expect(cut.says).toContain(
      '6 of 24 mm × 24 mm from Card, 250 g, the middle of the hole 12 mm from the left and 12 mm from the lower edge.',
    );
    expect(cut.says).toContain('2 of 24 mm × 24 mm from Card, 250 g, without a hole: the covers.');
    const sink = steps.findIndex(({ id }) => id === 'sink-magnet-1');
    expect(steps[sink]!.says.join(' ')).toMatch(
      /12 mm from the left and 70 mm from the lower edge.*88 mm from the left.*before anything covers them/,
    );
    expect(steps[sink]!.cautions.join(' ')).toContain('swallowed');
    expect(materialsOf(evaluation, METRIC_WORKSHOP).find(({ what }) => what === 'M1, two magnets')!.detail).toContain(
      '8 mm across, 1 mm thick',
    );
  });
});
