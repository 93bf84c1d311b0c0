import { carry, carryDirection, dot } from '../linkage/rigid.js';
import { poseOf } from '../linkage/motion.js';
import { spoken } from '../measure/sentence.js';
import { toDegrees } from '../measure/units.js';
import { stopHolds } from './stop-holds.js';
import type { Check, CheckInput, Verdict } from './finding.js';

/** The weight must fall at least this far inside what touches the table. */
const SAFE_MARGIN = 5;

/** Does the open card stand by itself, what holds it there, and does its stop hold the foot? */
export const stands: Check = (input) => [balance(input), ...dips(input), ...held(input), ...stopHolds(input)];

function balance({ design, resting, standing }: CheckInput): Verdict {
  const { margin, tipAngle, toward } = standing;
  const says = design.base.rest.says;
  const slips = margin > 0 && margin < SAFE_MARGIN;
  return {
    id: 'stands',
    check: 'stands',
    severity: margin <= 0 ? 'fail' : slips ? 'warn' : 'pass',
    value: margin,
    limit: SAFE_MARGIN,
    unit: 'mm',
    at: resting.s,
    panels: [design.base.ground],
    says:
      margin <= 0
        ? `It tips over ${toward} (${says}): ${outside(standing)}.`
        : `It stands (${says}): its weight falls ${spoken(margin)} inside what touches the table, and it tips ${toward} only when leaned ${toDegrees(tipAngle).toFixed(0)}°. An estimate.`,
  };
}

function outside({ margin, polygon }: CheckInput['standing']): string {
  const what = polygon.length < 3 ? 'it touches the table along a line only' : 'its weight falls';
  if (-margin < SEEN) return polygon.length < 3 ? what : `${what} on the very edge of what touches the table`;
  return polygon.length < 3
    ? `${what}, and its weight falls ${spoken(-margin)} off it`
    : `${what} ${spoken(-margin)} outside what touches the table`;
}

/** Less than this is not told in mm. */
const SEEN = 0.05;
/** A ground that leans by more than this (as a cosine) does not lie on the table. */
const LIES = 0.999;

/** A card of which a panel lies on the table may have nothing below it. */
function dips({ design, motion, resting }: CheckInput): Verdict[] {
  const { up, onTable = design.base.ground } = design.base.rest;
  const pose = poseOf(motion, resting);
  const ground = pose[design.linkage.bodyOf.get(onTable)!]!;
  if (Math.abs(dot(carryDirection(ground, 0, 0, 1), up)) < LIES) return [];
  const table = dot(carry(ground, 0, 0, 0), up);
  const below = design.panels
    .map((panel, body) => ({ panel, by: table - Math.min(...panel.area.outer.map(([x, y]) => dot(carry(pose[body]!, x, y, 0), up))) }))
    .reduce((lowest, found) => (found.by > lowest.by ? found : lowest));
  if (below.by <= TABLE_PLAY) return [];
  return [
    {
      id: 'stands/table',
      check: 'stands',
      severity: 'fail',
      value: below.by,
      limit: TABLE_PLAY,
      unit: 'mm',
      panels: [below.panel.id],
      at: resting.s,
      says: `Put down (${design.base.rest.says}), ${below.panel.name} would reach ${spoken(below.by)} below the table.`,
    },
  ];
}

/** Paper gives so much where it touches the table. */
const TABLE_PLAY = 0.5;

/** Poses that only creases or friction hold are said: they sag with time and weight. */
function held({ design, resting }: CheckInput): Verdict[] {
  const { heldBy } = design.base.rest;
  return heldBy ? [{ id: `stands/held-by-${heldBy.by}`, check: 'stands', severity: 'warn', at: resting.s, says: heldBy.says }] : [];
}
