import { describe, expect, it } from 'vitest';
import { evaluate } from '../evaluate.js';
import { CATALOGUE } from '../mechanism/catalogue.js';
import type { Base } from '../mechanism/contract.js';
import { benchSteps } from '../plan/bench-steps.js';
import { METRIC_WORKSHOP } from '../supplies/starter-workshops.js';
import { cardOn, evaluated, failing, finding, refused } from '../testing/evaluated.js';
import { ROOT, type CardDocument, type CardPart } from './document.js';
import { addPart, duplicatePart, movePart, PartProblem, placesOf, removePart, renamePart, shifted, stretchOf, turnPart } from './parts.js';

const FOLD = { part: ROOT, site: 'main-fold' };
const plain = cardOn('folded-card', { depth: 100, length: 150 });
const add = (card: CardDocument, mechanism: string, on = FOLD): CardDocument => addPart(card, mechanism, on, METRIC_WORKSHOP).card;
const put = (card: CardDocument, ...parts: CardPart[]): CardDocument => ({ ...card, parts: [...card.parts, ...parts] });

const BASES = CATALOGUE.filter((mechanism): mechanism is Base => mechanism.kind === 'base');

describe('a movement that is added', () => {
  it.each(BASES.map(({ id, name }) => ({ id, name })))('to any fold of $name that takes it, works as it is put there', ({ id }) => {
    const card = cardOn(id);
    const before = failing(evaluated(card)).map((found) => found.id);
    for (const { part, site, takes } of placesOf(card)) {
      for (const taker of takes.filter(({ cannot }) => !cannot)) {
        const after = evaluate(add(card, taker.id, { part, site: site.id }));
        expect(after.ok ? 'works' : after.problems[0]!.says, `${taker.id} on ${site.id}`).toBe('works');
        if (!after.ok) continue;
        // A slit across a place that is glued is told, and is the maker’s to move.
        const joined = ['closes-loop', 'paper-taken'];
        const new_ = failing(after.evaluation).filter(({ id: found, check }) => joined.includes(check) && !before.includes(found));
        expect(
          new_.map(({ says }) => says),
          `${taker.id} on ${site.id}`,
        ).toEqual([]);
      }
    }
  });

  it('beside another takes the largest stretch of the fold that is free', () => {
    const two = add(add(plain, 'step'), 'step');
    const [first, second] = two.parts.slice(1).map(({ id }) => stretchOf(two, id)!);
    expect(Math.max(first![0], second![0])).toBeGreaterThanOrEqual(Math.min(first![1], second![1]));
    expect(evaluated(two).design.overlaps).toEqual([]);
  });
});

describe('two of a kind', () => {
  const two = add(add(plain, 'v-fold'), 'v-fold');
  const evaluation = evaluated(two);
  const unique = (names: readonly string[]) => expect(names.filter((name, i) => names.indexOf(name) !== i)).toEqual([]);

  it('are told apart by piece, panel, measure and step', () => {
    unique(evaluation.design.pieces.map(({ name }) => name));
    unique(evaluation.design.panels.map(({ name }) => name));
    unique(evaluation.measures.map(({ label }) => label));
    unique(benchSteps(evaluation).map(({ title }) => title));
  });

  it('are told apart even where the maker gave both one name', () => {
    const named = two.parts.slice(1).reduce((card, { id }) => renamePart(card, id, 'Fern'), two);
    unique(evaluated(named).design.pieces.map(({ name }) => name));
  });
});

describe('parts that take the same paper', () => {
  const step = (id: string, offset: number): CardPart => ({
    id,
    mechanism: 'step',
    on: FOLD,
    sizes: { depth: 20, height: 20, width: 40, offset },
  });

  it('are told by how much, and neither is built', () => {
    const evaluation = evaluated(put(plain, step('one', 20), step('two', 45)));
    // 20…60 and 45…85 along the fold: 15 mm are shared.
    expect(finding(evaluation, 'paper-taken/one/two')).toMatchObject({
      severity: 'fail',
      value: expect.closeTo(15, 6),
      shortfall: expect.closeTo(15, 6),
    });
    expect(evaluation.design.panels.some(({ part }) => part === 'one' || part === 'two')).toBe(false);
  });

  it('shortfall goes to nothing as they come apart', () => {
    for (const apart of [44, 55, 59.9]) {
      expect(finding(evaluated(put(plain, step('one', 20), step('two', apart))), 'paper-taken').shortfall).toBeCloseTo(60 - apart, 6);
    }
    expect(evaluated(put(plain, step('one', 20), step('two', 60.1))).design.overlaps).toEqual([]);
  });
});

describe('what is done with a part', () => {
  const card = add(add(plain, 'step'), 'v-fold', { part: 'step', site: 'front-edge' });

  it('taken away goes with all it carries', () => {
    expect(removePart(card, 'step').parts).toEqual(plain.parts);
  });

  it('turned twice is as it was', () => {
    expect(turnPart(turnPart(card, 'step'), 'step')).toEqual(card);
  });

  it('moved to another fold keeps what the fold allows, and cannot go to what it carries', () => {
    const moved = movePart(card, 'figure', FOLD);
    expect(moved.parts.find(({ id }) => id === 'figure')!.on).toEqual(FOLD);
    expect(() => movePart(card, 'step', { part: 'figure', site: 'any' })).toThrow(PartProblem);
    expect(() => movePart(card, 'step', { part: 'step', site: 'back-fold' })).toThrow(/cannot stand on what stands on it/);
  });

  it('shifted along its fold goes so far, as far as there is fold', () => {
    const [low] = stretchOf(card, 'step')!;
    expect(stretchOf(shifted(card, 'step', 5), 'step')![0]).toBeCloseTo(low + 5, 9);
    expect(stretchOf(shifted(card, 'step', 1000), 'step')![1]).toBeCloseTo(150 - 3, 9);
  });

  it('doubled stands beside the first', () => {
    const { card: doubled, id } = duplicatePart(card, 'step');
    expect(id).toBe('step-2');
    expect(evaluated(doubled).design.overlaps).toEqual([]);
  });
});

describe('a part that cannot be', () => {
  it('with the id of a piece of another is refused', () => {
    const easel = cardOn('easel-folded-front');
    const [place] = placesOf(easel).filter(({ takes }) => takes.some(({ id, cannot }) => id === 'v-fold' && !cannot));
    const odd = put(easel, { id: 'stop', mechanism: 'v-fold', on: { part: ROOT, site: place!.site.id }, sizes: {} });
    expect(refused(odd)).toMatch(/a part may not be called “stop” here/);
  });
});
