import { describe, expect, it } from 'vitest';
import { mechanismById } from '../mechanism/catalogue.js';
import { starterFor } from '../supplies/starter-workshops.js';
import { dice } from '../testing/any-tree.js';
import { evaluated } from '../testing/evaluated.js';
import { cardOnMarks, listOfCard } from '../testing/list-of-card.js';
import { couldBe, reconcile } from './reconcile.js';
import { entriesOf, readSaidList, saidOf, wordsOfEntry, type SaidNumber } from './said-list.js';

const workshop = starterFor('mm');
const list = (said: Record<string, number[]>): SaidNumber[] => Object.entries(said).flatMap(([name, values]) => entriesOf(name, values)!);

describe('a list of numbers from elsewhere', () => {
  // An easel with a folded front: the front is scored at half the depth, the fold at the depth, and the blank is twice as wide.
  const RIGHT = { scores: [70, 140], blank: [280, 100], closedWidth: [140], closedHeight: [100] };

  it('that is right has no contradiction, and gives the card that it is of', () => {
    const { contradictions, corrections, strange, card } = reconcile('easel-folded-front', list(RIGHT), workshop);
    expect([contradictions, corrections, strange]).toEqual([[], [], []]);
    const { sheets } = evaluated(card!);
    expect(sheets[0]!.width).toBeCloseTo(280, 3);
    expect(sheets[0]!.scores.map(({ from }) => from[0])).toEqual([expect.closeTo(70, 3), expect.closeTo(140, 3)]);
  });

  it.each([
    ['scores[2]', { scores: [70, 141] }, 140],
    ['blank.width', { blank: [270, 100] }, 280],
    ['closedHeight', { closedHeight: [101] }, 100],
  ] as const)('with %s off says what it would have to be', (entry, change, to) => {
    const wrong = list({ ...RIGHT, ...(change as object) } as Record<string, number[]>);
    const { contradictions, corrections } = reconcile('easel-folded-front', wrong, workshop);
    expect(contradictions.length).toBeGreaterThan(0);
    const mine = corrections.find((correction) => correction.entry === entry)!;
    expect(mine.to).toBeCloseTo(to, 2);
    expect(mine.leaves).toBe(0);
  });

  it('with one number off by a mark is told, that number among the corrections; a right one is not', () => {
    const next = dice(77);
    let [told, first] = [0, 0];
    for (const id of [
      'folded-card',
      'rising-strip-doors',
      'bellows-box',
      'easel-folded-front',
      'easel-strip',
      'half-turn-stand',
      'film-stand',
      'step-easel',
    ]) {
      const said = listOfCard(cardOnMarks(mechanismById(id), next));
      expect(reconcile(id, said, workshop).contradictions, id).toEqual([]);
      const off = Math.floor(next() * said.length * 0.999);
      const wrong = said.map((number, i) => (i === off ? { ...number, value: number.value + 1 } : number));
      const { contradictions, corrections } = reconcile(id, wrong, workshop);
      // A number of which nothing else says anything cannot be told.
      if (contradictions.length === 0) continue;
      told++;
      const place = corrections.findIndex(({ entry, to }) => entry === said[off]!.entry && Math.abs(to - said[off]!.value) < 0.3);
      expect(place, `${id} ${said[off]!.entry}`).toBeGreaterThanOrEqual(0);
      if (place === 0) first++;
    }
    expect(told).toBeGreaterThanOrEqual(6);
    expect(first).toBeGreaterThanOrEqual(0.8 * told);
  }, 120_000);

  it.each(['easel-row', 'layered-stage', 'swing', 'rising-pocket', 'step'])(
    'of the %s, whose layers and closed size follow sizes that follow others, is right',
    (id) => {
      const next = dice(17);
      for (let i = 0; i < 3; i++) {
        const said = listOfCard(cardOnMarks(mechanismById(id), next));
        expect(said.filter(({ entry }) => entry.startsWith('layer')).length).toBeGreaterThan(3);
        expect(reconcile(id, said, workshop).contradictions).toEqual([]);
      }
    },
    60_000,
  );

  it('of which too much disagrees is told from the nearest card, and that it is only that', () => {
    // A fold at 105 on 210 is closed 105 wide and as high as the blank: three numbers are none of such a card.
    const odd = list({
      scores: [105],
      blank: [210, 148],
      closedWidth: [60],
      closedHeight: [90],
      'layer.back-leaf': [99, 142],
      'layer.front-leaf': [31, 17],
    });
    const { unsure, contradictions } = reconcile('folded-card', odd, workshop);
    expect(contradictions.length).toBeGreaterThan(2);
    expect(unsure).toContain(`${contradictions.length} of ${odd.length} numbers do not agree with the nearest card`);
    expect(reconcile('easel-folded-front', list({ ...RIGHT, scores: [70, 141] }), workshop).unsure).toBeUndefined();
  });

  it('with more scores than a mechanism has says which it has no place for', () => {
    expect(reconcile('folded-card', list({ scores: [50, 100, 150] }), workshop).strange).toEqual(['scores[2]', 'scores[3]']);
  });

  it('could be of the mechanisms that it agrees with', () => {
    const could = couldBe(list({ scores: [105], blank: [210, 148], closedWidth: [105] }), workshop);
    expect(could[0]).toMatchObject({ mechanism: 'folded-card', contradictions: [] });
    // Doors have four scores, boxes more.
    expect(could.map(({ mechanism }) => mechanism)).not.toContain('rising-strip-doors');
  }, 60_000);
});

describe('the name of a number', () => {
  it.each([
    ['scores[2]', 'score 2'],
    ['scores.strip[1]', 'score 1 of strip'],
    ['blank.width', 'the blank’s width'],
    ['blank.strip.height', 'the height of the blank of strip'],
    ['closedHeight', 'the closed height'],
    ['layer.base/display.width', 'the width of the layer of base/display'],
  ])('%s is said as %s', (entry, words) => {
    expect(wordsOfEntry(entry)).toBe(words);
  });

  it('is taken apart, and is none where it is none', () => {
    expect(saidOf('scores[2]')).toEqual({ of: 'score', nth: 2 });
    expect(saidOf('scores.display[1]')).toEqual({ of: 'score', piece: 'display', nth: 1 });
    expect(saidOf('layer.base/front-leaf.width')).toEqual({ of: 'layer', panel: 'base/front-leaf', way: 'width' });
    for (const name of ['scores', 'scores[0]', 'closed', 'blank', 'layer.x', '']) expect(saidOf(name)).toBeUndefined();
    expect(entriesOf('closedWidth', [1, 2])).toBeUndefined();
    expect(entriesOf('width', [1])).toBeUndefined();
  });
});

describe('a list that is typed or pasted', () => {
  it('is read a thing a line, as the maker writes lengths', () => {
    const read = readSaidList('scores: 75, 150\nblank = 300 x 105\n\nclosed 150 × 105\nlayer.base/front-leaf 69x99', 'mm');
    expect(read).toEqual({
      ok: true,
      said: [
        ['scores[1]', 75],
        ['scores[2]', 150],
        ['blank.width', 300],
        ['blank.height', 105],
        ['closedWidth', 150],
        ['closedHeight', 105],
        ['layer.base/front-leaf.width', 69],
        ['layer.base/front-leaf.height', 99],
      ].map(([entry, value]) => ({ entry, value })),
    });
    expect(readSaidList('scores 2 1/2, 5', 'inch/16')).toEqual({
      ok: true,
      said: [
        { entry: 'scores[1]', value: 63.5 },
        { entry: 'scores[2]', value: 127 },
      ],
    });
    expect(readSaidList('scores 7,5; 15', 'cm/comma')).toMatchObject({ said: [{ value: 75 }, { value: 150 }] });
  });

  it.each([
    ['', /empty/],
    ['scores 75, apple', /apple/],
    ['weight 12', /is no line of a list/],
    ['75, 150', /is no line of a list/],
    ['closed 150', /is no line of a list/],
    ['closedWidth 3\nclosedWidth 4', /said twice/],
    [`scores ${Array.from({ length: 90 }, (_, i) => i + 1).join(', ')}`, /at most 80/],
  ])('that is %j is refused in a sentence', (text, says) => {
    const read = readSaidList(text, 'mm');
    expect(read.ok ? '' : read.says).toMatch(says);
  });
});
