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
