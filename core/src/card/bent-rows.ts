import type { BendingRow } from '../claim/claims.js';
import { followBend, type BendPath } from '../bending/follow-bend.js';
import { flatPanels, type Hold, type HeldEdge, type PanelStart, type SheetRow, type Stop } from '../bending/sheet.js';
import { poseOf, type Frame, type Motion } from '../linkage/motion.js';
import type { Pose } from '../linkage/kinematics.js';
import { carry, carryDirection, minus, norm, type Vec3 } from '../linkage/rigid.js';
import type { Mm, Radians } from '../measure/units.js';
import { CLOSING_PLAY } from '../supplies/limits.js';
import type { Point } from '../plane/point.js';
import { bentMeetings, type BentMeeting } from './bent-meets.js';
import { claimsOf, type Owned } from './draw.js';
import type { Design } from './join.js';

/** Cells of each panel, along and across: up to an opening of 75° within 3 per cent of the energy that 8 × 12 of them have. */
const FINE: SheetRow['cells'] = { along: 6, across: 8 };
/** Enough for a small picture. */
const COARSE: SheetRow['cells'] = { along: 4, across: 6 };

/** A row of panels that bend, led through the card’s whole motion from both ends. Plain data. */
export interface BentRow {
  claim: Owned<BendingRow>;
  sheet: SheetRow;
  /** +1 when along × across, as the rows of nodes run, looks out of the piece’s upper face; else −1 */
  handed: 1 | -1;
  /** openings of the frames, in their order */
  openings: readonly Radians[];
  /** begun at the closed card; one shape for every frame */
  opening: BendPath;
  /** begun at the open card, its shapes in the order of the frames as well */
  closing: BendPath;
  /** what of other parts it runs into */
  meets: readonly BentMeeting[];
}

/** Flat geometry of a row on its piece. */
interface FlatRow {
  sheet: SheetRow;
  handed: 1 | -1;
  /** where each panel begins, on its first fold */
  starts: readonly PanelStart[];
  /** the first and the last fold’s ends, in the same order */
  ends: readonly (readonly [Point, Point])[];
  claim: Owned<BendingRow>;
}

/** How far the two sides of a row's inner folds miss each other in the closed and in the open card. */
export function missedBy({ folds }: BendingRow, motion: Motion): { closed: Mm; open: Mm } {
  const { linkage, frames } = motion;
  const [closed, open] = [frames[0]!, frames[frames.length - 1]!].map((frame) => {
    const pose = poseOf(motion, frame);
    const missed = folds.slice(1, -1).flatMap((fold) => {
      const { left, right, source } = linkage.hinges[linkage.hingeIndex.get(fold)!]!;
      return [source.from, source.to].map(([x, y]) => norm(minus(carry(pose[left]!, x, y, 0), carry(pose[right]!, x, y, 0))));
    });
    return Math.max(...missed);
  }) as [Mm, Mm];
  return { closed, open };
}

/** Rows that come together at both ends: of another nobody knows how it would bend. */
const rowsThatMeet = (design: Design, motion: Motion): Owned<BendingRow>[] =>
  claimsOf(design, 'bends').filter((claim) => {
    const { closed, open } = missedBy(claim, motion);
    return Math.max(closed, open) <= CLOSING_PLAY;
  });

/**
 * Works out every row of panels of a card that bends, in every frame of its motion, once from the closed card on and once
 * from the open one. Takes seconds. A row that does not come together at both ends is left out.
 * @param told how much of it is done, 0 … 1
 */
export function bentRows(design: Design, motion: Motion, told?: (share: number) => void): BentRow[] {
  const claims = rowsThatMeet(design, motion);
  return claims.map((claim, i) => {
    const row = flatRow(design, claim, FINE);
    const count = motion.frames.length - 1;
    const report =
      (before: number) =>
      (done: number): void =>
        told?.((i + (before + done / count) / 2) / claims.length);
    const bent = {
      claim,
      sheet: row.sheet,
      handed: row.handed,
      openings: motion.frames.map(({ opening }) => opening),
      opening: openedFrom(design, motion, row, report(0)),
      closing: closedFrom(design, motion, row, report(1)),
    };
    return { ...bent, meets: bentMeetings(design, motion, bent) };
  });
}

const QUICK = new WeakMap<Motion, QuickRow[]>();

/** A row as a small picture needs it: coarse, and only as it opens. */
export type QuickRow = Pick<BentRow, 'claim' | 'sheet' | 'handed' | 'opening'>;

/** The same for pictures, worked out once for a motion. Nothing where no panel bends. */
export function quickRows(design: Design, motion: Motion): readonly QuickRow[] {
  const known = QUICK.get(motion);
  if (known) return known;
  const rows = rowsThatMeet(design, motion).map((claim): QuickRow => {
    const row = flatRow(design, claim, COARSE);
    return { claim, sheet: row.sheet, handed: row.handed, opening: openedFrom(design, motion, row) };
  });
  QUICK.set(motion, rows);
  return rows;
}

/** Flat on itself a closed row knows no way to bend: it is led from the first frame that is not closed. */
function openedFrom(design: Design, motion: Motion, row: FlatRow, report?: (done: number) => void): BendPath {
  const [closed, ...frames] = motion.frames;
  const holds = frames.map((frame) => holdIn(design, motion, row, frame));
  const path = followBend(row.sheet, holds, startIn(design, motion, row, frames[0]!), report);
  return withClosed(path, startIn(design, motion, row, closed!), false);
}

function closedFrom(design: Design, motion: Motion, row: FlatRow, report?: (done: number) => void): BendPath {
  const [closed, ...frames] = motion.frames;
  const holds = frames.reverse().map((frame) => holdIn(design, motion, row, frame));
  const path = followBend(row.sheet, holds, startIn(design, motion, row, frames[0]!), report);
  return withClosed(path, startIn(design, motion, row, closed!), true);
}

/** A path in the order of the frames, with the closed card’s shape before it: flat, every panel in its place. */
function withClosed({ shapes, snaps }: BendPath, nodes: Float64Array, backward: boolean): BendPath {
  const closed = { nodes, energy: 0, angle: 0, radius: Infinity, atRest: true };
  const last = shapes.length;
  return {
    shapes: [closed, ...(backward ? [...shapes].reverse() : shapes)],
    snaps: snaps.map(({ after, before }) =>
      backward ? { after: last - after, before: last - before } : { after: after + 1, before: before + 1 },
    ),
  };
}

function flatRow(design: Design, claim: Owned<BendingRow>, cells: SheetRow['cells']): FlatRow {
  const { linkage } = design;
  const lines = claim.folds.map((fold) => linkage.hinges[linkage.hingeIndex.get(fold)!]!.source);
  const first = lines[0]!;
  const ends = lines.map(({ from, to }): readonly [Point, Point] => (runsLike(first, { from, to }) ? [from, to] : [to, from]));
  const across = unit(ends[0]![0], ends[0]![1]);
  const along = unit(ends[0]![0], ends[1]![0]);
  const starts = claim.panels.map((_, i): PanelStart => ({ at: ends[i]![0], along, across }));
  const lengths = claim.panels.map((_, i) => Math.hypot(ends[i + 1]![0][0] - ends[i]![0][0], ends[i + 1]![0][1] - ends[i]![0][1]));
  const width = Math.hypot(ends[0]![1][0] - ends[0]![0][0], ends[0]![1][1] - ends[0]![0][1]);
  const handed = along[0] * across[1] - along[1] * across[0] > 0 ? 1 : -1;
  return { sheet: { width, lengths, cells }, handed, starts, ends: [ends[0]!, ends[ends.length - 1]!], claim };
}

const runsLike = (a: { from: Point; to: Point }, b: { from: Point; to: Point }): boolean =>
  (a.to[0] - a.from[0]) * (b.to[0] - b.from[0]) + (a.to[1] - a.from[1]) * (b.to[1] - b.from[1]) > 0;

function unit(a: Point, b: Point): Point {
  const length = Math.hypot(b[0] - a[0], b[1] - a[1]);
  return [(b[0] - a[0]) / length, (b[1] - a[1]) / length];
}

const bodyOf = ({ linkage }: Design, panel: string): number => linkage.bodyOf.get(panel)!;

/** Every panel flat where the linkage has it. */
function startIn(design: Design, motion: Motion, { sheet, starts, claim }: FlatRow, frame: Frame): Float64Array {
  const pose = poseOf(motion, frame);
  return flatPanels(
    sheet,
    claim.panels.map((panel) => pose[bodyOf(design, panel)]!),
    starts,
  );
}

function holdIn(design: Design, motion: Motion, { ends, starts, claim }: FlatRow, frame: Frame): Hold {
  const pose = poseOf(motion, frame);
  const { along } = starts[0]!;
  const [first, last] = claim.held.map((panel, i) => {
    const fold = design.linkage.hinges[design.linkage.hingeIndex.get(claim.folds[i === 0 ? 0 : claim.folds.length - 1]!)!]!;
    const body = pose[bodyOf(design, panel)]!;
    const up = fold.source.crease.fold === 'valley' ? 1 : -1;
    const into = i === 0 ? -1 : 1;
    const edge: HeldEdge = {
      ends: [carry(body, ...ends[i]![0], 0), carry(body, ...ends[i]![1], 0)],
      into: carryDirection(body, into * along[0], into * along[1], 0),
      facing: carryDirection(body, 0, 0, up),
    };
    return edge;
  });
  return { first: first!, last: last!, stops: claim.before.map(({ panel, face }) => stopAt(pose, bodyOf(design, panel), face)) };
}

/** The plane of a leaf, looking out of the face that is named. */
function stopAt(pose: Pose, body: number, face: 'up' | 'down'): Stop {
  const leaf = pose[body]!;
  const at: Vec3 = carry(leaf, 0, 0, 0);
  return { at, normal: carryDirection(leaf, 0, 0, face === 'up' ? 1 : -1) };
}

/** The nodes of a row between two frames, led evenly from one to the next. */
export function nodesBetween({ shapes }: BendPath, s: number): Float64Array {
  const last = shapes.length - 1;
  const i = Math.min(last - 1, Math.max(0, Math.floor(s * last)));
  const share = Math.min(1, Math.max(0, s * last - i));
  const [a, b] = [shapes[i]!.nodes, shapes[i + 1]!.nodes];
  return a.map((x, k) => x + (b[k]! - x) * share);
}
