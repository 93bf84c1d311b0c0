import fc from 'fast-check';
import { newCard, type CardDocument, type CardPart } from '../card/document.js';
import type { Base } from '../mechanism/contract.js';
import {
  fillSizes,
  type FreeSize,
  type PlainSize,
  type SizeContext,
  type SizeItem,
  type Sizes,
  type SizeValue,
  type Surroundings,
} from '../mechanism/sizes.js';
import { sizeContextOf } from '../card/draw.js';

const EVERYDAY = sizeContextOf(newCard({ id: 'any', name: 'any', base: { mechanism: 'folded-card', sizes: {} } }));

/**
 * Any allowed sizes of a base: each chosen inside the limits that the ones before it leave. Where those
 * leave nothing, the size keeps its default and the card may be refused.
 * @param keep sizes left at their defaults: those that a card which is right never sets
 */
export function anyCardOn(base: Base, keep: readonly string[] = []): fc.Arbitrary<CardDocument> {
  return chances.map((next) =>
    newCard({
      id: base.id,
      name: base.name,
      base: { mechanism: base.id, sizes: anySizes(base.sizes, EVERYDAY, next, keep) as CardPart['sizes'] },
    }),
  );
}

/** Endless shares from 0 to 1. */
export const chances: fc.Arbitrary<() => number> = fc
  .infiniteStream(fc.double({ min: 0, max: 1, noNaN: true }))
  .map((stream) => () => stream.next().value as number);

/** Any allowed sizes of a mechanism, each within the limits that those before it leave. */
export function anySizes(free: readonly FreeSize[], around: Surroundings, next: () => number, keep: readonly string[] = []): Sizes {
  return free.reduce<Record<string, SizeValue>>((given, size) => {
    if (keep.includes(size.name)) return given;
    const value = anyValue(size, { ...around, sizes: fillSizes(free, given, around) }, keep, next);
    return value === undefined ? given : { ...given, [size.name]: value };
  }, {});
}

function anyValue(size: FreeSize, context: SizeContext, keep: readonly string[], next: () => number): SizeValue | undefined {
  if (size.kind !== 'list') return anyPlain(size, context, next);
  const count = Math.min(size.least + Math.floor(next() * 4), size.most);
  const list: SizeItem[] = [];
  for (let index = 0; index < count; index++) {
    const item: Record<string, number | string> = {};
    for (const own of size.item) {
      const filled = fillSizes([size], { [size.name]: [...list, item] }, context, context.sizes);
      const here = (filled[size.name] as readonly SizeItem[])[index]!;
      if (keep.includes(`${size.name}.${own.name}`)) continue;
      const value = anyPlain(own, { ...context, sizes: filled, item: here, index }, next);
      if (value !== undefined) item[own.name] = value;
    }
    list.push(item);
  }
  return list;
}

function anyPlain(size: PlainSize, context: SizeContext, next: () => number): number | string | undefined {
  if (size.kind === 'choice' || size.kind === 'outline') {
    const allowed = size.options.filter(({ value }) => size.cannotBe?.(value, context) === undefined);
    return allowed[Math.floor(next() * allowed.length * 0.999)]?.value;
  }
  const { min, max } = size.range(context);
  if (max < min) return undefined;
  const value = min + next() * (max - min);
  return size.kind === 'count' ? Math.min(Math.floor(max), Math.ceil(value)) : value;
}
