import type { Mm } from '../measure/units.js';
import { areasOf, intersect } from '../plane/boolean.js';
import { inset } from '../plane/inset.js';
import { boxOf, rectangle, type Area, type Loop } from '../plane/outline.js';
import { distance, type Point } from '../plane/point.js';
import { ScanLines } from '../plane/scan-line.js';

/** Foam is cut into squares like this, a smaller one where there is no room. */
const SIDES: readonly Mm[] = [8, 5, 3, 2];
/** Pads stay this far inside what they hold and what they stand on: none may show or catch. */
const INSIDE: Mm = 1;
/** Card sags between pads that are farther apart. */
const APART: Mm = 24;
/** Places that are tried are so much of a pad's side apart. */
const GRID = 0.5;
const MOST_PADS = 24;

/**
 * Where the foam pads of a topper go: squares inside it and inside what it stands on, no place of it farther than a span of
 * card from one; the largest size of which three have room, else what there is. None where there is no room.
 */
export function padsFor(topper: Area, ground: readonly Area[]): Loop[] {
  const safe = areasOf(intersect([topper], ground)).flatMap((area) =>
    inset(
      area,
      area.outer.map(() => INSIDE),
      INSIDE,
    ),
  );
  let most: Loop[] = [];
  for (const side of SIDES) {
    const pads = spread(placesFor(safe, side), side);
    if (pads.length >= 3) return pads;
    if (pads.length > most.length) most = pads;
  }
  return most;
}

/** Squares that only touch an edge are inside. */
const TOUCH: Mm = 1e-6;

/** Lower left corners of all squares of a side that lie inside, on the grid: corners and middles of sides on paper. */
function placesFor(safe: readonly Area[], side: Mm): Point[] {
  const step = GRID * side;
  return safe.flatMap((area): Point[] => {
    const { minX, maxX, minY, maxY } = boxOf(area.outer);
    const lines = new ScanLines(area);
    const found: Point[] = [];
    for (let y = minY; y + side <= maxY + 1e-9; y += step) {
      const [low, middle, high] = [y + TOUCH, y + side / 2, y + side - TOUCH].map((at) => lines.on(at)) as [number[], number[], number[]];
      if (low.length === 0 || middle.length === 0 || high.length === 0) continue;
      for (let x = minX; x + side <= maxX + 1e-9; x += step) {
        const [left, half, right] = [x + TOUCH, x + side / 2, x + side - TOUCH];
        const holds =
          [low, high].every((line) => [left, half, right].every((at) => isOn(line, at))) && isOn(middle, left) && isOn(middle, right);
        if (holds) found.push([x, y]);
      }
    }
    return found;
  });
}

/** Whether a place lies in one of the stretches of a line, told by where it enters and leaves in turn. */
function isOn(crossings: readonly number[], at: Mm): boolean {
  for (let i = 0; i + 1 < crossings.length; i += 2) if (crossings[i]! <= at && at <= crossings[i + 1]!) return true;
  return false;
}

/** Squares as far from one another as they can be, none on another, until every place is near one. */
function spread(places: readonly Point[], side: Mm): Loop[] {
  if (places.length === 0) return [];
  const middle: Point = [
    places.reduce((sum, [x]) => sum + x, 0) / places.length,
    places.reduce((sum, [, y]) => sum + y, 0) / places.length,
  ];
  const farthest = (among: readonly Point[], from: readonly Point[]): Point =>
    among.reduce((best, place) => (gap(place, from) > gap(best, from) + 1e-9 ? place : best));
  const chosen = [farthest(places, [middle])];
  while (chosen.length < MOST_PADS) {
    const open = places.filter(([x, y]) => chosen.every(([cx, cy]) => Math.max(Math.abs(x - cx), Math.abs(y - cy)) >= side + 1));
    if (open.length === 0) break;
    const next = farthest(open, chosen);
    if (chosen.length >= 3 && gap(next, chosen) < APART) break;
    chosen.push(next);
  }
  return chosen.map(([x, y]) => rectangle(x, y, side, side));
}

const gap = (place: Point, from: readonly Point[]): Mm => Math.min(...from.map((other) => distance(place, other)));
