import { baseById, movementById } from '../mechanism/catalogue.js';
import { fillSizes, itemSizeOf, type SizeContext, type SizeItem, type Sizes, type SizeValue } from '../mechanism/sizes.js';
import type { Base, Movement } from '../mechanism/contract.js';
import { stockById } from '../supplies/stocks.js';
import type { CardDocument } from './document.js';
import { ownOutlines } from './own-outlines.js';

/** Sizes given in a card, for one owner: `base` or a movement's id. */
export function sizesOf(card: CardDocument, owner: string): Sizes {
  if (owner !== 'base') return card.movements.find((m) => m.id === owner)?.sizes ?? {};
  const keepsFoldEdge = baseById(card.base.mechanism).sizes.some((size) => size.name === 'foldEdge');
  return keepsFoldEdge ? { ...card.base.sizes, foldEdge: card.foldEdge } : card.base.sizes;
}

/** The mechanism behind an owner. */
export function mechanismOf(card: CardDocument, owner: string): Base | Movement {
  if (owner === 'base') return baseById(card.base.mechanism);
  const movement = card.movements.find((m) => m.id === owner);
  if (!movement) throw new RangeError(`the card has no part “${owner}”`);
  return movementById(movement.mechanism);
}

/** All sizes of an owner, defaults filled in. */
export function filledSizes(card: CardDocument, owner: string): Sizes {
  const context = sizeContextOf(card);
  const base = fillSizes(baseById(card.base.mechanism).sizes, sizesOf(card, 'base'), context);
  if (owner === 'base') return base;
  return fillSizes(mechanismOf(card, owner).sizes, sizesOf(card, owner), context, base);
}

/**
 * A card with one size changed. An alternative size (a lean) is turned into the size it stands for; a
 * size of a list item (`layers[1].depth`) changes that item, and a whole list may be given at once. The
 * edge of the fold belongs to the card as a whole. Limits are not checked here: `evaluate` does that.
 */
export function setSize(card: CardDocument, owner: string, name: string, value: SizeValue): CardDocument {
  const alternative = mechanismOf(card, owner).alternatives.find((a) => a.name === name);
  if (alternative && typeof value === 'number') {
    return setSize(card, owner, alternative.insteadOf, alternative.toSize(value, filledSizes(card, owner)));
  }
  if (owner === 'base' && name === 'foldEdge' && (value === 'side' || value === 'top')) return { ...card, foldEdge: value };
  const itemSize = itemSizeOf(name);
  if (itemSize && !Array.isArray(value)) {
    const list = [...listAsGiven(card, owner, itemSize.list)];
    list[itemSize.index] = { ...list[itemSize.index], [itemSize.name]: value as number | string };
    return setSize(card, owner, itemSize.list, list);
  }
  return withSizes(card, owner, (sizes) => ({ ...sizes, [name]: value }));
}

/** A card with one size back at its default, which follows the other sizes. */
export function unsetSize(card: CardDocument, owner: string, name: string): CardDocument {
  const itemSize = itemSizeOf(name);
  if (itemSize) {
    const list = listAsGiven(card, owner, itemSize.list).map((item, i) =>
      i === itemSize.index ? Object.fromEntries(Object.entries(item).filter(([key]) => key !== itemSize.name)) : item,
    );
    return setSize(card, owner, itemSize.list, list);
  }
  return withSizes(card, owner, (sizes) => Object.fromEntries(Object.entries(sizes).filter(([key]) => key !== name)));
}

/** The entries of a list with only the sizes that were set, or as the list is by default. */
export function listAsGiven(card: CardDocument, owner: string, name: string): readonly SizeItem[] {
  const given = sizesOf(card, owner)[name];
  if (Array.isArray(given)) return given as readonly SizeItem[];
  const size = mechanismOf(card, owner).sizes.find((candidate) => candidate.name === name);
  if (size?.kind !== 'list') throw new RangeError(`no list of sizes “${name}”`);
  return size.default({ ...sizeContextOf(card), sizes: filledSizes(card, owner) });
}

/** A card with one more entry in a list of sizes, with its defaults. */
export function addItem(card: CardDocument, owner: string, list: string): CardDocument {
  return setSize(card, owner, list, [...listAsGiven(card, owner, list), {}]);
}

/** A card without one entry (from 0) of a list of sizes. */
export function removeItem(card: CardDocument, owner: string, list: string, index: number): CardDocument {
  const kept = listAsGiven(card, owner, list).filter((_, i) => i !== index);
  return setSize(card, owner, list, kept);
}

type Given = CardDocument['base']['sizes'];

function withSizes(card: CardDocument, owner: string, change: (sizes: Given) => Record<string, SizeValue>): CardDocument {
  const changed = (sizes: Given): Given => change(sizes) as Given;
  if (owner === 'base') return { ...card, base: { ...card.base, sizes: changed(card.base.sizes) } };
  return { ...card, movements: card.movements.map((m) => (m.id === owner ? { ...m, sizes: changed(m.sizes) } : m)) };
}

/** What limits may depend on besides the sizes: calipers, and the outlines a card brings. */
export function sizeContextOf(card: CardDocument): Omit<SizeContext, 'sizes' | 'item' | 'index'> {
  return {
    baseCaliper: stockById(card.stocks.base).caliper,
    mechanismCaliper: stockById(card.stocks.mechanism).caliper,
    displayCaliper: stockById(card.stocks.display).caliper,
    filmCaliper: stockById(card.stocks.film).caliper,
    ownOutlines: ownOutlines(card),
  };
}
