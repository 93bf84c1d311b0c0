import type { CardDocument } from '../card/document.js';
import { setSize } from '../card/set-size.js';
import { rulerStep, type Mm } from '../measure/units.js';
import type { Workshop } from '../supplies/workshop.js';
import { spotOf, stepsFrom, USUAL_BORDER, type Fit } from './list-steps.js';
import { unknownsOf } from './list-model.js';
import { saidOf, type SaidNumber } from './said-list.js';

/** From so many cards it is begun anew: so many that agree best whatever their size, and others of another size each. */
const MOST_STARTS = 12;
const NEAREST_STARTS = 4;

/**
 * The sizes with which most numbers agree. First roughly, with allowances taken over from card to card, from each card to begin
 * with. Then with each card laid closed and dressed for itself, as strips that others cover follow those that cover them, and from
 * cards of which no size follows another; last, where more is off than a slip, from cards beside the best.
 */
export function fitted(all: readonly CardDocument[], said: readonly SaidNumber[], workshop: Workshop): Fit | undefined {
  const isWhole = (fit: Fit): boolean => fit.places.length === said.length && wrongIn(fit) < WHOLE;
  const isTold = (fit: Fit): boolean => isWhole(fit) || (fit.places.length === said.length && isOneSlip(fit));
  const roughly = (card: CardDocument): Fit | undefined => stepsFrom(card, said, workshop, 'taken over');
  const evenly = (card: CardDocument): Fit | undefined => stepsFrom(card, said, workshop, 'anew');
  const starts = differing(all, said, workshop);
  let fit = best(starts, isWhole, roughly);
  const isLayered = said.some(({ entry }) => saidOf(entry)?.of === 'layer');
  if (!fit || !isLayered || isWhole(fit)) return fit;
  fit = best(starts.map(held), isWhole, evenly, fit)!;
  if (isWhole(fit)) return fit;
  fit = best([fit.card, withoutLayers(starts[0]!, said, workshop), held(fit.card)], isWhole, evenly, fit)!;
  // A movement is closed with the card that it stands on, which takes longer: it is not begun anew.
  if (isTold(fit) || fit.card.parts.length > 1) return fit;
  return best(startsBeside([fit.card, starts[0]!], said, workshop), isTold, evenly, fit);
}

/** The card that agrees best with all but the layers, which follow sizes unevenly. */
function withoutLayers(start: CardDocument, said: readonly SaidNumber[], workshop: Workshop): CardDocument {
  const hard = said.filter(({ entry }) => saidOf(entry)?.of !== 'layer');
  return stepsFrom(start, hard, workshop, 'taken over')?.card ?? start;
}

/** Cards of which no two say the same: what was chosen otherwise may change nothing that is said. */
function differing(cards: readonly CardDocument[], said: readonly SaidNumber[], workshop: Workshop): CardDocument[] {
  const read = cards.map((card) => JSON.stringify(spotOf(card, USUAL_BORDER, said, workshop)?.at ?? []));
  return cards.filter((_, i) => read.indexOf(read[i]!) === i);
}

/** A card with every size given as it is: none follows another any more, which it may do by whole marks at a time. */
const held = (card: CardDocument): CardDocument =>
  unknownsOf(card).reduce((before, { owner, name, value, given }) => (given ? before : setSize(before, owner, name, value)), card);

/** What is off by whole marks is off by them to this. */
const ON_MARK: Mm = 0.01;

/** All numbers agree but one, which is off by whole marks: that is a slip, and needs no other card to be told. */
function isOneSlip({ left, card }: Fit): boolean {
  const step = rulerStep(card.notation);
  const off = left.filter((rest) => Math.abs(rest) > WHOLE);
  const marks = (off[0] ?? 0) / step;
  return off.length === 1 && Math.abs(marks - Math.round(marks)) * step < ON_MARK;
}

/** The nearest of the fits that cards lead to; none is looked at after one that will do. */
function best(
  cards: readonly CardDocument[],
  willDo: (fit: Fit) => boolean,
  fitOf: (card: CardDocument) => Fit | undefined,
  first?: Fit,
): Fit | undefined {
  let found = first;
  for (const card of cards) {
    const fit = fitOf(card);
    if (fit) found = found ? nearer(found, fit) : fit;
    if (found && willDo(found)) break;
  }
  return found;
}

/** The fit that has a place for more numbers; of those alike, the one with which they agree better. */
function nearer(one: Fit, other: Fit | undefined): Fit {
  if (!other || other.places.length < one.places.length) return one;
  return other.places.length > one.places.length || wrongIn(other) < wrongIn(one) ? other : one;
}

/**
 * Cards to begin anew from where steps lead no farther: what sticks out of a card, or wears a layer, says nothing before it does,
 * and what no number follows may hold back what they follow. One size each, a quarter, half and three quarters through its range;
 * those with a place for most numbers first.
 */
function startsBeside(cards: readonly CardDocument[], said: readonly SaidNumber[], workshop: Workshop): CardDocument[] {
  const spots = cards.flatMap((card) =>
    unknownsOf(card).flatMap((row) =>
      [0.25, 0.5, 0.75].flatMap((share) => {
        const to = row.range!.min + share * (row.range!.max - row.range!.min);
        const spot = spotOf(setSize(card, row.owner, row.name, to), USUAL_BORDER, said, workshop);
        return spot ? [{ ...spot, size: `${row.owner}.${row.name}` }] : [];
      }),
    ),
  );
  const sorted = spots.sort((a, b) => b.places.length - a.places.length || a.wrong - b.wrong);
  const once = sorted.filter(({ size }, i) => sorted.findIndex((other) => other.size === size) === i);
  return [...new Set([...sorted.slice(0, NEAREST_STARTS), ...once])].slice(0, MOST_STARTS).map(({ card }) => card);
}

const wrongIn = ({ left }: Pick<Fit, 'left'>): Mm => left.reduce((sum, rest) => sum + Math.abs(rest), 0);
/** All numbers of a list together are off by less: nothing contradicts anything. */
const WHOLE: Mm = 0.05;
