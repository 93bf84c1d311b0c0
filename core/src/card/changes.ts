import { printAngle, printGrams, sayLength } from '../measure/print.js';
import type { Notation } from '../measure/units.js';
import { itemSizeName, items, type PlainSize, type Sizes } from '../mechanism/sizes.js';
import type { CardDocument } from './document.js';
import { filledSizes, mechanismOf, sizesOf } from './set-size.js';

type Counted = 'length' | 'angle' | 'count' | 'weight';

const PRINT: Record<Counted, (value: number, notation: Notation) => string> = {
  length: sayLength,
  angle: printAngle,
  count: String,
  weight: printGrams,
};

/** What differs between two states of a card, in words: `Crest from 63 mm to 120 mm`. */
export function changesBetween(before: CardDocument, after: CardDocument): string[] {
  const owners = ['base', ...after.movements.map((m) => m.id)];
  const sizes = owners.flatMap((owner) => {
    if (owner !== 'base' && !before.movements.some((m) => m.id === owner)) return [`${mechanismOf(after, owner).name} added`];
    const mechanism = mechanismOf(after, owner);
    if (mechanism !== mechanismOf(before, owner)) return [`${mechanism.name} in place of another`];
    const named = new Set([...Object.keys(sizesOf(before, owner)), ...Object.keys(sizesOf(after, owner))]);
    const [old, now] = [filledSizes(before, owner), filledSizes(after, owner)].map((filled) => flattened(filled, after, owner));
    return now!.flatMap(({ name, list, size, value, label }) => {
      const was = old!.find((entry) => entry.name === name)?.value;
      if (!named.has(list ?? name) || was === value) return [];
      const say = (v: number | string | undefined): string =>
        typeof v === 'number' ? PRINT[size.kind as Counted](v, after.notation) : `“${v ?? 'none'}”`;
      return [`${label.toLowerCase()} from ${say(was)} to ${say(value)}`];
    });
  });
  const stocks = (['base', 'mechanism', 'display', 'film'] as const).flatMap((role) =>
    before.stocks[role] === after.stocks[role] ? [] : [`the ${role} stock`],
  );
  return [
    ...sizes,
    ...stocks,
    ...(before.board === after.board ? [] : ['the board']),
    ...(before.envelope === after.envelope ? [] : ['the envelope']),
  ];
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
