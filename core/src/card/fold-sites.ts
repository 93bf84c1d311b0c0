import type { BaseContribution } from '../mechanism/contract.js';
import type { FoldSite, SiteLeaf } from '../mechanism/sites.js';
import { drivenHinges, targetsAt } from '../linkage/schedule.js';
import type { Mm, Radians } from '../measure/units.js';
import { boxOf, type Area, type Loop } from '../plane/outline.js';
import { place, undone, type Placement } from '../plane/placement.js';
import type { Point } from '../plane/point.js';
import { splitPiece, type Panel, type PanelHinge } from '../sheet/panels.js';
import type { Piece } from '../sheet/piece.js';
import { EDGE_MARGIN } from '../supplies/limits.js';
import { caliperOf, type CardStocks } from './card-stocks.js';

/** A fold shorter than this, or a leaf shallower, carries nothing. */
const LEAST_LENGTH: Mm = 15;
const LEAST_DEPTH: Mm = 12;

/**
 * Every fold of a base that something could stand on: along each crease that moves, on the face toward which it closes.
 * The site's axes run up along the fold; the first leaf is the one on the left as seen from that face.
 */
export function foldSitesOf(base: Pick<BaseContribution, 'pieces' | 'schedule'>, stocks: CardStocks): FoldSite[] {
  const ends = targetsAt(base.schedule, 1);
  const driven = drivenHinges(base.schedule);
  return base.pieces.flatMap((piece, i) => {
    const { panels, hinges } = splitPiece(piece);
    return hinges.flatMap((hinge): FoldSite[] => {
      const [left, right] = [hinge.left, hinge.right].map((id) => panels.find((panel) => panel.id === id)!);
      const { closed, fold } = hinge.crease;
      const closedAt = Math.PI - Math.abs(closed);
      const opensTo = driven.has(hinge.id) ? Math.PI - Math.abs(ends.get(hinge.id)!) : flatOrHalf(closedAt);
      if (Math.abs(opensTo - closedAt) < 1e-6) return [];
      const up = closed === 0 ? fold === 'valley' : closed > 0;
      const site = siteAlong(hinge, [left!, right!], up, stocks);
      if (site.length < LEAST_LENGTH || site.leaves.some(({ depth }) => depth < LEAST_DEPTH)) return [];
      return [{ ...site, id: siteId(hinge, piece, i === 0), name: hinge.crease.name, closedAt, opensTo }];
    });
  });
}

/** A fold that follows others opens flat, or if it is flat when closed, to about a right angle. */
const flatOrHalf = (closedAt: Radians): Radians => (closedAt === 0 ? Math.PI : Math.PI / 2);

/** The crease's own name; with that of its piece, and of its panel where it is one crease between several. */
function siteId(hinge: PanelHinge, piece: Piece, isMain: boolean): string {
  const own = hinge.id.slice(piece.id.length + 1).replace(/\+[^/]*\//, '-');
  return isMain ? own : `${piece.id}-${own}`;
}

function siteAlong(hinge: PanelHinge, [left, right]: readonly [Panel, Panel], up: boolean, stocks: CardStocks): FoldSite {
  const { from, to } = upward(hinge);
  const turn = Math.atan2(to[1] - from[1], to[0] - from[0]) - Math.PI / 2;
  const whole: Placement = { to: from, turn, flipped: !up };
  const [low, high] = sharedStretch([left, right], whole, Math.hypot(to[0] - from[0], to[1] - from[1]));
  const frame: Placement = { to: place([0, low], whole), turn, flipped: !up };
  const length = high - low;
  const leaf = (panel: Panel, side: -1 | 1): SiteLeaf => ({
    panel: panel.id,
    name: panel.name,
    face: up ? 'up' : 'down',
    frame,
    depth: depthOf(panel.area, frame, length, side),
    caliper: caliperOf({ stocks }, panel.piece),
  });
  // Which panel lies to the left of the fold as it runs up, as drawn; from below it is on the right.
  const runsUp = from === hinge.from;
  const [onLeft, onRight] = runsUp === up ? [left, right] : [right, left];
  return {
    kind: 'fold',
    id: hinge.id,
    name: hinge.crease.name,
    part: '',
    hinge: hinge.id,
    leaves: [leaf(onLeft, -1), leaf(onRight, 1)],
    length,
    shape: 'valley',
    closedAt: 0,
    opensTo: Math.PI,
    oneSheet: true,
  };
}

/** A crease from its lower end up, or where it lies level from its left end. */
function upward({ from, to }: PanelHinge): { from: Point; to: Point } {
  const [dx, dy] = [to[0] - from[0], to[1] - from[1]];
  const runsUp = Math.abs(dy) > 1e-6 * Math.abs(dx) ? dy > 0 : dx > 0;
  return runsUp ? { from, to } : { from: to, to: from };
}

/** Where along a crease both panels lie at it. */
function sharedStretch(panels: readonly Panel[], frame: Placement, length: Mm): [Mm, Mm] {
  const back = undone(frame);
  const ranges = panels.map(({ area }) => {
    const { minY, maxY } = boxOf(area.outer.map((p) => place(p, back)));
    return [minY, maxY] as const;
  });
  return [Math.max(0, ...ranges.map(([min]) => min)), Math.min(length, ...ranges.map(([, max]) => max))];
}

/**
 * How far a leaf goes on from its fold over the fold's whole length, less a margin at both ends: the least distance at
 * which a line of its outline, or of a hole in it, crosses the strip above the fold.
 */
function depthOf(area: Area, frame: Placement, length: Mm, side: -1 | 1): Mm {
  const back = undone(frame);
  const margin = Math.min(EDGE_MARGIN, length / 4);
  const onLeaf = (loop: Loop): Point[] =>
    loop.map((p): Point => {
      const [x, y] = place(p, back);
      return [x * side, y];
    });
  let least = Infinity;
  for (const loop of [area.outer, ...area.holes].map(onLeaf)) {
    loop.forEach((p, i) => {
      const q = loop[(i + 1) % loop.length]!;
      const x = leastWithin(p, q, margin, length - margin);
      if (x !== undefined && x > 1e-6) least = Math.min(least, x);
    });
  }
  return Number.isFinite(least) ? least : 0;
}

/** The least x of a segment where its y lies between two values. */
function leastWithin(p: Point, q: Point, low: Mm, high: Mm): Mm | undefined {
  const [a, b] = p[1] <= q[1] ? [p, q] : [q, p];
  if (b[1] < low || a[1] > high) return undefined;
  const at = (y: Mm): Mm => (b[1] - a[1] < 1e-12 ? Math.min(a[0], b[0]) : a[0] + ((b[0] - a[0]) * (y - a[1])) / (b[1] - a[1]));
  return Math.min(at(Math.max(a[1], low)), at(Math.min(b[1], high)));
}
