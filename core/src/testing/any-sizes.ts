import fc from 'fast-check';
import { newCard, type CardDocument } from '../card/document.js';
import type { Base } from '../mechanism/contract.js';
import {
  fillSizes,
  type FreeSize,
  type PlainSize,
  type SizeContext,
  type SizeItem,
  type Sizes,
  type SizeValue,
} from '../mechanism/sizes.js';
import { sizeContextOf } from '../card/set-size.js';

const CALIPERS = sizeContextOf(newCard({ id: 'any', name: 'any', base: { mechanism: 'folded-card', sizes: {} } }));

/**
 * Any allowed sizes of a base: each chosen inside the limits that the ones before it leave. Where those
 * leave nothing, the size keeps its default and the card may be refused.
 * @param keep sizes left at their defaults: those that a card which is right never sets
 */
export function anyCardOn(base: Base, keep: readonly string[] = []): fc.Arbitrary<CardDocument> {
  return fc.infiniteStream(fc.double({ min: 0, max: 1, noNaN: true })).map((stream) => {
    const next = (): number => stream.next().value as number;
    const sizes = base.sizes.reduce<Record<string, SizeValue>>((given, size) => {
      if (keep.includes(size.name)) return given;
      const filled = fillSizes(base.sizes, given, CALIPERS);
      const value = anyValue(size, { ...CALIPERS, sizes: filled }, keep, next);
      return value === undefined ? given : { ...given, [size.name]: value };
    }, {});
    return newCard({ id: base.id, name: base.name, base: { mechanism: base.id, sizes: sizes as CardDocument['base']['sizes'] } });
  });
}

function anyValue(size: FreeSize, context: SizeContext, keep: readonly string[], next: () => number): SizeValue | undefined {
  if (size.kind !== 'list') return anyPlain(size, context, next);
  const count = Math.min(size.least + Math.floor(next() * 4), size.most);
  const list: SizeItem[] = [];
  for (let index = 0; index < count; index++) {
    const item: Record<string, number | string> = {};
    for (const own of size.item) {
      const filled = fillSizes([size], { [size.name]: [...list, item] }, CALIPERS, context.sizes as Sizes);
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
  if (size.kind === 'choice' || size.kind === 'outline') return size.options[Math.floor(next() * size.options.length * 0.999)]!.value;
  const { min, max } = size.range(context);
  if (max < min) return undefined;
  const value = min + next() * (max - min);
  return size.kind === 'count' ? Math.min(Math.floor(max), Math.ceil(value)) : value;
}
