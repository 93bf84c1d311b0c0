import Fraction from 'fraction.js';
import { hasComma, inchDenominator, metricUnit, MM_PER_INCH, toDegrees, type Mm, type Notation, type Radians } from './units.js';

/** A length set for reading: the nearest mark of the notation, and how far the true length is from it. */
export interface PrintedLength {
  /** the reading with its unit, e.g. `3 5/8 in` or `92.1 mm` */
  text: string;
  /** whole part and fraction apart, so that a screen can set a real fraction */
  whole: string;
  numerator?: number;
  denominator?: number;
  unit: 'mm' | 'cm' | 'in';
  /** true length minus the printed one, in mm; 0 when the length lies on a mark */
  off: Mm;
}

/** Lengths closer to a mark than this are on it: far below what paper or eye can tell. */
const ON_MARK: Mm = 0.005;

/**
 * Prints a length in the maker's notation. Metric is given to a tenth of a mm; inches to the
 * nearest fraction. What the reading leaves out stands in `off`, never silently dropped.
 */
export function printLength(length: Mm, notation: Notation): PrintedLength {
  const denominator = inchDenominator(notation);
  if (denominator === undefined) {
    const unit = metricUnit(notation);
    const perUnit = unit === 'mm' ? 1 : 10;
    const rounded = Number((length / perUnit).toFixed(unit === 'mm' ? 1 : 2));
    const whole = decimal(rounded, notation);
    return { text: `${whole} ${unit}`, whole, unit, off: cleared(length - rounded * perUnit) };
  }
  const marks = Math.round((Math.abs(length) / MM_PER_INCH) * denominator);
  const sign = length < 0 && marks > 0 ? '-' : '';
  const fraction = new Fraction(marks % denominator, denominator);
  const wholeInches = Math.floor(marks / denominator);
  const printed = ((sign ? -1 : 1) * marks * MM_PER_INCH) / denominator;
  const off = cleared(length - printed);
  const n = Number(fraction.n);
  if (n === 0) return { text: `${sign}${wholeInches} in`, whole: `${sign}${wholeInches}`, unit: 'in', off };
  const whole = wholeInches === 0 ? sign : `${sign}${wholeInches}`;
  const gap = wholeInches === 0 ? '' : ' ';
  const d = Number(fraction.d);
  return { text: `${whole}${gap}${n}/${d} in`, whole, numerator: n, denominator: d, unit: 'in', off };
}

/** What no ruler shows and no hand can set. */
const TELLABLE: Mm = 0.05;

/**
 * A length as a maker reads it: on a mark, or half-way between two of them, which a ruler shows too; what is left over only as
 * far as it can be told, to a tenth of a mm. Millimetres are given to a tenth, so that nothing is left to say of them.
 */
export function readLength(length: Mm, notation: Notation): PrintedLength {
  const printed = printLength(length, notation);
  if (Math.abs(printed.off) < TELLABLE) return { ...printed, off: 0 };
  const denominator = inchDenominator(notation);
  const half = denominator !== undefined ? printLength(length, `inch/${2 * denominator}` as Notation) : undefined;
  return half && Math.abs(half.off) < TELLABLE ? { ...half, off: 0 } : printed;
}

/**
 * A length as one phrase in one unit: on a mark or half-way between two as a fraction, elsewhere in decimals, which own up to
 * where it lies: `5 7/8 in`, `5.891 in`.
 */
export function sayLength(length: Mm, notation: Notation): string {
  const { text, off, whole, numerator } = readLength(length, notation);
  // Something that is there is not told as nothing, however thin it is.
  const isTold = off === 0 && (whole !== '0' || numerator !== undefined);
  // Metric readings leave nothing to tell.
  return isTold || inchDenominator(notation) === undefined ? text : `${Number((length / MM_PER_INCH).toFixed(3))} in`;
}

/** A number with the decimal mark of a notation. */
const decimal = (value: number, notation: Notation): string => (hasComma(notation) ? String(value).replace('.', ',') : String(value));

/** An angle in degrees to a tenth, as makers read a protractor. */
export function printAngle(angle: Radians, notation: Notation = 'mm'): string {
  return `${decimal(Number(toDegrees(angle).toFixed(1)), notation)}°`;
}

/** A length in mm for a sentence: two decimals below 1 mm, one above. */
export function plainMm(length: Mm, notation: Notation = 'mm'): string {
  const decimals = Math.abs(length) < 1 ? 2 : 1;
  return `${decimal(Number(length.toFixed(decimals)), notation)} mm`;
}

/** A weight to a tenth of a gram. */
export function printGrams(grams: number, notation: Notation = 'mm'): string {
  return `${decimal(Number(grams.toFixed(1)), notation)} g`;
}

/** An area of so many mm² in cm², or in square inches, to a tenth below ten and whole above. */
export function printArea(area: number, notation: Notation = 'mm'): string {
  const isInch = inchDenominator(notation) !== undefined;
  const value = area / (isInch ? MM_PER_INCH ** 2 : 100);
  return `${decimal(Number(value.toFixed(value < 10 ? 1 : 0)), notation)} ${isInch ? 'sq in' : 'cm²'}`;
}

/** Words as they begin a sentence. */
export function capitalised(words: string): string {
  return words.charAt(0).toUpperCase() + words.slice(1);
}

function cleared(off: Mm): Mm {
  return Math.abs(off) < ON_MARK ? 0 : off;
}
