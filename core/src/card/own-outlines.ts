import { shapeNamed } from '../plane/shapes.js';
import { crossingsOf } from '../plane/crossings.js';
import { boxOf, signedArea, type Loop } from '../plane/outline.js';
import type { CardDocument } from './document.js';

/** The outline of a name in a card, in its own units. @throws RangeError when there is none */
export function outlineNamed(card: CardDocument, name: string): Loop {
  const found = shapeNamed(name, ownOutlines(card));
  if (!found) throw new RangeError(`no outline “${name}”`);
  return found;
}

/** The outlines that a card brings with it, by id. */
export function ownOutlines(card: CardDocument): Record<string, Loop> {
  return Object.fromEntries(card.outlines?.map(({ id, points }) => [id, points]) ?? []);
}

/** An outline goes round an area once; rounded numbers may make a few edges cross that lie side by side. */
const MOST_CROSSINGS = 12;
/** Share of its box that an outline encloses at least. */
const LEAST_SHARE = 1e-4;

/** What is wrong with the points of an outline, and what is allowed; nothing where a card may bring it. */
export function outlineTrouble(points: Loop): string | undefined {
  const { minX, maxX, minY, maxY } = boxOf(points);
  const box = (maxX - minX) * (maxY - minY);
  if (!(box > 0 && Math.abs(signedArea(points)) > LEAST_SHARE * box)) return 'enclose nothing; allowed: a line round an area';
  if (crossingsOf(points, MOST_CROSSINGS + 1) > MOST_CROSSINGS)
    return `cross more than ${MOST_CROSSINGS} times; allowed: a line that goes round its shape once`;
  const corners = new Set(points.map(([x, y]) => `${x.toFixed(3)} ${y.toFixed(3)}`));
  return points.length - corners.size > MOST_CROSSINGS
    ? `come by the same corners more than ${MOST_CROSSINGS} times; allowed: a line that goes round its shape once`
    : undefined;
}
