/** Even shares from 0 to 1, the same for one seed and number wherever and in whatever order they are asked for (mulberry, 32 bits). */
export function sharesFor(seed: number, nth: number): () => number {
  let state = (Math.imul(seed ^ 0x9e3779b9, 0x85ebca6b) + Math.imul(nth + 1, 0xc2b2ae35)) >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = Math.imul(state ^ (state >>> 15), state | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 2 ** 32;
  };
}

/** Numbers of a normal distribution with mean 0 and deviation 1, from even shares (Box and Muller). */
export function normals(out: Float64Array, next: () => number): void {
  for (let i = 0; i < out.length; i += 2) {
    const radius = Math.sqrt(-2 * Math.log(1 - next()));
    const turn = 2 * Math.PI * next();
    out[i] = radius * Math.cos(turn);
    if (i + 1 < out.length) out[i + 1] = radius * Math.sin(turn);
  }
}

/** A share of trials, and where it lies with 95 % confidence (Wilson's interval). */
export interface Share {
  share: number;
  low: number;
  high: number;
}

export function shareOf(count: number, of: number): Share {
  if (of === 0) return { share: 0, low: 0, high: 1 };
  const z = 1.959964;
  const p = count / of;
  const middle = (p + (z * z) / (2 * of)) / (1 + (z * z) / of);
  const half = (z / (1 + (z * z) / of)) * Math.sqrt((p * (1 - p)) / of + (z * z) / (4 * of * of));
  return { share: p, low: Math.max(0, middle - half), high: Math.min(1, middle + half) };
}
