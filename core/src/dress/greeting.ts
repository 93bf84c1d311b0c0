import type { Greeting } from '../card/dressing.js';
import { lettering } from '../letters/lettering.js';
import type { Mm } from '../measure/units.js';
import { boxOf, loopContains, type Loop } from '../plane/outline.js';
import { plainRectangle } from '../plane/plain-rectangle.js';
import { distanceToSegment, type Point } from '../plane/point.js';

/** Letters keep so far inside the edge of what they stand on. */
export const LETTERS_INSIDE: Mm = 1;
const TRIES = 24;

/** A greeting as it stands on its topper, in the axes of the topper's sheet. */
export interface SetGreeting {
  loops: readonly Loop[];
  /** letters that its style has not */
  missing: readonly string[];
  /** how far the letters reach past where they may stand; 0 where they keep inside */
  past: Mm;
  /** the largest capitals that keep inside, where these do not */
  fits?: Mm;
}

/** Sets a greeting in the middle of the largest upright rectangle of an outline. */
export function setGreeting({ words, letters, capital }: Greeting, outline: Loop): SetGreeting {
  const { loops, missing } = lettering(words, letters, capital);
  if (loops.length === 0) return { loops, missing, past: 0 };
  const room = roomOf(outline);
  const middle: Point = [(room.minX + room.maxX) / 2, (room.minY + room.maxY) / 2];
  const at = (k: number): Loop[] => loops.map((loop) => loop.map(([x, y]): Point => [middle[0] + k * x, middle[1] + k * y]));
  const placed = at(1);
  const { minX, maxX, minY, maxY } = boxOf(placed.flat());
  const inRoom =
    minX >= room.minX + LETTERS_INSIDE &&
    maxX <= room.maxX - LETTERS_INSIDE &&
    minY >= room.minY + LETTERS_INSIDE &&
    maxY <= room.maxY - LETTERS_INSIDE;
  const past = inRoom ? 0 : pastEdge(placed, outline);
  if (past === 0) return { loops: placed, missing, past };
  let [low, high] = [0, 1];
  for (let i = 0; i < TRIES; i++) {
    const k = (low + high) / 2;
    if (pastEdge(at(k), outline) > 0) high = k;
    else low = k;
  }
  return { loops: placed, missing, past, fits: low * capital };
}

const rooms = new WeakMap<Loop, ReturnType<typeof plainRectangle>>();

function roomOf(outline: Loop): ReturnType<typeof plainRectangle> {
  const known = rooms.get(outline);
  if (known) return known;
  const room = plainRectangle({ outer: outline, holes: [] });
  rooms.set(outline, room);
  return room;
}

/** How far the farthest corner of some letters is from being inside an outline by what they must keep from its edge. */
function pastEdge(loops: readonly Loop[], outline: Loop): Mm {
  let worst = 0;
  for (const loop of loops) {
    for (const point of loop) {
      const edge = Math.min(...outline.map((from, i) => distanceToSegment(point, from, outline[(i + 1) % outline.length]!)));
      worst = Math.max(worst, loopContains(outline, point) ? LETTERS_INSIDE - edge : LETTERS_INSIDE + edge);
    }
  }
  return worst;
}
