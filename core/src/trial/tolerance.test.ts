import { describe, expect, it } from 'vitest';
import { CATALOGUE } from '../mechanism/catalogue.js';
import { cardToTry } from '../card/try-out.js';
import { starterFor } from '../supplies/starter-workshops.js';
import { cardOn, designOf } from '../testing/evaluated.js';
import { sampled, toleranceModel, toleranceStudy, type ToleranceModel } from './tolerance.js';
import type { CardDocument } from '../card/document.js';
import { together } from './sample-counts.js';
import { draw } from '../card/draw.js';
import { join } from '../card/join.js';
import { LoopSolver } from '../linkage/solver.js';
import { targetsAt } from '../linkage/schedule.js';
import { asMade } from './as-made.js';
import type { HandErrors } from '../supplies/workshop.js';

const workshop = starterFor('mm');
function modelOf(card: CardDocument, hand?: HandErrors): ToleranceModel {
  const model = toleranceModel(card, workshop, hand);
  if ('says' in model) throw new Error(model.says);
  return model;
}

/** The normal distribution’s share below z (Abramowitz and Stegun 7.1.26). */
function below(z: number): number {
  const x = Math.abs(z) / Math.SQRT2;
  const t = 1 / (1 + 0.3275911 * x);
  const erf = 1 - ((((1.061405429 * t - 1.453152027) * t + 1.421413741) * t - 0.284496736) * t + 0.254829592) * t * Math.exp(-x * x);
  return z >= 0 ? (1 + erf) / 2 : (1 - erf) / 2;
}

describe('how many cards work, made by hand', () => {
  it.each([
    { score: 0.3, cut: 0.25, glue: 0.4 },
    { score: 0.1, cut: 0.4, glue: 0.4 },
    { score: 0.2, cut: 0.05, glue: 0 },
  ])('of two leaves that must meet is as the normal difference says: %o', (hand) => {
    // The fold off by e moves the free edge by 2 e over the other, a blank off by f by f: √(4 s² + c²), within 0.5 mm.
    const spread = Math.sqrt(4 * hand.score ** 2 + hand.cut ** 2);
    const wanted = 2 * below(0.5 / spread) - 1;
    const model = modelOf(cardOn('folded-card'), hand);
    const { meets, closes } = toleranceStudy(model, 5, sampled(model, 5, 0, 6000)).shares;
    expect(wanted).toBeGreaterThan(meets.low - 0.004);
    expect(wanted).toBeLessThan(meets.high + 0.004);
    expect(closes.share).toBe(1);
  });

  it('of a panel that swings in its opening is as its clearance over two cuts says', () => {
    const card = cardToTry(
      CATALOGUE.find(({ id }) => id === 'swing')!,
      { sizes: { trim: 0.6 } },
    );
    const hand = { score: 0, cut: 0.3, glue: 0 };
    const model = modelOf(card, hand);
    const swings = model.musts.filter(({ asked }) => asked === 'swings');
    expect(swings.length).toBeGreaterThan(0);
    // What each lacks now, and 0.05 mm that paper gives; edges of different parts are cut on their own.
    const wanted = swings.reduce(
      (share, must) => share * below((must.most - model.rows[('rows' in must ? must.rows : [0])[0]!]!.at) / (Math.SQRT2 * hand.cut)),
      1,
    );
    const found = toleranceStudy(model, 9, sampled(model, 9, 0, 6000)).shares.swings;
    expect(wanted).toBeGreaterThan(0.5);
    expect(wanted).toBeGreaterThan(found.low - 0.004);
    expect(wanted).toBeLessThan(found.high + 0.004);
  });

  it('is the same however the samples are shared out, and another for another seed', () => {
    const model = modelOf(cardToTry(CATALOGUE.find(({ id }) => id === 'rising-strip-doors')!));
    const whole = sampled(model, 3, 0, 600);
    const parts = [sampled(model, 3, 0, 70), sampled(model, 3, 70, 71), sampled(model, 3, 71, 600)].reduce(together);
    expect(parts).toEqual(whole);
    expect(sampled(model, 4, 0, 600)).not.toEqual(whole);
  });

  it.each(CATALOGUE.map(({ id }) => [id] as const))('of %s is all of them where no hand errs, and fewer the more it errs', (id) => {
    const card = cardToTry(CATALOGUE.find((mechanism) => mechanism.id === id)!);
    const exact = modelOf(card, { score: 0, cut: 0, glue: 0 });
    expect(sampled(exact, 1, 0, 5).well).toEqual({ closes: 5, meets: 5, swings: 5, inside: 5, fits: 5, works: 5 });
    const shares = [0.05, 0.2, 0.8].map((size) => sampled(modelOf(card, { score: size, cut: size, glue: size }), 1, 0, 300).well.works);
    expect(shares[0]!).toBeGreaterThanOrEqual(shares[1]!);
    expect(shares[1]!).toBeGreaterThanOrEqual(shares[2]!);
  });

  it('names the fold of a folded card as what matters most, and how exact it must be', () => {
    const hand = { score: 0.3, cut: 0.1, glue: 0 };
    const model = modelOf(cardOn('folded-card'), hand);
    const [first] = toleranceStudy(model, 2, sampled(model, 2, 0, 4000)).critical;
    expect(first!.source).toMatch(/main-fold$/);
    // 95 of 100 within 0.5 mm: √(4 s² + 0.1²) = 0.5 ÷ 1.96.
    expect(first!.mustBe!).toBeCloseTo(Math.sqrt((0.5 / 1.96) ** 2 - 0.1 ** 2) / 2, 2);
  });

  // Of five no score can be compared: its ends lie on shapes, it lies in one line with others, or its panels bend.
  const ALONE = ['easel-shape', 'half-turn-stand', 'swing', 'push-through', 'twist-carrier'];
  it.each(CATALOGUE.filter(({ id }) => !ALONE.includes(id)).map(({ id }) => [id] as const))(
    'of %s takes a score as off by as much as its pieces are, drawn so and joined anew',
    (id) => {
      const card = cardToTry(CATALOGUE.find((mechanism) => mechanism.id === id)!);
      const model = modelOf(card);
      expect(model.untold).toEqual([]);
      const drawn = draw(card);
      if (!drawn.ok) throw new Error(drawn.problems[0]!.says);
      const { panels } = designOf(card);
      const by = 0.2;
      let compared = 0;
      model.sources.forEach(({ id: source, kind }, s) => {
        if (kind !== 'score') return;
        const [piece, line] = [source.slice(0, source.lastIndexOf('/')), source.slice(source.lastIndexOf('/') + 1)];
        const all = drawn.drawing.pieces.find((one) => one.id === piece)!.creases;
        const creases = all.filter((c) => (c.stretchOf?.id ?? c.id) === line);
        // A slanting score is off square to itself; one in line with others is scored in one go with them.
        if (creases.some(({ from, to }) => Math.abs(from[0] - to[0]) > 1e-9)) return;
        if (all.some((other) => !creases.includes(other) && Math.abs(other.from[0] - creases[0]!.from[0]) < 1e-6)) return;
        const joined = join(asMade(drawn.drawing, [{ piece, line, by }]));
        if (!joined.ok || joined.design.panels.length !== panels.length) return;
        const { linkage, schedule } = joined.design;
        const folds = Float64Array.from(linkage.hinges, ({ source: own }) => own.crease.closed);
        for (const [hinge, fold] of targetsAt(schedule, 0)) folds[linkage.hingeIndex.get(hinge)!] = fold;
        const misfit = new LoopSolver({ ...linkage, touches: [], couplings: [] }, new Set()).misfit(folds);
        const told = model.musts
          .filter((must) => must.asked === 'closes')
          .map((must) =>
            Math.hypot(...(must as { rows: number[] }).rows.map((row) => model.rows[row]!.at + by * model.rows[row]!.per[s]!)),
          );
        expect(Math.max(0, ...told), source).toBeCloseTo(misfit, 4);
        compared++;
      });
      expect(compared).toBeGreaterThan(0);
    },
  );
});
