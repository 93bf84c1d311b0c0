import { closedSizeOf, type ClosedSize } from '../card/closed-size.js';
import { DEMO_CARDS } from '../card/demo-cards.js';
import type { CardDocument } from '../card/document.js';
import { closedOnly, type Evaluation } from '../evaluate.js';
import { standingPicture, type StandingPicture } from './standing-picture.js';

/** What a small picture of a card needs; a fraction of the whole evaluation to hand over. */
export interface CardPictures {
  size: ClosedSize;
  /** one for each opening asked for, or one of the card as it is put down */
  pictures: StandingPicture[];
}

/** Pictures of a card that is worked out. @param openings shares of how far it is opened to be put down */
export function picturesOf(
  evaluation: Pick<Evaluation, 'design' | 'motion' | 'closed' | 'dressed'>,
  openings: readonly number[],
): CardPictures {
  const { at } = evaluation.design.base.rest;
  return { size: closedSizeOf(evaluation), pictures: openings.map((share) => standingPicture(evaluation, share * at)) };
}

/** Pictures of a card without judging it. Nothing when its sizes are refused. */
export function cardPictures(card: CardDocument, openings: readonly number[]): CardPictures | undefined {
  const closed = closedOnly(card);
  return closed && picturesOf(closed, openings);
}

/** The sample cards as they are put down, by id: drawn once when the program is built, so that a first shelf waits for nothing. */
export const samplePictures = (): Readonly<Record<string, CardPictures>> =>
  Object.fromEntries(DEMO_CARDS.map((card) => [card.id, cardPictures(card, [1])!]));
