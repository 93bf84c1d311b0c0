import { carry, dot, minus, type Vec3 } from '../linkage/rigid.js';
import { poseOf } from '../linkage/motion.js';
import { plainMm } from '../measure/print.js';
import { toDegrees } from '../measure/units.js';
import { areaOf, centroid, convexHull, loopContains } from '../plane/outline.js';
import { distanceToSegment, type Point } from '../plane/point.js';
import { STOP_CALIPERS } from '../supplies/limits.js';
import { weightPerArea } from './weight.js';
import type { Check, CheckInput, Finding } from './finding.js';

/** The weight must fall at least this far inside what touches the table. */
const SAFE_MARGIN = 5;
/** Points this close to the lowest one touch the table too. */
const CONTACT = 0.3;

/** Does the open card stand by itself, and does its stop hold the foot? */
export const stands: Check = (input) => [balance(input), ...stopHolds(input)];

function balance({ design, motion, resting }: CheckInput): Finding {
  const pose = poseOf(motion, resting);
  const up: Vec3 = design.base.rest.up;
  const aside: [Vec3, Vec3] = tableAxes(up);
  let weight = 0;
  let centre: Vec3 = [0, 0, 0];
  let lowest = Infinity;
  const corners: Vec3[] = [];
  design.panels.forEach((panel, body) => {
    const share = areaOf(panel.area) * weightPerArea(design, panel.piece);
    const [cx, cy] = centroid(panel.area);
    const c = carry(pose[body]!, cx, cy, 0);
    weight += share;
    centre = [centre[0] + c[0] * share, centre[1] + c[1] * share, centre[2] + c[2] * share];
    for (const [x, y] of panel.area.outer) {
      const p = carry(pose[body]!, x, y, 0);
      corners.push(p);
      lowest = Math.min(lowest, dot(p, up));
    }
  });
  centre = [centre[0] / weight, centre[1] / weight, centre[2] / weight];
  const onTable = (p: Vec3): Point => [dot(p, aside[0]), dot(p, aside[1])];
  const hull = convexHull(corners.filter((p) => dot(p, up) < lowest + CONTACT).map(onTable));
  const foot = onTable(centre);
  const reach = hull.length < 3 ? 0 : Math.min(...hull.map((p, i) => distanceToSegment(foot, p, hull[(i + 1) % hull.length]!)));
  const margin = hull.length >= 3 && loopContains(hull, foot) ? reach : -reach;
  const height = dot(minus(centre, [0, 0, 0]), up) - lowest;
  const tips = toDegrees(Math.atan2(margin, Math.max(height, 0.1)));
  const says = design.base.rest.says;
  return {
    id: 'stands',
    check: 'stands',
    severity: margin <= 0 ? 'fail' : margin < SAFE_MARGIN ? 'warn' : 'pass',
    value: margin,
    limit: SAFE_MARGIN,
    unit: 'mm',
    at: resting.s,
    panels: [design.base.ground],
    says:
      margin <= 0
        ? `It tips over (${says}): its weight falls ${plainMm(-margin)} outside what touches the table.`
        : `It stands (${says}): its weight falls ${plainMm(margin)} inside what touches the table, and it tips only when leaned ${tips.toFixed(0)}°. Held by its own weight; an estimate.`,
  };
}

/** Two directions of the table for a given up. */
function tableAxes(up: Vec3): [Vec3, Vec3] {
  return Math.abs(up[2]) > 0.5
    ? [
        [1, 0, 0],
        [0, 1, 0],
      ]
    : [
        [1, 0, 0],
        [0, 0, 1],
      ];
}

function stopHolds({ design }: CheckInput): Finding[] {
  const stop = design.base.rest.stop;
  if (!stop) return [];
  const least = STOP_CALIPERS * stop.footThickness;
  const ok = stop.height >= least - 1e-9;
  return [
    {
      id: 'stands/stop',
      check: 'stands',
      severity: stop.height <= stop.footThickness ? 'fail' : ok ? 'pass' : 'warn',
      value: stop.height,
      limit: least,
      unit: 'mm',
      panels: [stop.foot],
      at: 1,
      says: ok
        ? `The stop is ${plainMm(stop.height)} high and holds the foot, which is ${plainMm(stop.footThickness)} thick.`
        : `The stop is ${plainMm(stop.height)} high; the foot is ${plainMm(stop.footThickness)} thick and slips over a stop lower than ${plainMm(least)}.`,
      ...(!ok && {
        fix: {
          says: `Raise the stop to ${plainMm(Math.ceil(least * 2) / 2)}.`,
          changes: [{ owner: 'base', size: 'stopHeight', value: Math.ceil(least * 2) / 2 }],
        },
      }),
    },
  ];
}
