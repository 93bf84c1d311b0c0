import { LARGEST_IMAGE, MOST_IMAGES, MOST_OUTLINES, type CardDocument, type OwnImage } from './document.js';

type OwnOutline = NonNullable<CardDocument['outlines']>[number];

/** Whether something of a card is cut along an outline: a topper, or a part whose sizes name it. */
const usesOutline = (card: CardDocument, id: string): boolean =>
  (card.dressing?.toppers ?? []).some(({ outline }) => outline === id) ||
  card.parts.some(({ sizes }) => JSON.stringify(sizes).includes(`"${id}"`));

/**
 * A card that brings a picture and the outline that it is printed on, each in place of one of the same id. Where there is no room
 * pictures give way that nothing is printed with.
 * @throws RangeError when there is none even so, in a sentence
 */
export function withImage(card: CardDocument, image: OwnImage, outline: OwnOutline): CardDocument {
  if (image.data.length > LARGEST_IMAGE) throw new RangeError(`${image.name} is too large to be kept in a card.`);
  const others = (card.outlines ?? []).filter(({ id }) => id !== outline.id);
  const fits = (outlines: readonly OwnOutline[]): boolean =>
    outlines.length < MOST_OUTLINES && new Set(outlines.flatMap((each) => each.image?.of ?? [])).size < MOST_IMAGES;
  const outlines = fits(others) ? others : others.filter((each) => !each.image || usesOutline(card, each.id));
  if (!fits(outlines)) {
    throw new RangeError(
      outlines.length >= MOST_OUTLINES
        ? `A card holds at most ${MOST_OUTLINES} outlines of its own.`
        : `A card holds at most ${MOST_IMAGES} pictures, and toppers are cut from ${MOST_IMAGES} others.`,
    );
  }
  const printed = new Set(outlines.flatMap((each) => each.image?.of ?? []));
  const images = (card.images ?? []).filter(({ id }) => id !== image.id && printed.has(id));
  return { ...card, outlines: [...outlines, outline], images: [...images, image] };
}
