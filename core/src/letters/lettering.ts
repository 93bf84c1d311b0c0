import type { Mm } from '../measure/units.js';
import { boxOf, type Loop } from '../plane/outline.js';
import type { Point } from '../plane/point.js';
import type { StyleId } from './styles.js';
import { TABLES } from './tables.js';

/** Words as outlines: their middle is the origin, y up. */
export interface Lettering {
  /** letters run counter-clockwise, holes in them clockwise */
  loops: readonly Loop[];
  /** letters that the style has not */
  missing: readonly string[];
}

/** What parts two lines of a greeting. */
export const LINE_BREAK = '/';

const set = new Map<string, Lettering>();
/** Greetings are few; a maker who types one letter after the other leaves no trail. */
const MOST_KEPT = 60;

/**
 * Sets words in a style, line under line, each in the middle.
 * @param capital height of its capitals  @param words lines apart by `/`
 */
export function lettering(words: string, style: StyleId, capital: Mm): Lettering {
  const key = `${style} ${capital} ${words}`;
  const known = set.get(key);
  if (known) return known;
  const made = setLines(
    words.split(LINE_BREAK).map((line) => line.trim()),
    style,
    capital,
  );
  if (set.size >= MOST_KEPT) set.delete(set.keys().next().value!);
  set.set(key, made);
  return made;
}

function setLines(lines: readonly string[], style: StyleId, capital: Mm): Lettering {
  const table = TABLES[style];
  const scale = capital / table.capital;
  const missing = new Set<string>();
  const loops = lines.flatMap((line, i): Loop[] => {
    let at = 0;
    let before = '';
    const own: Loop[] = [];
    for (const letter of line) {
      const found = table.letters[letter];
      if (!found) {
        missing.add(letter);
        continue;
      }
      at += table.kerns[before + letter] ?? 0;
      for (const loop of outlinesOf(found[1])) own.push(loop.map(([x, y]): Point => [(x + at) * scale, (y - i * table.line) * scale]));
      at += found[0];
      before = letter;
    }
    return own.map((loop) => loop.map(([x, y]): Point => [x - (at * scale) / 2, y]));
  });
  if (loops.length === 0) return { loops, missing: [...missing] };
  const { minX, maxX, minY, maxY } = boxOf(loops.flat());
  const [x0, y0] = [(minX + maxX) / 2, (minY + maxY) / 2];
  return { loops: loops.map((loop) => loop.map(([x, y]): Point => [x - x0, y - y0])), missing: [...missing] };
}

function outlinesOf(text: string): Loop[] {
  if (text === '') return [];
  return text.split(';').map((loop) => {
    const steps = loop.split(' ').map(Number);
    let [x, y] = [0, 0];
    return Array.from({ length: steps.length / 2 }, (_, i): Point => [(x += steps[2 * i]!), (y += steps[2 * i + 1]!)]);
  });
}
