import { LARGEST_SVG, MOST_OUTLINES, type CardDocument, type OutlineReading, type OwnOutline } from '@diptychon/core';
import type { Evaluator } from '../evaluation/evaluator';

/** Reads the outline that a card is to use out of a file, or says why it cannot be taken. */
export async function outlineFrom(file: File, card: CardDocument, evaluator: Pick<Evaluator, 'outline'>): Promise<OutlineReading> {
  if (file.size > LARGEST_SVG)
    return { ok: false, says: `${file.name}: larger than ${LARGEST_SVG / 1024} kB, which no outline drawing is.` };
  const reading = await evaluator.outline(await file.text(), file.name);
  if (!reading.ok) return reading;
  const others = (card.outlines ?? []).filter(({ id }) => id !== reading.outline.id);
  if (others.length >= MOST_OUTLINES) return { ok: false, says: `A card holds at most ${MOST_OUTLINES} outlines of its own.` };
  return reading;
}

/** A card that brings an outline, in place of one of the same id. */
export const withOutline = (card: CardDocument, outline: OwnOutline): CardDocument => ({
  ...card,
  outlines: [...(card.outlines ?? []).filter(({ id }) => id !== outline.id), outline],
});
