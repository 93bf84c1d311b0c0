import type { Loop } from '../../plane/outline.js';

/** More answers than one card asks for while it is filled in, and few enough to hold. */
const MOST = 2000;
const answers = new Map<string, unknown>();
const numbers = new WeakMap<Loop, number>();
let count = 0;

/**
 * What was worked out of outlines and numbers, known again. While a card is filled in, its limits are asked for many times, and
 * growing or shrinking an outline takes longer than everything else.
 * @param from what it is, and all it follows from
 */
export function remembered<T>(from: readonly (string | number | Loop)[], work: () => T): T {
  const key = from.map((part) => (typeof part === 'object' ? `#${numberOf(part)}` : String(part))).join(' ');
  if (answers.has(key)) return answers.get(key) as T;
  if (answers.size >= MOST) answers.clear();
  const answer = work();
  answers.set(key, answer);
  return answer;
}

function numberOf(loop: Loop): number {
  const known = numbers.get(loop);
  if (known !== undefined) return known;
  numbers.set(loop, ++count);
  return count;
}
