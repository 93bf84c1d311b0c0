import { CATALOGUE } from '../src/mechanism/catalogue.js';
import { starterFor } from '../src/supplies/starter-workshops.js';
import { dice } from '../src/testing/any-tree.js';
import { cardOnMarks, listOfCard } from '../src/testing/list-of-card.js';
import { reconcile } from '../src/trial/reconcile.js';

/**
 * Lists of random cards, the mechanisms in turn: a right one has no contradiction; one with a number off by a mark is told, that
 * number is among the corrections, and in most lists the first. Numbers that nothing else says anything of cannot be told.
 */
export function* lists(seed: number, count: number): Generator<string> {
  const next = dice(seed);
  const workshop = starterFor('mm');
  const ranks = new Map<string, { first: number; among: number; silent: number; all: number }>();
  for (let i = 0; i < count; i++) {
    const mechanism = CATALOGUE[i % CATALOGUE.length]!;
    const card = cardOnMarks(mechanism, next);
    const said = listOfCard(card);
    const right = reconcile(mechanism.id, said, workshop);
    if (right.strange.length > 0 || right.contradictions.length > 0) {
      yield `${i} ${mechanism.id} right list: ${right.strange.join(', ')} ${right.contradictions.map(({ says }) => says).join(' ')}`;
      continue;
    }
    const off = Math.floor(next() * said.length * 0.999);
    const by = next() < 0.5 ? 1 : -1;
    const wrong = said.map((number, k) => (k === off ? { ...number, value: number.value + by } : number));
    const { contradictions, corrections } = reconcile(mechanism.id, wrong, workshop);
    const rank = ranks.get(mechanism.id) ?? { first: 0, among: 0, silent: 0, all: 0 };
    ranks.set(mechanism.id, rank);
    rank.all++;
    const place = corrections.findIndex(({ entry, to }) => entry === said[off]!.entry && Math.abs(to - said[off]!.value) < 0.3);
    if (contradictions.length === 0) rank.silent++;
    else if (place === 0) rank.first++;
    else if (place > 0) rank.among++;
    else
      yield `${i} ${mechanism.id} ${said[off]!.entry} off by ${by}: ${contradictions[0]!.says} → ${corrections.map(({ says }) => says).join(' ')}`;
  }
  for (const [id, { first, among, silent, all }] of ranks)
    console.log(`${id.padEnd(20)} first ${first}, among ${among}, not told ${silent}, of ${all}`);
}
