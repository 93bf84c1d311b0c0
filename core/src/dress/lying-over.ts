import type { Design } from '../card/join.js';
import { lyingAt } from '../card/worn.js';
import type { Pose } from '../linkage/kinematics.js';
import { carryFlat } from '../linkage/rigid.js';
import type { ClosedStack } from '../linkage/stacking.js';
import type { Mm } from '../measure/units.js';
import { intersect } from '../plane/boolean.js';
import { centroid, type Area, type Loop } from '../plane/outline.js';
import type { Point } from '../plane/point.js';
import type { DressedLayer } from './layer.js';
import type { PlacedTopper } from './toppers.js';

/** Layers on one another, and a strip over a joint on the uppermost. */
const STEPS = [1, 2, 3, 4] as const;

/** A panel that hangs by one fold, folded over what is behind it, with nothing else holding it: a door, a cover. */
export interface Flap {
  body: number;
  /** whether its outer face looks the way the ground's upper one does */
  facesUp: boolean;
  /** how far a point of the closed card is from its fold, on its own side of it */
  fromFold: (point: Point) => Mm;
  items: Item[];
}

/** A sheet of a flap in the closed card: how far out its lower and its outer side lie, over the flap's own outer face. */
interface Item {
  area: Area;
  from: Mm;
  to: Mm;
  /** of what was glued on later the number is higher; nothing of the panel itself */
  nth?: number;
}

interface Worn {
  layers: readonly DressedLayer[];
  toppers: readonly PlacedTopper[];
}

/** Every flap of a closed card with what it wears. */
export function flapsOf(design: Design, pose: Pose, stack: ClosedStack, worn: Worn): Flap[] {
  const { hinges, bonds, ground, panels } = design.linkage;
  return panels.flatMap((panel, body): Flap[] => {
    const own = hinges.filter(({ left, right }) => left === body || right === body);
    const [hinge] = own;
    if (body === ground || own.length !== 1 || !hinge || bonds.some(({ a, b }) => a === body || b === body)) return [];
    const { left, px, py, ux, uy, source } = hinge;
    if (Math.abs(source.crease.closed) < Math.PI - 1e-6) return [];
    const layer = stack.layers[body]!;
    const behind = left === body ? hinge.right : left;
    const facesUp = stack.over.get(behind)?.has(body) === true;
    const at = carryFlat(pose[left]!, [px, py]);
    const ahead = carryFlat(pose[left]!, [px + ux, py + uy]);
    const [alongX, alongY] = [ahead[0] - at[0], ahead[1] - at[1]];
    const across = ([x, y]: Point): Mm => (x - at[0]) * alongY - (y - at[1]) * alongX;
    const side = Math.sign(across(centroid(layer.area)));
    const outer = facesUp === layer.faceUp ? 'up' : 'down';
    return [{ body, facesUp, fromFold: (point) => side * across(point), items: itemsOf(panel.id, outer, layer.area, pose[body]!, worn) }];
  });
}

function itemsOf(panel: string, outer: 'up' | 'down', area: Area, pose: Pose[number], { layers, toppers }: Worn): Item[] {
  const thick = (face: 'up' | 'down', step: number): Mm =>
    Math.max(
      0,
      ...layers.filter((layer) => layer.panel === panel && layer.face === face && layer.step === step).map(({ thickness }) => thickness),
    );
  const allLayers = (face: 'up' | 'down'): Mm => STEPS.reduce((sum, step) => sum + thick(face, step), 0);
  const on = toppers.flatMap((placed, nth): Item[] => {
    if (placed.panel !== panel) return [];
    const under = allLayers(placed.face) + placed.stands - placed.stock.caliper;
    const item = { area: lyingAt(pose, placed), nth };
    // What is worn inside lies under the flap, the more so the thicker it is.
    return placed.face === outer
      ? [{ ...item, from: under, to: under + placed.stock.caliper }]
      : [{ ...item, from: -under - placed.stock.caliper, to: -under }];
  });
  // Layers inside their panels lie over nothing else; they are glued on before any topper.
  const past = layers.flatMap((layer, i): Item[] => {
    if (layer.panel !== panel || layer.past.length === 0) return [];
    const under = STEPS.filter((step) => step < layer.step).reduce((sum, step) => sum + thick(layer.face, step), 0);
    const [from, to] = [under, under + layer.stock.caliper];
    const item = { area: lyingAt(pose, layer), nth: i - layers.length };
    return [layer.face === outer ? { ...item, from, to } : { ...item, from: -from - layer.stock.caliper, to: -from }];
  });
  return [{ area, from: 0, to: 0 }, ...past, ...on];
}

/** Where something of one flap lies over something of another, in the closed card. */
export function lyingOver(over: Flap, under: Flap): Loop[] {
  return over.items.flatMap((item) =>
    under.items.filter((other) => liesOver(item, other)).flatMap((other) => intersect([item.area], [other.area])),
  );
}

/** Two panels lie side by side; of two sheets at one height the one that was glued on later lies over the other. */
function liesOver(item: Item, other: Item): boolean {
  if (item.nth === undefined && other.nth === undefined) return false;
  // Outside lies over every panel, inside under it, whatever its height.
  if (item.nth === undefined) return other.to <= 0;
  if (other.nth === undefined) return item.from >= 0;
  if (item.from >= 0 !== other.from >= 0) return item.from >= 0;
  const outside = item.from >= 0;
  if (item.from >= other.to - 1e-9) return true;
  if (other.from >= item.to - 1e-9) return false;
  return outside ? item.nth > other.nth : item.nth < other.nth;
}
