import Fraction from 'fraction.js';
import { metricUnit, MM_PER_INCH, toRadians, type Mm, type Notation, type Radians } from './units.js';

/** The outcome of reading what a person typed: a value, or one sentence saying what is wrong. */
export type Reading<T> = { ok: true; value: T } | { ok: false; problem: string };

const MM_PER_UNIT: Record<string, number> = {
  mm: 1,
  cm: 10,
  m: 1000,
  in: MM_PER_INCH,
  inch: MM_PER_INCH,
  inches: MM_PER_INCH,
  '"': MM_PER_INCH,
};

const VULGAR: Record<string, string> = {
  '½': '1/2',
  '¼': '1/4',
  '¾': '3/4',
  '⅛': '1/8',
  '⅜': '3/8',
  '⅝': '5/8',
  '⅞': '7/8',
  '⅓': '1/3',
  '⅔': '2/3',
};
const SUPERSCRIPTS = '⁰¹²³⁴⁵⁶⁷⁸⁹';
const SUBSCRIPTS = '₀₁₂₃₄₅₆₇₈₉';

/** Rewrites typeset fractions (`3⅝`, `3⁵⁄₁₆`) and marks as plain text (`3 5/8`, `3 5/16`). */
function plainText(typed: string): string {
  let text = typed.trim().toLowerCase();
  for (const [glyph, plain] of Object.entries(VULGAR)) text = text.replaceAll(glyph, ` ${plain}`);
  text = text.replace(/[⁰¹²³⁴⁵⁶⁷⁸⁹]+/g, (run) => ` ${[...run].map((c) => SUPERSCRIPTS.indexOf(c)).join('')}`);
  text = text.replace(/[₀₁₂₃₄₅₆₇₈₉]/g, (c) => String(SUBSCRIPTS.indexOf(c)));
  return text
    .replaceAll('⁄', '/')
    .replaceAll('″', '"')
    .replaceAll('”', '"')
    .replaceAll("''", '"')
    .replaceAll('−', '-')
    .replace(/(\d)\s*,\s*(\d)/g, '$1.$2')
    .trim();
}

const LENGTH = /^(-?)\s*(?:(\d+)[\s-]+(\d+)\s*\/\s*(\d+)|(\d+)\s*\/\s*(\d+)|(\d*\.?\d+|\d+\.))\s*([a-z"]*)$/;

/**
 * Reads a length as makers write it: `3 5/8`, `3⅝"`, `3.625in`, `92.075 mm`, `9,2075cm`.
 * A bare number or fraction is in the maker's own notation; a bare fraction with a slash is
 * always inches, because nobody writes eighths of a millimetre.
 *
 * @param field the name of the size, for the sentence
 * @returns the length in mm, or the problem in words. The sign is kept; limits are not checked here.
 */
export function parseLength(typed: string, notation: Notation, field: string): Reading<Mm> {
  const unreadable = (): Reading<Mm> => ({
    ok: false,
    problem: `${field}: “${typed.trim()}” is not a length. Write it like 3 5/8, 3.625in, 54mm or 5,4 cm.`,
  });
  const match = LENGTH.exec(plainText(typed));
  if (!match) return unreadable();
  const [, minus, whole, topOfMixed, bottomOfMixed, top, bottom, decimal, unitName] = match;
  const isFraction = decimal === undefined;
  if (Number(bottomOfMixed ?? bottom ?? 1) === 0) return unreadable();
  let amount: number;
  if (whole !== undefined) amount = new Fraction(whole).add(`${topOfMixed}/${bottomOfMixed}`).valueOf();
  else if (isFraction) amount = new Fraction(`${top}/${bottom}`).valueOf();
  else amount = Number(decimal);
  const bareUnit = isFraction || notation.startsWith('inch') ? 'in' : metricUnit(notation);
  const perUnit = MM_PER_UNIT[unitName ? unitName : bareUnit];
  if (perUnit === undefined || !Number.isFinite(amount)) return unreadable();
  return { ok: true, value: (minus ? -1 : 1) * amount * perUnit };
}

const ANGLE = /^(-?\d*\.?\d+)\s*(deg|degrees|°|rad)?$/;

/**
 * Reads an angle: `45`, `45deg`, `45°` are degrees, `0.8rad` radians.
 * @returns the angle in radians, or the problem in words.
 */
export function parseAngle(typed: string, field: string): Reading<Radians> {
  const match = ANGLE.exec(plainText(typed));
  if (!match) {
    return { ok: false, problem: `${field}: “${typed.trim()}” is not an angle. Write it like 45deg or 45°.` };
  }
  const amount = Number(match[1]);
  return { ok: true, value: match[2] === 'rad' ? amount : toRadians(amount) };
}

const GRAMS = /^(-?\d*\.?\d+)\s*g?$/;

/** Reads a weight in grams: `12`, `12.5 g`, `12,5g`. @returns grams, or the problem in words. */
export function parseGrams(typed: string, field: string): Reading<number> {
  const match = GRAMS.exec(plainText(typed));
  return match
    ? { ok: true, value: Number(match[1]) }
    : { ok: false, problem: `${field}: “${typed.trim()}” is not a weight. Write it like 12 or 12.5 g.` };
}

/** Reads a whole number. @returns the number, or the problem in words. */
export function parseCount(typed: string, field: string): Reading<number> {
  const text = typed.trim();
  return /^-?\d{1,9}$/.test(text)
    ? { ok: true, value: Number(text) }
    : { ok: false, problem: `${field}: “${text}” is not a whole number.` };
}
