import type { Mm } from '../measure/units.js';
import type { Stock } from '../supplies/stocks.js';
import type { Workshop } from '../supplies/workshop.js';
import { withOwnSupplies, type CardDocument } from './document.js';
import {
  MOST_CLOSURES,
  MOST_TOPPERS,
  type Closure,
  type Dressing,
  type LayerRule,
  type LinedFold,
  type OwnDress,
  type OwnEnvelope,
  type Topper,
} from './dressing.js';

/** The habit of the craft: an eighth of an inch, or 3 mm, a side. */
export const usualBorder = ({ marks }: Pick<CardDocument, 'marks'>): Mm => (marks === 'inch' ? 3.175 : 3);

/** What layers are cut from where nothing is said: the first paper with one good side, else any paper, else the display stock. */
export function layerStock(card: Pick<CardDocument, 'stocks'>, { stocks }: Pick<Workshop, 'stocks'>): string {
  const papers = stocks.filter(({ kind }: Stock) => kind === 'paper');
  return (papers.find(({ goodSides }) => goodSides === 1) ?? papers[0])?.id ?? card.stocks.display;
}

/** A card whose seen panels all wear layers by one rule; what some of them wear otherwise is kept. */
export function dressedBy(card: CardDocument, rule: Partial<LayerRule>, workshop: Workshop): CardDocument {
  const known = card.dressing?.layers;
  const usual = { border: usualBorder(card), steps: 1 as const, stock: layerStock(card, workshop) };
  const { runsOn, ...layers }: LayerRule = { ...usual, ...known, ...rule };
  return withOwnSupplies({ ...card, dressing: { ...card.dressing, layers: { ...layers, ...(runsOn && { runsOn }) } } }, workshop);
}

/** A card that wears no layers; what else it wears stays. */
export const withoutLayers = (card: CardDocument): CardDocument => pruned(card, { ...card.dressing, layers: undefined });

/** A card that wears nothing: as it was before it was dressed. */
export function undressed(card: CardDocument): CardDocument {
  const { dressing: _, ...plain } = card;
  return withOwnSupplies(plain);
}

/** A card one face of which is dressed otherwise than the rule says; as the rule says again where nothing is given. @param workshop what papers of its own are taken from */
export function dressedOtherwise(
  card: CardDocument,
  face: Pick<OwnDress, 'panel' | 'face'>,
  own: Omit<OwnDress, 'panel' | 'face'>,
  workshop?: Workshop,
): CardDocument {
  const rule = card.dressing?.layers;
  if (!rule) return card;
  const others = (rule.own ?? []).filter((entry) => entry.panel !== face.panel || entry.face !== face.face);
  const said = Object.fromEntries(Object.entries(own).filter(([, value]) => value !== undefined)) as typeof own;
  const all = Object.keys(said).length > 0 ? [...others, { panel: face.panel, face: face.face, ...said }] : others;
  const { own: _, ...plain } = rule;
  const next = { ...card, dressing: { ...card.dressing, layers: all.length > 0 ? { ...plain, own: all } : plain } };
  return workshop ? withOwnSupplies(next, workshop) : next;
}

/** A card the lowest layers of two faces of which are cut in one piece over the fold between them, or apart again. */
export function linedOver(card: CardDocument, { face, panels }: LinedFold, isOne: boolean): CardDocument {
  const rule = card.dressing?.layers;
  if (!rule) return card;
  const others = (rule.overFolds ?? []).filter((fold) => !isSameFold(fold, { face, panels }));
  const { overFolds: _, ...plain } = rule;
  const all = isOne ? [...others, { face, panels }] : others;
  return { ...card, dressing: { ...card.dressing, layers: all.length > 0 ? { ...plain, overFolds: all } : plain } };
}

const isSameFold = (a: LinedFold, b: LinedFold): boolean => a.face === b.face && a.panels.every((panel) => b.panels.includes(panel));

/** What one face wears otherwise than the rule says. */
export const ownDressOf = (card: Pick<CardDocument, 'dressing'>, face: Pick<OwnDress, 'panel' | 'face'>): OwnDress | undefined =>
  card.dressing?.layers?.own?.find((entry) => entry.panel === face.panel && entry.face === face.face);

/** A card with one topper more, glued on last. @throws RangeError when it carries as many as it may */
export function withTopper(card: CardDocument, given: Omit<Topper, 'id'>, workshop: Workshop): CardDocument {
  const toppers = card.dressing?.toppers ?? [];
  if (toppers.length >= MOST_TOPPERS) throw new RangeError(`a card carries at most ${MOST_TOPPERS} toppers`);
  return withOwnSupplies(
    { ...card, dressing: { ...card.dressing, toppers: [...toppers, { id: nextId(toppers, 'topper'), ...given }] } },
    workshop,
  );
}

/** A card one topper of which is changed; what is given as undefined is left out of it. */
export function withTopperChanged(card: CardDocument, id: string, change: Partial<Topper>, workshop: Workshop): CardDocument {
  const toppers = (card.dressing?.toppers ?? []).map((topper) => (topper.id === id ? changed(topper, change) : topper));
  return withOwnSupplies({ ...card, dressing: { ...card.dressing, toppers } }, workshop);
}

/** A card without one of its toppers. */
export const withoutTopper = (card: CardDocument, id: string): CardDocument =>
  pruned(card, { ...card.dressing, toppers: (card.dressing?.toppers ?? []).filter((topper) => topper.id !== id) });

type Given<C extends Closure> = C extends Closure ? Omit<C, 'id'> : never;

/** A card closed with one thing more. @throws RangeError when it has as many closures as it may */
export function withClosure(card: CardDocument, given: Given<Closure>, workshop: Workshop): CardDocument {
  const closures = card.dressing?.closures ?? [];
  if (closures.length >= MOST_CLOSURES) throw new RangeError(`a card is closed with at most ${MOST_CLOSURES} things`);
  return withOwnSupplies(
    { ...card, dressing: { ...card.dressing, closures: [...closures, { id: nextId(closures, given.kind), ...given } as Closure] } },
    workshop,
  );
}

/** The first free id of a kind among some entries: `band-1`, `band-2` … */
export const nextId = (entries: readonly { id: string }[], kind: string): string => {
  const taken = new Set(entries.map(({ id }) => id));
  return Array.from({ length: entries.length + 1 }, (_, i) => `${kind}-${i + 1}`).find((name) => !taken.has(name))!;
};

/** A card one closure of which is changed; what is given as undefined is left out of it. */
export function withClosureChanged<C extends Closure>(
  card: CardDocument,
  id: string,
  change: Partial<C>,
  workshop: Workshop,
): CardDocument {
  const closures = (card.dressing?.closures ?? []).map((closure) =>
    closure.id === id ? changed(closure, change as Partial<Closure>) : closure,
  );
  return withOwnSupplies({ ...card, dressing: { ...card.dressing, closures } }, workshop);
}

const changed = <T extends object>(entry: T, change: Partial<T>): T =>
  Object.fromEntries(Object.entries({ ...entry, ...change }).filter(([, value]) => value !== undefined)) as T;

/** A card without one of its closures. */
export const withoutClosure = (card: CardDocument, id: string): CardDocument =>
  pruned(card, { ...card.dressing, closures: (card.dressing?.closures ?? []).filter((closure) => closure.id !== id) });

/** A card with an envelope of its own to be folded, or without one; what is given as undefined is left out of it. */
export function withOwnEnvelope(card: CardDocument, change: Partial<OwnEnvelope> | undefined, workshop: Workshop): CardDocument {
  if (change === undefined) return pruned(card, { ...card.dressing, envelope: undefined });
  const envelope = changed<OwnEnvelope>(card.dressing?.envelope ?? { stock: layerStock(card, workshop) }, change);
  return withOwnSupplies({ ...card, dressing: { ...card.dressing, envelope } }, workshop);
}

/** What is empty of a dressing is left out, and all of it with the last; so are copies of supplies that nothing uses any more. */
function pruned({ dressing: _, ...plain }: CardDocument, dressing: { [K in keyof Dressing]?: Dressing[K] | undefined }): CardDocument {
  const kept = Object.entries(dressing).filter(([, value]) => value !== undefined && !(Array.isArray(value) && value.length === 0));
  return withOwnSupplies(kept.length > 0 ? { ...plain, dressing: Object.fromEntries(kept) as Dressing } : plain);
}
