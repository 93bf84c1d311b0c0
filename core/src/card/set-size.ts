import { baseById, movementById } from '../mechanism/catalogue.js';
import { checkSizes, fillSizes, num, type Sizes } from '../mechanism/sizes.js';
import type { AlternativeSize, Base, FreeSize, Movement } from '../mechanism/contract.js';
import { plainMm, printAngle } from '../measure/print.js';
import { retold } from '../measure/retell.js';
import { stockById } from '../supplies/stocks.js';
import type { CardDocument } from './document.js';

/** Sizes given in a card, for one owner: `base` or a movement's id. */
export function sizesOf(card: CardDocument, owner: string): Sizes {
  return owner === 'base' ? card.base.sizes : (card.movements.find((m) => m.id === owner)?.sizes ?? {});
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
  const calipers = calipersOf(card);
  const base = fillSizes(baseById(card.base.mechanism).sizes, card.base.sizes, calipers);
  if (owner === 'base') return base;
  return fillSizes(mechanismOf(card, owner).sizes, sizesOf(card, owner), calipers, base);
}

/**
 * A card with one size changed. An alternative size (a lean) is turned into the size it stands for.
 * Limits are not checked here: `evaluate` does that.
 */
export function setSize(card: CardDocument, owner: string, name: string, value: number | string): CardDocument {
  const alternative = mechanismOf(card, owner).alternatives.find((a) => a.name === name);
  if (alternative && typeof value === 'number') {
    return setSize(card, owner, alternative.insteadOf, alternative.toSize(value, filledSizes(card, owner)));
  }
  if (owner === 'base') return { ...card, base: { ...card.base, sizes: { ...card.base.sizes, [name]: value } } };
  return {
    ...card,
    movements: card.movements.map((m) => (m.id === owner ? { ...m, sizes: { ...m.sizes, [name]: value } } : m)),
  };
}

/** Why a size cannot be set to a value in this card, as one sentence; nothing when it can. */
export function refusal(card: CardDocument, owner: string, name: string, value: number | string): string | undefined {
  const { sizes: free, alternatives } = mechanismOf(card, owner);
  const target = alternatives.find((a) => a.name === name)?.insteadOf ?? name;
  const changed = setSize(card, owner, name, value);
  const context = { sizes: filledSizes(changed, owner), ...calipersOf(card) };
  const problem = checkSizes(free, context).find((candidate) => candidate.size === target);
  return problem && retold(problem.says, card.notation);
}

/** What a size may be in this card, as a sentence for a field that holds nonsense. */
export function allowedWords(card: CardDocument, owner: string, name: string): string {
  const row = sizeRows(card, owner).find((candidate) => candidate.name === name);
  if (!row) return '';
  if (row.options) return `Allowed: ${row.options.map((option) => option.value).join(', ')}.`;
  const print = row.kind === 'angle' ? printAngle : plainMm;
  return row.range && row.range.max >= row.range.min
    ? retold(`Allowed is ${print(row.range.min)} to ${print(row.range.max)}.`, card.notation)
    : '';
}

function calipersOf(card: CardDocument): { baseCaliper: number; mechanismCaliper: number } {
  return { baseCaliper: stockById(card.stocks.base).caliper, mechanismCaliper: stockById(card.stocks.mechanism).caliper };
}

/** A card with one size back at its default, which follows the other sizes. */
export function unsetSize(card: CardDocument, owner: string, name: string): CardDocument {
  const without = (sizes: Sizes): Record<string, number | string> =>
    Object.fromEntries(Object.entries(sizes).filter(([key]) => key !== name));
  if (owner === 'base') return { ...card, base: { ...card.base, sizes: without(card.base.sizes) } };
  return { ...card, movements: card.movements.map((m) => (m.id === owner ? { ...m, sizes: without(m.sizes) } : m)) };
}

/** A size as a screen shows it: what it is, where it may go, whether the maker set it. */
export interface SizeRow {
  owner: string;
  name: string;
  label: string;
  help: string;
  kind: FreeSize['kind'];
  value: number | string;
  /** limits of a length or angle at the present other sizes */
  range?: { min: number; max: number; because: string };
  options?: readonly { value: string; label: string }[];
  /** set by the maker; otherwise it follows other sizes */
  given: boolean;
  /** its default follows other sizes */
  follows: boolean;
  /** for an alternative: the size it stands for */
  insteadOf?: string;
}

/** All sizes of an owner, as rows for a screen. */
export function sizeRows(card: CardDocument, owner: string): SizeRow[] {
  const mechanism = mechanismOf(card, owner);
  const sizes = filledSizes(card, owner);
  const given = sizesOf(card, owner);
  const context = { sizes, ...calipersOf(card) };
  return mechanism.sizes
    .filter((size) => size.shown?.(sizes) ?? true)
    .flatMap((size): SizeRow[] => {
      const { name, label, help, kind } = size;
      const row: SizeRow = {
        owner,
        name,
        label,
        help,
        kind,
        value: sizes[name]!,
        given: name in given,
        follows: size.kind !== 'choice' && typeof size.default === 'function',
      };
      if (size.kind === 'choice') return [{ ...row, options: size.options }];
      const alternatives = mechanism.alternatives
        .filter((a) => a.insteadOf === name)
        .map((a) => alternativeRow(a, owner, sizes, size, context));
      return [{ ...row, range: size.range(context) }, ...alternatives];
    });
}

type Ranged = Extract<FreeSize, { kind: 'length' | 'angle' }>;

function alternativeRow(a: AlternativeSize, owner: string, sizes: Sizes, size: Ranged, context: Parameters<Ranged['range']>[0]): SizeRow {
  const { min, max, because } = size.range(context);
  const ends = [min, max].map((end) => a.fromSize({ ...sizes, [a.insteadOf]: end })).sort((p, q) => p - q);
  const { name, label, help, kind, insteadOf } = a;
  const valid = num(sizes, insteadOf) >= min - 1e-9 && num(sizes, insteadOf) <= max + 1e-9;
  return {
    owner,
    name,
    label,
    help,
    kind,
    insteadOf,
    given: false,
    follows: false,
    value: valid ? a.fromSize(sizes) : ends[0]!,
    range: { min: ends[0]!, max: ends[1]!, because },
  };
}
