import type { Mm } from './units.js';

/** Numbers that should follow evenly from some unknowns: `rows[i] · x` should be `wanted[i]`. */
export interface EvenSystem {
  rows: readonly (readonly number[])[];
  wanted: readonly Mm[];
}

/** How lightly unknowns are held where they are, beside a number that is off by a mm. */
const PULL = 1e-4;
const ROUNDS = 45;
/** What is left over counts as none below this, mm; at first far more, so that no number is settled on too soon. */
const NONE: Mm = 1e-4;
const FIRST: Mm = 2;
const SHARPER = 0.7;

/**
 * The unknowns with which most of the numbers agree: the least sum of what is left over, so that one number that is wrong
 * stands out whole instead of pulling all others along; and of those that are as good the ones with fewest unknowns moved.
 * Least absolute values by weighted least squares, weights 1/|rest|, sharpened step by step.
 */
export function leastSlips({ rows, wanted }: EvenSystem): { x: number[]; left: Mm[] } {
  const n = rows[0]?.length ?? 0;
  let weights = rows.map(() => 1);
  let pulls = new Array<number>(n).fill(PULL);
  let x = new Array<number>(n).fill(0);
  let left = [...wanted];
  for (let round = 0; round < ROUNDS; round++) {
    x = weighted(rows, wanted, weights, pulls);
    left = wanted.map((value, i) => value - dot(rows[i]!, x));
    const least = Math.max(NONE, FIRST * SHARPER ** round);
    const next = left.map((rest) => 1 / Math.max(least, Math.abs(rest)));
    const settled = least === NONE && next.every((weight, i) => Math.abs(weight - weights[i]!) < 1e-3 * weight);
    weights = next;
    pulls = x.map((moved) => PULL / Math.max(least, Math.abs(moved)));
    if (settled) break;
  }
  return { x, left };
}

/** Numbers agree when they are off by less. */
const AGREED: Mm = 1e-3;

/**
 * The same, with as few numbers off as can be: where one that is wrong by much costs no more than several that are wrong by
 * little, it is told from them by leaving each of those out in turn.
 */
export function fewestSlips(system: EvenSystem): { x: number[]; left: Mm[] } {
  const evenly = leastSlips(system);
  const off = offIn(evenly.left);
  if (off.length < 2) return evenly;
  const alone = off.flatMap((i) => {
    const kept = system.rows.map((_, k) => k).filter((k) => k !== i);
    const { x } = leastSlips({ rows: kept.map((k) => system.rows[k]!), wanted: kept.map((k) => system.wanted[k]!) });
    const left = system.wanted.map((value, k) => value - dot(system.rows[k]!, x));
    return offIn(left).length === 1 && sumOf(left) < AS_GOOD * sumOf(evenly.left) ? [{ x, left }] : [];
  });
  return alone.sort((a, b) => sumOf(a.left) - sumOf(b.left))[0] ?? evenly;
}

/** One number may be off by so much more than several are together. */
const AS_GOOD = 1.05;

const offIn = (left: readonly Mm[]): number[] => left.flatMap((rest, i) => (Math.abs(rest) > AGREED ? [i] : []));
const sumOf = (left: readonly Mm[]): Mm => left.reduce((sum, rest) => sum + Math.abs(rest), 0);

const dot = (a: readonly number[], b: readonly number[]): number => a.reduce((sum, value, i) => sum + value * b[i]!, 0);

/** Weighted least squares by its normal equations, each unknown held by its own pull (Gaussian elimination with row exchange). */
function weighted(rows: EvenSystem['rows'], wanted: readonly number[], weights: readonly number[], pulls: readonly number[]): number[] {
  const n = pulls.length;
  const m = Array.from({ length: n }, (_, i) =>
    Array.from({ length: n + 1 }, (_, j) => {
      const sum = rows.reduce((total, row, k) => total + weights[k]! * row[i]! * (j < n ? row[j]! : wanted[k]!), 0);
      return i === j ? sum + pulls[i]! : sum;
    }),
  );
  for (let c = 0; c < n; c++) {
    let pivot = c;
    for (let r = c + 1; r < n; r++) if (Math.abs(m[r]![c]!) > Math.abs(m[pivot]![c]!)) pivot = r;
    [m[c], m[pivot]] = [m[pivot]!, m[c]!];
    const head = m[c]!;
    for (let r = 0; r < n; r++) {
      if (r === c) continue;
      const by = m[r]![c]! / head[c]!;
      if (by !== 0) for (let k = c; k <= n; k++) m[r]![k]! -= by * head[k]!;
    }
  }
  return m.map((row, i) => row[n]! / row[i]!);
}
