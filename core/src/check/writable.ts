import { spoken } from '../measure/sentence.js';
import { visibleFaces } from '../card/visibility.js';
import { areaOf, boxOf } from '../plane/outline.js';
import { plainRectangle } from '../plane/plain-rectangle.js';
import type { Check } from './finding.js';

/** A message wants a place of at least this, both ways. */
const LEAST_ACROSS = 40;
const LEAST_SHARE = 0.7;
/** Of its box a place must fill this much, or it is a frame. */
const LEAST_FILL = 0.8;
/** A coarse look is enough for a place of this size. */
const COARSE = 36;

/** Is there a plain place for the message that can be seen and reached when the card is open? */
export const writable: Check = ({ design, motion, closed, resting }) => {
  const seen = (['front', 'behind'] as const).flatMap((look) =>
    visibleFaces(design, motion, closed, resting, look, COARSE).map((face) => ({ ...face, look })),
  );
  const places = seen
    .map((face) => {
      const { area, piece } = design.panels[design.linkage.bodyOf.get(face.panel)!]!;
      const { minX, maxX, minY, maxY } = boxOf(area.outer);
      return { ...face, stock: piece.stock, holder: area, fill: areaOf(area) / ((maxX - minX) * (maxY - minY)) };
    })
    .filter(({ share, fill, stock }) => share >= LEAST_SHARE && fill >= LEAST_FILL && stock === 'base')
    .sort((a, b) => Number(a.look === 'behind') - Number(b.look === 'behind') || b.area - a.area);
  // What is cut out of a panel is no place to write on: the first that has a plain rectangle large enough.
  const roomy = (place: (typeof places)[number]) => {
    const { minX, maxX, minY, maxY } = plainRectangle(place.holder);
    return { ...place, width: maxX - minX, height: maxY - minY };
  };
  let best: ReturnType<typeof roomy> | undefined;
  for (const place of places) {
    const candidate = roomy(place);
    if (Math.min(candidate.width, candidate.height) < LEAST_ACROSS) continue;
    best = candidate;
    break;
  }
  return [
    {
      id: 'writable',
      check: 'writable',
      severity: best ? 'pass' : 'warn',
      ...(best && { panels: [best.panel] }),
      at: resting.s,
      says: best
        ? `The message has its place on ${best.name}, its ${best.face === 'up' ? 'upper' : 'back'} face, ${spoken(best.width)} × ${spoken(best.height)}${best.look === 'behind' ? ', seen from behind' : ''}.`
        : 'No plain panel of 40 mm both ways is seen when the card is open: write the message before it is put together, on the back of the closed card, or on a card of its own.',
    },
  ];
};
