import { poseOf, unplacedIn, type Frame, type Motion } from '../linkage/motion.js';
import { carry, cross, dot, norm, type Rigid, type Vec3 } from '../linkage/rigid.js';
import { areaOf, boxOf, type Area, type Box, type Loop } from '../plane/outline.js';
import type { Point } from '../plane/point.js';
import { ScanLines } from '../plane/scan-line.js';
import type { Face } from '../sheet/piece.js';
import { stackAt } from '../linkage/stacking.js';
import type { ClosedCard } from './closed-card.js';
import { isClear } from '../supplies/stocks.js';
import { stockOf } from './card-stocks.js';
import type { Design } from './join.js';

/** What is seen of one face of a panel from one side. */
export interface SeenFace {
  panel: string;
  name: string;
  face: Face;
  /** seen area as a share of the panel's own, and in mm² of the panel */
  share: number;
  area: number;
}

/** From where the card is looked at: as it is put down, or straight onto the closed card from either side. */
export type Look = 'front' | 'behind';

/** Points of the grid along the longer side of the picture: enough to tell a strip of a hundredth. */
const CELLS = 90;
/** Depths closer than this are one plane: there the closed card's order decides. */
const SAME_PLANE = 0.02;

interface Drawn {
  body: number;
  area: Area;
  box: Box;
  facing: number;
  /** depth toward the viewer at a point of the picture: d + u·x + v·y */
  plane: readonly [d: number, u: number, v: number];
  clear: boolean;
}

/**
 * Which faces of which panels are seen in a frame from one side, by looking through a grid of points: at each the
 * nearest panel counts, panels in one plane in the order in which the closed card lies. Least seen is left out.
 */
export function visibleFaces(
  design: Design,
  motion: Motion,
  closed: Pick<ClosedCard, 'stack'>,
  frame: Frame,
  look: Look,
  cells = CELLS,
): SeenFace[] {
  const pose = poseOf(motion, frame);
  const { toward, right, above } = lookOn(design, frame === motion.frames[0], look);
  const unplaced = unplacedIn(motion, frame);
  const all = design.panels.map((panel, body) => drawnPanel(design, panel.area, pose[body]!, body, { toward, right, above }));
  const drawn = all.filter(({ body }) => !unplaced.has(body));
  const box = boxOf(drawn.flatMap(({ area }) => area.outer));
  const [width, height] = [box.maxX - box.minX, box.maxY - box.minY];
  const cell = Math.max(width, height) / cells;
  const stack = stackAt(motion, closed.stack, frame.s);
  const places = new Int32Array(all.length);
  stack.order.forEach((body, i) => (places[body] = i));
  const asPiled = all.map(({ body, facing }) => facing > 0 === stack.layers[body]!.faceUp);
  const seen = countSeen(drawn, box, cell, places, asPiled);
  return drawn.flatMap(({ body, facing }): SeenFace[] => {
    const onPicture = seen.get(body) ?? 0;
    const area = Math.abs(facing) < 0.02 ? 0 : onPicture / Math.abs(facing);
    const { area: own, id, name } = design.panels[body]!;
    const share = area / Math.max(1e-9, areaOf(own));
    if (share < 0.03) return [];
    return [{ panel: id, name, face: facing > 0 ? 'up' : 'down', share: Math.min(1, share), area }];
  });
}

/**
 * Directions of the ground's frame for who looks at the card, each of length 1: toward him, to his right, and what is up for
 * him. The closed card is looked at straight; standing, from where a person stands.
 */
export function lookOn(design: Pick<Design, 'base'>, flat: boolean, look: Look): Record<'toward' | 'right' | 'above', Vec3> {
  const { up, viewFrom } = design.base.rest;
  const ahead: Vec3 = flat ? closedFront(up, viewFrom) : viewFrom;
  const toward = unit(look === 'front' ? ahead : fromBehind(ahead, flat ? [0, 0, 0] : up));
  const right = unit(perpendicular(toward, up));
  return { toward, right, above: cross(toward, right) };
}

/** From the other side of the card, as high above the table: only what is level turns round. */
function fromBehind(ahead: Vec3, up: Vec3): Vec3 {
  const twice = 2 * dot(ahead, up);
  return [twice * up[0] - ahead[0], twice * up[1] - ahead[1], twice * up[2] - ahead[2]];
}

/** A closed card lies in the ground's plane; its front is the side nearer to who looks at the standing card. */
function closedFront(up: Vec3, viewFrom: Vec3): Vec3 {
  const side = Math.abs(up[2]) > 0.5 ? Math.sign(up[2]) : Math.sign(viewFrom[2]) || 1;
  return [0, 0, side];
}

const normalOf = (m: Rigid): Vec3 => [m[2]!, m[6]!, m[10]!];

function drawnPanel(
  design: Design,
  area: Area,
  m: Rigid,
  body: number,
  { toward, right, above }: Record<'toward' | 'right' | 'above', Vec3>,
): Drawn {
  const onPicture = (loop: Loop): Point[] =>
    loop.map(([x, y]): Point => {
      const p = carry(m, x, y, 0);
      return [dot(p, right), dot(p, above)];
    });
  const outer = onPicture(area.outer);
  const normal = normalOf(m);
  const facing = dot(normal, toward);
  const origin = carry(m, area.outer[0]![0], area.outer[0]![1], 0);
  // The panel's plane: normal · (p − origin) = 0, solved for the depth of a point of the picture.
  const [u, v] = facing === 0 ? [0, 0] : [-dot(normal, right) / facing, -dot(normal, above) / facing];
  const d = dot(origin, toward) - u * dot(origin, right) - v * dot(origin, above);
  const clear = isClear(stockOf(design, design.panels[body]!.piece));
  return { body, area: { outer, holes: area.holes.map(onPicture) }, box: boxOf(outer), facing, plane: [d, u, v], clear };
}

/**
 * How much of the picture each body shows, mm²: the picture is gone through line by line, on each line only the stretches
 * that a panel covers. At a point the nearest panel counts; of panels in one plane the higher one in the closed pile.
 * @param places where in the pile each body lies, from the bottom up
 * @param asPiled whether each body shows who looks the face that looks up in that pile
 */
function countSeen(drawn: readonly Drawn[], all: Box, cell: number, places: Int32Array, asPiled: readonly boolean[]): Map<number, number> {
  const columns = Math.max(0, Math.ceil((all.maxX - all.minX - cell / 2) / cell));
  const depths = new Float64Array(columns);
  const fronts = new Int32Array(columns);
  const shown = drawn.filter(({ clear, facing }) => !clear && Math.abs(facing) >= 0.02);
  const lines = shown.map(({ area }) => new ScanLines(area));
  const counts = new Float64Array(places.length);
  for (let y = all.minY + cell / 2; y < all.maxY; y += cell) {
    depths.fill(-Infinity);
    fronts.fill(-1);
    for (let k = 0; k < shown.length; k++) {
      const { body, box, plane } = shown[k]!;
      if (y < box.minY || y > box.maxY) continue;
      const line = lines[k]!;
      const count = line.at(y);
      const [d, u, v] = plane;
      const place = places[body]!;
      for (let i = 0; i + 1 < count; i += 2) {
        const first = Math.max(0, Math.ceil((line.xs[i]! - all.minX) / cell - 0.5));
        const last = Math.min(columns - 1, Math.floor((line.xs[i + 1]! - all.minX) / cell - 0.5));
        for (let column = first; column <= last; column++) {
          const here = d + u * (all.minX + (column + 0.5) * cell) + v * y;
          const depth = depths[column]!;
          const front = fronts[column]!;
          const closer = here > depth + SAME_PLANE;
          const level = front >= 0 && Math.abs(here - depth) <= SAME_PLANE;
          const higher = level && place > places[front]!;
          if (!closer && !(level && higher === asPiled[body])) continue;
          fronts[column] = body;
          depths[column] = Math.max(here, depth);
        }
      }
    }
    for (const front of fronts) if (front >= 0) counts[front]!++;
  }
  return new Map([...counts].flatMap((count, body): [number, number][] => (count > 0 ? [[body, count * cell * cell]] : [])));
}

function perpendicular(toward: Vec3, up: Vec3): Vec3 {
  const across = cross(up, toward);
  return norm(across) > 1e-6 ? across : [1, 0, 0];
}

const unit = (a: Vec3): Vec3 => {
  const length = norm(a);
  return [a[0] / length, a[1] / length, a[2] / length];
};
