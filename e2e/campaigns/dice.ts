/** Even shares from 0 to 1, always the same for one seed (a linear congruential generator: Numerical Recipes, 32 bits). */
export function dice(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return state / 2 ** 32;
  };
}
