import { CATALOGUE } from '../src/mechanism/catalogue.js';
import type { Base } from '../src/mechanism/contract.js';
import { dice, treeOf } from '../src/testing/any-tree.js';
import { TREE_LAWS } from '../src/testing/tree-laws.js';

const BASES = CATALOGUE.filter((mechanism): mechanism is Base => mechanism.kind === 'base');

/** Random trees of parts, the bases in turn; every law is asked of each. */
export function trees(seed: number, count: number): string[] {
  const next = dice(seed);
  return Array.from({ length: count }).flatMap((_, i) => {
    const base = BASES[i % BASES.length]!;
    const own = Math.floor(next() * 2 ** 31);
    const card = treeOf(base, own);
    return TREE_LAWS.flatMap(({ says, broken }) => {
      let what: string | undefined;
      try {
        what = broken(card);
      } catch (error) {
        what = `throws ${error instanceof Error ? error.message : String(error)}`;
      }
      return what === undefined ? [] : [`${base.id}, tree ${own}: ${says}: ${what}`];
    });
  });
}
