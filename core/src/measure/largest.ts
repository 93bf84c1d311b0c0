/** The largest value for which something holds, between one for which it does and one for which it need not: by halving. */
export function largestBetween(holds: (value: number) => boolean, least: number, beyond: number, halvings: number): number {
  let [low, high] = [least, beyond];
  for (let i = 0; i < halvings; i++) {
    const middle = (low + high) / 2;
    if (holds(middle)) low = middle;
    else high = middle;
  }
  return low;
}

/** How closely a limit is looked for. */
interface Search {
  /** in how many even steps it is followed: one where it can end but once */
  steps?: number;
  halvings?: number;
}

/** The largest value up to `most` as far as something holds all the way from `least`; `least` itself where it never does. */
export function largestFrom(
  least: number,
  most: number,
  holds: (value: number) => boolean,
  { steps = 1, halvings = 16 }: Search = {},
): number {
  if (most <= least) return least;
  let good = least;
  for (let i = 1; i <= steps; i++) {
    const next = i === steps ? most : least + ((most - least) * i) / steps;
    if (!holds(next)) return largestBetween(holds, good, next, halvings);
    good = next;
  }
  return most;
}

/** The smallest value from `least` on for which something holds, when it holds at `most` and once it does always above. */
export const smallestFrom = (least: number, most: number, holds: (value: number) => boolean): number =>
  -largestFrom(-most, -least, (value) => holds(-value));
