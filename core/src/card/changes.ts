import { printAngle, printGrams, sayLength } from '../measure/print.js';
import type { Notation } from '../measure/units.js';
import { itemSizeName, items, type PlainSize, type Sizes } from '../mechanism/sizes.js';
import type { CardDocument, CardPart } from './document.js';
import { sizesGiven } from './draw.js';
import { titlesOf } from './part-titles.js';
import { STOCK_ROLES, ROLE_NAMES } from '../supplies/stocks.js';
import { filledSizes, mechanismOf } from './set-size.js';

type Counted = 'length' | 'angle' | 'count' | 'weight';

const PRINT: Record<Counted, (value: number, notation: Notation) => string> = {
  length: sayLength,
  angle: printAngle,
  count: String,
  weight: printGrams,
};

/** What differs between two states of a card, in words: `Crest from 63 mm to 120 mm`. */
export function changesBetween(before: CardDocument, after: CardDocument): string[] {
  const titles = titlesOf(after);
  const gone = before.parts
    .filter(({ id }) => !after.parts.some((part) => part.id === id))
    .map(({ id }) => `${titlesOf(before).get(id)!} taken away`);
  const sizes = after.parts.flatMap((part) => {
    const was = before.parts.find(({ id }) => id === part.id);
    if (!was) return [`${titles.get(part.id)!} added`];
    if (was.mechanism !== part.mechanism) return [`${mechanismOf(after, part.id).name} in place of another`];
    return [
      ...placeChanges(was, part, titles.get(part.id)!),
      ...sizeChanges(before, after, part.id, part.on && after.parts.length > 2 ? `${titles.get(part.id)!}: ` : ''),
    ];
  });
  const stocks = STOCK_ROLES.flatMap((role) =>
    before.stocks[role] === after.stocks[role] ? [] : [`the ${ROLE_NAMES[role].toLowerCase()}`],
  );
  return [
    ...gone,
    ...sizes,
    ...stocks,
    ...(JSON.stringify(before.dressing ?? null) === JSON.stringify(after.dressing ?? null) ? [] : ['what it wears']),
    ...(before.board === after.board ? [] : ['the board']),
    ...(before.envelope === after.envelope ? [] : ['the envelope']),
    ...((before.within ?? 'outline') === (after.within ?? 'outline') ? [] : ['what it must keep inside']),
  ];
}

function placeChanges({ on: was }: CardPart, { on: now }: CardPart, title: string): string[] {
  if (!was || !now) return [];
  if (was.part !== now.part || was.site !== now.site) return [`${title} moved to another fold`];
  return was.turned === now.turned ? [] : [`${title} turned round`];
}

function sizeChanges(before: CardDocument, after: CardDocument, owner: string, prefix: string): string[] {
  const named = new Set([...Object.keys(sizesGiven(before, owner)), ...Object.keys(sizesGiven(after, owner))]);
  const [old, now] = [filledSizes(before, owner), filledSizes(after, owner)].map((filled) => flattened(filled, after, owner));
  return now!.flatMap(({ name, list, size, value, label }) => {
    const was = old!.find((entry) => entry.name === name)?.value;
    if (!named.has(list ?? name) || was === value) return [];
    const say = (v: number | string | undefined): string =>
      typeof v === 'number' ? PRINT[size.kind as Counted](v, after.notation) : `“${v ?? 'none'}”`;
    return [`${prefix}${label.toLowerCase()} from ${say(was)} to ${say(value)}`];
  });
}

interface Entry {
  name: string;
  label: string;
  list?: string;
  size: PlainSize;
  value: number | string | undefined;
}

/** Sizes with those of list items spelled out, in the order declared. */
function flattened(filled: Sizes, card: CardDocument, owner: string): Entry[] {
  return mechanismOf(card, owner).sizes.flatMap((size): Entry[] => {
    if (size.kind !== 'list') return [{ name: size.name, label: size.label, size, value: filled[size.name] as number | string }];
    return items(filled, size.name).flatMap((item, index) =>
      size.item.map((own) => ({
        name: itemSizeName(size.name, index, own.name),
        label: `${size.itemLabel} ${index + 1}, ${own.label}`,
        list: size.name,
        size: own,
        value: item[own.name],
      })),
    );
  });
}
