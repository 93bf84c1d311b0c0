import type { ClosedStack } from '../linkage/stacking.js';
import type { Mm } from '../measure/units.js';
import type { Pose } from '../linkage/kinematics.js';
import { areaContains, boxOf, type Area, type Box } from '../plane/outline.js';
import type { Point } from '../plane/point.js';
import { GLUE_FILM } from '../supplies/limits.js';
import { caliperOf } from './card-stocks.js';
import { claimsOf } from './draw.js';
import type { Design } from './join.js';
import { lyingAt } from './worn.js';

/** One slab of the closed pile. Inner layers and what panels wear have body -1. */
export interface Slab {
  body: number;
  thickness: Mm;
  area: Area;
  box: Box;
  /** of what a panel wears */
  name?: string;
}

/** The thickest place of the closed card, and the bodies piled up there. */
export interface Thickest {
  thickness: Mm;
  at: Point;
  bodies: number[];
}

/** All slabs of the closed card, from the bottom up: what a panel wears on the side where it wears it. */
export function pileOf(design: Design, stack: ClosedStack, pose: Pose): Slab[] {
  const order = stack.order.length > 0 ? stack.order : stack.layers.map((layer) => layer.body);
  const layers = claimsOf(design, 'inner-layer');
  return order.flatMap((body): Slab[] => {
    const { area } = stack.layers[body]!;
    const own = { body, area, box: boxOf(area.outer), thickness: caliperOf(design, design.panels[body]!.piece) };
    const inside = layers
      .filter((layer) => design.linkage.bodyOf.get(layer.panel) === body)
      .map(({ outline, thickness }) => ({ body: -1, thickness, area: { outer: outline, holes: [] }, box: boxOf(outline) }));
    const [lower, upper] = wornSlabs(design, body, stack.layers[body]!.faceUp, pose);
    return [...lower, own, ...upper, ...inside];
  });
}

/** What lies under and over a panel in the closed card, each from the bottom up. */
function wornSlabs(design: Design, body: number, faceUp: boolean, pose: Pose): [lower: Slab[], upper: Slab[]] {
  if (design.worn.length === 0) return [[], []];
  const on = (face: 'up' | 'down'): Slab[] =>
    design.worn
      .filter((worn) => worn.face === face && worn.panel === design.panels[body]!.id)
      .map((worn) => {
        const area = lyingAt(pose[body]!, worn);
        return { body: -1, thickness: worn.thickness, area, box: boxOf(area.outer), name: worn.name };
      });
  const [lower, upper] = faceUp ? [on('down'), on('up')] : [on('up'), on('down')];
  return [lower.reverse(), upper];
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
    .map(({ body, thickness, name }) => ({ name: body < 0 ? (name ?? 'layers inside') : design.panels[body]!.name, thickness }));
  return { thickness: thicknessAt(design, pile, at).thickness, layers };
}

function inBox({ minX, maxX, minY, maxY }: Box, [x, y]: Point): boolean {
  return x >= minX && x <= maxX && y >= minY && y <= maxY;
}
