import type { ClosedStack } from '../linkage/stacking.js';
import type { Mm } from '../measure/units.js';
import { areaContains, boxOf, type Area, type Box } from '../plane/outline.js';
import type { Point } from '../plane/point.js';
import { GLUE_FILM } from '../supplies/limits.js';
import { caliperOf } from './card-stocks.js';
import { claimsOf } from './draw.js';
import type { Design } from './join.js';

/** One slab of the closed pile. Inner layers have body -1. */
export interface Slab {
  body: number;
  thickness: Mm;
  area: Area;
  box: Box;
}

/** The thickest place of the closed card, and the bodies piled up there. */
export interface Thickest {
  thickness: Mm;
  at: Point;
  bodies: number[];
}

/** All slabs of the closed card, from the bottom up. */
export function pileOf(design: Design, stack: ClosedStack): Slab[] {
  const order = stack.order.length > 0 ? stack.order : stack.layers.map((layer) => layer.body);
  const layers = claimsOf(design, 'inner-layer');
  return order.flatMap((body): Slab[] => {
    const { area } = stack.layers[body]!;
    const own = { body, area, box: boxOf(area.outer), thickness: caliperOf(design, design.panels[body]!.piece) };
    const inside = layers
      .filter((layer) => design.linkage.bodyOf.get(layer.panel) === body)
      .map(({ outline, thickness }) => ({ body: -1, thickness, area: { outer: outline, holes: [] }, box: boxOf(outline) }));
    return [own, ...inside];
  });
}

/** Everything stacked at a point: calipers, and a film of glue for each glued pair. */
export function thicknessAt(design: Design, pile: readonly Slab[], at: Point): Thickest {
  const here = pile.filter((slab) => inBox(slab.box, at) && areaContains(slab.area, at));
  const bodies = new Set(here.map((slab) => slab.body));
  const glued = design.linkage.bonds.reduce((n, { a, b }) => n + (bodies.has(a) && bodies.has(b) ? 1 : 0), 0);
  const thickness = here.reduce((sum, slab) => sum + slab.thickness, 0) + glued * GLUE_FILM;
  return { thickness, at, bodies: [...bodies].filter((body) => body >= 0) };
}

/** What lies at a point of the closed card, from the bottom up, with the names of panels and inner layers. */
export function layersAt(design: Design, pile: readonly Slab[], at: Point): { thickness: Mm; layers: { name: string; thickness: Mm }[] } {
  const layers = pile
    .filter((slab) => inBox(slab.box, at) && areaContains(slab.area, at))
    .map(({ body, thickness }) => ({ name: body < 0 ? 'layers inside' : design.panels[body]!.name, thickness }));
  return { thickness: thicknessAt(design, pile, at).thickness, layers };
}

function inBox({ minX, maxX, minY, maxY }: Box, [x, y]: Point): boolean {
  return x >= minX && x <= maxX && y >= minY && y <= maxY;
}
