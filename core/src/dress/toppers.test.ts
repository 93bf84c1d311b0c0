import * as v from 'valibot';
import { describe, expect, it } from 'vitest';
import { undressed, withTopper, withTopperChanged, withoutTopper } from '../card/dress-card.js';
import type { CardDocument } from '../card/document.js';
import { dressingSchema, type Topper } from '../card/dressing.js';
import type { Evaluation } from '../evaluate.js';
import type { Finding } from '../check/finding.js';
import { frameAt, poseOf } from '../linkage/motion.js';
import { carryDirection, dot } from '../linkage/rigid.js';
import { CATALOGUE } from '../mechanism/catalogue.js';
import type { Base } from '../mechanism/contract.js';
import { intersect, subtract, totalArea } from '../plane/boolean.js';
import { areaOf, asArea, boxOf } from '../plane/outline.js';
import { place } from '../plane/placement.js';
import { METRIC_WORKSHOP } from '../supplies/starter-workshops.js';
import { GLUE_FILM } from '../supplies/limits.js';
import { cardOn, evaluated, finding, stockById } from '../testing/evaluated.js';

const given: Omit<Topper, 'id'> = {
  ...{ panel: 'base/front-leaf', face: 'down', across: 50, along: 70 },
  ...{ outline: 'mushroom', height: 40, stock: 'card-250' },
};
const put = (card: CardDocument, change: Partial<Topper> = {}): CardDocument => withTopper(card, { ...given, ...change }, METRIC_WORKSHOP);
/** A card of two leaves of 100 × 140 mm. Its front leaf lies from 0 to 100 across as it is drawn. */
const folded = cardOn('folded-card', { depth: 100, length: 140 });
const about = ({ findings }: Evaluation, check: string): Finding[] =>
  findings.filter((each) => each.check === check && each.severity !== 'pass');

describe('a topper', () => {
  it('lies with its middle where it is put, as large as it is wished, upright on its panel', () => {
    const { toppers } = evaluated(put(folded)).dressed;
    const [placed] = toppers;
    const { minX, maxX, minY, maxY } = boxOf(placed!.area.outer);
    expect([(minX + maxX) / 2, (minY + maxY) / 2]).toEqual([expect.closeTo(50, 6), expect.closeTo(70, 6)]);
    expect(maxY - minY).toBeCloseTo(40, 6);
    expect(placed!.number).toBe('T1');
    // Seen from the front of the closed card its back is mirrored, and so is the sheet laid on it.
    expect(placed!.placement.flipped).toBe(true);
  });

  it('turns to the left as it is seen, on either face', () => {
    for (const face of ['up', 'down'] as const) {
      const evaluation = evaluated(put(cardOn('folded-card', { depth: 100, length: 140 }), { face, turn: Math.PI / 6 }));
      const [placed] = evaluation.dressed.toppers;
      const [origin, up] = [place([0, 0], placed!.placement), place([0, 1], placed!.placement)];
      const [x, y] = [up[0] - origin[0], up[1] - origin[1]];
      // Its top leans to the left of who looks at that face: to smaller x, seen from behind to larger.
      expect(y).toBeCloseTo(Math.cos(Math.PI / 6), 6);
      expect(x).toBeCloseTo((face === 'up' ? -1 : 1) * Math.sin(Math.PI / 6), 6);
    }
  });

  it('stands upright on every face that is seen of every base, where its panel stands', () => {
    for (const base of CATALOGUE.filter((mechanism): mechanism is Base => mechanism.kind === 'base')) {
      const card = cardOn(base.id);
      const { design } = evaluated(card);
      for (const { id, area } of design.panels) {
        const { minX, maxX, minY, maxY } = boxOf(area.outer);
        const evaluation = evaluated(put(card, { panel: id, face: 'up', across: (maxX - minX) / 2, along: (maxY - minY) / 2, height: 10 }));
        const [placed] = evaluation.dressed.toppers;
        const { motion, design: own } = evaluation;
        const m = poseOf(motion, frameAt(motion, own.schedule, own.base.rest.at))[own.linkage.bodyOf.get(id)!]!;
        const [origin, up] = [place([0, 0], placed!.placement), place([0, 1], placed!.placement)];
        const { up: world } = own.base.rest;
        const stands = Math.abs(dot(carryDirection(m, 0, 0, 1), world)) < 0.2;
        if (stands && placed!.shows.includes('open'))
          expect(dot(carryDirection(m, up[0] - origin[0], up[1] - origin[1], 0), world)).toBeGreaterThan(0.6);
      }
    }
  });

  it('adds its sheet, its foam and two films of glue to the closed card, and its paper and pads to the weight', () => {
    const bare = evaluated(folded);
    const foam = evaluated(put(folded, { foam: 2 }));
    expect(foam.closed.thickest.thickness - bare.closed.thickest.thickness).toBeCloseTo(
      2 + stockById('card-250').caliper + 2 * GLUE_FILM,
      6,
    );
    const [placed] = foam.dressed.toppers;
    const pads = placed!.pads.reduce((sum, pad) => sum + areaOf(asArea(pad)), 0);
    // 250 g/m² of card, and foam of 120 g/m² for each of two mm.
    expect(foam.standing.weight - bare.standing.weight).toBeCloseTo((areaOf(placed!.area) * 250 + pads * 240) / 1e6, 6);
  });

  it('that is cut thrice and glued together counts as three sheets with glue between them, flat and on foam', () => {
    const bare = evaluated(folded);
    const { caliper } = stockById('card-250');
    const flat = evaluated(put(folded, { times: 3 }));
    const added = (dressed: Evaluation): number => dressed.closed.thickest.thickness - bare.closed.thickest.thickness;
    // Glue under the stack, and twice inside it.
    expect(added(flat)).toBeCloseTo(3 * caliper + 3 * GLUE_FILM, 6);
    // On foam, which has glue on both its sides.
    expect(added(evaluated(put(folded, { times: 3, foam: 2 })))).toBeCloseTo(2 + 3 * caliper + 4 * GLUE_FILM, 6);
    const [placed] = flat.dressed.toppers;
    expect(flat.standing.weight - bare.standing.weight).toBeCloseTo((areaOf(placed!.area) * 3 * 250) / 1e6, 6);
    expect(placed!.sheet.piece.name).toBe('T1, mushroom cap, 3 alike');
  });

  it.each([1, 9, 2.5, Number.NaN])('cut %s times is refused, and said where', (times) => {
    const { success, issues } = v.safeParse(dressingSchema, put(folded, { times }).dressing);
    expect(success).toBe(false);
    expect(issues!.map((issue) => v.getDotPath(issue))).toContain('toppers.0.times');
    expect(issues![0]!.message).toMatch(/^allowed: /);
  });

  it('may be changed, taken away again, and leaves no trace', () => {
    const one = put(folded);
    const two = put(one, { across: 20 });
    expect(two.dressing!.toppers!.map(({ id }) => id)).toEqual(['topper-1', 'topper-2']);
    const flat = withTopperChanged(
      withTopperChanged(two, 'topper-2', { foam: 2 }, METRIC_WORKSHOP),
      'topper-2',
      { foam: undefined },
      METRIC_WORKSHOP,
    );
    expect(flat.dressing).toEqual(two.dressing);
    expect(withoutTopper(withoutTopper(two, 'topper-1'), 'topper-2').dressing).toBeUndefined();
    expect(evaluated(undressed(two)).findings).toEqual(evaluated(folded).findings);
  });
});

describe('foam pads', () => {
  it('lie inside their topper and on paper, apart from one another', () => {
    for (const outline of ['mushroom', 'fern', 'star', 'rectangle', 'circle']) {
      const { dressed } = evaluated(put(folded, { outline, foam: 2, height: 60 }));
      const [placed] = dressed.toppers;
      expect(placed!.pads.length, outline).toBeGreaterThanOrEqual(3);
      for (const [i, pad] of placed!.pads.entries()) {
        expect(totalArea(subtract([asArea(pad)], [placed!.area]))).toBeLessThan(1e-6);
        for (const other of placed!.pads.slice(i + 1)) expect(intersect([asArea(pad)], [asArea(other)])).toEqual([]);
      }
    }
  });
});

describe('what is wrong on purpose is told', () => {
  it('a topper over a fold, with how far', () => {
    // 40 high and 44 wide: its middle 15 mm from the fold at 100, it reaches 22 − 15 = 7 mm over it.
    const width = boxOf(evaluated(put(folded, { face: 'up' })).dressed.toppers[0]!.area.outer);
    const half = (width.maxX - width.minX) / 2;
    const [told] = about(evaluated(put(folded, { face: 'up', across: 100 - half + 7 })), 'dressing-placed');
    expect(told!.severity).toBe('fail');
    expect(told!.value).toBeCloseTo(7, 4);
    expect(told!.says).toMatch(/reaches 7 mm over the fold onto the back leaf/);
    expect(about(evaluated(put(folded, { face: 'up', across: 100 - half - 0.1 })), 'dressing-placed')).toEqual([]);
  });

  it('a pad over a window', () => {
    const stage = cardOn('layered-stage');
    const { design } = evaluated(stage);
    const front = design.panels.find(({ id }) => id === 'front/front')!;
    const [outer, hole] = [boxOf(front.area.outer), boxOf(front.area.holes[0]!)];
    const middle = { across: (hole.minX + hole.maxX) / 2 - outer.minX, along: (hole.minY + hole.maxY) / 2 - outer.minY };
    const over = evaluated(put(stage, { panel: front.id, face: 'up', ...middle, height: 20, foam: 2 }));
    expect(about(over, 'dressing-placed').map(({ severity, says }) => [severity, says])).toEqual([
      ['fail', expect.stringContaining('no room for a foam pad')],
    ]);
    const flat = evaluated(put(stage, { panel: front.id, face: 'up', ...middle, height: 20 }));
    const says = about(flat, 'dressing-placed').map((each) => each.says);
    expect(says).toContainEqual(expect.stringContaining('Only 0 % of T1'));
    // Through the window its glue would hold the wall behind, as far as it reaches.
    expect(says).toContainEqual(expect.stringContaining('it would hold the front to it'));
  });

  it('several sheets or foam where the paper is kept clear, by how far it reaches in; one sheet glued flat is not', () => {
    // The display of this easel lies on the back of the strut, which is the second half of the front: nothing may stand on it.
    const easel = cardOn('easel-folded-front', { depth: 140, length: 100 });
    const on = (change: Partial<Topper>): Finding[] =>
      about(
        evaluated(put(easel, { panel: 'base/strut', face: 'down', across: 35, along: 50, height: 20, outline: 'circle', ...change })),
        'dressing-placed',
      ).filter(({ says }) => says.includes('kept clear'));
    expect(on({})).toEqual([]);
    // It lies in it whole: 20 mm across, half of that to its middle.
    for (const [change, stands] of [
      [{ times: 3 }, 'is 3 sheets high'],
      [{ foam: 2 }, 'stands on foam'],
    ] as const) {
      const [told] = on(change);
      expect(told?.says).toContain(stands);
      expect(told?.value).toBeGreaterThan(9);
    }
  });

  it('a topper on its head, one that is never seen, and one whose panel is gone', () => {
    expect(about(evaluated(put(folded, { turn: Math.PI })), 'dressing-placed')[0]!.says).toContain(
      'stands on its head when the card is open',
    );
    // A liner's other face is glued down; the back of the card is seen by who turns it over.
    const lined = cardOn('folded-card', { depth: 100, length: 140, liner: 'one-piece' });
    const under = about(evaluated(put(lined, { panel: 'liner/front-half', face: 'down' })), 'dressing-placed').map(({ says }) => says);
    expect(under.join(' ')).toMatch(/Only 0 % .* on what is glued there.*is never seen: the back of the front half of the liner/);
    expect(about(evaluated(put(folded, { panel: 'base/back-leaf', face: 'down' })), 'dressing-placed')).toEqual([]);
    const gone = evaluated(put(folded, { panel: 'figure/wing' }));
    expect(gone.dressed.toppers).toEqual([]);
    expect(about(gone, 'dressing-placed')[0]!.says).toContain('has not any more');
    expect(about(evaluated(put(folded, { outline: 'own-gone' })), 'dressing-placed')[0]!.says).toContain('“own-gone”');
  });

  it('a topper that makes the card miss its envelope by 0.8 mm', () => {
    // C6 is 162 × 114 inside. A leaf of 105 × 148: with a topper 0.8 mm past what that leaves it is too high.
    const base = { ...cardOn('folded-card', { depth: 105, length: 148 }), within: 'envelope' as const };
    const inEnvelope = evaluated({ ...base, envelope: 'c6', supplies: { ...base.supplies, envelopes: [...METRIC_WORKSHOP.envelopes] } });
    const fits = finding(inEnvelope, 'stays-inside/envelope');
    expect(fits.severity).toBe('pass');
    const most = (past: number): Evaluation => {
      // A rectangle 20 mm high whose upper edge stands past the card's upper end.
      const card = put(
        { ...base, envelope: 'c6', supplies: { ...base.supplies, envelopes: [...METRIC_WORKSHOP.envelopes] } },
        { outline: 'rectangle', height: 20, across: 50, along: 148 - 10 + past },
      );
      return evaluated(card);
    };
    const bare = inEnvelope.closed;
    const thick = most(0).closed.thickest.thickness;
    const { long } = METRIC_WORKSHOP.envelopes.find(({ id }) => id === 'c6')!;
    // As far past as the envelope's longer side leaves beside thickness and ease.
    const room = long - thick - (bare.box.maxY - bare.box.minY);
    const told = finding(most(room + 0.8), 'stays-inside/envelope');
    expect(told.severity).toBe('fail');
    expect(told.value).toBeCloseTo(0.8, 3);
    expect(finding(most(room - 0.01), 'stays-inside/envelope').severity).toBe('pass');
  });

  it('a topper so high and so near the fold that the other leaf runs into it, with the angle', () => {
    // Its upper side, H over the back leaf, meets the front leaf, opened by φ, at H ÷ tan φ from the fold.
    const high = 6 + stockById('card-250').caliper + 2 * GLUE_FILM;
    const meets = (degrees: number): number => high / Math.tan((degrees * Math.PI) / 180);
    const from = (near: number, far: number, foam = 6): Finding => {
      const place = { panel: 'base/back-leaf', face: 'up' as const, across: (near + far) / 2, along: 70, height: far - near };
      return finding(evaluated(put(folded, { ...place, outline: 'rectangle', foam })), 'snags/topper-1');
    };
    // Frames are 3° apart: at 15° it would meet it 23.8 mm from the fold, beyond it, at 18° 19.6 mm from it.
    expect([meets(15) > 22, meets(18) < 22, meets(18) > 10]).toEqual([true, true, true]);
    expect(from(10, 22)).toMatchObject({ severity: 'fail', says: expect.stringMatching(/catches on the front leaf at an opening of 18°/) });
    expect(from(20, 32).says).toMatch(/at an opening of 15°/);
    // Farther out it is met only when the card is nearly closed: that is gape, and told as such.
    const far = evaluated(
      put(folded, { panel: 'base/back-leaf', face: 'up', across: 40, along: 70, height: 24, outline: 'rectangle', foam: 6 }),
    );
    expect(meets(15)).toBeLessThan(28);
    expect(finding(far, 'snags').severity).toBe('pass');
  });
});
