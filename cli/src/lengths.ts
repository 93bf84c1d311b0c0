import { NOTATIONS, parseLength, type Notation } from '@diptychon/core';
import { UsageError, type Arguments } from './arguments.js';

/** How lengths are written and read: `--notation`, else mm. @throws UsageError */
export function notationOf({ options }: Arguments): Notation {
  const wanted = options.get('notation') ?? 'mm';
  const known = NOTATIONS.find(({ id }) => id === wanted);
  if (!known) throw new UsageError(`--notation: “${wanted}” is not allowed; allowed: ${NOTATIONS.map(({ id }) => id).join(', ')}`);
  return known.id;
}

/** One length, mm, with a unit if wished. @throws UsageError */
export function lengthOf(typed: string, notation: Notation, name: string): number {
  const read = parseLength(typed, notation, name);
  if (!read.ok) throw new UsageError(read.problem);
  return read.value;
}

/** `WxH`, each with a unit if wished. */
export function pairOf(typed: string, notation: Notation, name: string): { width: number; height: number } {
  const parts = typed.split(/[x×]/i);
  if (parts.length !== 2) throw new UsageError(`${name}: “${typed}” is not WIDTHxHEIGHT`);
  const [width, height] = parts.map((part) => lengthOf(part.trim(), notation, name)) as [number, number];
  for (const mm of [width, height])
    if (!(mm >= 20 && mm <= 2000)) throw new UsageError(`${name}: “${typed}” does not work; allowed are sides of 20 to 2000 mm`);
  return { width, height };
}

export function countOf({ options }: Arguments, name: string, preset: number, least: number, most: number): number {
  const typed = options.get(name);
  if (typed === undefined) return preset;
  const value = Number(typed);
  if (!Number.isInteger(value) || value < least || value > most)
    throw new UsageError(`--${name}: “${typed}” does not work; allowed are whole numbers from ${least} to ${most}`);
  return value;
}
