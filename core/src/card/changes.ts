import { printAngle, sayLength } from '../measure/print.js';
import type { CardDocument } from './document.js';
import { filledSizes, mechanismOf, sizesOf } from './set-size.js';

/** What differs between two states of a card, in words: `Crest from 63 mm to 120 mm`. */
export function changesBetween(before: CardDocument, after: CardDocument): string[] {
  const owners = ['base', ...after.movements.map((m) => m.id)];
  const sizes = owners.flatMap((owner) => {
    if (owner !== 'base' && !before.movements.some((m) => m.id === owner)) return [`${mechanismOf(after, owner).name} added`];
    const named = new Set([...Object.keys(sizesOf(before, owner)), ...Object.keys(sizesOf(after, owner))]);
    const [old, now] = [filledSizes(before, owner), filledSizes(after, owner)];
    return mechanismOf(after, owner).sizes.flatMap((size) => {
      if (!named.has(size.name) || old[size.name] === now[size.name]) return [];
      const say = (value: number | string | undefined): string =>
        typeof value !== 'number' ? `“${String(value)}”` : size.kind === 'angle' ? printAngle(value) : sayLength(value, after.notation);
      return [`${size.label.toLowerCase()} from ${say(old[size.name])} to ${say(now[size.name])}`];
    });
  });
  const stocks = (['base', 'mechanism', 'display'] as const).flatMap((role) =>
    before.stocks[role] === after.stocks[role] ? [] : [`the ${role} stock`],
  );
  return [
    ...sizes,
    ...stocks,
    ...(before.board === after.board ? [] : ['the board']),
    ...(before.envelope === after.envelope ? [] : ['the envelope']),
  ];
}
