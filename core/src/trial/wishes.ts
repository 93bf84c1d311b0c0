import { withStock } from '../card/choose-supplies.js';
import { envelopeOf, movementsOf, type CardDocument } from '../card/document.js';
import { withoutClosure, withoutLayers, withoutTopper } from '../card/dress-card.js';
import { inSentence, titlesOf } from '../card/part-titles.js';
import { removePart } from '../card/parts.js';
import { ROLE_NAMES, STOCK_ROLES } from '../supplies/stocks.js';
import type { Workshop } from '../supplies/workshop.js';

/** Something that the maker wants of the card, for which no sizes were found together with the others that are named. */
export interface Wish {
  /** a movement by its part, a topper or closure by its own id; `envelope`, `layers`, `stock-base` */
  owner: string;
  says: string;
}

/**
 * The smallest set of wishes with which no sizes were found: each left out in turn, and left out for good where none are found
 * for the rest without it either. A search proves nothing: it says how far it looked.
 * What a quick look does not find a thorough one may: the set is looked at once more before it is said, and where sizes are found
 * for it, all is looked at thoroughly. Nothing where all can be had together after all.
 * @param canBeHad whether sizes are found with which a card works
 */
export function conflictingWishes(
  card: CardDocument,
  workshop: Workshop,
  canBeHad: (wished: CardDocument, look: 'quick' | 'thorough') => boolean,
): Wish[] {
  const wishes = wishesOf(card, workshop);
  const without = (look: 'quick' | 'thorough'): readonly LeftOut[] =>
    wishes.reduce((kept, wish) => {
      const rest = kept.filter((other) => other !== wish);
      return canBeHad(granting(card, wishes, rest), look) ? kept : rest;
    }, wishes);
  const isProven = (kept: readonly LeftOut[]): boolean => !canBeHad(granting(card, wishes, kept), 'thorough');
  const quick = without('quick');
  const kept = isProven(quick) ? quick : isProven(wishes) ? without('thorough') : [];
  return kept.map(({ owner, says }) => ({ owner, says }));
}

type LeftOut = Wish & { leave: (card: CardDocument) => CardDocument };

function wishesOf(card: CardDocument, workshop: Workshop): LeftOut[] {
  const titles = titlesOf(card);
  const envelope = envelopeOf(card);
  return [
    ...(envelope
      ? [
          {
            owner: 'envelope',
            says: `that it goes into the envelope ${envelope.name}`,
            leave: ({ envelope: _, ...rest }: CardDocument): CardDocument => rest,
          },
        ]
      : []),
    ...movementsOf(card).map(({ id }) => ({
      owner: id,
      says: `the ${inSentence(titles.get(id) ?? id)}`,
      leave: (whole: CardDocument): CardDocument => (whole.parts.some((part) => part.id === id) ? removePart(whole, id) : whole),
    })),
    ...wornWishes(card),
    ...stockWishes(card, workshop),
  ];
}

/** What it wears: each topper and closure by itself, its layers together. */
function wornWishes({ dressing = {} }: CardDocument): LeftOut[] {
  const { layers, toppers = [], closures = [] } = dressing;
  return [
    ...toppers.map(({ id, name, outline }) => ({
      owner: id,
      says: `the topper ${name ?? outline}`,
      leave: (whole: CardDocument) => withoutTopper(whole, id),
    })),
    ...closures.map(({ id, kind }) => ({
      owner: id,
      says: `the ${kind}`,
      leave: (whole: CardDocument) => withoutClosure(whole, id),
    })),
    ...(layers ? [{ owner: 'layers', says: 'its layers', leave: withoutLayers }] : []),
  ];
}

/** Stocks that were chosen for it, and are not those that this maker usually takes. */
const stockWishes = (card: CardDocument, workshop: Workshop): LeftOut[] =>
  STOCK_ROLES.flatMap((role): LeftOut[] => {
    const [own, usual] = [card.stocks[role], workshop.usual.stocks[role]];
    const name = card.supplies.stocks.find(({ id }) => id === own)?.name;
    if (own === usual || name === undefined) return [];
    return [
      {
        owner: `stock-${role}`,
        says: `${name} for the ${ROLE_NAMES[role].toLowerCase()}`,
        leave: (whole) => withStock(whole, role, usual, workshop),
      },
    ];
  });

/** The card with only some of its wishes. */
function granting(card: CardDocument, all: readonly LeftOut[], kept: readonly LeftOut[]): CardDocument {
  return all.filter((wish) => !kept.includes(wish)).reduce((less, { leave }) => leave(less), card);
}
