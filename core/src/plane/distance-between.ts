import type { Mm } from '../measure/units.js';
import type { Area } from './outline.js';
import { distanceToSegment, type Point } from './point.js';

/** How near the lines of two areas that lie beside or within one another come: from every corner of one to every edge of the other. */
export function distanceBetween(a: Area, b: Area): Mm {
  return Math.min(cornersToEdges(a, b), cornersToEdges(b, a));
}

function cornersToEdges(a: Area, b: Area): Mm {
  const corners = [a.outer, ...a.holes].flat();
  return edgesOf(b).reduce(
    (least, [from, to]) => corners.reduce((most, corner) => Math.min(most, distanceToSegment(corner, from, to)), least),
    Infinity,
  );
}

const edgesOf = ({ outer, holes }: Area): [Point, Point][] =>
  [outer, ...holes].flatMap((loop) => loop.map((from, i): [Point, Point] => [from, loop[(i + 1) % loop.length]!]));
