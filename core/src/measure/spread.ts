/** Values of the two distributions that a mean and a spread of few measurements are judged by. */

/** The normal deviate that 97.5 and 99.75 per cent of values lie below. */
export const DEVIATES = { usual: 1.959964, strict: 2.807034 } as const;

/**
 * Student's t at the same probability as a normal deviate z (Abramowitz & Stegun, Handbook of Mathematical Functions, 26.7.5);
 * within a hundredth from four degrees of freedom on at the usual deviate.
 */
export function studentT(z: number, degrees: number): number {
  const [z2, n] = [z * z, degrees];
  const g1 = (z * (z2 + 1)) / 4;
  const g2 = (z * ((5 * z2 + 16) * z2 + 3)) / 96;
  const g3 = (z * (((3 * z2 + 19) * z2 + 17) * z2 - 15)) / 384;
  const g4 = (z * ((((79 * z2 + 776) * z2 + 1482) * z2 - 1920) * z2 - 945)) / 92_160;
  return z + g1 / n + g2 / n ** 2 + g3 / n ** 3 + g4 / n ** 4;
}

/** Chi-square at the probability of a normal deviate (Wilson and Hilferty 1931). */
export function chiSquare(z: number, degrees: number): number {
  const share = 2 / (9 * degrees);
  return degrees * Math.max(0, 1 - share + z * Math.sqrt(share)) ** 3;
}

export const mean = (values: readonly number[]): number => values.reduce((sum, value) => sum + value, 0) / values.length;

/** Standard deviation of a sample. */
export function deviation(values: readonly number[]): number {
  const middle = mean(values);
  return Math.sqrt(values.reduce((sum, value) => sum + (value - middle) ** 2, 0) / (values.length - 1));
}

export function median(values: readonly number[]): number {
  const sorted = [...values].sort((a, b) => a - b);
  const half = sorted.length >> 1;
  return sorted.length % 2 ? sorted[half]! : (sorted[half - 1]! + sorted[half]!) / 2;
}
