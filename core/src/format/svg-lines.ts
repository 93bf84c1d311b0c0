import { parseSync, type INode } from 'svgson';
import svgpath from 'svgpath';
import { boxOf } from '../plane/outline.js';
import type { Point } from '../plane/point.js';

/** A drawing of lines is small; anything much larger is a picture of something else. */
export const LARGEST_SVG = 1024 * 1024;

/** Straight pieces that a curve becomes. */
const CURVE_STEPS = 48;
const MOST_ELEMENTS = 20_000;
/** Groups within groups: drawing programs nest a dozen. */
const MOST_NESTED = 100;
/** Ends of a path nearer than this share of its own size are one point: it was meant to be closed. */
const GAP_SHARE = 1e-3;

export type DrawnReading = { ok: true; root: Readonly<Record<string, string>>; shapes: SvgShape[] } | { ok: false; why: string };

/** Everything drawn in an SVG, and the attributes of its root; or why it is none. Text of the file never reaches a page. */
export function drawnIn(text: string): DrawnReading {
  if (text.length > LARGEST_SVG)
    return { ok: false, why: `is ${Math.ceil(text.length / 1024)} kB long; allowed: at most ${LARGEST_SVG / 1024} kB` };
  const nesting = nestingOf(text);
  if (nesting.elements > MOST_ELEMENTS)
    return { ok: false, why: `holds more than ${MOST_ELEMENTS} elements; allowed is a drawing of fewer` };
  if (nesting.deepest > MOST_NESTED)
    return { ok: false, why: `is nested ${nesting.deepest} groups deep; allowed: at most ${MOST_NESTED}, so ungroup it first` };
  let root: INode;
  try {
    root = parseSync(text);
  } catch {
    return { ok: false, why: 'is not an SVG drawing' };
  }
  if (root.name !== 'svg') return { ok: false, why: 'is not an SVG drawing' };
  return { ok: true, root: root.attributes, shapes: shapesIn(root, '', []) };
}

/** How many elements a drawing has and how deep they are nested, counted before anything is built from them. */
function nestingOf(text: string): { elements: number; deepest: number } {
  let [elements, depth, deepest] = [0, 0, 0];
  for (const [, closing, self] of text.matchAll(/<(\/?)[a-z][^<>]*?(\/?)>/gi)) {
    if (closing) depth--;
    else {
      elements++;
      if (!self) deepest = Math.max(deepest, ++depth);
    }
  }
  return { elements, deepest };
}

/** Something drawn: path data, the transforms of all groups round it, and the classes of all of them, innermost first. */
export interface SvgShape {
  d: string;
  transform: string;
  classes: string[];
}

/** Everything drawn, as path data with the transforms of all groups round it; what is only defined and never drawn is left out. */
function shapesIn(node: INode, outer: string, around: string[]): SvgShape[] {
  if (['defs', 'clipPath', 'mask', 'symbol', 'marker', 'pattern'].includes(node.name)) return [];
  const transform = [outer, node.attributes['transform'] ?? ''].filter(Boolean).join(' ');
  const classes = [...(node.attributes['class'] ?? '').split(/\s+/).filter(Boolean), ...around];
  const d = pathData(node);
  return [...(d ? [{ d, transform, classes }] : []), ...node.children.flatMap((child) => shapesIn(child, transform, classes))];
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

/** One line of a shape, curves followed by short straight pieces; y runs down. */
export interface SvgLine {
  points: Point[];
  closed: boolean;
}

/** A path taken apart into its lines, curves flattened. @throws Error in the maker's words when it cannot be read */
export function linesOfShape({ d, transform }: SvgShape): SvgLine[] {
  const path = svgpath(d).transform(transform);
  const fault = (path as unknown as { err?: string }).err;
  if (fault) throw new Error(`holds a path that cannot be read (${fault.replace(/^SvgPath: /, '')})`);
  const found: SvgLine[] = [];
  let current: SvgLine = { points: [], closed: false };
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
  return found
    .filter((sub) => sub.points.length > 1)
    .map((sub) => ({ ...sub, closed: sub.closed || (sub.points.length > 2 && endsMeet(sub.points)) }));
}

function startAt(found: SvgLine[], at: Point): SvgLine {
  const sub: SvgLine = { points: [at], closed: false };
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
