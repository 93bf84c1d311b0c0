import type { Mm } from '../measure/units.js';
import type { Loop } from './outline.js';
import type { Point } from './point.js';

/** Where an upright line at x runs inside some loops, even-odd, so that holes part it: stretches of y, in order. */
export function chordsAt(loops: readonly Loop[], x: Mm): [Mm, Mm][] {
  const ys: Mm[] = [];
  for (const loop of loops) {
    for (let i = 0, j = loop.length - 1; i < loop.length; j = i++) {
      const [xi, yi] = loop[i]!;
      const [xj, yj] = loop[j]!;
      if (xi > x !== xj > x) ys.push(yi + ((x - xi) / (xj - xi)) * (yj - yi));
    }
  }
  ys.sort((a, b) => a - b);
  return Array.from({ length: Math.floor(ys.length / 2) }, (_, i) => [ys[2 * i]!, ys[2 * i + 1]!]);
}

/** The longest stretch of an upright line inside some loops, if it meets them at all. */
export function longestChord(loops: readonly Loop[], x: Mm): [Mm, Mm] | undefined {
  return chordsAt(loops, x).reduce<[Mm, Mm] | undefined>(
    (most, chord) => (most && most[1] - most[0] >= chord[1] - chord[0] ? most : chord),
    undefined,
  );
}

/** A loop seen in a mirror along the upright line at x, still counter-clockwise if it was. */
export function mirroredAt(loop: Loop, x: Mm): Loop {
  return loop.map(([px, py]): Point => [2 * x - px, py]).reverse();
}

/** A loop with its axes exchanged and kept counter-clockwise: what stood upright lies along x. */
export function laidDown(loop: Loop): Loop {
  return loop.map(([x, y]): Point => [y, x]).reverse();
}
