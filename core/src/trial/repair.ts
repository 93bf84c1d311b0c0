import type { CardDocument } from '../card/document.js';
import { inSentence, titlesOf } from '../card/part-titles.js';
import type { Finding } from '../check/finding.js';
import { printAngle, sayLength } from '../measure/print.js';
import { evaluate } from '../evaluate.js';
import type { Workshop } from '../supplies/workshop.js';
import { freeRows } from './changed-sizes.js';
import { ENOUGH_WAYS, Search, sizesChanged, type SizeChange, type State } from './size-search.js';
import { isAimedAt, tried, type Aim, type Tried } from './trouble.js';
import { conflictingWishes, type Wish } from './wishes.js';

/** A way of putting a card right, tried out whole. */
export interface RepairOffer {
  says: string;
  changes: SizeChange[];
  /** how much is changed, mm all together; an angle by what it moves a place 60 mm out, and what was left out thrice */
  cost: number;
  /** the card with all of it made */
  card: CardDocument;
  /** what is still said against it */
  leaves: Finding[];
}

/** Ways of putting a card right, the smallest change first; where there is none, the smallest set of wishes that conflict. */
export interface Repair {
  aim: Aim;
  offers: RepairOffer[];
  conflict: Wish[];
  /** how many cards were tried */
  tries: number;
}

/** So many ways of changing the same sizes are worked out whole until one holds. */
const MOST_WHOLE = 4;
/** A warning that stays is worth so much of a change, mm: a way that leaves none may cost more, but not any amount. */
const PER_WARNING = 12;
/** Cards that are tried before the search is content with what it has. */
const MOST_TRIES = 200;
const MOST_TRIES_FOR_WISHES = 70;
/** Before wishes are said to conflict every two sizes are looked at, as far as so many cards go: all of those of some twenty-five sizes, in a minute or so. */
const MOST_TRIES_FOR_PROOF = 5000;
/** What the search for a way is of all the work, where it has to be shown that there is none. */
const SEARCH_SHARE = 0.25;

/**
 * The smallest changes of free sizes after which nothing fails, or, where nothing does, nothing is warned of that sizes can
 * mend. One size after the other is led to where least is wrong, as how far findings are from right shows the way, and then
 * others besides. All are inside their limits, on a mark of the maker's ruler where a mark will do, and tried out whole.
 * @param told how much of the search is done at the most, 0 … 1
 */
export function repair(card: CardDocument, workshop: Workshop, told: (share: number) => void = () => undefined): Repair {
  const [failing, aim] = begin(card, workshop);
  if (failing.trouble === 0) return { aim, offers: [], conflict: [], tries: 0 };
  const search = new Search(card, workshop, aim, MOST_TRIES, (share) => told(SEARCH_SHARE * share));
  const offers = offersAmong(search, search.run(failing));
  if (offers.length > 0) return { aim, offers, conflict: [], tries: search.tries };
  const proof = new Proof(workshop, aim, (share) => told(SEARCH_SHARE + (1 - SEARCH_SHARE) * share));
  const conflict = conflictingWishes(card, workshop, (wished, look) => proof.canBeHad(wished, look));
  // Where all of them can be had together after all, that is a way of mending it.
  const after = conflict.length === 0 ? offersAmong(search, proof.thoroughly(card, failing)) : [];
  return { aim, offers: after, conflict, tries: search.tries };
}

/** Only the ways of putting a card right, without asking what conflicts where there is none: that takes longer. */
export function repairOffers(card: CardDocument, workshop: Workshop): RepairOffer[] {
  const [failing, aim] = begin(card, workshop);
  if (failing.trouble === 0) return [];
  const search = new Search(card, workshop, aim, MOST_TRIES);
  return offersAmong(search, search.run(failing));
}

/** The best of the states that hold when they are worked out whole, the smallest change among them. */
function offersAmong(search: Search, found: readonly State[]): RepairOffer[] {
  const { begun, workshop, aim } = search;
  const offers = wholeOnes(
    found,
    (state) => search.farther(state),
    (state) => offerOf(begun, state, workshop, aim),
  ).sort((a, b) => a.cost + PER_WARNING * a.leaves.length - (b.cost + PER_WARNING * b.leaves.length));
  const cheapest = offers.find(({ cost }) => offers.every((other) => other.cost >= cost));
  const shown = offers.filter((offer, i) => i < ENOUGH_WAYS - 1 || offer === cheapest);
  return (shown.length < ENOUGH_WAYS ? offers : shown).slice(0, ENOUGH_WAYS);
}

/** Asks of cards with fewer wishes whether sizes are found for them. */
class Proof {
  private readonly looked = new Map<CardDocument, State[]>();

  constructor(
    private readonly workshop: Workshop,
    private readonly aim: Aim,
    private readonly told: (share: number) => void,
  ) {}

  canBeHad(wished: CardDocument, look: 'quick' | 'thorough'): boolean {
    const start = tried(wished, this.workshop, this.aim);
    if (start.trouble === 0) return true;
    if (look === 'quick') return new Search(wished, this.workshop, this.aim, MOST_TRIES_FOR_WISHES).run(start).length > 0;
    return this.thoroughly(wished, start).length > 0;
  }

  /** Each card is looked at so once: it takes its time. What is only warned of is not worth it. */
  thoroughly(wished: CardDocument, start: Tried): State[] {
    const found =
      this.looked.get(wished) ??
      (this.aim === 'fail' ? new Search(wished, this.workshop, this.aim, MOST_TRIES_FOR_PROOF, this.told).everywhere(start) : []);
    this.looked.set(wished, found);
    return found;
  }
}

function begin(card: CardDocument, workshop: Workshop): [Tried, Aim] {
  const failing = tried(card, workshop, 'fail');
  return failing.trouble > 0 ? [failing, 'fail'] : [tried(card, workshop, 'warn'), 'warn'];
}

/** Of the ways of changing the same sizes the cheapest that holds when it is worked out whole, or one somewhat farther on. */
function wholeOnes(states: readonly State[], farther: (state: State) => State[], offer: (state: State) => RepairOffer[]): RepairOffer[] {
  const groups = new Map<string, State[]>();
  for (const state of states) groups.set(sizesChanged(state), [...(groups.get(sizesChanged(state)) ?? []), state]);
  return [...groups.values()].flatMap((group) => {
    for (const state of [...group.slice(0, MOST_WHOLE), ...farther(group[0]!)]) {
      const [found] = state.trouble === 0 ? offer(state) : [];
      if (found) return [found];
    }
    return [];
  });
}

/** A state as an offer, worked out whole once more: none where something is wrong that the quick look did not see. */
function offerOf(begun: CardDocument, { card, changes, cost }: State, workshop: Workshop, aim: Aim): RepairOffer[] {
  const outcome = evaluate(card, workshop);
  if (!outcome.ok || outcome.evaluation.findings.some((finding) => isAimedAt(finding, aim))) return [];
  const leaves = outcome.evaluation.findings.filter(({ severity }) => severity !== 'pass');
  const words = changes.map((change) => changeInWords(begun, change));
  return [{ says: `Change ${words.join(', and ')}.`, changes, cost, card, leaves }];
}

/** “depth of the base from 62 mm to 58.5 mm” */
function changeInWords(card: CardDocument, { owner, size, label, from, to }: SizeChange): string {
  const isAngle = freeRows(card).find((row) => row.owner === owner && row.name === size)?.kind === 'angle';
  const say = (value: number): string => (isAngle ? printAngle(value, card.notation) : sayLength(value, card.notation));
  const part = card.parts.length > 1 ? ` of the ${inSentence(titlesOf(card).get(owner) ?? owner)}` : '';
  const nth = /\[(\d+)\]/.exec(size);
  return `${inSentence(label)}${nth ? ` ${nth[1]}` : ''}${part} from ${say(from)} to ${say(to)}`;
}
