import { CATALOGUE, mechanismById, movementById } from '../mechanism/catalogue.js';
import type { Movement } from '../mechanism/contract.js';
import type { FoldSite } from '../mechanism/sites.js';
import { told } from '../measure/sentence.js';
import { rulerStep, type Mm } from '../measure/units.js';
import type { Workshop } from '../supplies/workshop.js';
import { partsOf, siteFor, type BuiltPart } from './draw.js';
import { movementsOf, MOST_PARTS, ROOT, type CardDocument, type CardPart, type Place } from './document.js';
import { titlesOf } from './part-titles.js';
import { setSize } from './set-size.js';
import { sizeRows } from './size-rows.js';

/** A place of a card, and what can stand there. */
export interface OpenPlace {
  part: string;
  /** what a maker calls the part that offers it */
  title: string;
  site: FoldSite;
  /** parts that stand there already */
  carries: readonly string[];
  /** movements that can stand there; for the others why not, as a sentence */
  takes: readonly { id: string; cannot?: string }[];
}

const MOVEMENTS = CATALOGUE.filter((mechanism): mechanism is Movement => mechanism.kind === 'movement');

/** Every fold of a card that something could stand on, those of its base first. */
export function placesOf(card: CardDocument): OpenPlace[] {
  return partsOf(card).parts.flatMap((part) => part.sites().map((site) => openPlace(card, part, site)));
}

function openPlace(card: CardDocument, { id, title }: BuiltPart, site: FoldSite): OpenPlace {
  const carries = movementsOf(card)
    .filter(({ on }) => on.part === id && on.site === site.id)
    .map((part) => part.id);
  const takes = MOVEMENTS.map((movement) => {
    const cannot = movement.cannotStand(site);
    return { id: movement.id, ...(cannot && { cannot: told(`It cannot stand on the ${site.name}: ${cannot}.`, card.notation) }) };
  });
  return { part: id, title, site, carries, takes };
}

/** The fold on which a movement is put when nobody says where: the first of the base that takes it and carries nothing, else the first that takes it. */
export function firstPlaceFor(card: CardDocument, mechanism: string): Place | undefined {
  const open = placesOf(card).filter(({ part, takes }) => part === ROOT && takes.some(({ id, cannot }) => id === mechanism && !cannot));
  const chosen = open.find(({ carries }) => carries.length === 0) ?? open[0];
  return chosen && { part: chosen.part, site: chosen.site.id };
}

/** A card with one more part, and that part's id. */
export interface WithPart {
  card: CardDocument;
  id: string;
}

/** What goes wrong when a part cannot be added: a sentence. */
export class PartProblem extends Error {}

/**
 * A card with a movement put on a fold, at sizes that are sensible there: in the largest stretch of the fold that is
 * free, its lengths on the maker's marks, its tabs as wide as the maker's habit.
 * @throws PartProblem when the card is full or the fold does not take it
 */
export function addPart(card: CardDocument, mechanism: string, on: Place, workshop: Workshop, id = freshId(card, mechanism)): WithPart {
  if (card.parts.length >= MOST_PARTS) throw new PartProblem(`A card carries at most ${MOST_PARTS} parts.`);
  const bare: CardDocument = { ...card, parts: [...card.parts, { id, mechanism, on, sizes: {} }] };
  const trouble = partsOf(bare).problems.find(({ owner }) => owner === id);
  if (trouble && trouble.size === '') throw new PartProblem(told(trouble.says, card.notation));
  return { card: onMarks(inFreeStretch(withHabits(bare, id, workshop), id), id), id };
}

/** An id that no part and no piece of the card has. */
export function freshId(card: CardDocument, mechanism: string): string {
  const wanted = movementById(mechanism).usualId;
  const taken = new Set([
    ...card.parts.map(({ id }) => id),
    ...partsOf(card).parts.flatMap(({ contribution }) => (contribution.pieces ?? []).map(({ id }) => id)),
  ]);
  for (let n = 1; ; n++) {
    const id = n === 1 ? wanted : `${wanted}-${n}`;
    if (!taken.has(id)) return id;
  }
}

function withHabits(card: CardDocument, id: string, { habits }: Workshop): CardDocument {
  const row = sizeRows(card, id).find(({ name }) => name === 'tabWidth');
  if (!row?.range) return card;
  return setSize(card, id, row.name, Math.min(row.range.max, Math.max(row.range.min, habits.tabWidth)));
}

/** Where a part's drawing lies along its fold, from the lower end. */
export function stretchOf(card: CardDocument, id: string): [Mm, Mm] | undefined {
  const part = partsOf(card).parts.find((built) => built.id === id);
  const ys = (part?.contribution.edits ?? []).flatMap(({ region = [], marks = [], zones = [] }) => [
    ...region.map(([, y]) => y),
    ...marks.flatMap(({ from, to }) => [from[1], to[1]]),
    ...zones.flatMap(({ outline }) => outline.map(([, y]) => y)),
  ]);
  if (ys.length === 0) return undefined;
  const [low, high] = [Math.min(...ys), Math.max(...ys)];
  const { length } = part!.site!;
  return part!.on!.turned ? [length - high, length - low] : [low, high];
}

/** Kept between neighbours on one fold. */
const BETWEEN: Mm = 6;

/** A part moved, and where it must be made shorter, to the largest stretch of its fold where nothing else stands. */
function inFreeStretch(card: CardDocument, id: string): CardDocument {
  const part = movementsOf(card).find((movement) => movement.id === id)!;
  const site = siteFor(card, id);
  const others = movementsOf(card)
    .filter(({ id: other, on }) => other !== id && on.part === part.on.part && on.site === part.on.site)
    .flatMap((other) => [stretchOf(card, other.id)].filter((stretch) => stretch !== undefined))
    .sort((a, b) => a[0] - b[0]);
  if (!site || others.length === 0) return card;
  const edges = [-BETWEEN, ...others.flat(), site.length + BETWEEN];
  const gaps = Array.from({ length: edges.length / 2 }, (_, i) => [edges[2 * i]! + BETWEEN, edges[2 * i + 1]! - BETWEEN] as const);
  const [low, high] = gaps.reduce((best, gap) => (gap[1] - gap[0] > best[1] - best[0] ? gap : best));
  const shorter = shortened(card, id, high - low);
  const own = stretchOf(shorter, id);
  if (!own) return shorter;
  return shifted(shorter, id, (low + high - own[0] - own[1]) / 2);
}

/** A part no longer along its fold than a stretch. */
function shortened(card: CardDocument, id: string, room: Mm): CardDocument {
  const own = stretchOf(card, id);
  const { alongSize } = movementById(card.parts.find((part) => part.id === id)!.mechanism);
  const row = sizeRows(card, id).find(({ name }) => name === alongSize);
  if (!own || !row?.range || own[1] - own[0] <= room) return card;
  const scaled = (Number(row.value) * Math.max(0, room)) / (own[1] - own[0]);
  return setSize(card, id, row.name, Math.max(row.range.min, scaled));
}

/** A part moved along its fold by so much, as far as its limits let it. */
export function shifted(card: CardDocument, id: string, by: Mm): CardDocument {
  const { mechanism, on } = card.parts.find((part) => part.id === id)!;
  const { placeSize } = movementById(mechanism);
  const row = sizeRows(card, id).find(({ name }) => name === placeSize);
  if (!row?.range) return card;
  const value = Number(row.value) + (on?.turned ? -by : by);
  return setSize(card, id, row.name, Math.min(row.range.max, Math.max(row.range.min, value)));
}

/** A part with every length that lies between two marks brought to one, inside its limits. */
function onMarks(card: CardDocument, id: string): CardDocument {
  const step = rulerStep(card.notation);
  const names = sizeRows(card, id).filter(({ kind, insteadOf }) => kind === 'length' && !insteadOf);
  return names.reduce((changed, { name }) => {
    const row = sizeRows(changed, id).find((candidate) => candidate.name === name);
    if (!row?.range || row.range.max < row.range.min) return changed;
    const value = Number(row.value);
    const near = [Math.round(value / step), Math.floor(row.range.max / step + 1e-9), Math.ceil(row.range.min / step - 1e-9)]
      .map((n) => n * step)
      .sort((a, b) => Math.abs(a - value) - Math.abs(b - value));
    const mark = near.find((at) => at >= row.range!.min - 1e-9 && at <= row.range!.max + 1e-9);
    return mark === undefined || Math.abs(mark - value) < 1e-9 ? changed : setSize(changed, id, name, mark);
  }, card);
}

/** Everything that stands on a part, directly or on what stands on it. */
export function carriedBy(card: CardDocument, id: string): string[] {
  return movementsOf(card)
    .filter(({ on }) => on.part === id)
    .flatMap((part) => [part.id, ...carriedBy(card, part.id)]);
}

/** A card without a part and what stands on it; what they alone had is taken away with them. */
export function removePart(card: CardDocument, id: string): CardDocument {
  const gone = new Set([id, ...carriedBy(card, id)]);
  return withoutStray({ ...card, parts: card.parts.filter((part) => !gone.has(part.id)) });
}

/** Stocks of pieces that are no more. */
function withoutStray(card: CardDocument): CardDocument {
  if (!card.pieceStocks) return card;
  const { parts, problems } = partsOf(card);
  if (problems.length > 0) return card;
  const pieces = new Set(parts.flatMap(({ contribution }) => (contribution.pieces ?? []).map((piece) => piece.id)));
  const kept = Object.entries(card.pieceStocks).filter(([piece]) => pieces.has(piece));
  const { pieceStocks: _, ...rest } = card;
  return kept.length > 0 ? { ...rest, pieceStocks: Object.fromEntries(kept) } : rest;
}

/** A card with a part once more on the same fold, beside the first, with the same sizes; what stands on it is not copied. */
export function duplicatePart(card: CardDocument, id: string): WithPart {
  if (card.parts.length >= MOST_PARTS) throw new PartProblem(`A card carries at most ${MOST_PARTS} parts.`);
  const part = card.parts.find((candidate) => candidate.id === id)!;
  const own = freshId(card, part.mechanism);
  const { name: _, ...rest } = part;
  const doubled: CardDocument = { ...card, parts: [...card.parts, { ...rest, id: own }] };
  return { card: inFreeStretch(doubled, own), id: own };
}

/** A card with a part on another fold, its sizes brought within what that fold allows. @throws PartProblem when it cannot stand there */
export function movePart(card: CardDocument, id: string, on: Place): CardDocument {
  if (on.part === id || carriedBy(card, id).includes(on.part)) {
    throw new PartProblem(`${titlesOf(card).get(id)!} cannot stand on what stands on it.`);
  }
  const moved: CardDocument = { ...card, parts: card.parts.map((part) => (part.id === id ? { ...part, on } : part)) };
  const settled = inFreeStretch(withinLimits(moved, id), id);
  const trouble = partsOf(settled).problems.find(({ owner }) => owner === id);
  if (trouble) throw new PartProblem(told(trouble.says, card.notation));
  return settled;
}

/** A part's lengths brought inside their limits, one after the other. */
function withinLimits(card: CardDocument, id: string): CardDocument {
  return sizeRows(card, id).reduce((changed, { name, given, insteadOf }) => {
    if (!given || insteadOf) return changed;
    const row = sizeRows(changed, id).find((candidate) => candidate.name === name);
    if (!row?.range || row.range.max < row.range.min) return changed;
    const value = Math.min(row.range.max, Math.max(row.range.min, Number(row.value)));
    return value === row.value ? changed : setSize(changed, id, name, value);
  }, card);
}

/** A card with a part turned end for end on its fold: its leaves change places. */
export function turnPart(card: CardDocument, id: string): CardDocument {
  const turned = (part: CardPart): CardPart => {
    const { turned: was, ...place } = part.on!;
    return { ...part, on: was ? place : { ...place, turned: true } };
  };
  return withinLimits({ ...card, parts: card.parts.map((part) => (part.id === id ? turned(part) : part)) }, id);
}

/** A card with a part called something else; an empty name gives it back the mechanism's. */
export function renamePart(card: CardDocument, id: string, name: string): CardDocument {
  const called = ({ name: _, ...part }: CardPart): CardPart => (name.trim() ? { ...part, name: name.trim().slice(0, 60) } : part);
  return { ...card, parts: card.parts.map((part) => (part.id === id ? called(part) : part)) };
}

/** A part in the tree of what stands on what. */
export interface PartNode {
  id: string;
  title: string;
  mechanism: string;
  /** what the place it stands on is called; nothing for the base */
  stands?: string;
  children: PartNode[];
}

/** The parts of a card as a tree. */
export function partTree(card: CardDocument): PartNode {
  const titles = titlesOf(card);
  const node = ({ id, mechanism, on }: CardPart): PartNode => {
    const site = on && siteFor(card, id);
    return {
      id,
      title: titles.get(id)!,
      mechanism,
      ...(on && { stands: site?.name ?? on.site }),
      children: movementsOf(card)
        .filter((part) => part.on.part === id)
        .map(node),
    };
  };
  return node(card.parts[0]!);
}

/** The name of the mechanism behind a part. */
export const kindOf = (part: CardPart): string => mechanismById(part.mechanism).name;
