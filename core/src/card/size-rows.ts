import { itemSizeName, items, num, type ListSize, type PlainSize, type SizeContext, type Sizes } from '../mechanism/sizes.js';
import type { AlternativeSize } from '../mechanism/contract.js';
import type { CardDocument } from './document.js';
import { sizesGiven } from './draw.js';
import { alternativesOf, contextFor, filledSizes, listAsGiven, mechanismOf } from './set-size.js';

/** A size as a screen shows it: what it is, where it may go, whether the maker set it. */
export interface SizeRow {
  owner: string;
  name: string;
  label: string;
  help: string;
  kind: PlainSize['kind'];
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
  /** to be set only for a card that is already cut */
  asCut: boolean;
  /** for a size of a list item: which list, and which item from 0 */
  list?: { name: string; index: number };
}

/** A list of sizes as a screen shows it. Its items' sizes are rows of their own. */
export interface ListRow {
  owner: string;
  name: string;
  label: string;
  help: string;
  itemLabel: string;
  count: number;
  least: number;
  most: number;
}

/** All single sizes of an owner, those of list items included, as rows for a screen. */
export function sizeRows(card: CardDocument, owner: string): SizeRow[] {
  const mechanism = mechanismOf(card, owner);
  const sizes = filledSizes(card, owner);
  const given = sizesGiven(card, owner);
  const context: SizeContext = { sizes, ...contextFor(card, owner) };
  const shown = mechanism.sizes.filter((size) => size.shown?.(sizes) ?? true);
  return shown.flatMap((size): SizeRow[] => {
    if (size.kind === 'list') return itemRows(card, owner, size, context);
    const row = rowOf(card, owner, size, context, sizes[size.name] as number | string, size.name in given);
    const alternatives = alternativesOf(mechanism)
      .filter((a) => a.insteadOf === size.name)
      .map((a) => alternativeRow(a, owner, sizes, size as RangedSize, context));
    return [row, ...alternatives];
  });
}

/** The lists of an owner. */
export function listRows(card: CardDocument, owner: string): ListRow[] {
  const sizes = filledSizes(card, owner);
  return mechanismOf(card, owner).sizes.flatMap((size): ListRow[] => {
    if (size.kind !== 'list' || !(size.shown?.(sizes) ?? true)) return [];
    const { name, label, help, itemLabel, least, most } = size;
    return [{ owner, name, label, help, itemLabel, least, most, count: items(sizes, name).length }];
  });
}

function itemRows(card: CardDocument, owner: string, list: ListSize, context: SizeContext): SizeRow[] {
  const given = sizesGiven(card, owner)[list.name] === undefined ? [] : listAsGiven(card, owner, list.name);
  return items(context.sizes, list.name).flatMap((item, index) =>
    list.item
      .filter((size) => size.shown?.({ ...context.sizes, ...item }) ?? true)
      .map((size) => ({
        ...rowOf(card, owner, size, { ...context, item, index }, item[size.name]!, size.name in (given[index] ?? {})),
        name: itemSizeName(list.name, index, size.name),
        list: { name: list.name, index },
      })),
  );
}

function rowOf(card: CardDocument, owner: string, size: PlainSize, context: SizeContext, value: number | string, given: boolean): SizeRow {
  const { name, label, help, kind } = size;
  const row: SizeRow = {
    owner,
    name,
    label,
    help,
    kind,
    value,
    given,
    follows: typeof size.default === 'function',
    asCut: size.asCut ?? false,
  };
  if (size.kind === 'choice') return { ...row, options: size.options };
  if (size.kind === 'outline') {
    const own = card.outlines?.map((outline) => ({ value: outline.id, label: outline.name })) ?? [];
    return { ...row, options: [...size.options, ...own] };
  }
  return { ...row, range: size.range(context) };
}

type RangedSize = Extract<PlainSize, { range: unknown }>;

function alternativeRow(a: AlternativeSize, owner: string, sizes: Sizes, size: RangedSize, context: SizeContext): SizeRow {
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
    asCut: false,
    value: valid ? a.fromSize(sizes) : ends[0]!,
    range: { min: ends[0]!, max: ends[1]!, because },
  };
}
