/**
 * The two physical quantities of the core. Both are plain numbers at run time; the optional
 * brands stop a length from being passed where an angle is wanted.
 */
export type Mm = number & { readonly quantity?: 'length' };
export type Radians = number & { readonly quantity?: 'angle' };

export const MM_PER_INCH = 25.4;

/** How a maker wants numbers read and written. The number after `inch/` is the finest fraction; metric ones with a decimal point or comma. */
export type Notation = 'mm' | 'cm' | 'mm/comma' | 'cm/comma' | 'inch/8' | 'inch/16' | 'inch/32';

export const NOTATIONS: readonly { id: Notation; label: string }[] = [
  { id: 'mm', label: 'Millimetres' },
  { id: 'cm', label: 'Centimetres' },
  { id: 'mm/comma', label: 'Millimetres, decimal comma' },
  { id: 'cm/comma', label: 'Centimetres, decimal comma' },
  { id: 'inch/8', label: 'Inches, eighths' },
  { id: 'inch/16', label: 'Inches, sixteenths' },
  { id: 'inch/32', label: 'Inches, thirty-seconds' },
];

/** The finest fraction of an inch in a notation, or undefined for a metric one. */
export function inchDenominator(notation: Notation): number | undefined {
  return notation.startsWith('inch/') ? Number(notation.slice(5)) : undefined;
}

/** The unit of a metric notation. */
export const metricUnit = (notation: Notation): 'mm' | 'cm' => (notation.startsWith('cm') ? 'cm' : 'mm');

/** Whether decimals follow a comma. */
export const hasComma = (notation: Notation): boolean => notation.endsWith('/comma');

/** A notation with the decimal mark of another: what a metric board or file has, told to who reads the other. */
export function markedLike(notation: Notation, other: Notation): Notation {
  if (inchDenominator(notation) !== undefined) return notation;
  const unit = metricUnit(notation);
  return hasComma(other) ? `${unit}/comma` : unit;
}

/** The smallest step a maker would move a size by in this notation, in mm. */
export function rulerStep(notation: Notation): Mm {
  const denominator = inchDenominator(notation);
  return denominator === undefined ? 1 : MM_PER_INCH / denominator;
}

export function toRadians(degrees: number): Radians {
  return (degrees * Math.PI) / 180;
}

export function toDegrees(angle: Radians): number {
  return (angle * 180) / Math.PI;
}
