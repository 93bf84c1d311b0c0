import { shapeNamed } from '../plane/shapes.js';
import type { Loop } from '../plane/outline.js';
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
