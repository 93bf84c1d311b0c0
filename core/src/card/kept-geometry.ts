import type { Motion } from '../linkage/motion.js';
import type { CardDocument } from './document.js';
import type { Design } from './join.js';

/**
 * How the last card moves, for the next one: a card that only wears something else, or is called otherwise, folds as it did.
 * Whoever evaluates one card again and again while it is changed holds one of these.
 */
export class KeptGeometry {
  private key: string | undefined;
  private moved: { design: Design; motion: Motion } | undefined;

  /** The last card's design and motion, with this card in its place; nothing where its paper, sizes or supplies differ. */
  of(card: CardDocument): { design: Design; motion: Motion } | undefined {
    if (!this.moved || this.key !== geometryOf(card)) return undefined;
    return { design: { ...this.moved.design, card }, motion: this.moved.motion };
  }

  keep(moved: { design: Design; motion: Motion }): void {
    this.key = geometryOf(moved.design.card);
    this.moved = moved;
  }
}

/** What of a document is drawn, joined and moved, as text: all but its dressing and what it is called. */
function geometryOf(card: CardDocument): string {
  const { name, note, state, dressing, ...geometry } = card;
  void [name, note, state, dressing];
  return JSON.stringify(geometry);
}
