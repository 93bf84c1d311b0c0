import { SHAPES } from '../plane/shapes.js';
import type { Loop } from '../plane/outline.js';
import type { CardDocument } from './document.js';

/** The outline of a name in a card, in its own units. @throws RangeError when there is none */
export function outlineNamed(card: CardDocument, name: string): Loop {
  const own = card.outlines?.find((outline) => outline.id === name);
  if (own) return own.points;
  const shape = SHAPES.find((candidate) => candidate.id === name);
  if (!shape) throw new RangeError(`no outline “${name}”`);
  return shape.draw();
}

/** Ids of the outlines that a card brings with it. */
export function ownOutlineIds(card: CardDocument): string[] {
  return card.outlines?.map((outline) => outline.id) ?? [];
}
