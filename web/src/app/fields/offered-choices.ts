import { offeredSupplies, type CardDocument, type Workshop } from '@diptychon/core';

/** Supplies that a card may use as choices of a list: mine, then those that only this card carries, which is said. */
export const offeredChoices = (
  list: 'stocks' | 'boards' | 'envelopes',
  card: CardDocument,
  workshop: Workshop,
): { value: string; label: string }[] =>
  offeredSupplies(list, card, workshop).map(({ id, name, mine }) => ({ value: id, label: mine ? name : `${name} (only in this card)` }));
