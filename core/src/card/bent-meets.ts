import { nodeAt, rowCount, type SheetRow } from '../bending/sheet.js';
import type { BendPath, BentShape } from '../bending/follow-bend.js';
import type { BendingRow } from '../claim/claims.js';
import { poseOf, type Motion } from '../linkage/motion.js';
import { carry, dot, minus, type Rigid, type Vec3 } from '../linkage/rigid.js';
import { toRadians, type Mm, type Radians } from '../measure/units.js';
import { areaContains, boxOf } from '../plane/outline.js';
import type { Point } from '../plane/point.js';
import type { Panel } from '../sheet/panels.js';
import { ROOT } from './document.js';
import type { Design } from './join.js';
import type { Owned } from './draw.js';

/** Below this opening everything lies pressed together. */
const NEARLY_CLOSED: Radians = toRadians(10);
/** A sheet bent by more is no longer where it is worked out to be. */
const CREASED: Radians = toRadians(150);
/** A sheet goes through a panel where, within a cell of it, it is this far out on both sides. */
const SLACK: Mm = 0.4;
/** A shared line shorter than this is a corner that touches. */
const LEAST_LINE: Mm = 2;

/** Where a bent sheet and a stiff panel of another part would be in one place. */
export interface BentMeeting {
  /** the panel, and what a maker calls it */
  panel: string;
  name: string;
  /** which way the card goes: from closed, or from open */
  way: 'opening' | 'closing';
  /** the frame in which it first happens that way */
  frame: number;
  opening: Radians;
  /** the longest line along which they cross */
  length: Mm;
}

/** A row of bent panels in every frame of the card's motion, from both ends. */
interface FollowedRow {
  claim: Pick<Owned<BendingRow>, 'owner' | 'before'>;
  sheet: SheetRow;
  openings: readonly Radians[];
  opening: Pick<BendPath, 'shapes'>;
  closing: Pick<BendPath, 'shapes'>;
}

/**
 * What a bent row runs into on the way, of all that does not belong to its own part. The leaves it bends between hold it
 * off and are no hindrance.
 */
export function bentMeetings({ panels, linkage }: Design, motion: Motion, row: FollowedRow): BentMeeting[] {
  const between = new Set(row.claim.before.map(({ panel }) => panel));
  const watched = panels.filter(({ id, part }) => (part ?? ROOT) !== row.claim.owner && !between.has(id));
  const found = new Map<string, BentMeeting>();
  const last = motion.frames.length - 1;
  for (const way of ['opening', 'closing'] as const) {
    for (let step = 0; step <= last; step++) {
      const frame = way === 'opening' ? step : last - step;
      const shape = row[way].shapes[frame]!;
      if (row.openings[frame]! < NEARLY_CLOSED || !isKnown(shape)) continue;
      const pose = poseOf(motion, motion.frames[frame]!);
      for (const panel of watched) {
        const length = crossing(row.sheet, shape.nodes, panel, pose[linkage.bodyOf.get(panel.id)!]!);
        if (length < LEAST_LINE) continue;
        const key = `${way} ${panel.id}`;
        const known = found.get(key);
        if (known) known.length = Math.max(known.length, length);
        else found.set(key, { panel: panel.id, name: panel.name, way, frame, opening: row.openings[frame]!, length });
      }
    }
  }
  return [...found.values()];
}

const isKnown = ({ angle, atRest }: BentShape): boolean => atRest && angle <= CREASED;

/** How long the line is along which a sheet goes through a flat panel. */
function crossing(sheet: SheetRow, nodes: Float64Array, panel: Panel, pose: Rigid): Mm {
  const normal: Vec3 = [pose[2]!, pose[6]!, pose[10]!];
  const origin = carry(pose, 0, 0, 0);
  const heights = Float64Array.from({ length: nodes.length / 3 }, (_, k) =>
    dot(minus([nodes[3 * k]!, nodes[3 * k + 1]!, nodes[3 * k + 2]!], origin), normal),
  );
  if (heights.every((h) => h > -SLACK) || heights.every((h) => h < SLACK)) return 0;
  const box = boxOf(panel.area.outer);
  const onPanel = (p: Vec3): Point => {
    const d = minus(p, origin);
    return [dot(d, [pose[0]!, pose[4]!, pose[8]!]), dot(d, [pose[1]!, pose[5]!, pose[9]!])];
  };
  const { across } = sheet.cells;
  const rows = rowCount(sheet);
  const height = (r: number, c: number): Mm => heights[Math.max(0, Math.min(rows, r)) * (across + 1) + Math.max(0, Math.min(across, c))]!;
  // A line along a row of nodes has cells with hardly a corner on one side of it: their neighbours tell.
  const goesThrough = (i: number, j: number): boolean => {
    let [low, high] = [0, 0];
    for (let r = i - 1; r <= i + 2; r++) {
      for (let c = j - 1; c <= j + 2; c++) {
        low = Math.min(low, height(r, c));
        high = Math.max(high, height(r, c));
      }
    }
    return low < -SLACK && high > SLACK;
  };
  let length = 0;
  for (let i = 0; i < rows; i++) {
    for (let j = 0; j < across; j++) {
      const corners = [
        [i, j],
        [i, j + 1],
        [i + 1, j + 1],
        [i + 1, j],
      ] as const;
      const cut = cutOf(corners.map(([r, c]) => ({ at: nodeAt(nodes, sheet, r, c), height: height(r, c) })));
      if (!cut || !goesThrough(i, j)) continue;
      const [from, to] = cut.map(onPanel) as [Point, Point];
      const middle: Point = [(from[0] + to[0]) / 2, (from[1] + to[1]) / 2];
      if (middle[0] < box.minX || middle[0] > box.maxX || middle[1] < box.minY || middle[1] > box.maxY) continue;
      if (areaContains(panel.area, middle)) length += Math.hypot(to[0] - from[0], to[1] - from[1]);
    }
  }
  return length;
}

/** Where the rim of a cell goes through a plane; nothing where it stays on one side of it. */
function cutOf(corners: readonly { at: Vec3; height: Mm }[]): [Vec3, Vec3] | undefined {
  const points = corners.flatMap(({ at: a, height: h }, i): Vec3[] => {
    const { at: b, height: k } = corners[(i + 1) % corners.length]!;
    if (h > 0 === k > 0) return [];
    const t = h / (h - k);
    return [[a[0] + t * (b[0] - a[0]), a[1] + t * (b[1] - a[1]), a[2] + t * (b[2] - a[2])]];
  });
  return points.length < 2 ? undefined : [points[0]!, points[1]!];
}
