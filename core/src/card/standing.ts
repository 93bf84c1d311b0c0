import { poseOf, type Frame, type Motion } from '../linkage/motion.js';
import { carry, cross, dot, minus, norm, type Vec3 } from '../linkage/rigid.js';
import type { Mm, Radians } from '../measure/units.js';
import { areaOf, centroid, convexHull, loopContains, type Loop } from '../plane/outline.js';
import { distanceToSegment, type Point } from '../plane/point.js';
import { claimsOf } from './draw.js';
import type { Design } from './join.js';
import { weightOfArea } from './weight.js';

/** Points this close to the lowest one touch the table too. */
const CONTACT: Mm = 0.3;
const MM2_PER_M2 = 1e6;
/** Layers glued inside are taken to be of card, g/m² for each mm. */
const INNER_PER_MM = 800;

/** How a card stands: all in mm of the ground panel's frame, or of the table (right, and toward who looks at it). */
export interface Standing {
  /** g, without envelope */
  weight: number;
  centre: Vec3;
  /** what touches the table, and where the weight falls among it */
  polygon: Loop;
  foot: Point;
  /** how far inside the polygon the weight falls; negative outside */
  margin: Mm;
  /** of the centre over the table */
  height: Mm;
  /** leaned by this it tips: atan(margin ÷ height) */
  tipAngle: Radians;
  /** which way it tips most easily */
  toward: 'to the left' | 'to the right' | 'forward' | 'backward';
}

/** Weights of all panels and layers, their centre, and the polygon of what touches the table in a frame. */
export function standingOf(design: Design, motion: Motion, frame: Frame): Standing {
  const pose = poseOf(motion, frame);
  const { up, viewFrom } = design.base.rest;
  const [right, front] = tableAxes(up, viewFrom);
  let weight = 0;
  let moment: Vec3 = [0, 0, 0];
  const add = (at: Vec3, grams: number): void => {
    weight += grams;
    moment = [moment[0] + at[0] * grams, moment[1] + at[1] * grams, moment[2] + at[2] * grams];
  };
  const corners: Vec3[] = [];
  design.panels.forEach((panel, body) => {
    const [cx, cy] = centroid(panel.area);
    add(carry(pose[body]!, cx, cy, 0), (areaOf(panel.area) / MM2_PER_M2) * weightOfArea(design, panel.piece));
    for (const [x, y] of panel.area.outer) corners.push(carry(pose[body]!, x, y, 0));
  });
  for (const layer of claimsOf(design, 'inner-layer')) {
    const body = design.linkage.bodyOf.get(layer.panel)!;
    const area = { outer: layer.outline, holes: [] };
    const [cx, cy] = centroid(area);
    add(carry(pose[body]!, cx, cy, 0), (areaOf(area) / MM2_PER_M2) * INNER_PER_MM * layer.thickness);
  }
  for (const { panel, area, weight: each } of design.worn) {
    const [cx, cy] = centroid(area);
    add(carry(pose[design.linkage.bodyOf.get(panel)!]!, cx, cy, 0), (areaOf(area) / MM2_PER_M2) * each);
  }
  const centre: Vec3 = [moment[0] / weight, moment[1] / weight, moment[2] / weight];
  const lowest = Math.min(...corners.map((p) => dot(p, up)));
  const onTable = (p: Vec3): Point => [dot(p, right), dot(p, front)];
  const polygon = convexHull(corners.filter((p) => dot(p, up) < lowest + CONTACT).map(onTable));
  const foot = onTable(centre);
  const height = dot(centre, up) - lowest;
  const { margin, toward } = tipping(polygon, foot);
  return { weight, centre, polygon, foot, margin, height, tipAngle: Math.atan2(margin, Math.max(height, 0.1)), toward };
}

/** Right and front of the table as seen by who looks at the card, at right angles to up. */
function tableAxes(up: Vec3, viewFrom: Vec3): [Vec3, Vec3] {
  const along = dot(viewFrom, up);
  const front = minus(viewFrom, [up[0] * along, up[1] * along, up[2] * along]);
  const size = norm(front);
  const unit: Vec3 = [front[0] / size, front[1] / size, front[2] / size];
  return [cross(up, unit), unit];
}

function tipping(polygon: Loop, foot: Point): Pick<Standing, 'margin' | 'toward'> {
  if (polygon.length < 3) return offLine(polygon, foot);
  const edges = polygon.map((from, i) => {
    const to = polygon[(i + 1) % polygon.length]!;
    return { by: distanceToSegment(foot, from, to), out: [to[1] - from[1], from[0] - to[0]] as Point };
  });
  const nearest = edges.reduce((least, edge) => (edge.by < least.by ? edge : least));
  const [x, y] = nearest.out;
  const toward = Math.abs(x) > Math.abs(y) ? (x > 0 ? 'to the right' : 'to the left') : y > 0 ? 'forward' : 'backward';
  return { margin: loopContains(polygon, foot) ? nearest.by : -nearest.by, toward };
}

/** On a line or a point nothing stands: how far off it the weight falls, and on which side. */
function offLine(polygon: Loop, [x, y]: Point): Pick<Standing, 'margin' | 'toward'> {
  const [a, b = a] = polygon;
  if (!a || !b) return { margin: 0, toward: 'forward' };
  const along: Point = [b[0] - a[0], b[1] - a[1]];
  const off = along[0] * (y - a[1]) - along[1] * (x - a[0]);
  // To the left of the line, seen along it.
  const out: Point = off >= 0 ? [-along[1], along[0]] : [along[1], -along[0]];
  const sideways = Math.abs(out[0]) > Math.abs(out[1]);
  const toward = sideways ? (out[0] > 0 ? 'to the right' : 'to the left') : out[1] < 0 ? 'backward' : 'forward';
  return { margin: -distanceToSegment([x, y], a, b), toward };
}
