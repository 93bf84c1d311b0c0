import { CATALOGUE, newCard, type Base, type CardDocument, type ClosedSize, cardOfClosedSize, mechanismById } from '@diptychon/core';

/** A kind of card that can be started: a base, and for a movement the plain card it stands on. */
export interface Kind {
  id: string;
  title: string;
  says: string;
  base: Base;
  foldEdge: CardDocument['foldEdge'];
  movement?: string;
}

/** Bases whose fold is at the top when they are held to be read. */
const FOLD_AT_TOP = ['easel-folded-front', 'easel-strip', 'easel-shape', 'easel-row'];
const PLAIN = 'folded-card';

/** Everything there is to start, in the order of the catalogue. */
export const KINDS: readonly Kind[] = CATALOGUE.map((mechanism): Kind => {
  const { id, name, summary } = mechanism;
  const common = { id, title: name, says: summary };
  if (mechanism.kind === 'base') return { ...common, base: mechanism, foldEdge: FOLD_AT_TOP.includes(id) ? 'top' : 'side' };
  return { ...common, base: mechanismById(PLAIN) as Base, foldEdge: 'side', movement: id };
});

/** A new card of a kind: of a closed size, or with the kind's own sizes. */
export function cardOfKind(
  { base, foldEdge, movement }: Kind,
  size: ClosedSize | undefined,
  given: Partial<CardDocument> = {},
): CardDocument {
  const own = { id: base.id, name: base.name, foldEdge, ...given };
  const card = size ? cardOfClosedSize(base, size, own) : newCard({ ...own, base: { mechanism: base.id, sizes: {} } });
  return { ...card, movements: movement ? [{ id: 'figure', mechanism: movement, host: 'main-fold', sizes: {} }] : [] };
}
