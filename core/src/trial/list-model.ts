import type { CardDocument } from '../card/document.js';
import { dressedBy } from '../card/dress-card.js';
import { claimsOf, draw } from '../card/draw.js';
import { join } from '../card/join.js';
import type { SizeRow } from '../card/size-rows.js';
import type { DressedLayer } from '../dress/layer.js';
import { closedQuickly, type Closed } from '../evaluate.js';
import type { Mm } from '../measure/units.js';
import { areaOf, boxOf } from '../plane/outline.js';
import { cutSheet, readsOffRuler, type CutSheet, type Eases } from '../sheet/cut-sheet.js';
import type { Workshop } from '../supplies/workshop.js';
import { freeRows } from './changed-sizes.js';
import { saidOf, type SaidNumber } from './said-list.js';

/** What a card says where a list says something; nothing where it has no such place. */
export type Reading = (card: CardDocument) => (Mm | undefined)[] | undefined;

/** Allowances that hardly follow sizes, worked out from one card and taken over for its neighbours. */
interface Allowances {
  eases: Eases;
  /** by how much the closed card is larger than it is meant to be */
  closed: { width: Mm; height: Mm };
  /** of each layer by panel: what it is smaller than its panel, and how much of that with every mm of border */
  layers: ReadonlyMap<string, { width: Smaller; height: Smaller }>;
}

interface Smaller {
  by: Mm;
  perBorder: number;
}

/** By how much a border is changed to learn how layers follow it: so little that no strip is covered that was not. */
const WIDER: Mm = 0.02;

/** Reads a card as a list does. @param near a card near to those that are read: its allowances are taken for theirs */
export const readingOf = (said: readonly SaidNumber[], near: CardDocument, border: Mm, workshop: Workshop): Reading =>
  readingWith(said, allowancesOf(near, said, border, workshop), border);

/** What one card says where a list says something, laid closed and dressed for itself. */
export function readAfresh(said: readonly SaidNumber[], card: CardDocument, border: Mm, workshop: Workshop): ReturnType<Reading> {
  const places = said.map(({ entry }) => saidOf(entry)!);
  const closed = laidClosed(card, isLayered(said), border, workshop);
  if (!closed) return undefined;
  const { minX, maxX, minY, maxY } = closed.closed.box;
  const layers = lowestLayers(closed.dressed.layers);
  return places.map((place): Mm | undefined => {
    if (place.of === 'score') return scoresOn(sheetFor(closed.sheets, card, place.piece))[place.nth - 1];
    if (place.of === 'blank') return sheetFor(closed.sheets, card, place.piece)?.[place.way];
    if (place.of === 'closed') return place.way === 'width' ? maxX - minX : maxY - minY;
    return (layers.get(place.panel) ?? layers.get(`base/${place.panel}`))?.box[place.way];
  });
}

/** Layers make spines wider: a list that has them is that of a dressed card. */
const isLayered = (said: readonly SaidNumber[]): boolean => said.some(({ entry }) => saidOf(entry)?.of === 'layer');

const laidClosed = (card: CardDocument, layered: boolean, border: Mm, workshop: Workshop): Closed | undefined =>
  closedQuickly(layered ? dressedBy(card, { border }, workshop) : card);

/** The lowest layer of each panel, the larger where it wears two beside one another. */
function lowestLayers(layers: readonly DressedLayer[]): ReadonlyMap<string, DressedLayer> {
  const found = new Map<string, DressedLayer>();
  for (const layer of layers) {
    const other = found.get(layer.panel);
    if (layer.step === 1 && (!other || areaOf(layer.area) > areaOf(other.area))) found.set(layer.panel, layer);
  }
  return found;
}

function readingWith(said: readonly SaidNumber[], allowances: Allowances, border: Mm): Reading {
  const places = said.map(({ entry }) => saidOf(entry)!);
  const isOfPanels = places.some(({ of }) => of === 'layer');
  return (card) => {
    const drawn = draw(card);
    if (!drawn.ok) return undefined;
    const sheets = drawn.drawing.pieces.map((piece) => cutSheet(piece, allowances.eases));
    const closed = boxOf(drawn.drawing.base.closedOutline);
    const panels = isOfPanels ? panelBoxes(card) : new Map<string, Size>();
    return places.map((place): Mm | undefined => {
      if (place.of === 'score') return scoresOn(sheetFor(sheets, card, place.piece))[place.nth - 1];
      if (place.of === 'blank') return sheetFor(sheets, card, place.piece)?.[place.way];
      if (place.of === 'closed') {
        return (place.way === 'width' ? closed.maxX - closed.minX : closed.maxY - closed.minY) + allowances.closed[place.way];
      }
      const panel = panels.get(place.panel) ?? panels.get(`base/${place.panel}`);
      const smaller = allowances.layers.get(place.panel)?.[place.way];
      return panel && smaller ? panel[place.way] - smaller.by - smaller.perBorder * border : undefined;
    });
  };
}

interface Size {
  width: Mm;
  height: Mm;
}

/** The sheet that is meant: by its name, or the first that is scored, of the movement where the card shows one. */
function sheetFor(sheets: readonly CutSheet[], card: CardDocument, piece: string | undefined): CutSheet | undefined {
  if (piece !== undefined) return sheets.find((sheet) => sheet.piece.id === piece || sheet.piece.id.endsWith(`/${piece}`));
  const scored = sheets.filter((sheet) => scoresOn(sheet).length > 0);
  const shown = card.parts[1]?.id;
  return scored.find((sheet) => shown !== undefined && sheet.piece.part === shown) ?? scored[0] ?? sheets[0];
}

/** Nobody scores two lines that are nearer. */
const ONE_LINE: Mm = 0.05;

/** Where the upright scores of a sheet lie, from its left end; those in one line once. */
export function scoresOn(sheet: CutSheet | undefined): Mm[] {
  const all = (sheet?.scores ?? []).filter(readsOffRuler).map(({ from }) => from[0]);
  return all.filter((at, i) => i === 0 || at - all[i - 1]! > ONE_LINE);
}

function panelBoxes(card: CardDocument): ReadonlyMap<string, Size> {
  const drawn = draw(card);
  const joined = drawn.ok ? join(drawn.drawing) : undefined;
  if (!joined?.ok) return new Map();
  return new Map(
    joined.design.panels.map(({ id, area }) => {
      const { minX, maxX, minY, maxY } = boxOf(area.outer);
      return [id, { width: maxX - minX, height: maxY - minY }];
    }),
  );
}

function allowancesOf(card: CardDocument, said: readonly SaidNumber[], border: Mm, workshop: Workshop): Allowances {
  const layered = isLayered(said);
  const closed = laidClosed(card, layered, border, workshop);
  if (!closed) return { eases: {}, closed: { width: 0, height: 0 }, layers: new Map() };
  const spined = claimsOf(closed.design, 'closing').filter((fold) => fold.spined);
  const meant = boxOf(closed.design.base.closedOutline);
  const { box } = closed.closed;
  return {
    eases: Object.fromEntries(spined.map(({ hinge }) => [hinge, closed.closed.spines[hinge] ?? 0])),
    closed: { width: box.maxX - box.minX - (meant.maxX - meant.minX), height: box.maxY - box.minY - (meant.maxY - meant.minY) },
    layers: layered ? smallerThanPanels(closed.dressed.layers, card, border, workshop) : new Map(),
  };
}

/** How the lowest layer of each panel follows the border. */
function smallerThanPanels(layers: readonly DressedLayer[], card: CardDocument, border: Mm, workshop: Workshop): Allowances['layers'] {
  const wide = laidClosed(card, true, border + WIDER, workshop)?.dressed.layers ?? [];
  const found = new Map<string, { width: Smaller; height: Smaller }>();
  for (const layer of lowestLayers(layers).values()) {
    const other = wide.find(({ id }) => id === layer.id);
    if (!other) continue;
    const smaller = (way: 'width' | 'height'): Smaller => {
      const [a, b] = [layer, other].map(({ panelBox, box }) => panelBox[way] - box[way]) as [Mm, Mm];
      const perBorder = (b - a) / WIDER;
      return { by: a - perBorder * border, perBorder };
    };
    const both = { width: smaller('width'), height: smaller('height') };
    found.set(layer.panel, both);
    found.set(layer.panel.replace(/^base\//, ''), both);
  }
  return found;
}

/** Lengths and angles that a card may be given, one by one. */
export const unknownsOf = (card: CardDocument): SizeRow[] =>
  freeRows(card).filter(({ kind, insteadOf, asCut, range }) => (kind === 'length' || kind === 'angle') && !insteadOf && !asCut && range);
