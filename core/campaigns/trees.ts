import { CATALOGUE } from '../src/mechanism/catalogue.js';
import type { Base } from '../src/mechanism/contract.js';
import { dice, treeOf } from '../src/testing/any-tree.js';
import { TREE_LAWS } from '../src/testing/tree-laws.js';

const BASES = CATALOGUE.filter((mechanism): mechanism is Base => mechanism.kind === 'base');

/** Random trees of parts, the bases in turn; every law is asked of each, and what it breaks is told at once: a thousand take an hour. */
export function* trees(seed: number, count: number): Generator<string> {
  const next = dice(seed);
  for (let i = 0; i < count; i++) {
    const base = BASES[i % BASES.length]!;
    const own = Math.floor(next() * 2 ** 31);
    const card = treeOf(base, own);
    for (const { says, broken } of TREE_LAWS) {
      let what: string | undefined;
      try {
        what = broken(card);
      } catch (error) {
        what = `throws ${error instanceof Error ? error.message : String(error)}`;
      }
      if (what !== undefined) yield `${base.id}, tree ${own}: ${says}: ${what}`;
    }
    if ((i + 1) % 50 === 0) console.error(`${i + 1} of ${count} trees`);
  }
}
