import { inSentence } from '../card/part-titles.js';
import { capitalised, sayLength } from '../measure/print.js';
import type { Notation } from '../measure/units.js';
import type { Mm } from '../measure/units.js';
import type { PlannedPiece, PlannedSheet } from './cutting-plan.js';
import type { Rectangle } from './guillotine.js';

/** A piece and those that it lies beside as on the card, in their order from it on; it alone where there are none. */
export function rowFrom(piece: PlannedPiece, pieces: readonly PlannedPiece[]): PlannedPiece[] {
  const row = [piece];
  for (let next = piece.beside; next !== undefined && next !== piece.id;) {
    const other = pieces.find(({ id }) => id === next);
    if (!other) break;
    row.push(other);
    next = other.beside;
  }
  return row;
}

/** Layers that lie on a sheet as they lie beside one another on the card, in a sentence each row of them. */
export function besideWords({ pieces }: PlannedSheet, notation: Notation): string[] {
  const said = new Set<string>();
  return pieces.flatMap((piece) => {
    if (piece.beside === undefined || said.has(piece.id)) return [];
    const row = rowFrom(piece, pieces);
    row.forEach(({ id }) => said.add(id));
    const copy = piece.id.includes('#') ? ` ${piece.copy}` : '';
    const names = row.map(({ name }, i) => `${i === 0 ? capitalised(inSentence(name)) : inSentence(name)}${copy}`);
    const gaps = gapsIn(row);
    const apart = gaps.every((gap) => gap < LEAST_GAP)
      ? ''
      : `, ${allOf(gaps.map((gap) => sayLength(gap, notation)))} of paper between them`;
    return [
      `${allOf(names)} are cut side by side${apart}, as they lie beside one another on the card, so that the pattern runs on over ${row.length === 2 ? 'both' : 'all'}.`,
    ];
  });
}

/** Less than this between two pieces is one cut. */
const LEAST_GAP: Mm = 0.05;

/** What lies between the pieces of a row, one after the other; once where all are alike. */
function gapsIn(row: readonly Rectangle[]): Mm[] {
  const along = (axis: 'x' | 'y', size: 'width' | 'height'): Mm[] => {
    const sorted = [...row].sort((a, b) => a[axis] - b[axis]);
    return sorted.slice(1).map((piece, i) => piece[axis] - sorted[i]![axis] - sorted[i]![size]);
  };
  const [across, up] = [along('x', 'width'), along('y', 'height')];
  const gaps = Math.min(...across) >= Math.min(...up) ? across : up;
  return gaps.every((gap) => Math.abs(gap - gaps[0]!) < LEAST_GAP) ? gaps.slice(0, 1) : gaps;
}

const allOf = (words: readonly string[]): string =>
  words.length < 2 ? words.join('') : `${words.slice(0, -1).join(', ')} and ${words.at(-1)!}`;
