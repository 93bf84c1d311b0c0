import { plainMm, printAngle } from '../measure/print.js';
import type { Mm, Radians } from '../measure/units.js';

/** Sizes of one mechanism by name: lengths in mm, angles in radians, choices as text. */
export type Sizes = Readonly<Record<string, number | string>>;

/** What else a limit may depend on: calipers and, for a movement, its host's sizes. */
export interface SizeContext {
  sizes: Sizes;
  baseCaliper: Mm;
  mechanismCaliper: Mm;
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
}

/** A size the maker may set. A default may follow from other sizes, so that a new card is whole at once. */
export type FreeSize =
  | (Named & {
      kind: 'length' | 'angle';
      default: number | ((context: SizeContext) => number);
      range: (context: SizeContext) => Range;
      /** shown only when it says so; hidden sizes keep their default */
      shown?: (sizes: Sizes) => boolean;
    })
  | (Named & {
      kind: 'choice';
      default: string;
      options: readonly { value: string; label: string }[];
      shown?: (sizes: Sizes) => boolean;
    });

/** One thing wrong with a size, in a sentence. */
export interface SizeProblem {
  size: string;
  says: string;
}

/** All sizes of a mechanism: those given, with defaults for the rest, worked out in the order declared. */
export function fillSizes(free: readonly FreeSize[], given: Sizes, context: Omit<SizeContext, 'sizes'>, host: Sizes = {}): Sizes {
  const sizes: Record<string, number | string> = { ...host };
  for (const size of free) {
    const value = given[size.name];
    if (value !== undefined) sizes[size.name] = value;
    else sizes[size.name] = typeof size.default === 'function' ? size.default({ ...context, sizes }) : size.default;
  }
  return sizes;
}

/** Checks sizes against their limits. Says the field, the value, what is allowed and why. */
export function checkSizes(free: readonly FreeSize[], context: SizeContext): SizeProblem[] {
  return free.flatMap((size): SizeProblem[] => {
    const value = context.sizes[size.name];
    if (size.kind === 'choice') {
      const known = size.options.map((option) => option.value);
      if (typeof value === 'string' && known.includes(value)) return [];
      return [{ size: size.name, says: `${size.label}: “${String(value)}” is not one of ${known.join(', ')}.` }];
    }
    if (typeof value !== 'number' || !Number.isFinite(value)) {
      return [{ size: size.name, says: `${size.label}: “${String(value)}” is not a number.` }];
    }
    const { min, max, because } = size.range(context);
    if (value >= min - 1e-9 && value <= max + 1e-9) return [];
    const print = size.kind === 'length' ? plainMm : printAngle;
    const allowed = max < min ? 'nothing is allowed' : `allowed is ${print(min)} to ${print(max)}`;
    return [{ size: size.name, says: `${size.label}: ${print(value)} does not work; ${allowed}, because ${because}.` }];
  });
}

/** A length or angle by name. @throws RangeError when the name is unknown */
export function num(sizes: Sizes, name: string): Mm & Radians {
  const value = sizes[name];
  if (typeof value !== 'number') throw new RangeError(`no number for the size “${name}”`);
  return value as Mm & Radians;
}
