import type { Evaluation } from '../evaluate.js';
import { frameAt, poseOf, unplacedIn, type Frame } from '../linkage/motion.js';
import { carry, type Rigid, type Vec3 } from '../linkage/rigid.js';
import { toDegrees } from '../measure/units.js';
import { intersect, totalArea } from '../plane/boolean.js';
import { boxOf, signedArea, type Box, type Loop } from '../plane/outline.js';
import { turn, type Point } from '../plane/point.js';
import { triangulate } from '../plane/triangles.js';
import type { Panel } from '../sheet/panels.js';
import type { Piece } from '../sheet/piece.js';

/** How an edge folds: mountain, valley, boundary, flat (drawn, never folded), cut. */
export type Assignment = 'M' | 'V' | 'B' | 'F' | 'C';

/** One state of one piece, or of the whole card, as the open FOLD format has it. */
export interface FoldFrame {
  frame_title: string;
  frame_description?: string;
  frame_classes: string[];
  frame_attributes: string[];
  frame_unit: 'mm';
  vertices_coords: number[][];
  edges_vertices: [number, number][];
  edges_assignment: Assignment[];
  /** degrees, valley positive; the angle in the closed card for a flat piece, the present one for a folded card */
  edges_foldAngle: number[];
  faces_vertices: number[][];
  /** [f, g, s]: face f lies on the side of g to which its normal points (1) or on the other (−1) */
  faceOrders?: [number, number, number][];
}

export interface FoldFile extends FoldFrame {
  file_spec: 1.2;
  file_creator: string;
  file_title: string;
  file_classes: string[];
  file_frames: FoldFrame[];
}

/**
 * A card in the open FOLD format (JSON for crease patterns): every piece as a flat crease pattern, then
 * the whole card closed, half open and as it is put down. Lengths mm. Pieces are nominal, without the
 * thickness allowances of the cut sheets, so that flat and folded states are the same paper.
 */
export function writeFold(evaluation: Evaluation): string {
  return `${JSON.stringify(foldFile(evaluation), null, 1)}\n`;
}

export function foldFile(evaluation: Evaluation): FoldFile {
  const { design, motion, resting } = evaluation;
  const flat = design.pieces.map((piece) => flatFrame(evaluation, piece));
  const folded = [
    { ...foldedFrame(evaluation, (motion.pressed ?? motion).frames[0]!, 'closed'), faceOrders: ordersOf(evaluation) },
    foldedFrame(evaluation, frameAt(motion, design.schedule, 0.5), 'half open'),
    foldedFrame(evaluation, resting, 'as it is put down'),
  ];
  const [first, ...others] = flat;
  return {
    file_spec: 1.2,
    file_creator: 'Diptychon',
    file_title: design.card.name,
    file_classes: ['multiModel'],
    ...first!,
    file_frames: [...others, ...folded],
  };
}

/** Numbers vertices: the same place on the same piece and in space is one vertex. */
class Vertices {
  readonly coords: number[][] = [];
  private readonly known = new Map<string, number>();

  indexOf(key: string, coords: number[]): number {
    const found = this.known.get(key);
    if (found !== undefined) return found;
    this.known.set(key, this.coords.length);
    return this.coords.push(coords.map((n) => Number(n.toFixed(6)) || 0)) - 1;
  }
}

const GRID = 1e5;
const at = (...numbers: readonly number[]): string => numbers.map((n) => Math.round(n * GRID)).join(' ');

/** The faces of a panel as simple polygons: itself, or triangles when it has openings. Counter-clockwise. */
function facesOf({ area }: Panel): Loop[] {
  if (area.holes.length === 0) return [area.outer];
  const { points, corners } = triangulate(area);
  const faces: Loop[] = [];
  for (let i = 0; i < corners.length; i += 3) {
    const [a, b, c] = [points[corners[i]!]!, points[corners[i + 1]!]!, points[corners[i + 2]!]!];
    faces.push(turn(a, b, c) > 0 ? [a, b, c] : [c, b, a]);
  }
  return faces;
}

interface Face {
  panel: Panel;
  outline: Loop;
}

const allFaces = (panels: readonly Panel[]): Face[] => panels.flatMap((panel) => facesOf(panel).map((outline) => ({ panel, outline })));

function flatFrame({ design }: Evaluation, piece: Piece): FoldFrame {
  const faces = allFaces(design.panels.filter((panel) => panel.piece.id === piece.id));
  const vertices = new Vertices();
  const folds = design.linkage.hinges.map(({ source }) => source.crease.closed);
  const mesh = meshOf(design, faces, folds, (_, [x, y]) => vertices.indexOf(at(x, y), [x, y]));
  return {
    frame_title: piece.name,
    frame_description: `${piece.faceUp}. Nominal: thickness allowances of the cut sheet are not in it.`,
    frame_classes: ['creasePattern'],
    frame_attributes: ['2D', mesh.edges_assignment.includes('C') ? 'cuts' : 'noCuts'],
    frame_unit: 'mm',
    vertices_coords: vertices.coords,
    ...mesh,
  };
}

function foldedFrame({ design, motion }: Evaluation, frame: Frame, title: string): FoldFrame {
  const pose = poseOf(motion, frame);
  const unplaced = unplacedIn(motion, frame);
  const placed = design.panels.filter((_, body) => !unplaced.has(body));
  const bodyOf = (panel: Panel): Rigid => pose[design.linkage.bodyOf.get(panel.id)!]!;
  const vertices = new Vertices();
  const mesh = meshOf(design, allFaces(placed), frame.folds, (panel, [x, y]) => {
    const p: Vec3 = carry(bodyOf(panel), x, y, 0);
    return vertices.indexOf(`${panel.piece.id} ${at(x, y)} ${at(...p)}`, [...p]);
  });
  return {
    frame_title: title,
    ...(unplaced.size > 0 && { frame_description: 'Panels that bend on the way are left out: no stiff face shows where they are.' }),
    frame_classes: ['foldedForm'],
    frame_attributes: ['3D'],
    frame_unit: 'mm',
    vertices_coords: vertices.coords,
    ...mesh,
  };
}

type Mesh = Pick<FoldFrame, 'edges_vertices' | 'edges_assignment' | 'edges_foldAngle' | 'faces_vertices'>;

/** Edges and faces over numbered vertices. An edge is what two faces share, or one face has for itself. */
function meshOf(
  design: Evaluation['design'],
  faces: readonly Face[],
  folds: ArrayLike<number>,
  number: (panel: Panel, at: Point) => number,
): Mesh {
  const found = new Map<string, { ends: [number, number]; from: Point; to: Point; panels: Panel[] }>();
  const faces_vertices = faces.map(({ panel, outline }) => {
    const corners = outline.map((p) => number(panel, p));
    corners.forEach((a, i) => {
      const b = corners[(i + 1) % corners.length]!;
      const key = a < b ? `${a} ${b}` : `${b} ${a}`;
      const known = found.get(key);
      if (known) known.panels.push(panel);
      else found.set(key, { ends: [a, b], from: outline[i]!, to: outline[(i + 1) % outline.length]!, panels: [panel] });
    });
    return corners;
  });
  const edges = [...found.values()].map(({ ends, from, to, panels }) => ({ ends, ...assigned(design, from, to, panels, folds) }));
  return {
    edges_vertices: edges.map((edge) => edge.ends),
    edges_assignment: edges.map((edge) => edge.assignment),
    edges_foldAngle: edges.map((edge) => edge.angle),
    faces_vertices,
  };
}

function assigned(
  { linkage }: Evaluation['design'],
  from: Point,
  to: Point,
  panels: readonly Panel[],
  folds: ArrayLike<number>,
): { assignment: Assignment; angle: number } {
  const [one, other] = panels;
  if (!other) return { assignment: onCut(one!, from, to) ? 'C' : 'B', angle: 0 };
  if (one === other) return { assignment: 'F', angle: 0 };
  const index = linkage.hinges.findIndex(({ source }) => [source.left, source.right].every((id) => id === one!.id || id === other.id));
  const hinge = linkage.hinges[index];
  if (!hinge || !isAlong(hinge.source, from, to)) return { assignment: 'C', angle: 0 };
  return { assignment: hinge.source.crease.fold === 'valley' ? 'V' : 'M', angle: Number(toDegrees(folds[index]!).toFixed(6)) || 0 };
}

function isAlong({ from: a, to: b }: { from: Point; to: Point }, ...points: readonly Point[]): boolean {
  const length = Math.hypot(b[0] - a[0], b[1] - a[1]);
  return points.every((p) => Math.abs((b[0] - a[0]) * (p[1] - a[1]) - (b[1] - a[1]) * (p[0] - a[0])) < 1e-5 * length);
}

/** Whether an edge with one face, in a folded card, is a side of a cut whose two sides have parted. */
function onCut({ piece }: Panel, from: Point, to: Point): boolean {
  return piece.cuts.some((cut) => isAlong(cut, from, to) && within(cut, from) && within(cut, to));
}

function within({ from, to }: { from: Point; to: Point }, p: Point): boolean {
  const slack = 1e-5;
  return (
    p[0] >= Math.min(from[0], to[0]) - slack &&
    p[0] <= Math.max(from[0], to[0]) + slack &&
    p[1] >= Math.min(from[1], to[1]) - slack &&
    p[1] <= Math.max(from[1], to[1]) + slack
  );
}

/** Faces that share less than this, mm², do not lie on each other. */
const SHARED = 1e-3;

/** Which face lies on which in the closed card, for every two that cover each other anywhere. */
function ordersOf({ design, closed, motion }: Evaluation): [number, number, number][] {
  const pose = poseOf(motion, (motion.pressed ?? motion).frames[0]!);
  const place = new Map(closed.stack.order.map((body, i) => [body, i]));
  // Where the layers lie on one another in a circle there is no order to tell.
  if (place.size < design.panels.length) return [];
  const faces = allFaces(design.panels).map(({ panel, outline }) => {
    const body = design.linkage.bodyOf.get(panel.id)!;
    const seen = outline.map(([x, y]): Point => {
      const [X, Y] = carry(pose[body]!, x, y, 0);
      return [X, Y];
    });
    return { body, area: { outer: signedArea(seen) < 0 ? seen.reverse() : seen, holes: [] }, box: boxOf(seen) };
  });
  const orders: [number, number, number][] = [];
  faces.forEach((one, f) => {
    faces.slice(0, f).forEach((other, g) => {
      if (one.body === other.body || !boxesMeet(one.box, other.box)) return;
      if (totalArea(intersect([one.area], [other.area])) < SHARED) return;
      const above = place.get(one.body)! > place.get(other.body)!;
      orders.push([f, g, above === closed.stack.layers[other.body]!.faceUp ? 1 : -1]);
    });
  });
  return orders;
}

const boxesMeet = (a: Box, b: Box): boolean => a.minX < b.maxX && b.minX < a.maxX && a.minY < b.maxY && b.minY < a.maxY;
