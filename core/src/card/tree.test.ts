import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { CATALOGUE } from '../mechanism/catalogue.js';
import type { Base } from '../mechanism/contract.js';
import { treeOf, treeSeed } from '../testing/any-tree.js';
import { TREE_LAWS } from '../testing/tree-laws.js';

const BASES = CATALOGUE.filter((mechanism): mechanism is Base => mechanism.kind === 'base');
/** `npm run campaign -- trees` tries thousands. */
const TREES_EACH = 2;

describe.each(BASES.map((base) => ({ name: base.name, base })))('any tree of parts on $name', ({ base }) => {
  it.each(TREE_LAWS)('$says', { timeout: 240_000 }, ({ broken }) => {
    fc.assert(
      fc.property(treeSeed, (seed) => {
        expect(broken(treeOf(base, seed)) ?? 'holds').toBe('holds');
      }),
      { numRuns: TREES_EACH, seed: 9 },
    );
  });
});

describe('trees of parts that were broken once', () => {
  it.each([
    // On flaps that lie flat for most of the drive: which way a part folds there was left to rounding.
    ['box-card', 733410254],
    ['box-card', 1993371028],
    ['box-card', 1841064649],
    // Strained, so that how they give way followed the order in which their parts were placed.
    ['swing', 628803926],
    ['step-easel', 1554167563],
  ] as const)('%s, grown from %d, keep every law', (id, seed) => {
    const card = treeOf(
      BASES.find((base) => base.id === id)!,
      seed,
    );
    expect(TREE_LAWS.flatMap(({ says, broken }) => (broken(card) === undefined ? [] : [says]))).toEqual([]);
  });
});
