import { plainMm, printLength } from './print.js';
import type { Notation } from './units.js';

/** Smaller lengths (thicknesses, gaps) are told in mm in every notation: no ruler has marks for them. */
const TOLD_IN_MM = 3;

/** A length in mm as sentences write it; not the second number of a size such as `229 × 162 mm`. */
const LENGTH_IN_MM = /(?<![×\d.] ?)(-?\d+(?:\.\d+)?) mm\b(?!²)/g;

/**
 * A sentence with its lengths in the maker's notation. Checks write mm; for an inch ruler each length from
 * 3 mm up becomes the nearest fraction with the mm behind it, so that nothing is lost: `7/8 in (22 mm)`.
 */
export function retold(sentence: string, notation: Notation): string {
  if (notation === 'mm') return sentence;
  return sentence.replace(LENGTH_IN_MM, (words: string, digits: string) => {
    const length = Number(digits);
    if (Math.abs(length) < TOLD_IN_MM) return words;
    if (notation === 'cm') return `${Number((length / 10).toFixed(2))} cm`;
    return `${printLength(length, notation).text} (${plainMm(length)})`;
  });
}
