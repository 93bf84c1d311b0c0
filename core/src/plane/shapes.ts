import { boxOf, signedArea, type Loop } from './outline.js';
import { polar, type Point } from './point.js';

/** Outlines that come with the program. Each stands upright, y up, any size: `fitted` brings it to size. */
export const SHAPES: readonly { id: string; name: string; draw: () => Loop }[] = [
  { id: 'rectangle', name: 'rectangle', draw: () => loopOf([0, 0], [1, 0], [1, 1], [0, 1]) },
  { id: 'circle', name: 'circle', draw: () => around(72, () => 1) },
  { id: 'oval', name: 'oval', draw: () => around(72, () => 1).map(([x, y]): Point => [0.7 * x, y]) },
  { id: 'arch', name: 'arch', draw: arch },
  { id: 'scallop', name: 'scalloped circle', draw: () => around(144, (a) => 1 - 0.09 * (1 - Math.abs(Math.cos(6 * a)))) },
  { id: 'star', name: 'star', draw: star },
  { id: 'heart', name: 'heart', draw: heart },
  { id: 'leaf', name: 'leaf', draw: leaf },
  { id: 'fern', name: 'fern', draw: fern },
  { id: 'mushroom', name: 'mushroom cap', draw: mushroom },
];

/** How an outline is offered in a list. */
export const SHAPE_OPTIONS: readonly { value: string; label: string }[] = SHAPES.map(({ id, name }) => ({ value: id, label: name }));

/** Brings a loop to a box: its lower left corner at the origin, `height` high and, unless given, as wide as its shape asks. */
export function fitted(loop: Loop, height: number, width?: number): Loop {
  const placed = loop.map(fitting(loop, height, width));
  return signedArea(placed) > 0 ? placed : placed.reverse();
}

/** Where a point comes to lie as a loop is brought to a box. */
export function fitting(loop: Loop, height: number, width?: number): (point: Point) => Point {
  const { minX, minY, maxX, maxY } = boxOf(loop);
  const tall = height / (maxY - minY);
  const wide = width === undefined ? tall : width / (maxX - minX);
  return ([x, y]) => [(x - minX) * wide, (y - minY) * tall];
}

/** Width of a shape for a height of 1. */
export function aspectOf(loop: Loop): number {
  const { minX, minY, maxX, maxY } = boxOf(loop);
  return (maxX - minX) / (maxY - minY);
}

const loopOf = (...points: Point[]): Loop => points;

/** A closed line round the origin whose distance depends on the direction, begun at the top. */
function around(steps: number, radius: (angle: number) => number): Loop {
  return Array.from({ length: steps }, (_, i) => {
    const angle = (i / steps) * 2 * Math.PI;
    return polar([0, 0], radius(angle), angle + Math.PI / 2);
  });
}

function arch(): Loop {
  const round = Array.from({ length: 49 }, (_, i) => polar([0.5, 0.9], 0.5, (i / 48) * Math.PI));
  return [[0, 0], [1, 0], ...round];
}

function star(): Loop {
  return Array.from({ length: 10 }, (_, i) => polar([0, 0], i % 2 === 0 ? 1 : 0.5, Math.PI / 2 + (i * Math.PI) / 5));
}

/** The classic heart curve x = 16 sin³t, y = 13 cos t − 5 cos 2t − 2 cos 3t − cos 4t. */
function heart(): Loop {
  return Array.from({ length: 72 }, (_, i): Point => {
    const t = -(i / 72) * 2 * Math.PI;
    return [16 * Math.sin(t) ** 3, 13 * Math.cos(t) - 5 * Math.cos(2 * t) - 2 * Math.cos(3 * t) - Math.cos(4 * t)];
  });
}

/** Two arcs that meet at the tip and, on a short stalk, at the foot. */
function leaf(): Loop {
  const half = Array.from({ length: 23 }, (_, i): Point => {
    const t = (i + 1) / 24;
    return [0.34 * Math.sin(Math.PI * t ** 0.85), 0.1 + 0.9 * t];
  });
  return [[-0.03, 0], [0.03, 0], [0.03, 0.1], ...half, [0, 1], ...mirroredUp(half), [-0.03, 0.1]];
}

/** A frond: leaflets on both sides of a stem, shorter toward the tip. */
function fern(): Loop {
  const right: Point[] = [[0.035, 0]];
  const leaflets = 7;
  for (let i = 0; i < leaflets; i++) {
    const low = 0.12 + (i / leaflets) * 0.76;
    const reach = 0.36 * (1 - (i / leaflets) ** 1.4) + 0.06;
    right.push([0.04, low], [0.7 * reach, low + 0.02], [reach, low + 0.09], [0.65 * reach, low + 0.1], [0.04, low + 0.07]);
  }
  return [...right, [0, 1], ...mirroredUp(right)];
}

/** A domed cap on a stalk. */
function mushroom(): Loop {
  const dome = Array.from({ length: 25 }, (_, i): Point => {
    const t = (i / 24) * Math.PI;
    return [0.55 * Math.cos(t), 0.48 + 0.52 * Math.sin(t) ** 0.9];
  });
  return [[-0.2, 0], [0.2, 0], [0.15, 0.44], [0.5, 0.42], ...dome, [-0.5, 0.42], [-0.15, 0.44]];
}

/** The same points in a mirror, from the last to the first. */
function mirroredUp(points: readonly Point[]): Point[] {
  return points.map(([x, y]): Point => [-x, y]).reverse();
}

/** A shape by its name: one of a card's own, or one built in. */
export function shapeNamed(name: string, own: Readonly<Record<string, Loop>> = {}): Loop | undefined {
  return own[name] ?? drawn.get(name) ?? drawnOnce(name);
}

const drawn = new Map<string, Loop>();

/** One and the same loop for a built-in shape, whoever asks: what was worked out of it can be known again. */
function drawnOnce(name: string): Loop | undefined {
  const loop = SHAPES.find(({ id }) => id === name)?.draw();
  if (loop) drawn.set(name, loop);
  return loop;
}
