import { claimsOf } from '../card/draw.js';
import type { DressedLayer } from '../dress/layer.js';
import { spineEases, type Evaluation } from '../evaluate.js';
import { poseOf } from '../linkage/motion.js';
import { carry, dot, minus, type Vec3 } from '../linkage/rigid.js';
import type { Mm } from '../measure/units.js';
import { place } from '../plane/placement.js';
import type { Point } from '../plane/point.js';
import { onCutSheet } from '../sheet/cut-sheet.js';
import { waysOf, type CutJob, type JobPiece } from './cut-job.js';
import type { Blank, PlacedBlank, Rectangle } from './guillotine.js';
import { onSheet } from './outline-nesting.js';

/** What is laid on a sheet as one: a piece, or layers over which a picture runs, as they lie beside one another. */
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
 * between them, so that a pattern runs on over both; neighbours with borders between them where the maker wishes it, a whole row of
 * them. What no sheet takes together is laid by itself.
 */
export function unitsOf({ stock, pieces }: CutJob, evaluation: Evaluation, on: { width: Mm; height: Mm }): CutUnit[] {
  const pairs = neighbours(evaluation);
  const taken = new Set<JobPiece>();
  const units: CutUnit[] = [];
  for (const piece of pieces) {
    if (taken.has(piece)) continue;
    taken.add(piece);
    const { lies } = waysOf(piece, stock, on);
    let row: Row = [{ piece, at: [0, 0] }];
    for (let grown = true; grown;) {
      grown = false;
      for (const member of nextTo(row, pairs, pieces)) {
        const longer = [...row, member];
        if (taken.has(member.piece) || !isRow(longer) || !fits(together(longer), lies, on)) continue;
        taken.add(member.piece);
        row = longer;
        grown = true;
      }
    }
    units.push(together(row));
  }
  return units;
}

/** Pieces beside one another, each with its lower left corner, the first at the origin. */
type Row = readonly { piece: JobPiece; at: Point }[];

/** What lies beside a member of a row and is cut for the same card. */
function nextTo(row: Row, pairs: readonly Neighbours[], pieces: readonly JobPiece[]): Row {
  return row.flatMap(({ piece, at: [x, y] }) =>
    pairs.flatMap(({ first, second, at: [dx, dy] }) => {
      const own = piece.sheet.piece.id;
      const [other, sign] = first.id === own ? [second.id, 1] : second.id === own ? [first.id, -1] : [undefined, 0];
      return pieces
        .filter((one) => one.sheet.piece.id === other && one.copy === piece.copy && one.spare === piece.spare)
        .map((one) => ({ piece: one, at: [x + sign * dx, y + sign * dy] as const }));
    }),
  );
}

/** Whether straight cuts part all of them: one after the other along one line. */
function isRow(row: Row): boolean {
  return [0, 1].some((axis) => {
    const spans = row
      .map(({ piece: { sheet }, at }) => [at[axis]!, at[axis]! + (axis === 0 ? sheet.width : sheet.height)] as const)
      .sort((a, b) => a[0] - b[0]);
    return spans.every(([from], i) => i === 0 || from > spans[i - 1]![1] - ALIKE);
  });
}

const fits = ({ width, height }: CutUnit, lies: Blank['lies'], on: { width: Mm; height: Mm }): boolean =>
  (lies !== 'turned' && width <= on.width && height <= on.height) || (lies !== 'upright' && height <= on.width && width <= on.height);

function together(row: Row): CutUnit {
  const [left, low] = [Math.min(...row.map(({ at }) => at[0])), Math.min(...row.map(({ at }) => at[1]))];
  return {
    id: row[0]!.piece.id,
    width: Math.max(...row.map(({ piece, at }) => at[0] + piece.sheet.width)) - left,
    height: Math.max(...row.map(({ piece, at }) => at[1] + piece.sheet.height)) - low,
    members: row.map(({ piece, at: [x, y] }) => ({ piece, at: [x - left, y - low] as const })),
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
  const runsOn = design.card.dressing?.layers?.runsOn === true;
  const meeting = claimsOf(design, 'meeting').filter(({ sideBySide }) => sideBySide);
  const doMeet = (a: DressedLayer, b: DressedLayer): boolean =>
    meeting.some((claim) => [claim.a.panel, claim.b.panel].includes(a.panel) && [claim.a.panel, claim.b.panel].includes(b.panel));
  const outside = dressed.layers.filter(({ seams, shows }) => shows.includes('closed') && (runsOn || seams > 0));
  const found = pairsOf(outside, (first, second) => (doMeet(first, second) ? besideWhenClosed(evaluation, first, second) : undefined));
  if (!runsOn) return found;
  return [...found, ...pairsOf(dressed.layers, (first, second) => besideOnPiece(evaluation, first, second))];
}

/** Layers of two panels, of one paper and as high, that lie beside one another. */
function pairsOf(layers: readonly DressedLayer[], lies: (first: DressedLayer, second: DressedLayer) => Point | undefined): Neighbours[] {
  return layers.flatMap((first, i) =>
    layers.slice(i + 1).flatMap((second): Neighbours[] => {
      if (first.panel === second.panel || first.step !== second.step || first.stock.id !== second.stock.id) return [];
      const at = lies(first, second);
      return at ? [{ first, second, at }] : [];
    }),
  );
}

/** Where the corner of one layer's sheet lies on another's while the piece lies flat that both are glued on, with a fold between them. */
function besideOnPiece(evaluation: Evaluation, first: DressedLayer, second: DressedLayer): Point | undefined {
  const { hinges, bodyOf } = evaluation.design.linkage;
  const [a, b] = [bodyOf.get(first.panel)!, bodyOf.get(second.panel)!];
  if (first.face !== second.face || !first.shows.some((moment) => second.shows.includes(moment))) return undefined;
  const doFold = hinges.some(({ left, right }) => (left === a && right === b) || (left === b && right === a));
  const { piece } = evaluation.design.panels[a]!;
  if (!doFold || piece !== evaluation.design.panels[b]!.piece) return undefined;
  // With what a spine widens it by.
  const onSheet = onCutSheet(piece, spineEases(evaluation));
  return between(
    axesOf(first, (point) => [...onSheet(point), 0]),
    axesOf(second, (point) => [...onSheet(point), 0]),
  );
}

/** Where the corner of one layer's sheet lies on another's in the closed card; nothing where they do not lie the same way up. */
function besideWhenClosed({ design, motion }: Evaluation, first: DressedLayer, second: DressedLayer): Point | undefined {
  const flat = motion.pressed ?? motion;
  const pose = poseOf(flat, flat.frames[0]!);
  const lies =
    ({ panel }: DressedLayer) =>
    ([x, y]: Point): Vec3 =>
      carry(pose[design.linkage.bodyOf.get(panel)!]!, x, y, 0);
  return between(axesOf(first, lies(first)), axesOf(second, lies(second)));
}

type Axes = readonly [origin: Vec3, right: Vec3, up: Vec3];

function axesOf({ placement }: DressedLayer, lies: (onPiece: Point) => Vec3): Axes {
  const at = (point: Point): Vec3 => lies(place(point, placement));
  const origin = at([0, 0]);
  return [origin, minus(at([1, 0]), origin), minus(at([0, 1]), origin)];
}

function between([from, right, up]: Axes, [to, otherRight, otherUp]: Axes): Point | undefined {
  if (dot(right, otherRight) < 1 - ALIKE || dot(up, otherUp) < 1 - ALIKE) return undefined;
  const way = minus(to, from);
  return [dot(way, right), dot(way, up)];
}
