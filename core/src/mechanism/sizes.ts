import { capitalised, printAngle, printGrams } from '../measure/print.js';
import { spoken } from '../measure/sentence.js';
import { MM_PER_INCH, type Mm, type Radians } from '../measure/units.js';
import type { Loop } from '../plane/outline.js';
import type { FoldSite } from './sites.js';

/** One entry of a list of sizes: a layer, a divider. */
export type SizeItem = Readonly<Record<string, number | string>>;
export type SizeValue = number | string | readonly SizeItem[];

/** Sizes of one mechanism by name: lengths in mm, angles in radians, choices as text, lists of such. */
export type Sizes = Readonly<Record<string, SizeValue>>;

/** The ruler that sizes lie on where the maker left them out. */
export type Marks = 'mm' | 'inch';

/** What else a limit may depend on: calipers, for a movement the fold it stands on, for a list item its place. */
export interface SizeContext {
  sizes: Sizes;
  /** the fold that a movement stands on */
  site?: FoldSite;
  baseCaliper: Mm;
  mechanismCaliper: Mm;
  displayCaliper: Mm;
  filmCaliper: Mm;
  /** on whose marks sizes lie that are left out: whole millimetres, or parts of an inch */
  marks: Marks;
  /** outlines that the card brings with it, by id */
  ownOutlines?: Readonly<Record<string, Loop>>;
  /** in a list: the item so far, and its place from 0 */
  item?: SizeItem;
  index?: number;
}

export interface Range {
  min: number;
  max: number;
  /** why, in a clause that follows “because” */
  because: string;
}

interface Named {
  name: string;
  label: string;
  help: string;
  /** shown only when it says so; hidden sizes keep their default */
  shown?: (sizes: Sizes) => boolean;
  /** follows from others in every card that is right: set only for one that is already cut */
  asCut?: boolean;
}

/** A single size the maker may set. A default may follow from other sizes, so that a new card is whole at once. */
export type PlainSize =
  | (Named & {
      kind: 'length' | 'angle' | 'count' | 'weight';
      default: number | ((context: SizeContext) => number);
      range: (context: SizeContext) => Range;
    })
  | (Named & {
      kind: 'choice';
      default: string | ((context: SizeContext) => string);
      options: readonly { value: string; label: string }[];
      /** why an option cannot be taken here, in a clause; nothing where it can */
      cannotBe?: (value: string, context: SizeContext) => string | undefined;
    })
  /** one of the built-in outlines (the options), or one that the card brings with it */
  | (Named & {
      kind: 'outline';
      default: string;
      options: readonly { value: string; label: string }[];
      /** why an outline cannot be taken here, in a clause; nothing where it can */
      cannotBe?: (value: string, context: SizeContext) => string | undefined;
    });

/** A list of like things, each with sizes of its own. Item sizes are named `layers[1].depth`, counted from 1. */
export type ListSize = Named & {
  kind: 'list';
  /** what one of them is called */
  itemLabel: string;
  least: number;
  most: number;
  default: (context: SizeContext) => readonly SizeItem[];
  item: readonly PlainSize[];
};

export type FreeSize = PlainSize | ListSize;

/** One thing wrong with a size, in a sentence. */
export interface SizeProblem {
  size: string;
  says: string;
}

export type Surroundings = Omit<SizeContext, 'sizes' | 'item' | 'index'>;

/** The full name of a size of a list item. */
export const itemSizeName = (list: string, index: number, name: string): string => `${list}[${index + 1}].${name}`;

/** Takes a full name apart: `layers[1].depth` is the depth of the first of the layers. */
export function itemSizeOf(name: string): { list: string; index: number; name: string } | undefined {
  const match = /^(\w+)\[(\d{1,3})\]\.(\w+)$/.exec(name);
  return match ? { list: match[1]!, index: Number(match[2]) - 1, name: match[3]! } : undefined;
}

/** Whether a value is of the kind that a size is. What is not can never be worked with, only complained of. */
function isOfKind(size: FreeSize, value: unknown): value is SizeValue {
  if (size.kind === 'list') return Array.isArray(value);
  return size.kind === 'choice' || size.kind === 'outline' ? typeof value === 'string' : Number.isFinite(value);
}

/**
 * All sizes of a mechanism: those given, with defaults for the rest, worked out in the order declared and brought inside
 * their limits. A value of the wrong kind counts as not given: `checkSizes` tells of it.
 * @param settled sizes that stand already, before the first of these
 */
export function fillSizes(free: readonly FreeSize[], given: Sizes, context: Surroundings, settled: Sizes = {}): Sizes {
  // What the maker set is judged as it was set: where it cannot be, nothing makes way for it.
  const asSet = filled(free, given, context, settled);
  if (!isWithin(free, given, { ...context, sizes: asSet })) return asSet;
  // A size that the maker did not touch follows into its limits: each time one does, those after it are worked out anew.
  const followed: Record<string, SizeValue> = {};
  let sizes = asSet;
  for (let round = 0; round < MOST_FOLLOWING; round++) {
    const next = firstToFollow(free, given, { ...context, sizes });
    if (!next) break;
    followed[next.name] = next.value;
    sizes = filled(free, { ...given, ...followed }, context, settled);
  }
  return sizes;
}

/** Sizes that push each other out of their limits settle within a few rounds, or cannot be. */
const MOST_FOLLOWING = 24;

/** Whether every size that was given lies inside its limits. */
function isWithin(free: readonly FreeSize[], given: Sizes, context: SizeContext): boolean {
  return free.every((size) => {
    const value = given[size.name];
    if (value === undefined) return true;
    if (size.kind !== 'list') return intoLimits(size, value, context) === undefined;
    const filledIn = items(context.sizes, size.name);
    return (isOfKind(size, value) ? (value as readonly SizeItem[]) : []).every((item, index) =>
      size.item.every((part) => intoLimits(part, item[part.name], { ...context, item: filledIn[index]!, index }) === undefined),
    );
  });
}

/** The first size that was not given and lies outside its limits, brought to the nearer one. */
function firstToFollow(free: readonly FreeSize[], given: Sizes, context: SizeContext): { name: string; value: SizeValue } | undefined {
  for (const size of free) {
    if (size.kind === 'list') {
      const value = items(context.sizes, size.name);
      const own = (given[size.name] ?? []) as readonly SizeItem[];
      for (const [index, item] of value.entries()) {
        for (const part of size.item) {
          const inside =
            own[index]?.[part.name] === undefined ? followedInto(part, item[part.name], { ...context, item, index }) : undefined;
          if (inside !== undefined)
            return { name: size.name, value: value.map((entry, i) => (i === index ? { ...entry, [part.name]: inside } : entry)) };
        }
      }
    } else if (!isOfKind(size, given[size.name])) {
      const inside = followedInto(size, context.sizes[size.name], context);
      if (inside !== undefined) return { name: size.name, value: inside };
    }
  }
  return undefined;
}

/** A limit that is worked out may miss the same number typed in by its last digits. */
const isInside = (value: number, min: number, max: number): boolean => value >= min - 1e-9 && value <= max + 1e-9;

/** The nearest value inside the limits; nothing where it is inside, or where there are none to be inside of. */
function intoLimits(size: PlainSize, value: SizeValue | undefined, context: SizeContext): number | undefined {
  if (size.kind === 'choice' || size.kind === 'outline' || typeof value !== 'number') return undefined;
  const { min, max } = size.range(context);
  if (!(min <= max) || isInside(value, min, max)) return undefined;
  return value < min ? min : max;
}

/** A size that was left out, brought inside its limits: to the nearer of them, or on the maker's marks to the last one inside. */
function followedInto(size: PlainSize, value: SizeValue | undefined, context: SizeContext): number | undefined {
  const limit = intoLimits(size, value, context);
  if (limit === undefined || size.kind === 'choice' || size.kind === 'outline' || !liesOnMarks(size, limit, context)) return limit;
  const { min, max } = size.range(context);
  const mark = (limit === max ? Math.floor(limit / SIXTEENTH + 1e-9) : Math.ceil(limit / SIXTEENTH - 1e-9)) * SIXTEENTH;
  return isInside(mark, min, max) ? mark : limit;
}

function filled(free: readonly FreeSize[], given: Sizes, context: Surroundings, settled: Sizes): Sizes {
  const sizes: Record<string, SizeValue> = { ...settled };
  for (const size of free) {
    const value = given[size.name];
    const here = { ...context, sizes };
    if (size.kind === 'list') {
      // Sizes of an entry may depend on its neighbours, so the list is at hand while it is filled in: filled up to where it is.
      const items = [...itemsOf(size, value, here)];
      const within = { ...here, sizes: { ...sizes, [size.name]: items } };
      for (const [index, item] of items.entries()) items[index] = fillItem(size, item, index, within);
      sizes[size.name] = items;
    } else sizes[size.name] = isOfKind(size, value) ? value : presetOf(size, here);
  }
  return sizes;
}

/** Entries as given, over what the list as a whole gives each of them while it has as many as by default. */
function itemsOf(size: ListSize, given: SizeValue | undefined, context: SizeContext): readonly SizeItem[] {
  const preset = size.default(context);
  const whole = context.marks === 'mm' ? preset : preset.map((item) => itemOnMarks(size, item));
  if (!isOfKind(size, given)) return whole;
  const items = given as readonly SizeItem[];
  return items.length === whole.length ? items.map((item, i) => ({ ...whole[i], ...item })) : items;
}

/** An entry as its list gives it by default, its lengths on the marks of an inch. */
function itemOnMarks({ item: parts }: ListSize, item: SizeItem): SizeItem {
  return Object.fromEntries(
    Object.entries(item).map(([name, value]) => {
      const isLength = parts.find((part) => part.name === name)?.kind === 'length';
      return [name, isLength && typeof value === 'number' && value >= LEAST_MARKED ? Math.round(value / SIXTEENTH) * SIXTEENTH : value];
    }),
  );
}

function presetOf(size: PlainSize, context: SizeContext): number | string {
  const preset = typeof size.default === 'function' ? size.default(context) : size.default;
  return typeof preset === 'number' && size.kind === 'length' ? onMark(size, preset, context) : preset;
}

/**
 * A length that was left out, on the maker's own marks. Defaults are whole millimetres already; of an inch they take the
 * nearest part, the coarser the longer they are. What only follows from other sizes, and what is set by thickness and not by a
 * ruler, stays exact.
 */
function onMark(size: PlainSize, preset: Mm, context: SizeContext): Mm {
  if (!liesOnMarks(size, preset, context)) return preset;
  // Entries of a list that lie on one another keep to the finest marks, so that sums and halves still hold.
  const parts = preset < 12 || context.item ? 16 : typeof size.default === 'function' || preset < 50 ? 8 : 4;
  return (Math.round((preset * parts) / MM_PER_INCH) * MM_PER_INCH) / parts;
}

const liesOnMarks = (size: PlainSize, value: Mm, { marks }: SizeContext): boolean =>
  marks === 'inch' &&
  size.kind === 'length' &&
  !size.asCut &&
  Math.abs(value) >= (typeof size.default === 'function' ? LEAST_MARKED : LEAST_CLEARANCE);

/** A clearance that no size gives, on the maker's own marks: of an inch the nearest thirty-second, and never none. */
export function clearanceOn(marks: Marks, preset: Mm): Mm {
  const mark = MM_PER_INCH / 32;
  return marks === 'mm' ? preset : Math.max(1, Math.round(preset / mark)) * mark;
}

const SIXTEENTH = MM_PER_INCH / 16;
/** A shorter clearance is given by play, not by a ruler. */
const LEAST_CLEARANCE: Mm = 0.8;
/** Shorter sizes that are worked out are set by thickness, not by a ruler. */
const LEAST_MARKED: Mm = 3;

function fillItem(list: ListSize, given: SizeItem, index: number, context: SizeContext): SizeItem {
  const item: Record<string, number | string> = {};
  for (const size of list.item) {
    const value = given[size.name];
    item[size.name] = isOfKind(size, value) ? value : presetOf(size, { ...context, item, index });
  }
  return { ...given, ...item };
}

/**
 * Checks sizes against their kinds and limits. Says the field, the value, what is allowed and why.
 * @param given as the maker gave them; those left out follow and are checked as filled in
 */
export function checkSizes(free: readonly FreeSize[], given: Sizes, context: SizeContext): SizeProblem[] {
  return free.flatMap((size) => {
    const value = given[size.name] ?? context.sizes[size.name];
    return size.kind === 'list' ? checkList(size, value, context) : checkOne(size, value, context);
  });
}

function checkList(list: ListSize, value: SizeValue | undefined, context: SizeContext): SizeProblem[] {
  if (!Array.isArray(value)) return [{ size: list.name, says: `${list.label}: “${String(value)}” is not a list.` }];
  const given = value as readonly SizeItem[];
  if (given.length < list.least || given.length > list.most) {
    return [{ size: list.name, says: `${list.label}: ${given.length} do not work; allowed are ${list.least} to ${list.most}.` }];
  }
  return items(context.sizes, list.name).flatMap((item, index) => {
    const known = list.item.map((size) => size.name);
    const stray = Object.keys(item).filter((name) => !known.includes(name));
    const strays = stray.map((name) => ({
      size: itemSizeName(list.name, index, name),
      says: `${name}: a ${list.itemLabel} has no such size; there are ${known.join(', ')}.`,
    }));
    const wrong = list.item.flatMap((size) => checkOne(size, given[index]![size.name] ?? item[size.name], { ...context, item, index }));
    return [
      ...strays,
      ...wrong.map(({ size, says }) => ({
        size: itemSizeName(list.name, index, size),
        says: `${capitalised(list.itemLabel)} ${index + 1}, ${says}`,
      })),
    ];
  });
}

function checkOne(size: PlainSize, value: SizeValue | undefined, context: SizeContext): SizeProblem[] {
  if (size.kind === 'choice' || size.kind === 'outline') {
    const known = size.options.map((option) => option.value);
    if (size.kind === 'outline') known.push(...Object.keys(context.ownOutlines ?? {}));
    if (typeof value === 'string' && known.includes(value)) {
      const cannot = size.cannotBe?.(value, context);
      return cannot ? [{ size: size.name, says: `${size.label}: “${value}” does not work here, because ${cannot}.` }] : [];
    }
    return [{ size: size.name, says: `${size.label}: “${String(value)}” is not one of ${known.join(', ')}.` }];
  }
  if (typeof value !== 'number' || !Number.isFinite(value)) {
    return [{ size: size.name, says: `${size.label}: “${String(value)}” is not a number.` }];
  }
  const { min, max, because } = size.range(context);
  if (isInside(value, min, max)) return [];
  const print = { length: spoken, angle: printAngle, count: String, weight: printGrams }[size.kind];
  if (size.kind === 'count' && !Number.isInteger(value))
    return [{ size: size.name, says: `${size.label}: ${value} does not work; allowed are whole numbers.` }];
  const allowed = max < min ? 'nothing is allowed' : `allowed is ${print(min)} to ${print(max)}`;
  return [{ size: size.name, says: `${size.label}: ${print(value)} does not work; ${allowed}, because ${because}.` }];
}

/** A length or angle by name. @throws RangeError when there is no such number */
export function num(sizes: Sizes | SizeItem, name: string): Mm & Radians {
  const value = sizes[name];
  if (typeof value !== 'number') throw new RangeError(`no number for the size “${name}”`);
  return value as Mm & Radians;
}

/** The entries of a list by name. @throws RangeError when there is no such list */
export function items(sizes: Sizes, name: string): readonly SizeItem[] {
  const value = sizes[name];
  if (!Array.isArray(value)) throw new RangeError(`no list for the size “${name}”`);
  return value as readonly SizeItem[];
}
