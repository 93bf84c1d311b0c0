import { plainMm, printLength, sayLength } from './print.js';
import { hasComma, inchDenominator, metricUnit, type Mm, type Notation } from './units.js';

/**
 * A sentence with lengths in it that are not printed yet. Whoever writes it knows the length, whoever shows it knows how
 * the maker measures: `spoken` puts a length in as it is, `told` prints it.
 */
export type Sentence = string;

/** Two characters that no text uses stand round a length. */
const BEGIN = '\uE000';
const END = '\uE001';

/** Smaller lengths (thicknesses, gaps) are told in mm to who reads centimetres too: both stand on one ruler. */
const TOLD_IN_MM: Mm = 3;

/** A length as part of a sentence. */
export const spoken = (length: Mm): Sentence => `${BEGIN}${length}${END}`;

/** A sentence with its lengths in the maker's notation: for an inch ruler a fraction on its marks and decimals between them, never both units. */
export function told(sentence: Sentence, notation: Notation): string {
  const [first, ...rest] = sentence.split(BEGIN);
  return (
    otherNumbers(first!, notation) +
    rest
      .map((part) => {
        const end = part.indexOf(END);
        return sayInWords(Number(part.slice(0, end)), notation) + otherNumbers(part.slice(end + 1), notation);
      })
      .join('')
  );
}

/** Angles and weights are the same in every notation, but for the decimal mark. Names that hold numbers keep them. */
const otherNumbers = (words: string, notation: Notation): string =>
  hasComma(notation) ? words.replace(/(\d)\.(\d+)(?=°| g\b)/g, '$1,$2') : words;

/** A length in a sentence, of any size: gaps and thicknesses in mm on metric rulers, an inch maker's in inches alone. */
export function sayInWords(length: Mm, notation: Notation): string {
  if (inchDenominator(notation) !== undefined) return sayLength(length, notation);
  if (metricUnit(notation) === 'mm' || Math.abs(length) < TOLD_IN_MM) return plainMm(length, notation);
  return printLength(length, notation).text;
}
