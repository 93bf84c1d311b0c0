import { mechanismById } from '../mechanism/catalogue.js';
import { fillSizes, itemSizeOf, type SizeContext, type SizeItem, type Sizes, type SizeValue } from '../mechanism/sizes.js';
import type { AlternativeSize, Base, Movement } from '../mechanism/contract.js';
import type { FoldSite } from '../mechanism/sites.js';
import { partsOf, siteFor, sizeContextOf, sizesGiven } from './draw.js';
import { ROOT, type CardDocument } from './document.js';

/** The mechanism behind a part. @throws RangeError when the card has no such part */
export function mechanismOf(card: CardDocument, owner: string): Base | Movement {
  const part = card.parts.find(({ id }) => id === owner);
  if (!part) throw new RangeError(`the card has no part “${owner}”`);
  return mechanismById(part.mechanism);
}

export const alternativesOf = ({ alternatives }: Base | Movement): readonly AlternativeSize[] => alternatives ?? [];

/** All sizes of a part, defaults filled in. Where what carries it cannot be built, its limits are those of a plain fold. */
export function filledSizes(card: CardDocument, owner: string): Sizes {
  const built = partsOf(card).parts.find(({ id }) => id === owner);
  return built?.sizes ?? fillSizes(mechanismOf(card, owner).sizes, sizesGiven(card, owner), contextFor(card, owner));
}

/** What the limits of a part's sizes depend on besides those sizes. */
export function contextFor(card: CardDocument, owner: string): Omit<SizeContext, 'sizes' | 'item' | 'index'> {
  const site = owner === ROOT ? undefined : (siteFor(card, owner) ?? PLAIN_FOLD);
  return { ...sizeContextOf(card), ...(site && { site }) };
}

/** Two leaves as large as a hand: stands in for a place that is not there, so that fields can still be shown. */
const PLAIN_FOLD: FoldSite = {
  kind: 'fold',
  id: 'fold',
  name: 'fold',
  part: ROOT,
  hinge: '',
  leaves: [leafOf('left'), leafOf('right')],
  length: 150,
  shape: 'valley',
  closedAt: 0,
  opensTo: Math.PI,
  oneSheet: true,
};

function leafOf(name: string): FoldSite['leaves'][number] {
  return { panel: '', name, face: 'up', frame: { to: [0, 0], turn: 0, flipped: false }, depth: 105, caliper: 0.3 };
}

/**
 * A card with one size changed. An alternative size (a lean) is turned into the size it stands for; a
 * size of a list item (`layers[1].depth`) changes that item, and a whole list may be given at once. The
 * edge of the fold belongs to the card as a whole. Limits are not checked here: `evaluate` does that.
 */
export function setSize(card: CardDocument, owner: string, name: string, value: SizeValue): CardDocument {
  const alternative = alternativesOf(mechanismOf(card, owner)).find((a) => a.name === name);
  if (alternative && typeof value === 'number') {
    return setSize(card, owner, alternative.insteadOf, alternative.toSize(value, filledSizes(card, owner)));
  }
  if (owner === ROOT && name === 'foldEdge' && (value === 'side' || value === 'top')) return { ...card, foldEdge: value };
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

/**
 * The entries of a list with only the sizes that were set. A list that was never set has as many entries as it has by
 * default, nothing set in any of them: to set one size of one entry freezes no other.
 */
export function listAsGiven(card: CardDocument, owner: string, name: string): readonly SizeItem[] {
  const given = sizesGiven(card, owner)[name];
  return Array.isArray(given) ? (given as readonly SizeItem[]) : defaultList(card, owner, name).map(() => ({}));
}

/** A card with so many entries in a list of sizes: the first ones kept as they are, new ones with their own defaults. */
export function setCount(card: CardDocument, owner: string, list: string, count: number): CardDocument {
  const now = listForCounting(card, owner, list);
  if (now.length === count) return card;
  return setSize(
    card,
    owner,
    list,
    Array.from({ length: count }, (_, i) => now[i] ?? {}),
  );
}

/** A card with one more entry in a list of sizes, with its defaults. */
export function addItem(card: CardDocument, owner: string, list: string): CardDocument {
  return setCount(card, owner, list, listAsGiven(card, owner, list).length + 1);
}

/** A card without one entry (from 0) of a list of sizes. */
export function removeItem(card: CardDocument, owner: string, list: string, index: number): CardDocument {
  const kept = listForCounting(card, owner, list).filter((_, i) => i !== index);
  return setSize(card, owner, list, kept);
}

function defaultList(card: CardDocument, owner: string, name: string): readonly SizeItem[] {
  const size = mechanismOf(card, owner).sizes.find((candidate) => candidate.name === name);
  if (size?.kind !== 'list') throw new RangeError(`no list of sizes “${name}”`);
  return size.default({ ...contextFor(card, owner), sizes: filledSizes(card, owner) });
}

/** Entries with what the list as a whole gives each of them: that no longer holds once their number changes. */
function listForCounting(card: CardDocument, owner: string, name: string): readonly SizeItem[] {
  const whole = defaultList(card, owner, name);
  const given = listAsGiven(card, owner, name);
  return given.length === whole.length ? given.map((item, i) => ({ ...whole[i], ...item })) : given;
}

type Given = CardDocument['parts'][number]['sizes'];

function withSizes(card: CardDocument, owner: string, change: (sizes: Given) => Record<string, SizeValue>): CardDocument {
  return { ...card, parts: card.parts.map((part) => (part.id === owner ? { ...part, sizes: change(part.sizes) as Given } : part)) };
}
