import type { CardDocument, CardPart } from '../card/document.js';
import { filledSizes } from '../card/set-size.js';
import { evaluate } from '../evaluate.js';
import type { Finding } from '../check/finding.js';
import { items, type FreeSize, type PlainSize, type Sizes } from '../mechanism/sizes.js';

/** A size of a part that a hand may be off by: of one entry, where it is in a list. */
export interface ErringSize {
  owner: string;
  name: string;
  index?: number;
  of?: string;
  /** of a length 1 mm; of an angle what moves a place 50 mm away by 1 mm */
  perMm: number;
  asCut: boolean;
}

/** Where an angle is off by a mm: about half as far out as a figure reaches. */
const LEVER = 50;

/** Every length and angle of a part, also of the first entry of its lists. */
export function erringSizes(owner: string, sizes: readonly FreeSize[]): ErringSize[] {
  const one = (size: PlainSize, more: Partial<ErringSize> = {}): ErringSize[] =>
    size.kind === 'length' || size.kind === 'angle'
      ? [{ owner, name: size.name, perMm: size.kind === 'angle' ? 1 / LEVER : 1, asCut: size.asCut === true, ...more }]
      : [];
  return sizes.flatMap((size) => (size.kind === 'list' ? size.item.flatMap((own) => one(own, { of: size.name, index: 0 })) : one(size)));
}

/** The card with one size off by some mm, what follows from it left as it was cut. */
export function off(card: CardDocument, { owner, name, of, index, perMm }: ErringSize, by: number): CardDocument | undefined {
  const filled = filledSizes(card, owner);
  const wrong = (sizes: Sizes): Sizes | undefined => {
    const value = sizes[name];
    return typeof value === 'number' ? { ...sizes, [name]: value + by * perMm } : undefined;
  };
  const list = of === undefined ? undefined : items(filled, of);
  const changed = list ? list[index!] && wrong(list[index!] as Sizes) : wrong(filled);
  if (!changed) return undefined;
  const own = card.parts.find(({ id }) => id === owner)!.sizes;
  const sizes = list ? { ...own, [of!]: list.map((item, i) => (i === index ? changed : item)) } : { ...own, [name]: changed[name] };
  return { ...card, parts: card.parts.map((part) => (part.id === owner ? { ...part, sizes: sizes as CardPart['sizes'] } : part)) };
}

/** What is said against a card, or nothing where it is refused. */
export function saidAgainst(card: CardDocument | undefined): Finding[] | undefined {
  const outcome = card && evaluate(card);
  return outcome?.ok ? outcome.evaluation.findings.filter(({ severity }) => severity !== 'pass') : undefined;
}

export const fails = (findings: readonly Finding[]): string[] => findings.filter(({ severity }) => severity === 'fail').map(({ id }) => id);

/** How far the worst is from right. What a card stands on is left out: an edge touches the table or it does not. */
export const worstIn = (findings: readonly Finding[]): number =>
  findings.reduce((worst, { check, shortfall }) => (check === 'stands' ? worst : Math.max(worst, shortfall)), 0);

/** A free edge gapes by a block's thickness times its lever: that much, and no more, may a mm of error cause. */
const MOST_PER_MM = 8;
/** Where one check hands over to another, each with its own allowance. */
const HANDED_OVER = 0.35;

/** What is wrong with how verdicts grow from one error to a larger one, or nothing. */
export function jump(smaller: readonly Finding[], larger: readonly Finding[], by: number): string | undefined {
  const [before, after] = [worstIn(smaller), worstIn(larger)];
  return Math.abs(after - before) <= MOST_PER_MM * by + HANDED_OVER ? undefined : `${before} → ${after} within ${by} mm`;
}
