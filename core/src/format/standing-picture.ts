import { stockOf } from '../card/card-stocks.js';
import { isClear } from '../supplies/stocks.js';
import type { Evaluation } from '../evaluate.js';
import { frameBetween, poseOf } from '../linkage/motion.js';
import { carry, cross, dot, norm, type Vec3 } from '../linkage/rigid.js';
import { boxOf, centroid, type Loop } from '../plane/outline.js';
import type { Point } from '../plane/point.js';
import { paintingOrder } from './painting-order.js';

/** Paper colours by what a piece is for, red green blue. */
const PAPER: Readonly<Record<string, readonly [number, number, number]>> = {
  base: [239, 228, 203],
  mechanism: [226, 165, 68],
  display: [172, 188, 136],
  film: [196, 214, 220],
  stop: [140, 111, 86],
};
const LIGHT: Vec3 = [0.35, 0.45, 0.82];
/** What lies behind is a little darker, so that openings are seen as openings. */
const DEPTH_SHADE = 0.22;
/** Clear film lets what is behind show through. */
const CLEAR = 0.35;
const MARGIN = 6;

/** One panel as it is painted: SVG path data (even-odd), colour, and how much it hides. */
export interface Facet {
  panel: string;
  /** which face of the sheet is toward the viewer */
  face: 'up' | 'down';
  path: string;
  fill: string;
  opacity: number;
}

/** A picture of a card in mm: y runs down as in SVG. */
export interface StandingPicture {
  facets: Facet[];
  box: { x: number; y: number; width: number; height: number };
}

const unit = (a: Vec3): Vec3 => {
  const length = norm(a);
  return [a[0] / length, a[1] / length, a[2] / length];
};

/**
 * The card at a point of its drive as flat facets seen from where a person stands, far ones first, without
 * perspective. @param at 0 closed … 1 open; as it is put down when left out
 */
export function standingPicture(evaluation: Pick<Evaluation, 'design' | 'motion' | 'closed'>, at?: number): StandingPicture {
  const { design, motion } = evaluation;
  const s = at ?? design.base.rest.at;
  const { up, viewFrom } = design.base.rest;
  const pose = poseOf(motion, frameBetween(motion, s));
  const toward = unit(viewFrom);
  const right = unit(cross(up, toward));
  const above = cross(toward, right);
  const depths = design.panels.map((panel, body) => {
    const [x, y] = centroid(panel.area);
    return dot(carry(pose[body]!, x, y, 0), toward);
  });
  const [farthest, nearest] = [Math.min(...depths), Math.max(...depths)];
  const nearness = (body: number): number => (depths[body]! - farthest) / Math.max(1, nearest - farthest);
  const corners: Point[] = [];
  const facets = design.panels.map((panel, body): Facet => {
    const m = pose[body]!;
    const onPicture = (loop: Loop): Point[] =>
      loop.map(([x, y]): Point => {
        const p = carry(m, x, y, 0);
        return [dot(p, right), -dot(p, above)];
      });
    const outer = onPicture(panel.area.outer);
    corners.push(...outer);
    const lit = 0.72 + 0.28 * Math.abs(dot(unit([m[2]!, m[6]!, m[10]!]), unit(LIGHT)));
    const shade = lit * (1 - DEPTH_SHADE * (1 - nearness(body)));
    const { stock } = panel.piece;
    const clear = isClear(stockOf(design, panel.piece));
    return {
      panel: panel.id,
      face: m[2]! * toward[0] + m[6]! * toward[1] + m[10]! * toward[2] > 0 ? 'up' : 'down',
      path: [outer, ...panel.area.holes.map(onPicture)].map(pathOf).join(''),
      fill: `rgb(${PAPER[stock]!.map((c) => Math.round(c * shade)).join(' ')})`,
      opacity: clear ? CLEAR : 1,
    };
  });
  const { minX, minY, maxX, maxY } = boxOf(corners);
  return {
    facets: paintingOrder(evaluation, pose, toward).map((body) => facets[body]!),
    box: { x: minX - MARGIN, y: minY - MARGIN, width: maxX - minX + 2 * MARGIN, height: maxY - minY + 2 * MARGIN },
  };
}

const pathOf = (loop: readonly Point[]): string => `M${loop.map(([x, y]) => `${x.toFixed(1)} ${y.toFixed(1)}`).join('L')}Z`;
