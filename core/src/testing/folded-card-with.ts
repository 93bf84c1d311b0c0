import { newCard, type CardDocument, type CardPart } from '../card/document.js';
import { minus, type Vec3 } from '../linkage/rigid.js';

export const LEAF = 100;
export const LENGTH = 150;

/** A folded card of two leaves 100 × 150, its fold at x = 100, with parts on it. */
export function card(...parts: (Omit<CardPart, 'on'> & { on: string; turned?: true })[]): CardDocument {
  return newCard({
    id: 'card',
    name: 'card',
    base: { mechanism: 'folded-card', sizes: { depth: LEAF, length: LENGTH } },
    movements: parts.map(({ on, turned, ...part }) => {
      const [carrier, site] = on.split('/');
      return { ...part, on: { part: carrier!, site: site!, ...(turned && { turned }) } };
    }),
  });
}

/** A step on a fold, given as `part/site`. */
export const stepAt = (id: string, on: string, sizes: CardPart['sizes'], turned?: true) => ({
  id,
  mechanism: 'step',
  on,
  sizes,
  ...(turned && { turned }),
});

export const distance = (a: Vec3, b: Vec3): number => Math.hypot(...minus(a, b));
