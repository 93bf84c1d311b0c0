import { spoken, type Sentence } from '../measure/sentence.js';
import { squareEnvelope, type PostedCard } from './square-envelope.js';

/** What to fold for a card that no envelope takes, as a clause. */
export function foldAnEnvelope(card: PostedCard): Sentence {
  const { square, firstFold, notch } = squareEnvelope(card);
  return `fold one from a square of ${spoken(square)}, the corners of its pocket ${spoken(firstFold)} along its edges and ${spoken(notch)} inside them`;
}
