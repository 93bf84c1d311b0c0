import type { Motion } from '../linkage/motion.js';
import { stackClosed, type ClosedStack } from '../linkage/stacking.js';
import type { Mm } from '../measure/units.js';
import { areaContains, boxOf, loopContains, type Box } from '../plane/outline.js';
import type { Point } from '../plane/point.js';
import { GLUE_FILM } from '../supplies/limits.js';
import type { Piece } from '../sheet/piece.js';
import type { Design } from './compose.js';

/** The card as it lies closed, in the ground panel's coordinates. */
export interface ClosedCard {
  stack: ClosedStack;
  box: Box;
  /** width of the spine to give each closing fold, by hinge: the thickest place between its leaves */
  spines: Record<string, Mm>;
  thickest: { thickness: Mm; at: Point };
}

/** Thickness of one layer of a piece. */
export function caliperOf(design: Design, piece: Piece): Mm {
  if (piece.thickness !== undefined) return piece.thickness;
  return piece.stock === 'stop' ? 0 : design.stocks[piece.stock].caliper;
}

/** Lays the card closed: order of layers, outline, thickness, spines. */
export function closeCard(design: Design, motion: Motion): ClosedCard {
  const stack = stackClosed(motion, motion.frames[0]!);
  const box = boxOf(stack.layers.flatMap((layer) => layer.area.outer));
  const card: ClosedCard = { stack, box, spines: {}, thickest: { thickness: 0, at: [0, 0] } };
  for (const closing of design.base.closings) {
    const profile = thicknessProfile(design, card, closing);
    card.spines[closing.hinge] = profile.reduce((most, { thickness }) => Math.max(most, thickness), 0);
  }
  card.thickest = thickestPlace(design, card);
  return card;
}

/** Everything stacked over a point of the closed card, from the bottom up: body and thickness. Inner layers have body -1. */
export function pileAt(design: Design, closed: ClosedCard, at: Point): { body: number; thickness: Mm }[] {
  const { layers, order } = closed.stack;
  const rank = order.length > 0 ? order : layers.map((layer) => layer.body);
  const pile = rank.flatMap((body) => {
    const layer = layers[body]!;
    return areaContains(layer.area, at) ? [{ body, thickness: caliperOf(design, design.panels[body]!.piece) }] : [];
  });
  for (const inner of design.base.innerLayers) {
    const host = design.linkage.bodyOf.get(inner.panel)!;
    const place = pile.findIndex((entry) => entry.body === host);
    if (place >= 0 && loopContains(inner.outline, at)) pile.splice(place + 1, 0, { body: -1, thickness: inner.thickness });
  }
  return pile;
}

type Closing = Design['base']['closings'][number];

/** A prop shorter than this along the fold dents; a longer one holds a stiff leaf open. */
export const LEAST_PROP: Mm = 20;
const ALONG_SAMPLES = 30;

/**
 * What lies between the two sides of a closing fold, by distance from the fold: at each distance the
 * greatest thickness that a stretch of at least 20 mm along the fold reaches.
 */
export function thicknessProfile(design: Design, closed: ClosedCard, closing: Closing): { r: Mm; thickness: Mm }[] {
  const hinge = design.linkage.hinges[design.linkage.hingeIndex.get(closing.hinge)!]!;
  const lower = new Set(closing.lower.map((id) => design.linkage.bodyOf.get(id)!));
  const upper = new Set(closing.upper.map((id) => design.linkage.bodyOf.get(id)!));
  const foldX = hinge.px;
  const corners = [
    ...closed.stack.layers.flatMap((layer) => layer.area.outer.map(([x]) => x)),
    ...design.base.innerLayers.flatMap((layer) => layer.outline.map(([x]) => x)),
  ];
  const grid = Array.from({ length: 24 }, (_, i) => foldX + ((i + 0.5) / 24) * closing.depth);
  const xs = [...new Set([...corners.map((x) => x + 1e-6), ...grid])].filter((x) => x > foldX + 0.5 && x < foldX + closing.depth);
  const step = closing.length / ALONG_SAMPLES;
  const needed = Math.max(1, Math.min(ALONG_SAMPLES, Math.round(LEAST_PROP / step)));
  return xs
    .sort((a, b) => a - b)
    .map((x) => {
      const along = Array.from({ length: ALONG_SAMPLES }, (_, i) => between(pileAt(design, closed, [x, hinge.py + (i + 0.5) * step]), lower, upper));
      return { r: x - foldX, thickness: along.sort((a, b) => b - a)[needed - 1]! };
    });
}

function between(pile: readonly { body: number; thickness: Mm }[], lower: ReadonlySet<number>, upper: ReadonlySet<number>): Mm {
  const from = pile.findIndex((entry) => lower.has(entry.body));
  const to = pile.findIndex((entry) => upper.has(entry.body));
  if (from < 0 || to < 0) return 0;
  const [low, high] = from < to ? [from, to] : [to, from];
  return pile.slice(low + 1, high).reduce((sum, entry) => sum + entry.thickness, 0);
}

function thickestPlace(design: Design, closed: ClosedCard): ClosedCard['thickest'] {
  const centres = closed.stack.layers.map(({ area }): Point => {
    const box = boxOf(area.outer);
    return [(box.minX + box.maxX) / 2, (box.minY + box.maxY) / 2];
  });
  const { minX, maxX, minY, maxY } = closed.box;
  const grid = Array.from({ length: 20 * 14 }, (_, i): Point => [
    minX + (((i % 20) + 0.5) / 20) * (maxX - minX),
    minY + ((Math.floor(i / 20) + 0.5) / 14) * (maxY - minY),
  ]);
  let best = { thickness: 0, at: centres[0] ?? ([0, 0] as Point) };
  for (const at of [...centres, ...grid]) {
    const pile = pileAt(design, closed, at);
    const glued = design.linkage.bonds.filter(({ a, b }) => pile.some((p) => p.body === a) && pile.some((p) => p.body === b)).length;
    const thickness = pile.reduce((sum, entry) => sum + entry.thickness, 0) + glued * GLUE_FILM;
    if (thickness > best.thickness) best = { thickness, at };
  }
  return best;
}

