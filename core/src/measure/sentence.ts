import { plainMm, sayLength } from './print.js';
import type { Mm, Notation } from './units.js';

/**
 * A sentence with lengths in it that are not printed yet. Whoever writes it knows the length, whoever shows it knows how
 * the maker measures: `spoken` puts a length in as it is, `told` prints it.
 */
export type Sentence = string;

/** Two characters that no text uses stand round a length. */
const BEGIN = '\uE000';
const END = '\uE001';

/** Smaller lengths (thicknesses, gaps) are told in mm in every notation: no ruler has marks for them. */
const TOLD_IN_MM: Mm = 3;

/** A length as part of a sentence. */
export const spoken = (length: Mm): Sentence => `${BEGIN}${length}${END}`;

/** A sentence with its lengths in the maker's notation: for an inch ruler a fraction on its marks and decimals between them, never both units. */
export function told(sentence: Sentence, notation: Notation): string {
  if (!sentence.includes(BEGIN)) return sentence;
  const [first, ...rest] = sentence.split(BEGIN);
  return (
    first! +
    rest
      .map((part) => {
        const end = part.indexOf(END);
        return printed(Number(part.slice(0, end)), notation) + part.slice(end + 1);
      })
      .join('')
  );
}

function printed(length: Mm, notation: Notation): string {
  if (notation === 'mm' || Math.abs(length) < TOLD_IN_MM) return plainMm(length);
  if (notation === 'cm') return `${Number((length / 10).toFixed(2))} cm`;
  return sayLength(length, notation);
}
