import { boxOf, loopContains, signedArea, type Area, type Box, type Loop } from './outline.js';
import { distance, type Point } from './point.js';

/** A straight line drawn on a sheet, with whatever its owner wants to recognise it by. */
export interface LabelledSegment<L> {
  from: Point;
  to: Point;
  label: L;
}

/** A piece of a segment between two crossings, with the faces on both sides (-1: outside). */
export interface ArrangedEdge<L> {
  from: Point;
  to: Point;
  labels: L[];
  left: number;
  right: number;
}

export interface Arrangement<L> {
  faces: Area[];
  edges: ArrangedEdge<L>[];
}

/** Points closer than this are one corner. */
const SNAP = 1e-6;

/**
 * Cuts the plane along all segments at once and returns its bounded faces, every edge keeping
 * the labels of all segments that run along it. One half-edge arrangement: crossings are split,
 * overlaps merged, loops traced by turning at each corner to the next edge clockwise; clockwise
 * loops become holes of the face around them. Dangling ends leave no mark on a face's outline.
 */
export function arrange<L>(segments: readonly LabelledSegment<L>[]): Arrangement<L> {
  const corners = new Corners();
  const edges = mergedEdges(splitAtCrossings(segments), corners);
  const { loopOf, loops } = traceLoops(edges, corners);
  const { faces, faceOfLoop } = facesFrom(loops.map(withoutSpurs), corners.points);
  return {
    faces,
    edges: edges.map((edge, i) => ({
      from: corners.points[edge.a]!,
      to: corners.points[edge.b]!,
      labels: edge.labels,
      left: faceOfLoop[loopOf[2 * i]!]!,
      right: faceOfLoop[loopOf[2 * i + 1]!]!,
    })),
  };
}

/** Numbers points so that two within the snapping distance are one corner. Found by the cell of a grid they lie in. */
class Corners {
  readonly points: Point[] = [];
  private readonly cells = new Map<number, number[]>();

  indexOf(p: Point): number {
    const [x, y] = p;
    // Nearly always one cell; a point by a cell's edge is looked for on the other side too.
    const here = cellOf(x - SNAP, y - SNAP);
    const across = cellOf(x + SNAP, y - SNAP);
    const along = cellOf(x - SNAP, y + SNAP);
    const known =
      this.near(p, here) ??
      (across === here ? undefined : this.near(p, across)) ??
      (along === here ? undefined : this.near(p, along)) ??
      (across === here || along === here ? undefined : this.near(p, cellOf(x + SNAP, y + SNAP)));
    if (known !== undefined) return known;
    const index = this.points.push(p) - 1;
    const cell = cellOf(p[0], p[1]);
    const there = this.cells.get(cell);
    if (there) there.push(index);
    else this.cells.set(cell, [index]);
    return index;
  }

  private near(p: Point, cell: number): number | undefined {
    const there = this.cells.get(cell);
    if (there) for (const i of there) if (distance(p, this.points[i]!) < SNAP) return i;
    return undefined;
  }
}

const CELL = 0.25;
/** Cells along y follow each other, those along x lie a million apart: far more than a drawing is high. */
const cellOf = (x: number, y: number): number => Math.floor(x / CELL) * 1e6 + Math.floor(y / CELL);

interface Edge<L> {
  a: number;
  b: number;
  labels: L[];
}

function splitAtCrossings<L>(segments: readonly LabelledSegment<L>[]): LabelledSegment<L>[] {
  const stops = segments.map(() => [0, 1]);
  const boxes = segments.map(({ from, to }) => boxOf([from, to]));
  for (let i = 0; i < segments.length; i++) {
    for (let j = i + 1; j < segments.length; j++) {
      if (apart(boxes[i]!, boxes[j]!)) continue;
      for (const [ti, tj] of crossings(segments[i]!, segments[j]!)) {
        stops[i]!.push(ti);
        stops[j]!.push(tj);
      }
    }
  }
  return segments.flatMap(({ from, to, label }, i) => {
    const ordered = stops[i]!.filter((t) => t >= 0 && t <= 1).sort((a, b) => a - b);
    const at = (t: number): Point => (t === 0 ? from : t === 1 ? to : [from[0] + (to[0] - from[0]) * t, from[1] + (to[1] - from[1]) * t]);
    return ordered.slice(1).map((t, k) => ({ from: at(ordered[k]!), to: at(t), label }));
  });
}

function apart(a: Box, b: Box): boolean {
  return a.minX > b.maxX + SNAP || b.minX > a.maxX + SNAP || a.minY > b.maxY + SNAP || b.minY > a.maxY + SNAP;
}

type Span = { from: Point; to: Point };

/** Parameters (on both segments) where they meet: one for a crossing, the shared ends of an overlap. */
function crossings(s: Span, r: Span): [number, number][] {
  const dx = s.to[0] - s.from[0];
  const dy = s.to[1] - s.from[1];
  const ex = r.to[0] - r.from[0];
  const ey = r.to[1] - r.from[1];
  const det = dx * ey - dy * ex;
  const lengths = Math.hypot(dx, dy) * Math.hypot(ex, ey);
  const ox = r.from[0] - s.from[0];
  const oy = r.from[1] - s.from[1];
  if (Math.abs(det) > 1e-12 * lengths) {
    const t = (ox * ey - oy * ex) / det;
    const u = (ox * dy - oy * dx) / det;
    const slackS = SNAP / Math.hypot(dx, dy);
    const slackR = SNAP / Math.hypot(ex, ey);
    if (t < -slackS || t > 1 + slackS || u < -slackR || u > 1 + slackR) return [];
    return [[snapEnd(t, slackS), snapEnd(u, slackR)]];
  }
  if (Math.abs(ox * dy - oy * dx) > SNAP * Math.hypot(dx, dy)) return [];
  const along = (p: Point, span: Span): number => {
    const lx = span.to[0] - span.from[0];
    const ly = span.to[1] - span.from[1];
    const t = ((p[0] - span.from[0]) * lx + (p[1] - span.from[1]) * ly) / (lx * lx + ly * ly);
    return snapEnd(t, SNAP / Math.hypot(lx, ly));
  };
  return [
    [0, along(s.from, r)],
    [1, along(s.to, r)],
    [along(r.from, s), 0],
    [along(r.to, s), 1],
  ];
}

function snapEnd(t: number, slack: number): number {
  if (Math.abs(t) <= slack) return 0;
  return Math.abs(t - 1) <= slack ? 1 : t;
}

function mergedEdges<L>(segments: readonly LabelledSegment<L>[], corners: Corners): Edge<L>[] {
  const byEnds = new Map<string, Edge<L>>();
  for (const { from, to, label } of segments) {
    const a = corners.indexOf(from);
    const b = corners.indexOf(to);
    if (a === b) continue;
    const key = a < b ? `${a}-${b}` : `${b}-${a}`;
    const known = byEnds.get(key);
    if (!known) byEnds.set(key, { a, b, labels: [label] });
    else if (!known.labels.includes(label)) known.labels.push(label);
  }
  return [...byEnds.values()];
}

/** Half-edge 2i runs a→b of edge i, 2i+1 back. Following `next` walks a face with its area on the left. */
function traceLoops<L>(edges: readonly Edge<L>[], corners: Corners): { loopOf: number[]; loops: number[][] } {
  const start = (h: number): number => (h % 2 === 0 ? edges[h >> 1]!.a : edges[h >> 1]!.b);
  const end = (h: number): number => start(h ^ 1);
  const angle = (h: number): number => {
    const p = corners.points[start(h)]!;
    const q = corners.points[end(h)]!;
    return Math.atan2(q[1] - p[1], q[0] - p[0]);
  };
  const leaving: number[][] = corners.points.map(() => []);
  for (let h = 0; h < 2 * edges.length; h++) leaving[start(h)]!.push(h);
  for (const list of leaving) list.sort((g, h) => angle(g) - angle(h));
  const next = (h: number): number => {
    const around = leaving[end(h)]!;
    const back = around.indexOf(h ^ 1);
    return around[(back + around.length - 1) % around.length]!;
  };
  const loopOf = new Array<number>(2 * edges.length).fill(-1);
  const loops: number[][] = [];
  for (let h = 0; h < 2 * edges.length; h++) {
    if (loopOf[h] !== -1) continue;
    const loop: number[] = [];
    for (let g = h; loopOf[g] === -1; g = next(g)) {
      loopOf[g] = loops.length;
      loop.push(start(g));
    }
    loops.push(loop);
  }
  return { loopOf, loops };
}

/** Removes corners where a walk turns back on itself: the two sides of a dangling cut. */
function withoutSpurs(walk: readonly number[]): number[] {
  const kept = [...walk];
  for (let i = 0; i < kept.length && kept.length > 2;) {
    const n = kept.length;
    if (kept[(i + n - 1) % n] === kept[(i + 1) % n]) {
      const tip = i;
      const twin = (i + 1) % n;
      for (const drop of [tip, twin].sort((a, b) => b - a)) kept.splice(drop, 1);
      i = Math.max(0, i - 2);
    } else i++;
  }
  return kept;
}

function facesFrom(walks: readonly (readonly number[])[], points: readonly Point[]): { faces: Area[]; faceOfLoop: number[] } {
  const faces: (Area & { holes: Loop[]; corners: ReadonlySet<number>; size: number })[] = [];
  const loops = walks.map((walk): Loop => walk.map((corner) => points[corner]!));
  const areas = loops.map((loop) => (loop.length < 3 ? 0 : signedArea(loop)));
  const faceOfLoop = loops.map((outer, i) =>
    areas[i]! > SNAP ? faces.push({ outer, holes: [], corners: new Set(walks[i]!), size: areas[i]! }) - 1 : -1,
  );
  loops.forEach((loop, i) => {
    if (areas[i]! > SNAP) return;
    const touches = (face: (typeof faces)[number]): boolean => walks[i]!.some((corner) => face.corners.has(corner));
    // The smallest face that the loop lies strictly inside of.
    const around = faces.reduce((best, face, k) => {
      if (!loop[0] || touches(face) || !loopContains(face.outer, loop[0])) return best;
      return best < 0 || face.size < faces[best]!.size ? k : best;
    }, -1);
    faceOfLoop[i] = around;
    if (around >= 0 && areas[i]! < -SNAP) faces[around]!.holes.push(loop);
  });
  return { faces: faces.map(({ outer, holes }) => ({ outer, holes })), faceOfLoop };
}
