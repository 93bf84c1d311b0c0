import { claimsOf } from '../card/draw.js';
import type { DressedLayer } from '../dress/layer.js';
import type { Evaluation } from '../evaluate.js';
import { poseOf } from '../linkage/motion.js';
import { carry, dot, minus, type Vec3 } from '../linkage/rigid.js';
import type { Mm } from '../measure/units.js';
import { place } from '../plane/placement.js';
import type { Point } from '../plane/point.js';
import { waysOf, type CutJob, type JobPiece } from './cut-job.js';
import type { Blank, PlacedBlank, Rectangle } from './guillotine.js';
import { onSheet } from './outline-nesting.js';

/** What is laid on a sheet as one: a piece, or two layers over which a picture runs, as they lie beside one another. */
export interface CutUnit {
  id: string;
  width: Mm;
  height: Mm;
  /** each with its lower left corner, as the unit is drawn */
  members: readonly { piece: JobPiece; at: Point }[];
}

/** Directions nearer than this are one. */
const ALIKE = 1e-6;

/**
 * The pieces of a job as they are laid on sheets of a size: two layers that meet in the closed card are cut side by side, their gap
 * between them, so that a pattern runs on over both. Where no sheet takes the two together, each is laid by itself.
 */
export function unitsOf({ stock, pieces }: CutJob, evaluation: Evaluation, on: { width: Mm; height: Mm }): CutUnit[] {
  const pairs = neighbours(evaluation);
  const taken = new Set<JobPiece>();
  const units: CutUnit[] = [];
  for (const piece of pieces) {
    if (taken.has(piece)) continue;
    taken.add(piece);
    const pair = pairs.find(({ first }) => first.id === piece.sheet.piece.id);
    const other = pair && pieces.find((one) => one.sheet.piece.id === pair.second.id && one.copy === piece.copy && !taken.has(one));
    const both = pair && other && together(piece, other, pair.at);
    if (both && fits(both, waysOf(piece, stock, on).lies, on)) {
      taken.add(other);
      units.push(both);
    } else units.push({ id: piece.id, width: piece.sheet.width, height: piece.sheet.height, members: [{ piece, at: [0, 0] }] });
  }
  return units;
}

const fits = ({ width, height }: CutUnit, lies: Blank['lies'], on: { width: Mm; height: Mm }): boolean =>
  (lies !== 'turned' && width <= on.width && height <= on.height) || (lies !== 'upright' && height <= on.width && width <= on.height);

function together(piece: JobPiece, other: JobPiece, [x, y]: Point): CutUnit {
  const [left, low] = [Math.min(0, x), Math.min(0, y)];
  return {
    id: piece.id,
    width: Math.max(piece.sheet.width, x + other.sheet.width) - left,
    height: Math.max(piece.sheet.height, y + other.sheet.height) - low,
    members: [
      { piece, at: [-left, -low] },
      { piece: other, at: [x - left, y - low] },
    ],
  };
}

/** Where a member of a unit lies on the sheet that its unit is laid on. */
export function memberOn({ piece, at: [x, y] }: CutUnit['members'][number], placed: PlacedBlank): Rectangle {
  const { width, height } = piece.sheet;
  const [a, b] = [onSheet([x, y], placed), onSheet([x + width, y + height], placed)];
  return {
    x: Math.min(a[0], b[0]),
    y: Math.min(a[1], b[1]),
    width: placed.turned ? height : width,
    height: placed.turned ? width : height,
  };
}

/** Two layers, and where the second's sheet has its lower left corner on the first's as they lie in the closed card. */
interface Neighbours {
  first: DressedLayer;
  second: DressedLayer;
  at: Point;
}

function neighbours(evaluation: Evaluation): Neighbours[] {
  const { design, dressed } = evaluation;
  const meeting = claimsOf(design, 'meeting').filter(({ sideBySide }) => sideBySide);
  const doMeet = (a: DressedLayer, b: DressedLayer): boolean =>
    meeting.some((claim) => [claim.a.panel, claim.b.panel].includes(a.panel) && [claim.a.panel, claim.b.panel].includes(b.panel));
  const outside = dressed.layers.filter(({ seams, shows }) => seams > 0 && shows.includes('closed'));
  return outside.flatMap((first, i) =>
    outside.slice(i + 1).flatMap((second): Neighbours[] => {
      if (first.panel === second.panel || first.step !== second.step || first.stock.id !== second.stock.id) return [];
      const at = doMeet(first, second) ? besideWhenClosed(evaluation, first, second) : undefined;
      return at ? [{ first, second, at }] : [];
    }),
  );
}

/** Where the corner of one layer's sheet lies on another's in the closed card; nothing where they do not lie the same way up. */
function besideWhenClosed({ design, motion }: Evaluation, first: DressedLayer, second: DressedLayer): Point | undefined {
  const flat = motion.pressed ?? motion;
  const pose = poseOf(flat, flat.frames[0]!);
  const axes = ({ panel, placement }: DressedLayer): [origin: Vec3, right: Vec3, up: Vec3] => {
    const lies = (point: Point): Vec3 => carry(pose[design.linkage.bodyOf.get(panel)!]!, ...place(point, placement), 0);
    const origin = lies([0, 0]);
    return [origin, minus(lies([1, 0]), origin), minus(lies([0, 1]), origin)];
  };
  const [from, right, up] = axes(first);
  const [to, otherRight, otherUp] = axes(second);
  if (dot(right, otherRight) < 1 - ALIKE || dot(up, otherUp) < 1 - ALIKE) return undefined;
  const way = minus(to, from);
  return [dot(way, right), dot(way, up)];
}
