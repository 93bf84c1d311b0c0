import { CATALOGUE } from '../src/mechanism/catalogue.js';
import type { Base } from '../src/mechanism/contract.js';
import { dice, growTree } from '../src/testing/any-tree.js';
import { asOldCardsWere, asOldFile, mutated, oldFileBroken } from '../src/testing/old-files.js';

const BASES = CATALOGUE.filter((mechanism): mechanism is Base => mechanism.kind === 'base');

/** Files of versions 1 and 2, most of them with one place changed: read as the same card, or refused with the path. */
export function migrations(seed: number, count: number): string[] {
  const next = dice(seed);
  return Array.from({ length: count }).flatMap((_, i) => {
    const card = asOldCardsWere(growTree(BASES[i % BASES.length]!, next, 3));
    const file = asOldFile(card, i % 2 === 0 ? 1 : 2);
    const broken = oldFileBroken(i % 5 === 0 ? file : mutated(file, next));
    return broken === undefined ? [] : [`file ${i}: ${broken}`];
  });
}
