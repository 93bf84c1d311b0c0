import { printLength } from './print.js';
import { sayInWords } from './sentence.js';
import { inchDenominator, MM_PER_INCH, type Mm, type Notation } from './units.js';

/** A scoring board: parallel grooves at a fixed pitch, measured from its fence. */
export interface GrooveRuler {
  pitch: Mm;
  /** from the fence to the last groove */
  length: Mm;
  /** from the fence to the first groove; 0 where left out */
  begins?: Mm;
  /** grooves outside the pitch, from the fence */
  extra?: readonly Mm[];
}

/** Where a position falls on a board: the nearest groove and how far from it. */
export interface GrooveReading {
  groove: number;
  at: Mm;
  /** position minus groove */
  off: Mm;
}

/** A score within this of a groove falls into it. */
export const GROOVE_CATCH: Mm = 0.2;

/**
 * The groove nearest to a position. A position beyond the board is read against its last groove.
 * @throws RangeError when the pitch is not positive
 */
export function nearestGroove(position: Mm, ruler: GrooveRuler): GrooveReading {
  if (!(ruler.pitch > 0)) throw new RangeError(`groove pitch must be positive, got ${ruler.pitch} mm`);
  const begins = ruler.begins ?? 0;
  const last = Math.floor((ruler.length - begins) / ruler.pitch + 1e-9);
  const groove = Math.min(last, Math.max(0, Math.round((position - begins) / ruler.pitch)));
  const even = begins + groove * ruler.pitch;
  const at = [...(ruler.extra ?? [])].reduce(
    (near, other) => (Math.abs(position - other) < Math.abs(position - near) ? other : near),
    even,
  );
  return { groove, at, off: position - at };
}

const ORDINALS = ['first', 'second', 'third', 'fourth', 'fifth', 'sixth', 'seventh', 'eighth', 'ninth'];
const LINE_NAMES: Record<number, string> = { 8: 'eighth', 16: 'sixteenth', 32: 'thirty-second' };

/**
 * Says a position by the grooves of a board: the labelled mark at which a groove lies, or the marks it lies between. Beside a
 * groove it says by how far. Inch boards are labelled every quarter, metric ones every centimetre.
 */
export function grooveWords(position: Mm, board: GrooveRuler, notation: Notation): string {
  const { at, off } = nearestGroove(position, board);
  const place = grooveAt(at, board.pitch, notation);
  return Math.abs(off) > GROOVE_CATCH
    ? `${place}, ${sayInWords(Math.abs(off), notation)} ${off > 0 ? 'beyond' : 'short of'} the groove`
    : place;
}

function grooveAt(at: Mm, pitch: Mm, notation: Notation): string {
  const denominator = inchDenominator(notation);
  const perLabel = (denominator === undefined ? 10 : MM_PER_INCH / 4) / pitch;
  const line = at / pitch;
  const isEven = [perLabel, line].every((count) => Math.abs(count - Math.round(count)) < 1e-6) && perLabel < 10.5;
  if (!isEven) return `at ${printLength(at, notation).text}`;
  const label = Math.floor(line / perLabel + 1e-9);
  const after = Math.round(line - label * perLabel);
  const [low, high] = [labelText(label, denominator), labelText(label + 1, denominator)];
  if (after === 0) return `at ${low}`;
  return `between ${low} and ${high}, the ${Math.round(perLabel) === 2 ? 'groove half-way' : `${ORDINALS[after - 1]} groove after ${low}`}`;
}

/**
 * Says a position the way it is found on a ruler: between which two labelled marks, and which
 * line after the first. Inch rulers are labelled every quarter, metric ones every centimetre.
 * What does not fall on a line is said with how far beyond it lies.
 */
export function rulerWords(position: Mm, notation: Notation): string {
  const denominator = inchDenominator(notation);
  const line = denominator === undefined ? 1 : MM_PER_INCH / denominator;
  const linesPerLabel = denominator === undefined ? 10 : denominator / 4;
  const lines = Math.round(position / line);
  const off = position - lines * line;
  const label = Math.floor(lines / linesPerLabel);
  const after = lines - label * linesPerLabel;
  const place =
    after === 0
      ? `at ${labelText(label, denominator)}`
      : `between ${labelText(label, denominator)} and ${labelText(label + 1, denominator)}, ` +
        `the ${ORDINALS[after - 1]} ${denominator === undefined ? 'millimetre line' : LINE_NAMES[denominator]} after ${labelText(label, denominator)}`;
  if (Math.abs(off) < 0.05) return place;
  return `${place}, ${sayInWords(Number(Math.abs(off).toFixed(1)), notation)} ${off > 0 ? 'beyond' : 'short of'} the line`;
}

const QUARTERS = ['', '¼', '½', '¾'];

function labelText(label: number, denominator: number | undefined): string {
  if (denominator === undefined) return `${label} cm`;
  const whole = Math.floor(label / 4);
  const quarter = QUARTERS[label % 4] ?? '';
  return whole === 0 && quarter ? quarter : `${whole}${quarter}`;
}
