import { quickRows } from '../card/bent-rows.js';
import type { Evaluation } from '../evaluate.js';
import { frameBetween, poseOf, unplacedIn } from '../linkage/motion.js';
import { carry, cross, dot } from '../linkage/rigid.js';
import { stackAt } from '../linkage/stacking.js';
import { boxOf, centroid, type Loop } from '../plane/outline.js';
import type { Point } from '../plane/point.js';
import { bentCells, depthOf, paintedAmong } from './bent-facets.js';
import { inkOn, onPicture, painted, pathOf, unit, type Facet, type Outlook } from './facet.js';
import { paintingOrder } from './painting-order.js';

const MARGIN = 6;

/** A picture of a card in mm: y runs down as in SVG. */
export interface StandingPicture {
  facets: Facet[];
  box: { x: number; y: number; width: number; height: number };
}

/**
 * The card at a point of its drive as flat facets seen from where a person stands, far ones first, without
 * perspective. @param at 0 closed … 1 open; as it is put down when left out
 */
export function standingPicture(evaluation: Pick<Evaluation, 'design' | 'motion' | 'closed' | 'dressed'>, at?: number): StandingPicture {
  const { design, motion } = evaluation;
  const s = at ?? design.base.rest.at;
  const frame = frameBetween(motion, s);
  const pose = poseOf(motion, frame);
  const outlook = outlookOn(design.base.rest);
  const { toward } = outlook;
  // At both ends of the drive a panel that bends lies flat like any other.
  const bending = unplacedIn(motion, frame);
  const rows = bending.size > 0 ? quickRows(design, motion) : [];
  const depths = design.panels.map((panel, body) => {
    const [x, y] = centroid(panel.area);
    return dot(carry(pose[body]!, x, y, 0), toward);
  });
  const [farthest, nearest] = [Math.min(...depths), Math.max(...depths)];
  const nearness = (depth: number): number => Math.min(1, Math.max(0, (depth - farthest) / Math.max(1, nearest - farthest)));
  const corners: Point[] = [];
  const facets = design.panels.map((panel, body): Facet => {
    const m = pose[body]!;
    const seen = (loop: Loop): Point[] => loop.map(([x, y]) => onPicture(carry(m, x, y, 0), outlook));
    const outer = seen(panel.area.outer);
    if (!bending.has(body)) corners.push(...outer);
    return painted(design, panel, [outer, ...panel.area.holes.map(seen)], unit([m[2]!, m[6]!, m[10]!]), nearness(depths[body]!), outlook);
  });
  const worn = (body: number): Facet[] => {
    const panel = design.panels[body]!;
    const m = pose[body]!;
    const seen = (loop: Loop): Point[] => loop.map(([x, y]) => onPicture(carry(m, x, y, 0), outlook));
    const normal = unit([m[2]!, m[6]!, m[10]!]);
    const { layers, toppers } = evaluation.dressed;
    return [
      ...layers,
      ...toppers.flatMap((placed, i) =>
        [...placed.under, placed].map((sheet, nth) => ({ ...sheet, topper: i + 1 + placed.under.length - nth })),
      ),
    ]
      .filter((each) => each.panel === panel.id && each.face === facets[body]!.face)
      .flatMap((each): Facet[] => {
        const outer = seen(each.area.outer);
        corners.push(...outer);
        const loops = [outer, ...each.area.holes.map(seen)];
        const facet = { ...painted(design, panel, loops, normal, nearness(depths[body]!), outlook, each), worn: true as const };
        const letters = 'greeting' in each ? (each.greeting?.onPanel ?? []) : [];
        return letters.length === 0 ? [facet] : [facet, { ...facet, path: pathOf(letters.map(seen)), fill: inkOn(each.stock), opacity: 1 }];
      });
  };
  const cells = rows.flatMap((row) =>
    bentCells(row, s).map((cell) => {
      const loop = cell.corners.map((p) => onPicture(p, outlook));
      corners.push(...loop);
      const depth = depthOf(cell, toward);
      const panel = design.panels[design.linkage.bodyOf.get(cell.panel)!]!;
      return { item: { ...painted(design, panel, [loop], cell.normal, nearness(depth), outlook), bent: true as const }, depth };
    }),
  );
  const order = paintingOrder(design, stackAt(motion, evaluation.closed.stack, s), pose, toward).filter((body) => !bending.has(body));
  const leaves = new Set(rows.flatMap(({ claim }) => claim.before.map(({ panel }) => panel)));
  const items = order.map((body) => [facets[body]!, ...worn(body)].map((item) => ({ item, depth: depths[body]! })));
  const behind = items.slice(0, order.findLastIndex((body) => leaves.has(design.panels[body]!.id)) + 1).flat().length;
  const { minX, minY, maxX, maxY } = boxOf(corners);
  return {
    facets: paintedAmong(items.flat(), cells, behind),
    box: { x: minX - MARGIN, y: minY - MARGIN, width: maxX - minX + 2 * MARGIN, height: maxY - minY + 2 * MARGIN },
  };
}

function outlookOn({ up, viewFrom }: Evaluation['design']['base']['rest']): Outlook {
  const toward = unit(viewFrom);
  const right = unit(cross(up, toward));
  return { toward, right, above: cross(toward, right) };
}
