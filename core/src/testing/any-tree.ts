import fc from 'fast-check';
import { newCard, ROOT, type CardDocument, type CardPart } from '../card/document.js';
import { partsOf, siteFor, sizeContextOf } from '../card/draw.js';
import { placesOf } from '../card/parts.js';
import type { Base } from '../mechanism/contract.js';
import { movementById } from '../mechanism/catalogue.js';
import { anySizes } from './any-sizes.js';

/**
 * Any tree of parts: a base with its own sizes at their defaults or drawn by lot, and movements, each on any fold that is
 * there and takes it, with sizes drawn inside the limits that its place leaves. What the place leaves no room for is not put.
 */
export function growTree(base: Base, next: () => number, most = 6): CardDocument {
  const sizes = next() < 0.5 ? {} : anySizes(base.sizes, sizeContextOf(plain(base)), next);
  const grown = newCard({ id: 'tree', name: 'tree', base: { mechanism: base.id, sizes: sizes as CardPart['sizes'] } });
  const start = partsOf(grown).problems.length > 0 ? plain(base) : grown;
  const count = 1 + Math.floor(next() * (most - 0.001));
  return Array.from({ length: count }).reduce<CardDocument>((card, _, i) => withAnyPart(card, `part-${i + 1}`, next), start);
}

const plain = (base: Base): CardDocument => newCard({ id: 'tree', name: 'tree', base: { mechanism: base.id, sizes: {} } });

function withAnyPart(card: CardDocument, id: string, next: () => number): CardDocument {
  const open = placesOf(card).flatMap(({ part, site, takes }) =>
    takes.filter(({ cannot }) => !cannot).map(({ id: mechanism }) => ({ mechanism, on: { part, site: site.id } })),
  );
  if (open.length === 0) return card;
  // Half of the time on what was put last, so that trees grow deep too.
  const deep = open.filter(({ on }) => on.part !== ROOT);
  const from = deep.length > 0 && next() < 0.5 ? deep : open;
  const { mechanism, on } = from[Math.floor(next() * from.length * 0.999)]!;
  const place = next() < 0.3 ? { ...on, turned: true as const } : on;
  const bare: CardDocument = { ...card, parts: [...card.parts, { id, name: `the ${id}`, mechanism, on: place, sizes: {} }] };
  const site = siteFor(bare, id)!;
  const sizes = anySizes(movementById(mechanism).sizes, { ...sizeContextOf(bare), site }, next) as CardPart['sizes'];
  const put: CardDocument = { ...card, parts: [...card.parts, { ...bare.parts.at(-1)!, sizes }] };
  return partsOf(put).problems.length === 0 ? put : card;
}

/** Even shares from 0 to 1, always the same for one seed (a linear congruential generator: Numerical Recipes, 32 bits). */
export function dice(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return state / 2 ** 32;
  };
}

/** The tree that a seed grows. */
export const treeOf = (base: Base, seed: number, most?: number): CardDocument => growTree(base, dice(seed), most);

/** Any seed of a tree, for a property: what fails is told by its seed, not by a whole card. */
export const treeSeed: fc.Arbitrary<number> = fc.noBias(fc.noShrink(fc.integer({ min: 0, max: 2 ** 31 - 1 })));
