import { parseSync, type INode } from 'svgson';
import svgpath from 'svgpath';
import type { CardDocument } from '../card/document.js';
import { unite } from '../plane/boolean.js';
import { boxOf, signedArea, type Loop } from '../plane/outline.js';
import { distanceToSegment, type Point } from '../plane/point.js';

/** A drawing of one outline is small; anything much larger is a picture of something else. */
export const LARGEST_SVG = 1024 * 1024;

export type OwnOutline = NonNullable<CardDocument['outlines']>[number];

export type OutlineReading =
  { ok: true; outline: OwnOutline; /** what was left out, in a sentence */ note?: string } | { ok: false; says: string };

/** Outlines are brought to this size, the longer way: they are scaled to the wished size when they are used. */
const LONGER = 1000;
/** Curves are followed to this share of it: a fiftieth of a mm on a shape of 100 mm. */
const CLOSE_ENOUGH = LONGER * 2e-4;
/** Straight pieces that a curve becomes before it is thinned out. */
const CURVE_STEPS = 48;
const MOST_POINTS = 600;
const MOST_SHAPES = 400;
/** Ends of a path nearer than this share of its own size are one point: it was meant to be closed. */
const GAP_SHARE = 1e-3;

/**
 * Reads one closed outline out of an SVG drawing: its largest. Transforms are applied, curves become
 * short straight lines, and y is turned up. Text of the file never reaches a page; only numbers are kept.
 * @param name how the maker calls it, from the file's name
 */
export function readOutlineSvg(text: string, name: string): OutlineReading {
  if (text.length > LARGEST_SVG)
    return refuse(name, `is ${Math.ceil(text.length / 1024)} kB long; allowed: at most ${LARGEST_SVG / 1024} kB`);
  let root: INode;
  try {
    root = parseSync(text);
  } catch {
    return refuse(name, 'is not an SVG drawing');
  }
  if (root.name !== 'svg') return refuse(name, 'is not an SVG drawing');
  const shapes = shapesIn(root, '').slice(0, MOST_SHAPES);
  if (shapes.length === 0)
    return refuse(name, 'holds no path, polygon, rectangle, circle or ellipse; text and pictures must be turned into paths first');
  const paths: SubPath[] = [];
  try {
    for (const shape of shapes) paths.push(...subPaths(shape));
  } catch (error) {
    return refuse(name, error instanceof Error ? error.message : 'cannot be read');
  }
  const closed = paths.filter((path) => path.closed).map((path) => path.points);
  const largest = closed.reduce<Loop | undefined>((most, loop) => (sizeOf(loop) > sizeOf(most) ? loop : most), undefined);
  if (!largest || sizeOf(largest) < 1e-9) {
    return refuse(name, `holds ${paths.length === 0 ? 'no line' : 'only open lines'}; allowed: a closed path, whose end meets its start`);
  }
  const outline = tidied(largest);
  if (outline.length < 3) return refuse(name, 'encloses nothing; allowed: a closed path round an area');
  const points = outline.map(([x, y]): [number, number] => [Number(x.toFixed(2)), Number(y.toFixed(2))]);
  const others = closed.length - 1;
  return {
    ok: true,
    outline: { id: `own-${slug(name)}`, name: name.slice(0, 60) || 'own outline', points },
    ...(others > 0 && {
      note: `The largest of ${closed.length} closed lines was taken; ${others === 1 ? 'the other one was' : 'the others were'} left out.`,
    }),
  };
}

function refuse(name: string, why: string): OutlineReading {
  return { ok: false, says: `${name} ${why}.` };
}

interface Shape {
  d: string;
  transform: string;
}

/** Everything drawn, as path data with the transforms of all groups round it; what is only defined and never drawn is left out. */
function shapesIn(node: INode, outer: string): Shape[] {
  if (['defs', 'clipPath', 'mask', 'symbol', 'marker', 'pattern'].includes(node.name)) return [];
  const transform = [outer, node.attributes['transform'] ?? ''].filter(Boolean).join(' ');
  const d = pathData(node);
  return [...(d ? [{ d, transform }] : []), ...node.children.flatMap((child) => shapesIn(child, transform))];
}

function pathData({ name, attributes }: INode): string | undefined {
  const n = (key: string, preset = 0): number => Number.parseFloat(attributes[key] ?? String(preset));
  const round = (cx: number, cy: number, rx: number, ry: number): string =>
    `M${cx - rx} ${cy}A${rx} ${ry} 0 1 0 ${cx + rx} ${cy}A${rx} ${ry} 0 1 0 ${cx - rx} ${cy}Z`;
  switch (name) {
    case 'path':
      return attributes['d'];
    case 'polygon':
      return attributes['points'] ? `M${attributes['points']}Z` : undefined;
    case 'polyline':
      return attributes['points'] ? `M${attributes['points']}` : undefined;
    case 'rect':
      return `M${n('x')} ${n('y')}h${n('width')}v${n('height')}h${-n('width')}Z`;
    case 'circle':
      return round(n('cx'), n('cy'), n('r'), n('r'));
    case 'ellipse':
      return round(n('cx'), n('cy'), n('rx'), n('ry'));
    default:
      return undefined;
  }
}

interface SubPath {
  points: Point[];
  closed: boolean;
}

/** A path taken apart into its lines, curves flattened. @throws Error in the maker's words when it cannot be read */
function subPaths({ d, transform }: Shape): SubPath[] {
  const path = svgpath(d).transform(transform);
  const fault = (path as unknown as { err?: string }).err;
  if (fault) throw new Error(`holds a path that cannot be read (${fault.replace(/^SvgPath: /, '')})`);
  const found: SubPath[] = [];
  let current: SubPath = { points: [], closed: false };
  path
    .abs()
    .unarc()
    .unshort()
    .iterate(([command, ...numbers], _, x, y) => {
      const n = numbers as number[];
      if (n.some((value) => !Number.isFinite(value) || Math.abs(value) > 1e7))
        throw new Error('holds a coordinate that is not a usable number');
      const here: Point = [x, y];
      if (command === 'M') current = startAt(found, [n[0]!, n[1]!]);
      else if (command === 'Z') {
        current.closed = true;
        // A line may go on after its end was joined, from where it began.
        current = startAt(found, current.points[0] ?? here);
      } else if (command === 'C') current.points.push(...curve(here, [n[0]!, n[1]!], [n[2]!, n[3]!], [n[4]!, n[5]!]));
      else if (command === 'Q') current.points.push(...quadratic(here, [n[0]!, n[1]!], [n[2]!, n[3]!]));
      else current.points.push([command === 'V' ? x : n[0]!, command === 'V' ? n[0]! : command === 'H' ? y : n[1]!]);
    });
  return found.filter((sub) => sub.points.length > 2).map((sub) => ({ ...sub, closed: sub.closed || endsMeet(sub.points) }));
}

function startAt(found: SubPath[], at: Point): SubPath {
  const sub: SubPath = { points: [at], closed: false };
  found.push(sub);
  return sub;
}

function endsMeet(points: readonly Point[]): boolean {
  const { minX, maxX, minY, maxY } = boxOf(points);
  const [first, last] = [points[0]!, points[points.length - 1]!];
  return Math.hypot(first[0] - last[0], first[1] - last[1]) <= GAP_SHARE * Math.max(maxX - minX, maxY - minY);
}

/** Points along a cubic curve, without its start. Even steps: what is too many is thinned out at the end. */
function curve(a: Point, b: Point, c: Point, d: Point): Point[] {
  return Array.from({ length: CURVE_STEPS }, (_, i): Point => {
    const t = (i + 1) / CURVE_STEPS;
    const u = 1 - t;
    const at = (k: 0 | 1): number => u * u * u * a[k] + 3 * u * u * t * b[k] + 3 * u * t * t * c[k] + t * t * t * d[k];
    return [at(0), at(1)];
  });
}

/** A quadratic curve is the cubic whose handles lie two thirds of the way to its one. */
function quadratic(a: Point, b: Point, c: Point): Point[] {
  const toward = (p: Point): Point => [p[0] + (2 / 3) * (b[0] - p[0]), p[1] + (2 / 3) * (b[1] - p[1])];
  return curve(a, toward(a), toward(c), c);
}

function sizeOf(loop: Loop | undefined): number {
  return loop ? Math.abs(signedArea(loop)) : 0;
}

/** Turned y up, brought to a common height, crossings of the line with itself taken out, and no more points than needed. */
function tidied(loop: Loop): Loop {
  const { minX, maxX, minY, maxY } = boxOf(loop);
  const scale = LONGER / Math.max(maxX - minX, maxY - minY);
  const placed = loop.map(([x, y]): Point => [(x - minX) * scale, (maxY - y) * scale]);
  const upright = signedArea(placed) > 0 ? placed : placed.reverse();
  const whole = unite([{ outer: upright, holes: [] }]).reduce<Loop>(
    (most, part) => (signedArea(part) > signedArea(most) ? part : most),
    [],
  );
  let tolerance = CLOSE_ENOUGH;
  let thin = simplified(whole, tolerance);
  while (thin.length > MOST_POINTS) thin = simplified(whole, (tolerance *= 2));
  return thin;
}

/** Leaves out points that lie within a tolerance of the line without them (Ramer–Douglas–Peucker, on both halves of the loop). */
function simplified(loop: Loop, tolerance: number): Loop {
  if (loop.length < 4) return loop;
  const first = loop[0]!;
  const far = loop.reduce(
    (most, p, i) =>
      Math.hypot(p[0] - first[0], p[1] - first[1]) > Math.hypot(loop[most]![0] - first[0], loop[most]![1] - first[1]) ? i : most,
    0,
  );
  return [...thinned(loop.slice(0, far + 1), tolerance).slice(0, -1), ...thinned([...loop.slice(far), first], tolerance).slice(0, -1)];
}

function thinned(line: readonly Point[], tolerance: number): Point[] {
  const [from, to] = [line[0]!, line[line.length - 1]!];
  let worst = { off: tolerance, at: -1 };
  line.forEach((p, i) => {
    const off = distanceToSegment(p, from, to);
    if (off > worst.off && i > 0 && i < line.length - 1) worst = { off, at: i };
  });
  if (worst.at < 0) return [from, to];
  return [...thinned(line.slice(0, worst.at + 1), tolerance).slice(0, -1), ...thinned(line.slice(worst.at), tolerance)];
}

function slug(name: string): string {
  const plain = name
    .toLowerCase()
    .replace(/\.svg$/, '')
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-+|-+$/g, '')
    .slice(0, 36);
  // Letters that an id cannot hold still tell one drawing from another.
  const isWhole = [...name].every((letter) => letter.codePointAt(0)! < 128);
  return isWhole && plain ? plain : `${plain.slice(0, 28) || 'outline'}-${hashed(name)}`;
}

/** A short number for words, by which two are told apart (FNV-1a, 32 bits). */
function hashed(words: string): string {
  let hash = 0x811c9dc5;
  for (const letter of words) hash = Math.imul(hash ^ letter.codePointAt(0)!, 0x01000193);
  return (hash >>> 0).toString(36);
}
